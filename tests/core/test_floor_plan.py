"""What a coach may change while a session runs: the minutes left, rounds, movements, stations for who is here."""

from __future__ import annotations

import json
from typing import Any

import pytest
from hypothesis import given
from hypothesis import strategies as st

from finetally.core.edits.edit import EDIT_LIST, apply_edits
from finetally.core.floor.document import Run, read_run
from finetally.core.floor.replan.changes import added_after, changes_now
from finetally.core.floor.replan.short_of_time import ways_to_end
from finetally.core.floor.replan.stations import group_sizes, stations_for
from finetally.core.floor.replay import replay
from finetally.core.floor.sheet import sheet
from finetally.core.floor.splits import planned_rounds
from finetally.core.methods.given import Given
from finetally.core.session.problems import DocumentError
from finetally.core.session.reading import parse_session
from finetally.shipped import shipped_library
from tests.conftest import CASES

LIBRARY = shipped_library()


def block(ident: str, rounds: Any, **more: Any) -> dict[str, Any]:
    """Rounds of 30 s of work and 30 s of rest: a minute each, the last without its rest."""
    clock = {"kind": "intervals", "work_s": 30, "rest_s": 30}
    return {
        "id": ident,
        "title": ident,
        "clock": clock,
        "rounds": rounds,
        "steps": [{"movement": "burpee"}],
        **more,
    }


SESSION: dict[str, Any] = {
    "fine_tally": 1,
    "title": "Three",
    "blocks": [block("first", 4), block("second", 4), block("third", 4, optional="skip")],
}
START = {"t": 0, "do": "start"}


def run(*events: dict[str, Any], session: dict[str, Any] = SESSION, until: float | None = None) -> Run:
    return read_run({"fine_tally_run": 1, "session": session, "events": [START, *events], "until": until})


def seconds_to_go(of: Run, *events: dict[str, Any]) -> float:
    """Seconds of what is left of a run once these came, nobody doing anything and nothing waited for."""
    told = [*of.model_dump(mode="json", by_alias=True, exclude_unset=True)["events"], *events]
    played = replay(
        read_run(
            {
                "fine_tally_run": 1,
                "session": of.session,
                "hold": "never",
                "events": [*told],
                "until": 20_000,
            }
        ),
        library=LIBRARY,
    )
    return played.played[-1].end - (of.until or 0)


def test_minutes_left_touch_only_what_has_not_begun() -> None:
    of = run(until=60)
    whole = seconds_to_go(of)
    ways = ways_to_end(of, whole - 120, library=LIBRARY)
    assert ways
    for way in ways:
        change = {"t": 60, "do": "change", "edits": way["edits"]}
        assert seconds_to_go(of, change) == pytest.approx(way["timetable_s"])
        assert way["timetable_s"] <= whole - 120
        session = apply_edits(SESSION, EDIT_LIST.validate_python(way["edits"]))[0]
        assert session["blocks"][0] == SESSION["blocks"][0]  # type: ignore[index]


def test_where_what_has_begun_takes_longer_there_is_no_way() -> None:
    assert ways_to_end(run(until=10), 100, library=LIBRARY) == []


def test_with_room_left_the_ways_fill_it() -> None:
    of = run(until=60)
    ways = ways_to_end(of, seconds_to_go(of) + 130, library=LIBRARY)
    assert {way["kind"] for way in ways} <= {"rounds", "window", "rests"}
    assert max(way["timetable_s"] for way in ways) > seconds_to_go(of)


def test_minutes_left_know_what_was_changed_and_skipped_before() -> None:
    less = {"t": 5, "do": "change", "edits": [{"op": "set", "path": ["second", "rounds"], "value": 2}]}
    of = run(less, {"t": 6, "do": "skip"}, until=400)
    ways = ways_to_end(of, 200, library=LIBRARY)
    assert any(way["what"].startswith("leave out third") for way in ways)
    for way in ways:
        changed = apply_edits(
            apply_edits(SESSION, EDIT_LIST.validate_python(less["edits"]))[0],
            EDIT_LIST.validate_python(way["edits"]),
        )[0]
        assert changed["blocks"][1]["rounds"] <= 2  # type: ignore[index,call-overload]


def test_what_may_be_changed_is_of_blocks_that_are_not_done() -> None:
    offers = changes_now(run(until=30), library=LIBRARY)
    assert {one["block"] for one in offers if one["kind"] == "leave-out"} == {1, 2}
    assert {one["block"] for one in offers if one["kind"] == "rounds-more"} == {0, 1, 2}
    over = run({"t": 30, "do": "stop"}, until=40)
    assert changes_now(over, library=LIBRARY) == []


def test_a_change_that_is_offered_can_be_made_and_does_what_it_says() -> None:
    of = run(until=30)
    whole = seconds_to_go(of)
    for offer in changes_now(of, library=LIBRARY):
        to_go = seconds_to_go(of, {"t": 30, "do": "change", "edits": offer["edits"]})
        by = {"rounds-more": 60, "rounds-fewer": -60, "leave-out": -210}.get(offer["kind"], 0)
        assert to_go == pytest.approx(whole + by), offer


def test_options_and_neighbours_of_a_movement_are_offered_for_all() -> None:
    options = [
        {"label": "half", "dose_factor": 0.5},
        {"label": "step", "movement": "walk"},
        {"label": "odd", "dose_factor": 0.5, "reps": [5, 4]},
    ]
    task = {"kind": "task", "cap_s": 300}
    steps = [{"movement": "burpee", "reps": 10, "options": options}]
    session = {"fine_tally": 1, "title": "T", "blocks": [block("a", 2), {"id": "b", "clock": task, "steps": steps}]}
    found = {
        one["to"]: one["edits"]
        for one in changes_now(run(session=session, until=1), library=LIBRARY)
        if one["kind"] == "option"
    }
    assert found["half"] == [{"op": "set", "path": ["b", "steps", 0, "reps"], "value": 5}]
    assert found["step"] == [{"op": "set", "path": ["b", "steps", 0, "movement"], "value": "walk"}]
    assert found["odd"][0]["value"] == [5, 4]
    movements = [
        one for one in changes_now(run(session=session, until=1), library=LIBRARY) if one["kind"] == "movement"
    ]
    assert movements
    assert all(one["name"] and one["to"] != one["name"] for one in movements)


def test_a_text_is_added_before_what_has_not_begun() -> None:
    added = {"fine_tally": 1, "title": "More", "blocks": [block("extra", 3)]}
    of = run(until=30)
    edits = added_after(of, added, library=LIBRARY)
    session = apply_edits(SESSION, EDIT_LIST.validate_python(edits))[0]
    assert [one["title"] for one in session["blocks"]] == ["first", "extra", "second", "third"]  # type: ignore[index,call-overload,union-attr]
    with pytest.raises(DocumentError):
        added_after(of, {"fine_tally": 1, "title": "x", "blocks": [{}]}, library=LIBRARY)


def test_what_is_added_gets_ids_of_its_own_and_goes_on_taking_its_own_scores() -> None:
    window = {
        "id": "first",
        "clock": {"kind": "amrap", "window_s": 60},
        "steps": [{"id": "s1", "movement": "burpee", "reps": 5}],
    }
    after = block("r", {"from": {"block": "first", "take": "rounds"}, "plan": 3, "cap": 8})
    added = {"fine_tally": 1, "title": "More", "blocks": [window, after]}
    edits = added_after(run(until=30), added, library=LIBRARY)
    session: Any = apply_edits(SESSION, EDIT_LIST.validate_python(edits))[0]
    parse_session(session)
    first, fresh, follows, *_ = session["blocks"]
    assert (first["id"], follows["id"]) == ("first", "r")
    assert fresh["id"] not in ("first", "second", "third", "r")
    assert follows["rounds"]["from"]["block"] == fresh["id"]


def circuit(stations: int, **more: Any) -> dict[str, Any]:
    """A minute at each station and 20 s to move on."""
    places = [{"name": f"S{n + 1}", "steps": [{"movement": "swing"}], **more} for n in range(stations)]
    inner = {"kind": "intervals", "work_s": 60}
    clock = {"kind": "rotation", "stations": places, "inner": inner, "rotate_s": 20}
    return {"fine_tally": 1, "title": "Circuit", "blocks": [{"clock": clock}]}


@given(people=st.integers(1, 200), stations=st.integers(1, 40))
def test_groups_are_as_even_as_can_be(people: int, stations: int) -> None:
    sizes = group_sizes(people, stations)
    assert sum(sizes) == people
    assert max(sizes) - min(sizes) <= 1


@pytest.mark.parametrize("case", json.loads((CASES / "dealing.json").read_text()))
def test_people_are_dealt_as_the_browser_deals_them(case: dict[str, Any]) -> None:
    assert group_sizes(case["people"], case["stations"]) == case["groups"]


def test_stations_that_hold_all_stand_as_planned() -> None:
    (way,) = stations_for(circuit(4, capacity=3), 12, library=LIBRARY)
    assert (way["kind"], way["groups"], way["fits"], way["edits"]) == ("as-planned", [3, 3, 3, 3], True, [])
    assert way["s"] == 4 * 60 + 3 * 20


def test_too_many_for_their_capacity_get_a_station_twice_or_places_to_wait() -> None:
    planned, twice, wait = stations_for(circuit(4, capacity=3), 14, library=LIBRARY)
    assert not planned["fits"]
    assert (twice["kind"], twice["stations"]) == ("twice", ["S1", "S1 2", "S2", "S3", "S4"])
    assert (wait["kind"], wait["stations"][-1], wait["groups"]) == ("wait", "Wait", [3, 3, 3, 3, 2])
    assert {twice["s"], wait["s"]} == {5 * 60 + 4 * 20}
    for way in (twice, wait):
        session = apply_edits(circuit(4, capacity=3), EDIT_LIST.validate_python(way["edits"]))[0]
        again = stations_for(session, 14, library=LIBRARY)
        assert again[0]["fits"]
        assert session["people"] == 14


def test_kit_is_shared_by_all_stations_so_that_another_one_does_not_help() -> None:
    kit = Given.model_validate({"kit": {"kettlebell": 2}})
    planned, wait = stations_for(circuit(2), 6, library=LIBRARY, given=kit)
    assert not planned["fits"]
    assert (wait["kind"], wait["stations"]) == ("wait", ["S1", "S2", "Wait 1", "Wait 2", "Wait 3", "Wait 4"])
    (enough,) = stations_for(circuit(2), 2, library=LIBRARY, given=kit)
    assert enough["fits"]
    # Far more people than there is kit for: no way that would still be this session.
    assert [one["kind"] for one in stations_for(circuit(2), 60, library=LIBRARY, given=kit)] == ["as-planned"]


def test_fewer_people_than_stations_may_leave_some_out() -> None:
    planned, fewer = stations_for(circuit(4), 3, library=LIBRARY)
    assert planned["groups"] == [1, 1, 1, 0]
    assert (fewer["kind"], fewer["stations"], fewer["s"]) == ("leave-out", ["S1", "S2", "S3"], 3 * 60 + 2 * 20)


def test_nobody_is_no_number_of_people() -> None:
    with pytest.raises(ValueError, match="0 people"):
        stations_for(circuit(4), 0, library=LIBRARY)


def test_what_one_person_scored_changes_nothing_for_all() -> None:
    window = {"id": "w", "clock": {"kind": "amrap", "window_s": 60}, "steps": [{"movement": "burpee", "reps": 5}]}
    after = block("r", {"from": {"block": "w", "take": "rounds"}, "plan": 3, "cap": 8})
    session = {"fine_tally": 1, "title": "S", "blocks": [window, after]}
    score = {"t": 61, "do": "score", "block": 0, "rounds": 5, "reps": 0}
    beats = [
        len(replay(run({**score, **who}, session=session), library=LIBRARY).timer.queue.items)
        for who in ({}, {"person": "ann"})
    ]
    assert beats[0] > beats[1]


def test_where_the_plan_would_be_is_told_of_beats_at_people_s_own_pace() -> None:
    steps = [{"movement": "burpee", "reps": 4}]
    window = {"clock": {"kind": "amrap", "window_s": 90}, "steps": steps}
    document = {"fine_tally": 1, "title": "S", "blocks": [block("a", 2), window]}
    laid = sheet(parse_session(document), library=LIBRARY)
    (planned,) = planned_rounds(laid)
    beat = laid.beats[planned["beat"]]
    assert beat.self_paced
    rounds = [one["rounds"] for run in laid.tape.runs for one in run.scores]
    # The last one may be done as the window ends: nothing is to be told of it then.
    assert rounds[0] - len(planned["done_s"]) in (0, 1)
    assert planned["done_s"] == sorted(planned["done_s"])
    assert 0 < planned["done_s"][0] <= planned["done_s"][-1] <= 90
