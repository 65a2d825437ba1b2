"""What holds for every session."""

from __future__ import annotations

import copy
import functools
import json
from collections.abc import Callable
from typing import Any

import pytest
from hypothesis import HealthCheck, given, reject, settings

from finetally.core.figures import figures, printed
from finetally.core.methods.given import Given
from finetally.core.methods.value import Methods
from finetally.core.session.ids import with_ids, without_ids
from finetally.core.session.parts import as_written
from finetally.core.session.problems import DocumentError
from finetally.core.session.reading import parse_session, read_session
from finetally.core.tally.exits import exits_of
from finetally.core.tally.explain.explain import explain_tally
from finetally.core.tally.explain.node import UnknownFigureError, evaluate
from finetally.core.tally.measure import measured, tally
from finetally.core.tally.spread import numbers_of
from finetally.core.unfold.unfold import blocks_of, unfold
from finetally.shipped import shipped_library
from tests.core.helpers import BARE, figured, session, step
from tests.core.strategies import documents, has_lists

LIBRARY = shipped_library()
some = settings(max_examples=60, deadline=None, suppress_health_check=[HealthCheck.too_slow])
few = settings(max_examples=20, deadline=None, suppress_health_check=[HealthCheck.too_slow])


def within_limits(test: Callable[[dict[str, Any]], None]) -> Callable[[dict[str, Any]], None]:
    """Leave out documents that ask for more than the limits: that they are refused is tested elsewhere."""

    @functools.wraps(test)
    def tested(document: dict[str, Any]) -> None:
        try:
            test(document)
        except DocumentError as error:
            if {one.code for one in error.problems} != {"too_many"}:
                raise
            reject()

    return tested


TIMES = ("total_s", "work_s", "rest_s", "change_s", "talk_s")


@some
@given(documents())
@within_limits
def test_blocks_and_parts_add_up_to_the_session(document: dict[str, Any]) -> None:
    made = figures(parse_session(document), library=LIBRARY)
    for name in TIMES:
        assert sum(b[name] for b in made["blocks"]) == pytest.approx(made[name])  # type: ignore[literal-required]
        assert sum(p[name] for p in made["parts"].values()) == pytest.approx(made[name])  # type: ignore[literal-required]


@some
@given(documents())
@within_limits
def test_the_kinds_of_time_add_up(document: dict[str, Any]) -> None:
    made = figures(parse_session(document), library=LIBRARY)
    for one in (made, made["headline"], *made["blocks"]):
        kinds = one["work_s"] + one["rest_s"] + one["change_s"] + one["talk_s"]
        assert kinds == pytest.approx(one["total_s"])


@some
@given(documents())
@within_limits
def test_the_tape_has_no_gaps_no_negative_time_and_unique_addresses(document: dict[str, Any]) -> None:
    tape = unfold(parse_session(document), library=LIBRARY)
    now = 0.0
    for segment in tape.segments:
        assert segment.start == pytest.approx(now, abs=1e-6)
        assert segment.seconds > 0
        now = segment.start + segment.seconds
    assert tape.total_s == pytest.approx(now, abs=1e-6)
    addresses = [segment.at for segment in tape.segments]
    assert len(set(addresses)) == len(addresses)


@some
@given(documents())
@within_limits
def test_reading_what_was_written_changes_nothing(document: dict[str, Any]) -> None:
    raw, session = read_session(json.dumps(document))
    assert raw == document
    assert as_written(session) == document
    again = parse_session(as_written(session))
    assert printed(figures(again, library=LIBRARY)) == printed(figures(session, library=LIBRARY))


@some
@given(documents())
@within_limits
def test_ids_play_no_part_in_figures(document: dict[str, Any]) -> None:
    named = with_ids(document)
    assert without_ids(named) == document
    with_, without = (figures(parse_session(d), library=LIBRARY) for d in (named, document))
    assert with_["total_s"] == without["total_s"]
    assert with_["effort"]["load"] == without["effort"]["load"]


@few
@given(documents())
@within_limits
def test_doubling_rounds_never_shortens(document: dict[str, Any]) -> None:
    longer = copy.deepcopy(document)
    for entry in longer["blocks"]:
        for block in entry.get("blocks", [entry]):
            # Lists have a value for each round: they are as long as they are.
            if isinstance(block.get("rounds", 1), int) and not has_lists(block):
                block["rounds"] = block.get("rounds", 1) * 2
    short, long = (unfold(parse_session(d), library=LIBRARY, methods=BARE) for d in (document, longer))
    assert long.total_s >= short.total_s - 1e-6


@few
@given(documents())
@within_limits
def test_mirroring_keeps_the_time(document: dict[str, Any]) -> None:
    straight, mirrored = copy.deepcopy(document), copy.deepcopy(document)
    for made, mirror in ((straight, False), (mirrored, True)):
        for entry in made["blocks"]:
            for block in entry.get("blocks", [entry]):
                block["mirror"] = mirror
                # A cap cuts whatever comes last and a pulse stops at other places: neither keeps the time. A closing
                # rest is that of the window that comes last, another one each way.
                for key in ("cap_s", "then", "pulse", "closing_rest"):
                    block["clock"].pop(key, None)
    first, second = (unfold(parse_session(d), library=LIBRARY, methods=BARE) for d in (straight, mirrored))
    assert second.total_s == pytest.approx(first.total_s)


@few
@given(documents())
@within_limits
def test_every_explanation_evaluates_to_its_value(document: dict[str, Any]) -> None:
    session = parse_session(document)
    t = tally(session, library=LIBRARY)
    exits = exits_of(t)
    values = numbers_of({**measured(t), "exits": exits})
    asked: set[str] = set()
    todo = list(values)
    while todo:
        figure = todo.pop()
        if figure in asked:
            continue
        asked.add(figure)
        try:
            opened = explain_tally(t, figure)
        except UnknownFigureError:
            # Shares of nothing, and names that are numbers: there is no arithmetic to show.
            assert figure.rpartition(".")[2] in ("id", "before") or values[figure] == 0, figure
            continue
        assert evaluate(opened, t.methods.effort_scale) == pytest.approx(opened["value"], abs=1e-6), figure
        if figure in values:
            assert opened["value"] == pytest.approx(values[figure], abs=1e-6), figure
        todo.extend(term["figure"] for term in opened["terms"] if "figure" in term)


@few
@given(documents())
@within_limits
def test_an_exit_is_the_session_ended_there(document: dict[str, Any]) -> None:
    """Exits go on from the plan's own tape; laying the cut session out anew gives the same."""
    session = parse_session(with_ids(document))
    first = blocks_of(session)[0].ident if session.blocks else None
    for cut in exits_of(tally(session, library=LIBRARY)):
        if cut["before"] == first:
            # The first block can only be left at its second pass, which `until` does not name.
            continue
        anew = tally(session, library=LIBRARY, given=Given(until=str(cut["before"])))
        assert cut["load"] == pytest.approx(anew.load, abs=1e-9)
        for name, value in anew.whole.figures(anew.methods).items():
            assert cut[name] == pytest.approx(value, abs=1e-9), name  # type: ignore[literal-required]


@few
@given(documents())
@within_limits
def test_spread_holds_the_plan(document: dict[str, Any]) -> None:
    made = figures(parse_session(document), library=LIBRARY, methods=Methods())
    for name, ends in made["spread"].items():
        assert ends["low"] <= ends["high"], name
    if made["spread"]:
        assert made["spread"]["total_s"]["low"] <= made["total_s"] <= made["spread"]["total_s"]["high"]


def test_a_set_is_one_visit_of_a_row_also_with_two_patterns_of_it() -> None:
    library = shipped_library()
    both = next(
        key
        for key, one in library.items()
        if one.patterns.get("push-level", 0) > 0 and one.patterns.get("push-overhead", 0) > 0
    )
    document = session({"clock": {"kind": "task"}, "rounds": 3, "steps": [step(both, reps=5)]})
    assert figured(document)["balance"]["rows"]["push"]["visits"] == 3
