"""Each check: a session in which it fires, with its place, and one in which it does not."""

from __future__ import annotations

import copy
import json
from pathlib import Path
from typing import Any

import pytest
from pydantic import TypeAdapter

from finetally.core.checks.table import CHECKS
from finetally.core.edits.edit import Edit, apply_edits
from finetally.core.methods.given import Given, PersonGiven
from finetally.core.methods.value import Methods
from finetally.core.session.ids import with_ids
from tests.conftest import REPOSITORY
from tests.core.helpers import figured, session, step

EDITS: TypeAdapter[list[Edit]] = TypeAdapter(list[Edit])


def block(kind: str, *steps: dict[str, Any], more: dict[str, Any] | None = None, **clock: Any) -> dict[str, Any]:
    return {"clock": {"kind": kind, **clock}, "steps": list(steps), **(more or {})}


def windows(*keys: str, rest: float = 20, more: dict[str, Any] | None = None, **clock: Any) -> dict[str, Any]:
    made = {"work_s": 30, "rest_s": rest, **clock}
    return block("intervals", *[step(key) for key in keys], more=more, **made)


WARM = windows("air-squat", "knee-push-up", "hip-hinge", more={"part": "warm-up"})
COOL = windows("quad-stretch", more={"part": "cool-down"})


def stations(capacity: int, **more: Any) -> dict[str, Any]:
    places = [{"name": n, "capacity": capacity, "steps": [step("push-up", reps=5)]} for n in ("mat", "bar")]
    return session(
        {"clock": {"kind": "rotation", "inner": {"kind": "amrap", "window_s": 60}, "stations": places}}, **more
    )


def many(key: str, reps: int, **more: Any) -> dict[str, Any]:
    return session(block("task", step(key, reps=reps, **more)))


TABLE: list[tuple[str, dict[str, Any], str, dict[str, Any]]] = [
    # code, a session in which it fires, where, and one in which it does not
    ("session-too-long", session(windows("burpee", rest=0, work_s=2161, more={"rounds": 5})), "blocks[0]",
     session(windows("burpee", rest=0, work_s=2160, more={"rounds": 5}))),
    ("session-too-short", session(windows("burpee", rest=0, work_s=19)), "blocks", session(windows("burpee", rest=0, work_s=20))),
    ("rounds-unlikely", session(block("task", step("barbell-deadlift", reps=5), more={"rounds": 31})), "blocks[0].rounds",
     session(block("task", step("air-squat", reps=5), more={"rounds": 31}))),
    ("set-unlikely", many("swing", 61, load={"kg": 16}), "blocks[0].steps[0].reps", many("swing", 60, load={"kg": 16})),
    ("load-unlikely", many("swing", 5, load={"kg": 1001}), "blocks[0].steps[0].load", many("swing", 5, load={"kg": 500, "count": 2})),
    ("announced-differs", session(windows("burpee", more={"rounds": 20}), announced_s=600), "announced_s",
     session(windows("burpee", more={"rounds": 20}))),
    ("slot-overflow", session(block("every", step("burpee", reps=20), period_s=60)), "blocks[0].clock.period_s",
     session(block("every", step("burpee", reps=10), period_s=60))),
    ("dose-over-window", session(block("intervals", step("burpee", reps=10), work_s=30)), "blocks[0].steps[0].reps",
     session(block("intervals", step("burpee", reps=7), work_s=30))),
    ("filler-late", session(block("every", step("burpee", reps=12, chain=True), step("march", fill=True), period_s=60, work_until_s=45)),
     "blocks[0].steps[1].fill",
     session(block("every", step("burpee", reps=5, chain=True), step("march", fill=True), period_s=60, work_until_s=45))),
    ("dose-falls-away", session(block("task", step("push-up", reps=5, grow=-2), step("burpee", reps=3), more={"rounds": 4})),
     "blocks[0].steps[0].grow",
     session(block("task", step("push-up", reps=9, grow=-2), step("burpee", reps=3), more={"rounds": 4}))),
    ("rest-not-taken", session(windows("burpee", more={"rest_after_s": 60})), "blocks[0].rest_after_s",
     session(windows("burpee", more={"rest_after_s": 60}), windows("swing"))),
    ("score-from-nowhere", session(block("task", step("burpee", reps={"from": {"block": "gone", "take": "reps"}, "plan": 5}))),
     "blocks[0].steps[0].reps",
     session({**block("amrap", step("swing", reps=5), window_s=60), "id": "first"},
             block("task", step("burpee", reps={"from": {"block": "first", "take": "reps"}, "plan": 5})))),
    ("cap-unlikely", session(block("task", step("burpee", reps=50), cap_s=120)), "blocks[0].clock.cap_s",
     session(block("task", step("burpee", reps=20), cap_s=120))),
    ("change-eats-rest", session(windows("push-up", "swing", rest=5)), "blocks[0]", session(windows("push-up", "swing", rest=30))),
    ("rest-missing", session(windows("burpee"), windows("swing")), "blocks[0].rest_after_s",
     session(windows("burpee", more={"rest_after_s": 30}), windows("swing"))),
    ("long-dense", session(windows("burpee", rest=2, more={"rounds": 30})), "blocks[0]",
     session(windows("burpee", rest=15, more={"rounds": 30}))),
    ("uneven-sides", session(windows("one-arm-press", more={"rounds": 3}) | {"steps": [step("one-arm-press", sides="swap")]}),
     "blocks[0].steps[0].sides", session(windows("one-arm-press", more={"rounds": 4}) | {"steps": [step("one-arm-press", sides="swap")]})),
    ("same-pattern-run", session(windows("push-up", "close-push-up", rest=5)), "blocks[0].steps[1]",
     session(windows("push-up", "close-push-up", rest=20))),
    ("unrehearsed", session(WARM, windows("squat-jump")), "blocks[1].steps[0]", session(WARM, windows("push-up"))),
    ("no-warm-up", session(windows("burpee"), COOL), "blocks", session(WARM, windows("burpee"))),
    ("no-cool-down", session(windows("burpee")), "blocks", session(windows("burpee"), stands_alone=True)),
    ("cool-down-misses", session(windows("bent-row"), COOL), "blocks", session(windows("air-squat"), COOL)),
    ("landings-high", many("squat-jump", 101), "blocks", many("squat-jump", 100)),
    ("skill-when-tired", session(windows("burpee", "overhead-squat", rest=0, more={"rounds": 6, "effort": "all-out"})),
     "blocks[0].steps[1]", session(windows("overhead-squat", "burpee", rest=60))),
    ("named-otherwise", session(windows("burpee", more={"title": "Tabata", "rounds": 8})), "blocks[0].title",
     session(block("intervals", step("burpee"), work_s=20, rest_s=10, more={"title": "Tabata", "rounds": 8, "group": 1}))),
    ("rep-rule-unclear", many("step-back-lunge", 10), "blocks[0].steps[0].sides", many("step-back-lunge", 10, sides="each")),
    ("kit-short", session(block("task", step("swing", reps=5, load={"kg": 16})), people=5), "blocks[0].steps[0]",
     session(block("task", step("swing", reps=5, load={"kg": 16})), people=4)),
    ("station-full", stations(3, people=8), "blocks[0].clock.stations[0]", stations(4, people=8)),
    ("space-short", session(windows("burpee"), people=14, space_m=[6, 8]), "space_m",
     session(windows("burpee"), people=12, space_m=[6, 8])),
    ("not-judged", many("swing", 5, load={"kg": 16}), "blocks[0].steps[0].load", many("swing", 5, load={"kg": 16}, reserve=3)),
]  # fmt: skip

GIVEN = Given(kit={"kettlebell": 4})


def found(document: dict[str, Any], methods: Methods | None = None) -> dict[str, Any]:
    checks = figured(document, methods or Methods(), GIVEN)["checks"]
    return {one["code"]: one for one in reversed(checks)}


@pytest.mark.parametrize(("code", "document", "path", "quiet"), TABLE, ids=[row[0] for row in TABLE])
def test_fires_where_it_should_and_only_there(
    code: str, document: dict[str, Any], path: str, quiet: dict[str, Any]
) -> None:
    told = found(document)
    assert code in told
    assert told[code]["path"] == path
    assert "{" not in told[code]["text"]
    assert code not in found(quiet)


def test_every_check_stands_in_the_table() -> None:
    assert {one.code for one in CHECKS} == {row[0] for row in TABLE}


MENDED = [row for row in TABLE if row[0] in {
    "announced-differs", "slot-overflow", "rest-missing", "uneven-sides", "no-warm-up", "no-cool-down",
    "named-otherwise", "rep-rule-unclear"}]  # fmt: skip


@pytest.mark.parametrize(("code", "document"), [row[:2] for row in MENDED], ids=[row[0] for row in MENDED])
def test_a_mend_clears_its_check(code: str, document: dict[str, Any]) -> None:
    document = with_ids(document)
    mend = found(document)[code]["mend"]
    assert mend is not None
    mended, _ = apply_edits(document, EDITS.validate_python(mend["edits"]))
    left = found(mended).get(code)
    assert left is None or left["severity"] == "note"


ONCE = [
    session(block("task", step("burpee", reps=5), round_rest_s=60)),
    session(windows("burpee", more={"rest_between_repeats_s": 60})),
    session({"section": "twice", "times": 1, "rest_between_s": 30, "blocks": [windows("burpee")]}),
]


@pytest.mark.parametrize("document", ONCE, ids=range(len(ONCE)))
def test_a_rest_between_what_is_done_once_is_never_taken(document: dict[str, Any]) -> None:
    assert "rest-not-taken" in found(document)


def test_under_the_length_told_is_a_quiet_word_on_the_slack() -> None:
    one = found(session(windows("burpee", more={"rounds": 10}), announced_s=1200))["announced-differs"]
    assert one["severity"] == "note"
    assert "slack" in one["text"]


def test_accepted_in_the_block_or_muted_for_the_squad() -> None:
    document = many("step-back-lunge", 10)
    accepted = copy.deepcopy(document)
    accepted["blocks"][0]["on_purpose"] = ["rep-rule-unclear"]
    assert found(document)["rep-rule-unclear"]["accepted"] is False
    assert found(accepted)["rep-rule-unclear"]["accepted"] is True
    assert "rep-rule-unclear" not in found(document, Methods(muted_checks=["rep-rule-unclear"]))


def lines(document: dict[str, Any], code: str, given: Given | None = None) -> list[Any]:
    return [one for one in figured(document, Methods(), given or GIVEN)["checks"] if one["code"] == code]


BURPEES = [step("burpee", reps=30), step("air-squat", reps=20)]
CAPPED = {
    "once": block("task", *BURPEES, cap_s=120),
    "there and back": block("task", *BURPEES, cap_s=120, more={"repeat": 2, "mirror": True}),
    "three times": block("task", *BURPEES, cap_s=120, more={"repeat": 3, "rest_between_repeats_s": 30}),
    "two passes": {"section": "twice", "times": 2, "blocks": [block("task", *BURPEES, cap_s=120)]},
}


@pytest.mark.parametrize("name", CAPPED)
def test_a_cap_tells_the_pace_that_just_meets_it(name: str) -> None:
    document = session(CAPPED[name])

    def told(pace: float) -> list[Any]:
        return lines(document, "cap-unlikely", given=Given(person=PersonGiven(pace_factor=pace)))

    [one] = told(1.0)
    # Two thirds of the time a rep is half as fast again, not a third.
    faster, pace = f"{1 / one['number'] - 1:.0%}", f"{one['number']:.0%}"
    assert one["text"].endswith(f"it would take {faster} more speed ({pace} of the planned time a rep).")
    assert told(one["number"]) == []
    assert told(one["number"] * 1.03) != []


def test_a_cap_that_rests_alone_go_over_says_that_no_pace_meets_it() -> None:
    rests = block("task", step("burpee", reps=2), cap_s=60, round_rest_s=50, more={"rounds": 3})
    [one] = lines(session(rests), "cap-unlikely")
    assert one["text"].endswith(
        "not done by the cap of 1:00; no pace would do it: what is not work takes too long."
    )


def test_equal_seconds_are_even_sides_though_one_tires() -> None:
    held = session(block("intervals", step("one-arm-press", sides="swap"), work_s=60, rest_s=0, more={"rounds": 6}))
    assert lines(held, "uneven-sides") == []
    counted = session(block("task", step("one-arm-press", sides="swap", reps=10), more={"rounds": 3}))
    assert lines(counted, "uneven-sides") != []


def test_rest_that_is_prescribed_is_told_as_such() -> None:
    [with_rest] = lines(session(windows("burpee", rest=2, more={"rounds": 30})), "long-dense")
    assert with_rest["text"].endswith("of rest in it.")
    [without] = lines(session(windows("burpee", rest=0, more={"rounds": 35})), "long-dense")
    assert without["text"].endswith("no rest is prescribed in it.")


@pytest.mark.parametrize(
    ("told", "says"),
    [
        ({"low": 500, "high": 1000}, None),
        ({"low": 300, "high": 600}, "over"),
        ({"low": 1200, "high": 1500}, "slack"),
    ],
)
def test_a_length_told_as_a_range_is_held_against_its_ends(told: Any, says: str | None) -> None:
    found = lines(session(windows("burpee", more={"rounds": 20}), announced_s=told), "announced-differs")
    assert [one["fields"]["by"].split()[-1] for one in found] == ([says] if says else [])
    if found:
        assert " to " in str(found[0]["fields"]["told"])


def test_from_an_hour_on_a_length_is_told_in_hours_and_the_mend_tells_what_it_sets() -> None:
    long = session(windows("burpee", more={"rounds": 133}), announced_s=3600)
    [one] = lines(long, "announced-differs")
    assert one["fields"]["told"] == "1:00:00"
    assert str(one["fields"]["comes_to"]).startswith("1:50:")
    assert one["mend"]["label"] == "tell 1:51:00"
    assert one["mend"]["edits"][0]["value"] == 111 * 60


def test_a_start_that_overflows_by_a_part_of_a_second_is_none() -> None:
    for period, told in ((59.8, 0), (58, 1)):
        fits = figured(session(block("every", step("march", seconds=60), period_s=period)), Methods(), GIVEN)
        assert len([one for one in fits["checks"] if one["code"] == "slot-overflow"]) == told, period


def test_one_line_a_matter_with_its_places() -> None:
    loads = [step(key, reps=5, load={"kg": 16}) for key in ("swing", "goblet-squat", "swing")]
    [one] = lines(session(block("task", *loads)), "not-judged")
    assert one["places"] == [f"blocks[0].steps[{n}].load" for n in range(3)]
    assert one["text"].startswith("swing, goblet squat: ")
    sided = session(block("task", step("step-back-lunge", reps=10), step("mountain-climber", reps=20)))
    [unclear] = lines(sided, "rep-rule-unclear")
    assert len(unclear["places"]) == 2
    after, _ = apply_edits(
        with_ids(sided), EDITS.validate_python(lines(with_ids(sided), "rep-rule-unclear")[0]["mend"]["edits"])
    )
    assert lines(after, "rep-rule-unclear") == []
    presses = session(windows("push-up", "close-push-up", "wide-push-up", rest=0))
    [run] = lines(presses, "same-pattern-run")
    assert (run["severity"], len(run["places"])) == ("look", 2)
    assert run["text"].endswith("so does 1 more pair.")


def test_a_shared_joint_alone_is_a_note() -> None:
    [one] = lines(session(windows("air-squat", "step-back-lunge", rest=0)), "same-pattern-run")
    assert (one["severity"], one["fields"]["shared"]) == ("note", "knee")


def test_a_second_of_changing_is_not_worth_a_word() -> None:
    assert lines(session(windows("march", "air-squat", rest=0)), "change-eats-rest") == []
    assert lines(session(windows("push-up", "swing", rest=0)), "change-eats-rest") != []


def test_a_squads_own_stretch_counts_by_what_it_relieves() -> None:
    own = {"key": "barn-door", "name": "barn door", "patterns": {"mobility": 1.0}, "met": 2.3}
    cool = {**block("intervals", step("barn-door"), work_s=60), "part": "cool-down"}
    plain = session(windows("bent-row"), cool)
    assert lines({**plain, "movements": [own]}, "cool-down-misses") != []
    relieving = {**own, "relieves": ["pull-level"]}
    assert lines({**plain, "movements": [relieving]}, "cool-down-misses") == []


def test_the_weightiest_stand_first() -> None:
    document = session(windows("burpee"), block("every", step("burpee", reps=20), period_s=60), announced_s=3600)
    severities = [one["severity"] for one in figured(document, Methods(), GIVEN)["checks"]]
    assert severities[0] == "stop"
    assert severities == sorted(severities, key=["stop", "look", "note"].index)


DEMO = sorted((REPOSITORY / "src/finetally/data/demo").glob("*.json"))


@pytest.mark.parametrize("path", DEMO, ids=lambda one: one.stem)
def test_an_ordinary_session_asks_for_a_few_looks_at_most(path: Path) -> None:
    checks = figured(json.loads(path.read_text("utf-8")), Methods(), Given())["checks"]
    assert sum(one["severity"] != "note" for one in checks) <= 4
    assert len(checks) <= 8


@pytest.mark.parametrize(
    ("document", "code", "text"),
    [
        (session(block("task", step("barbell-deadlift", reps=5), more={"rounds": 225})), "rounds-unlikely",
         "225 rounds of barbell deadlift: is 225 a load?"),
        (session(block("task", step("barbell-deadlift", reps=5), more={"rounds": 35})), "rounds-unlikely",
         "35 rounds of barbell deadlift: is 35 a number of repetitions?"),
        (session(windows("burpee", rest=0, work_s=2700, more={"rounds": 5})), "session-too-long",
         "The session takes 3:45:00, 3:45:00 of it main block 1: is that the time of all 5 rounds, and not of each?"),
    ],
    ids=["a-load", "repetitions", "the-time-of-all"],
)  # fmt: skip
def test_an_unlikely_number_is_asked_about(document: dict[str, Any], code: str, text: str) -> None:
    assert found(document)[code]["text"] == text
