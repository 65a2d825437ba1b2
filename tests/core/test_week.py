"""The week: reference weeks worked out by hand, edges of the calendar, clashes, balance, intents."""

from __future__ import annotations

import json
from dataclasses import replace
from datetime import UTC, date, datetime, timedelta
from typing import Any
from zoneinfo import ZoneInfo

import pytest
from hypothesis import given
from hypothesis import strategies as st

from finetally.core.session.reading import parse_session
from finetally.core.tally.measure import tally
from finetally.core.week.balance import Target, week_beams, week_rows
from finetally.core.week.clash import clash_of, clashes
from finetally.core.week.load import AwayPeriod, is_hard, monotony, week_load
from finetally.core.week.placing import WeekContext, free_days, placed
from finetally.core.week.plan import Band, Rules, intended
from finetally.core.week.planned_load import (
    LoadSummary,
    PatternLoad,
    PlannedLoad,
    hours_between,
    other_training,
    summary_of,
)
from finetally.shipped import shipped_library
from tests.conftest import CASES
from tests.core.helpers import session, step

WEEKS = sorted((CASES / "weeks").glob("*.json"))
MONDAY = date(2026, 12, 7)


def planned(
    day: int, load: float = 0.0, key: str = "", starts: datetime | None = None, **summary: Any
) -> PlannedLoad:
    return PlannedLoad(key or f"d{day}", MONDAY + timedelta(days=day), LoadSummary(load=load, **summary), starts)


@pytest.mark.parametrize("path", WEEKS, ids=lambda p: p.stem)
def test_reference_week(path: Any) -> None:
    case = json.loads(path.read_text("utf-8"))
    loads = [*case["history"], *case["week"]]
    first = MONDAY - timedelta(days=len(case["history"]))
    entries = [
        PlannedLoad(str(n), first + timedelta(days=n), LoadSummary(load=load))
        for n, load in enumerate(loads)
        if load
    ]
    made: Any = week_load(entries, MONDAY, history_from=first, hard_effort=7)
    for name, value in case["expect"].items():
        found = made["totals"]["load"] if name == "total" else made[name]["value"]
        assert found == (None if value is None else pytest.approx(value, rel=1e-5, abs=1e-9)), name
    for name, why in case.get("why", {}).items():
        assert why in made[name]["why"], name
        assert made[name]["value"] is None


@given(st.lists(st.integers(0, 900), min_size=7, max_size=7))
def test_monotony_under_two_is_the_whole_number_rule(loads: list[int]) -> None:
    """17·S² < 98·Q, with S the sum and Q the sum of squares, as the leveller states it."""
    value = monotony([float(load) for load in loads])["value"]
    if value is not None and abs(value - 2) > 1e-9:
        assert (value < 2) is (17 * sum(loads) ** 2 < 98 * sum(load * load for load in loads))


def test_a_week_over_years_end_and_over_the_change_of_clocks_has_seven_days() -> None:
    for begins in (date(2026, 12, 28), date(2026, 3, 23), date(2026, 10, 19)):
        entries = [
            PlannedLoad(str(n), begins + timedelta(days=n), LoadSummary(load=100 + n)) for n in range(-7, 14)
        ]
        made = week_load(entries, begins, history_from=None, hard_effort=7)
        assert made["totals"]["load"] == sum(100 + n for n in range(7))
        assert [one["day"] for one in made["days"]][-1] == (begins + timedelta(days=6)).isoformat()


def test_hours_over_the_change_of_clocks_are_the_hours_that_pass() -> None:
    zone = ZoneInfo("Europe/London")
    saturday = PlannedLoad(
        "a", date(2026, 10, 24), LoadSummary(), datetime(2026, 10, 24, 18, tzinfo=zone).astimezone(UTC)
    )
    sunday = PlannedLoad(
        "b", date(2026, 10, 25), LoadSummary(), datetime(2026, 10, 25, 18, tzinfo=zone).astimezone(UTC)
    )
    assert hours_between(saturday, sunday) == 25
    assert hours_between(PlannedLoad("a", date(2026, 10, 24), LoadSummary()), sunday) == 24


SQUATS = {"main": {"squat": PatternLoad(200, 0)}, "joints": {"knee": PatternLoad(200, 0)}}


@pytest.mark.parametrize(
    ("one", "other", "days", "patterns"),
    [
        (SQUATS, SQUATS, 1, ["squat"]),
        (SQUATS, SQUATS, 2, None),
        (SQUATS, {"main": {"hinge": PatternLoad(400, 0)}}, 1, None),
        (SQUATS, {"main": {"squat": PatternLoad(179, 2)}}, 1, None),
        (SQUATS, {"main": {"squat": PatternLoad(60, 3)}}, 1, ["squat"]),
        (SQUATS, {"main": {"squat": PatternLoad(180, 0)}}, 1, ["squat"]),
        (SQUATS, {"joints": {"knee": PatternLoad(180, 0)}}, 1, []),
        (SQUATS, SQUATS, 0, ["squat"]),
    ],
)
def test_a_clash_counts_main_work_of_three_minutes_or_three_hard_sets(
    one: Any, other: Any, days: int, patterns: list[str] | None
) -> None:
    found = clash_of(planned(0, key="a", **one), planned(days, key="b", **other), 48)
    assert (found is None) is (patterns is None)
    if found is not None:
        assert found["patterns"] == patterns
        assert found["hours"] == 24 * days


def test_start_times_tell_whether_two_days_are_enough() -> None:
    def at(day: int, hour: int) -> PlannedLoad:
        starts = datetime(2026, 12, 7 + day, hour, tzinfo=UTC)
        return planned(day, key=f"d{day}", starts=starts, **SQUATS)

    assert [one["hours"] for one in clashes([at(0, 18), at(2, 7)], 48)] == [37]
    assert clashes([at(0, 7), at(2, 18)], 48) == []


def test_what_a_session_gives_to_its_day() -> None:
    document = session(
        {"part": "warm-up", "clock": {"kind": "intervals", "work_s": 60}, "steps": [step("air-squat")]},
        {"clock": {"kind": "intervals", "work_s": 100}, "rounds": 2, "effort": "all-out", "steps": [step("air-squat"), step("squat-jump")]},
        {"part": "finisher", "clock": {"kind": "intervals", "work_s": 40}, "steps": [step("push-up")]},
    )  # fmt: skip
    t = tally(parse_session(document), library=shipped_library())
    made = summary_of(t)
    assert (made.load, made.effort) == (t.load, t.rpe)
    assert made.work_s == 440
    assert sum(made.patterns.values()) == pytest.approx(440)
    # The warm-up counts to nothing here, the finisher not to the main work.
    assert made.main["squat"].seconds >= 200
    assert "push" not in made.main
    # All-out is 7 at least; a squat jump is mainly a jump.
    assert (made.main["squat"].hard_sets, made.main["jump"].hard_sets) == (2, 2)
    assert made.joints["knee"].seconds == 400
    assert made.landings == t.reps.landings
    assert made.limited_landings == t.reps.landings["medium"] + t.reps.landings["high"]
    assert made.reps == {kind: t.reps.reps[kind] for kind in ("called", "paced", "estimated")}


def test_other_training_has_a_load_alone() -> None:
    hike = other_training(90, 4)
    assert (hike.load, hike.minutes, hike.effort, dict(hike.patterns)) == (360, 90, 4, {})


def test_a_hard_day_is_hard_by_effort_or_by_load() -> None:
    assert is_hard([planned(0, 100, effort=7)], 7, None)
    assert not is_hard([planned(0, 400, effort=6.9)], 7, None)
    assert is_hard([planned(0, 250, effort=5), planned(0, 250, effort=4)], 7, 450)
    assert not is_hard([], 7, 450)


def test_rows_of_a_week_stand_against_their_targets() -> None:
    entries = [planned(0, patterns={"squat": 600.0, "push-level": 300.0}), planned(8, patterns={"squat": 900.0})]
    targets = [Target("squat", low=12, high=20), Target("pull", low=5), Target("push", by="share", high=0.25)]
    rows = {row["name"]: row for row in week_rows(entries, MONDAY, targets)}
    assert rows["squat"]["days"] == [600, 0, 0, 0, 0, 0, 0]
    assert rows["squat"]["off"] == -2
    assert rows["pull"]["off"] == -5
    assert rows["push"]["off"] == pytest.approx(1 / 3 - 0.25)
    assert rows["hinge"]["target"] is None


def test_beams_of_a_week_weigh_its_patterns() -> None:
    entries = [
        planned(1, patterns={"squat": 300.0, "jump": 200.0, "hinge": 100.0}),
        planned(2, left_s=30.0, right_s=10.0),
    ]
    beams = {beam["name"]: beam for beam in week_beams(entries, MONDAY)}
    assert (beams["knee-hip"]["left"], beams["knee-hip"]["right"]) == (400, 100)
    assert beams["left-right"]["left_share"] == 0.75
    assert beams["push-pull"]["left_share"] is None


def test_intents_share_the_weeks_load_by_parts() -> None:
    rules = Rules(Band(1350, 1500), {0: "medium", 1: "hard", 2: "easy", 3: "hard", 4: "rest"}, {6: 0.1})
    nothing = [0.0] * 7
    made = intended(rules, 1000, nothing)
    assert made == {0: 200, 1: 300, 2: 100, 3: 300, 4: 0, 6: 100}
    assert intended(Rules(), 1000, nothing) == {}
    assert Band.around(1000) == Band(950, 1050)


def test_days_without_an_intent_keep_their_load() -> None:
    planned = [200.0, 100.0, 0.0, 50.0, 0.0, 300.0, 0.0]
    rules = Rules(intents={1: "hard", 3: "easy"})
    assert intended(rules, 900, planned) == {1: 300, 3: 100}
    assert intended(rules, 400, planned) == {1: 0, 3: 0}


def test_two_that_are_three_days_apart_clash_where_the_clocks_leap() -> None:
    zone = ZoneInfo("Europe/London")

    def at(day: int, hour: int, minute: int) -> PlannedLoad:
        starts = datetime(2026, 3, day, hour, minute, tzinfo=zone).astimezone(UTC)
        return PlannedLoad(f"d{day}", date(2026, 3, day), LoadSummary(**SQUATS), starts)  # type: ignore[arg-type]

    # From Friday 23:50 to Monday 0:10 are three days of the calendar, and with the leap 47:20.
    [found] = clashes([at(27, 23, 50), at(30, 0, 10)], 48)
    assert found["hours"] == pytest.approx(47 + 20 / 60)


def days_of(loads: list[float], logged: int | None = None) -> list[PlannedLoad]:
    """Bouts that end with the week of MONDAY, the first so many of them logged."""
    first = MONDAY + timedelta(days=7 - len(loads))
    made = [
        PlannedLoad(str(n), first + timedelta(days=n), LoadSummary(load=load))
        for n, load in enumerate(loads)
        if load
    ]
    return [replace(one, logged=logged is None or n < logged) for n, one in enumerate(made)]


STEADY = [100.0, 0, 200, 0, 100, 200, 0]


def loaded(entries: list[PlannedLoad], **more: Any) -> Any:
    first = min(planned.day for planned in entries)
    return week_load(entries, MONDAY, history_from=first, hard_effort=7, **more)


def test_ratios_want_half_of_what_is_gone_by_logged() -> None:
    after = MONDAY + timedelta(days=7)
    half, less = days_of(STEADY * 4, logged=8), days_of(STEADY * 4, logged=7)
    assert loaded(half, today=after)["acwr_coupled"]["value"] == pytest.approx(1)
    made = loaded(less, today=after)
    for name in ("acwr_coupled", "acwr_uncoupled", "acwr_ewma"):
        assert made[name]["value"] is None
        assert made[name]["why"] == "7 of 16 entries of the days gone by are logged; half are needed"
    # What is to come need not be logged, and nothing need be where nobody asks what day it is.
    assert loaded(less, today=MONDAY - timedelta(days=14))["acwr_coupled"]["value"] == pytest.approx(1)
    assert loaded(less)["acwr_coupled"]["value"] == pytest.approx(1)


def test_monotony_wants_half_of_the_weeks_days_gone_by_logged() -> None:
    entries = days_of(STEADY * 4, logged=13)
    made = loaded(entries, today=MONDAY + timedelta(days=5))
    assert (made["logged"], made["entries"]) == (1, 4)
    assert made["monotony"]["why"] == "1 of 3 entries of the days gone by are logged; half are needed"
    assert made["strain"]["value"] is None
    assert loaded(entries, today=MONDAY + timedelta(days=2))["monotony"]["value"] is not None


def test_days_of_which_nothing_is_known_are_left_out_and_after_a_fortnight_history_begins_anew() -> None:
    entries = days_of(STEADY * 6)
    week_away = [AwayPeriod(MONDAY - timedelta(days=14), MONDAY - timedelta(days=8), known=False)]
    quiet = [one for one in entries if not week_away[0].first <= one.day <= week_away[0].last]
    assert loaded(quiet)["acwr_coupled"]["value"] is None
    assert loaded(quiet, away=week_away)["acwr_coupled"]["value"] == pytest.approx(1)
    known = [AwayPeriod(week_away[0].first, week_away[0].last, known=True)]
    assert (
        loaded(quiet, away=known)["acwr_coupled"]["why"] == "0 training days in one of the four weeks; 4 are needed"
    )
    long = [AwayPeriod(MONDAY - timedelta(days=21), MONDAY - timedelta(days=8), known=False)]
    assert loaded(quiet, away=long)["acwr_coupled"]["why"] == "14 days of history; 28 are needed"


def test_a_day_says_that_the_squad_is_away_and_counts_what_stands_on_it() -> None:
    away = [AwayPeriod(MONDAY + timedelta(days=1), MONDAY + timedelta(days=2), known=True)]
    away.append(AwayPeriod(MONDAY + timedelta(days=6), MONDAY + timedelta(days=9), known=False))
    made = loaded(days_of(STEADY), away=away)
    assert [day["away"] for day in made["days"]] == [None, "rest", "rest", None, None, None, "unknown"]
    assert made["totals"]["load"] == sum(STEADY)


def test_a_week_stands_against_the_last_four_logged_ones() -> None:
    weeks = [[sum_, 0.0, 0, 0, 0, 0, 0] for sum_ in (900.0, 100, 200, 300, 400, 250)]
    entries = days_of([load for week in weeks for load in week])
    made = loaded(entries)["usual"]
    assert made["value"] == pytest.approx(250 / 250)
    assert made["terms"] == {"this week": 250, "mean": 250, "least": 100, "most": 400, "weeks": 4}
    unlogged = [replace(one, logged=one.summary.load != 300) for one in entries]
    assert loaded(unlogged)["usual"]["terms"]["most"] == 900
    none = loaded([replace(one, logged=False) for one in entries])["usual"]
    assert (none["value"], none["why"]) == (None, "no logged week before it to stand against")


def test_a_block_is_put_on_each_free_day_and_says_what_it_makes_there() -> None:
    """Monday to Sunday: squats on Monday, something hard on Friday, rest on Wednesday, no hall on Thursday."""
    squats = planned(0, 200, "monday", **SQUATS)
    hard = planned(4, 300, "friday", effort=8)
    rules = Rules(band=Band(900, 1000), rest_days=frozenset({2}), no_hall=frozenset({3}), hard_effort=7)
    around = WeekContext(MONDAY, [squats, hard], [], rules, today=MONDAY)
    whys = [one["why"] for one in free_days(around)]
    assert whys == ["taken", None, "rest", "no hall", "taken", None, None]
    new = planned(0, 350, effort=7.5, **SQUATS).summary
    tuesday, saturday, sunday = placed(new, around)
    assert [one["day"] for one in (tuesday, saturday)] == [
        (MONDAY + timedelta(days=1)).isoformat(),
        (MONDAY + timedelta(days=5)).isoformat(),
    ]
    assert [clash["first"] for clash in tuesday["clashes"]] == ["monday"]
    assert saturday["clashes"] == []
    assert (tuesday["hard_beside_hard"], saturday["hard_beside_hard"], sunday["hard_beside_hard"]) == (
        False,
        True,
        False,
    )
    assert {one["week_load"] for one in (tuesday, saturday, sunday)} == {850}
    assert tuesday["off"] == -50
    assert tuesday["day_load"] == 350
    heavier = placed(planned(0, 600, **SQUATS).summary, around)
    assert {one["off"] for one in heavier} == {100}
    assert placed(planned(0, 450).summary, around)[0]["off"] == 0
    later = WeekContext(MONDAY, [squats, hard], [], Rules(), today=MONDAY + timedelta(days=6))
    assert [one["why"] for one in free_days(later)].count("over") == 6
    assert placed(new, later)[0]["off"] is None


def test_the_day_before_a_week_counts_for_clashes_and_hard_days() -> None:
    before = planned(-1, 300, "sunday", effort=8, **SQUATS)
    around = WeekContext(MONDAY, [], [before], Rules(hard_effort=7), today=MONDAY)
    first = placed(planned(0, 300, effort=8, **SQUATS).summary, around)[0]
    assert first["hard_beside_hard"]
    assert [clash["first"] for clash in first["clashes"]] == ["sunday"]
