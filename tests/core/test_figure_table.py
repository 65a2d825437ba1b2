"""The table of figures is true: each is there, opens to its value, and is named once."""

from __future__ import annotations

import functools
import json
from collections import Counter
from pathlib import Path

import pytest

from finetally.core.compare.rows import value_at
from finetally.core.figures import Figures, figures_and_tally
from finetally.core.session.reading import parse_session
from finetally.core.tally.explain.explain import explain_tally
from finetally.core.tally.explain.node import evaluate
from finetally.core.tally.figure_table import FIGURES, FigureSpec, tally_figures
from finetally.core.tally.measure import Tally
from finetally.shipped import shipped_library
from tests.conftest import REPOSITORY

DEMO = sorted((REPOSITORY / "src/finetally/data/demo").glob("*.json"))
LIBRARY = shipped_library()
OPENS = [one for one in FIGURES if one.figure is not None and one.figure != "landings"]


@functools.cache
def measured(path: Path) -> tuple[Figures, Tally]:
    """A demo session, figured once for all figures."""
    return figures_and_tally(parse_session(json.loads(path.read_text("utf-8"))), library=LIBRARY)


@pytest.mark.parametrize("spec", OPENS, ids=lambda spec: spec.figure)
def test_a_figure_of_the_table_is_published_and_opens_to_its_value(spec: FigureSpec) -> None:
    for path in DEMO:
        made, t = measured(path)
        value = value_at(made, spec.figure or "")
        if value is None:
            # A ratio, a rate or a split without a divisor: the figure is there, and has no value.
            assert spec.unit in ("share", "ratio", "per-min", "split")
            continue
        opened = explain_tally(t, spec.figure or "")
        assert opened["value"] == pytest.approx(value), path.stem
        assert evaluate(opened, t.methods.effort_scale) == pytest.approx(value), path.stem


def test_names_and_places_are_taken_once() -> None:
    keys = Counter(one.key for one in FIGURES if one.key is not None)
    names = Counter(one.figure for one in FIGURES if one.figure is not None)
    places = Counter((one.family, line.order) for one, line in tally_figures())
    assert max(keys.values()) == max(names.values()) == max(places.values()) == 1


def test_what_the_tally_tells_is_a_published_figure() -> None:
    told = tally_figures()
    published = {one.figure for one in FIGURES}
    assert len(told) > 10
    assert all(one.figure is not None for one, _ in told)
    assert {line.unless_same_as for _, line in told} - {None} <= published
