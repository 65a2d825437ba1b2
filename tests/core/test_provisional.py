"""Movements that nobody knows yet stand in every room: compared, fitted, on the card, in the week, explained."""

from __future__ import annotations

import copy
from typing import Any

from finetally.core.card.card import card_of
from finetally.core.compare.fit import fit_to_time
from finetally.core.compare.side_by_side import ComparisonRequest, compare, start_comparison
from finetally.core.figures import figures_and_tally
from finetally.core.session.ids import with_ids
from finetally.core.session.reading import parse_session
from finetally.core.tally.explain.explain import explain
from finetally.core.tally.stave import stave_of, thumbnail_of
from finetally.core.wall.reading import read_wall
from finetally.core.week.alternatives import alternatives_of
from finetally.core.week.planned_load import summary_of
from finetally.shipped import shipped_library

LIBRARY = shipped_library()
WALL = """Thursday, 20 min
3 rounds, 60 s rest
10 gate vaults
12 push ups
15 swings 24 kg
rest 2 min
40 on 20 off x 3
gate vaults
wobble board
"""


def document() -> dict[str, Any]:
    made: dict[str, Any] = with_ids(read_wall(WALL, library=LIBRARY).document)
    return made


def test_the_stave_has_a_row_of_its_own() -> None:
    figures, t = figures_and_tally(parse_session(document()), library=LIBRARY)
    stave = stave_of(t)
    assert [row["name"] for row in stave["rows"]][-1] == "unassigned"
    assert stave["rows"][-1]["work_s"] > 300
    assert stave["work_s"] == round(figures["work_s"], 3)
    kinds = {kind["name"]: kind["provisional"] for kind in stave["kinds"]}
    assert kinds == {"gate vaults": True, "push-up": False, "swing": False, "wobble board": True}
    assert thumbnail_of(t)["rows"] == len(stave["rows"])


def test_the_card_has_the_coachs_words() -> None:
    t = figures_and_tally(parse_session(document()), library=LIBRARY)[1]
    lines = [line.strip() for block in card_of(t)["blocks"] for line in block["lines"]]
    assert lines[0] == "10 gate vaults"
    assert "wobble board" in lines


def test_formats_are_compared_with_it() -> None:
    keys = ["even-intervals", "minute-starts", "rounds-against-the-clock"]
    made = compare(
        start_comparison(ComparisonRequest(document(), [0], hold="work"), library=LIBRARY), keys, library=LIBRARY
    )
    good = [column for column in made["columns"] if column["document"] is not None]
    assert len(good) > 1
    for column in good:
        steps = [step for entry in column["document"]["blocks"] for step in entry["steps"]]
        assert "gate vaults" in {step["movement"] for step in steps}


def test_it_is_fitted_to_a_time_and_has_other_versions_for_the_week() -> None:
    session = document()
    assert fit_to_time(session, 600, library=LIBRARY)
    assert alternatives_of(copy.deepcopy(session), library=LIBRARY)
    t = figures_and_tally(parse_session(session), library=LIBRARY)[1]
    assert summary_of(t).patterns["push-level"] > 0


def test_figures_that_rest_on_it_open() -> None:
    t = figures_and_tally(parse_session(document()), library=LIBRARY)[1]
    for figure in ("work_s", "reps.called", "effort.load", "movements.gate vaults.called"):
        assert explain(parse_session(document()), figure, library=LIBRARY)["value"] is not None
    assert t.tape.provisional == {"gate vaults", "wobble board"}
