"""The leveller: its answers against an independent checker of the rules, and against trying everything."""

from __future__ import annotations

import itertools
import random
import statistics
from collections.abc import Mapping
from dataclasses import replace
from datetime import UTC, date, datetime, time, timedelta
from typing import Any

import pytest

from finetally.core.week.aims import INTENT_OFF
from finetally.core.week.alternatives import Alternative
from finetally.core.week.balance import Target, off_target, row_seconds
from finetally.core.week.clash import clashes
from finetally.core.week.level import level
from finetally.core.week.load import is_hard, monotony
from finetally.core.week.plan import Band, Rules, intended
from finetally.core.week.planned_load import LoadSummary, PatternLoad, PlannedLoad
from finetally.core.week.proposal import MOVE_COST, UNMET, SearchLimit, SearchObserver, Slot, entries_of, taken
from finetally.core.week.review import as_planned, review
from finetally.core.week.solver import Leveller

MONDAY = date(2026, 12, 7)
Choice = Mapping[str, tuple[int, int]]


def days_of(entries: list[PlannedLoad]) -> list[list[PlannedLoad]]:
    return [[one for one in entries if one.day == MONDAY + timedelta(days=n)] for n in range(7)]


def stays(slot: Slot, rules: Rules) -> bool:
    return slot.locked or slot.day in rules.gone_days


def broken(slots: list[Slot], rules: Rules, chosen: Choice, around: list[PlannedLoad]) -> set[str]:
    """The hard rules that a week breaks and need not, from the definitions and not from the solver's model."""
    entries = entries_of(slots, chosen, MONDAY)
    fixed = {slot.key for slot in slots if stays(slot, rules)} | {one.key for one in around}
    found = set()
    for slot in slots:
        version, day = chosen[slot.key]
        moved = (version, day) != (0, slot.day)
        if slot.locked and moved:
            found.add("locked")
        if moved and {day, slot.day} & rules.gone_days:
            found.add("gone")
        if slot.key not in fixed and day in rules.rest_days:
            found.add("rest-days")
        if slot.key not in fixed and slot.hall and day in rules.no_hall:
            found.add("hall")
    for day in days_of(entries):
        if rules.most_a_day is not None and len(day) > rules.most_a_day and {one.key for one in day} - fixed:
            found.add("most-a-day")
    for day in days_of(entries):
        for one, other in itertools.combinations(day, 2):
            both_do = one.people is None or other.people is None or bool(one.people & other.people)
            if not both_do or not {one.key, other.key} - fixed:
                continue
            if one.starts and other.starts and at_once(one, other):
                found.add("overlap")
            if rules.no_two_hard and min(one.summary.effort, other.summary.effort) >= rules.hard_effort:
                found.add("hard-days")
    eight = [[one for one in [*entries, *around] if one.day == MONDAY + timedelta(days=n)] for n in range(-1, 8)]
    for pair in itertools.pairwise(eight):
        alone = [[one for one in day if one.key in fixed] for day in pair]
        both, both_alone = (
            all(is_hard(day, rules.hard_effort, rules.hard_load) for day in one) for one in (pair, alone)
        )
        if rules.no_two_hard and both and not both_alone:
            found.add("hard-days")
    if rules.clash_hours is not None:
        for one in clashes([*entries, *around], rules.clash_hours):
            if {one["first"], one["second"]} - fixed:
                found.add("clashes")
    if rules.landings_cap is not None:
        alone_landings = sum(one.summary.landings.get("medium", 0) for one in entries if one.key in fixed)
        if sum(one.summary.landings.get("medium", 0) for one in entries) > rules.landings_cap >= alone_landings:
            found.add("landings")
    return found


def at_once(one: PlannedLoad, other: PlannedLoad) -> bool:
    """Whether two sessions of one day run at the same minute, with half an hour behind each."""

    def minutes(of: PlannedLoad) -> set[int]:
        assert of.starts
        first = of.starts.hour * 60 + of.starts.minute
        return set(range(first, first + round(of.summary.minutes) + 30))

    return bool(minutes(one) & minutes(other))


def unmet(slots: list[Slot], rules: Rules, chosen: Choice) -> int:
    """Aims that are not met, from the definitions."""
    entries = entries_of(slots, chosen, MONDAY)
    loads = [sum(one.summary.load for one in day) for day in days_of(entries)]
    planned = [sum(s.versions[0].summary.load for s in slots if s.day == day) for day in range(7)]
    total = sum(loads)
    missed = 0
    if rules.band is not None:
        missed += not rules.band.low - 1e-6 <= total <= rules.band.high + 1e-6
    for day, wanted in intended(rules, rules.band.middle if rules.band else sum(planned), planned).items():
        missed += day not in rules.gone_days and abs(loads[day] - wanted) > INTENT_OFF * wanted + 1e-6
    rows = [row_seconds(one.summary.patterns) for one in entries]
    everything = sum(sum(one.values()) for one in rows)
    for target in rules.targets:
        mine = sum(one[target.row] for one in rows)
        missed += off_target(target, mine, mine / everything if everything else 0.0) != 0
    if rules.monotony_under:
        value = monotony(loads)["value"]
        missed += value is None or value >= 2 - 1e-12
    return missed


def cost(slots: list[Slot], rules: Rules, chosen: Choice) -> tuple[int, int, int]:
    edits = weights = 0
    for slot in slots:
        version, day = chosen[slot.key]
        edits += int(version != 0) + int(day != slot.day)
        weights += slot.versions[version].cost + MOVE_COST * abs(day - slot.day)
    return unmet(slots, rules, chosen), edits, weights


def drawn(seed: int, slots: int, versions: int) -> tuple[list[Slot], Rules, list[PlannedLoad]]:
    """A week made up by dice."""
    dice = random.Random(seed)

    def summary() -> LoadSummary:
        rows = dice.sample(["squat", "hinge", "lunge", "push", "pull"], 2)
        work = {row: PatternLoad(float(dice.choice([60, 200, 400])), dice.randint(0, 4)) for row in rows}
        return LoadSummary(
            load=dice.randint(60_000, 400_000) / 1000,
            effort=dice.choice([4.0, 6.0, 7.5]),
            minutes=dice.choice([30, 60, 90]),
            landings={"medium": dice.choice([0, 0, 40]), "low": dice.choice([0, 90])},
            patterns={"squat" if row == "squat" else "hinge" if row == "hinge" else "brace": 300.0 for row in rows},
            main=work,
        )

    made = []
    for number in range(slots):
        kinds = ["as-is", *dice.choices(["dose", "swap", "format"], k=versions - 1)]
        options = [Alternative(kind, kind, summary()) for kind in kinds]
        locked = dice.random() < 0.15
        hour = dice.choice([None, 7, 18, 18, 19])
        times = [hour and datetime.combine(MONDAY + timedelta(days=n), time(hour), tzinfo=UTC) for n in range(7)]
        people = dice.choice([None, None, frozenset("ab"), frozenset("bc"), frozenset("d")])
        hall = dice.random() < 0.8
        made.append(Slot(f"s{number}", dice.randrange(7), options, locked, hall, times, people))
    intents: Any = {day: dice.choice(["hard", "medium", "easy", "rest"]) for day in dice.sample(range(7), 3)}
    rules = Rules(
        band=Band.around(dice.randint(400, 1200)),
        intents=intents if dice.random() < 0.6 else {},
        rest_days=frozenset(dice.sample(range(7), dice.randint(0, 1))),
        no_hall=frozenset(dice.sample(range(7), dice.randint(0, 2))),
        gone_days=frozenset(range(dice.choice([0, 0, 0, 2, 3]))),
        most_a_day=dice.choice([1, 2]),
        no_two_hard=dice.random() < 0.7,
        clash_hours=dice.choice([48, 24, None]),
        landings_cap=dice.choice([None, 80]),
        hard_load=dice.choice([None, 500, 300.5]),
        monotony_under=dice.random() < 0.5,
        targets=dice.choice([(), (Target("squat", low=5),), (Target("hinge", by="share", low=0.2, high=0.5),)]),
    )
    around = [PlannedLoad("before", MONDAY - timedelta(days=1), summary())] if dice.random() < 0.4 else []
    if dice.random() < 0.3:
        around.append(PlannedLoad("after", MONDAY + timedelta(days=7), summary()))
    return made, rules, around


@pytest.mark.parametrize("seed", range(30))
def test_a_levelled_week_keeps_every_rule(seed: int) -> None:
    slots, rules, around = drawn(seed, slots=6, versions=8)
    made = level(slots, rules, around=around, begins=MONDAY)
    if not made.chosen:
        assert made.clashing_rules
        return
    assert broken(slots, rules, made.chosen, around) == set()
    assert len(made.unmet) == unmet(slots, rules, made.chosen)
    assert taken(slots, made.edits) == dict(made.chosen)
    assert made == level(slots, rules, around=around, begins=MONDAY)


@pytest.mark.parametrize("seed", range(100, 115))
def test_nothing_better_is_found_by_trying_everything(seed: int) -> None:
    slots, rules, around = drawn(seed, slots=3, versions=3)
    made = level(slots, rules, around=around, begins=MONDAY)
    places = [
        [(0, slot.day)] if stays(slot, rules) else list(itertools.product(range(len(slot.versions)), range(7)))
        for slot in slots
    ]
    best = None
    for combination in itertools.product(*places):
        chosen = {slot.key: place for slot, place in zip(slots, combination, strict=True)}
        if not broken(slots, rules, chosen, around):
            found = cost(slots, rules, chosen)
            best = found if best is None else min(best, found)
    assert (best is None) is (not made.chosen)
    if best is not None:
        assert cost(slots, rules, made.chosen) == best


def squats(key: str, day: int, **more: Any) -> Slot:
    summary = LoadSummary(load=200, effort=8, main={"squat": PatternLoad(400, 0)})
    return Slot(key, day, [Alternative("as-is", "as it is", summary)], **more)


def test_rules_that_clash_are_named_and_no_others() -> None:
    crowded = level(
        [squats(str(n), n % 7) for n in range(8)],
        Rules(most_a_day=1, no_two_hard=False, clash_hours=None),
        begins=MONDAY,
    )
    assert crowded.clashing_rules == ("most-a-day",)
    assert crowded.chosen == {}


def at_six(key: str, day: int, minutes: float = 60, **more: Any) -> Slot:
    summary = LoadSummary(load=100, effort=5, minutes=minutes)
    times = [datetime(2026, 12, 7 + n, 18, tzinfo=UTC) for n in range(7)]
    return Slot(key, day, [Alternative("as-is", "as it is", summary)], times=times, **more)


def test_two_sessions_of_the_same_people_never_stand_at_one_time() -> None:
    rules = Rules(monotony_under=False, rest_days=frozenset(range(1, 6)))
    apart = level([at_six("a", 0), at_six("b", 0)], rules, begins=MONDAY)
    assert {day for _, day in apart.chosen.values()} == {0, 6}
    groups = [at_six("a", 0, people=frozenset("xy")), at_six("b", 0, people=frozenset("z"))]
    assert level(groups, rules, begins=MONDAY).edits == ()
    locked = [at_six("a", 0, locked=True), at_six("b", 0, locked=True)]
    (told,) = review(locked, as_planned(locked), rules, begins=MONDAY).broken
    assert (told.rule, told.given) == ("overlap", True)
    full = level([at_six(str(n), n) for n in range(7)] + [at_six("x", 0)], Rules(), begins=MONDAY)
    assert full.clashing_rules == ("overlap",)


def test_half_an_hour_lies_between_two_sessions_of_a_day() -> None:
    def starts(hour: int, minute: int) -> list[datetime]:
        return [datetime(2026, 12, 7 + n, hour, minute, tzinfo=UTC) for n in range(7)]

    early = at_six("a", 0, minutes=60)
    for minute, edits in ((29, 1), (30, 0)):
        late = replace(at_six("b", 0), times=starts(19, minute))
        assert len(level([early, late], Rules(monotony_under=False), begins=MONDAY).edits) == edits


def test_two_hard_sessions_never_stand_on_one_day() -> None:
    rules = Rules(monotony_under=False, clash_hours=None)
    made = level([light("a", 0, 100, 8), light("b", 0, 100, 8)], rules, begins=MONDAY)
    assert len({day for _, day in made.chosen.values()}) == 2
    mixed = level([light("a", 0, 100, 8), light("b", 0, 100, 5)], rules, begins=MONDAY)
    assert mixed.edits == ()


def test_what_is_locked_and_clashes_is_told_and_the_rest_is_levelled() -> None:
    slots = [squats("a", 0, locked=True), squats("b", 1, locked=True), squats("c", 2)]
    rules = Rules(band=Band(500, 700))
    plan = review(slots, as_planned(slots), rules, begins=MONDAY)
    assert [(one.rule, one.days, one.given) for one in plan.broken] == [
        ("hard-days", (0, 1), True), ("hard-days", (1, 2), False),
        ("clashes", (0, 1), True), ("clashes", (1, 2), False),
    ]  # fmt: skip
    made = level(slots, rules, begins=MONDAY)
    assert (made.chosen["a"], made.chosen["b"]) == ((0, 0), (0, 1))
    assert made.chosen["c"][1] >= 3
    assert review(slots, made.chosen, rules, begins=MONDAY).keeps_rules


def light(key: str, day: int, load: float, effort: float = 5.0, **more: Any) -> Slot:
    return Slot(key, day, [Alternative("as-is", "as it is", LoadSummary(load=load, effort=effort))], **more)


def test_days_across_the_weeks_edge_are_hard_by_their_load_too() -> None:
    sunday = PlannedLoad("before", MONDAY - timedelta(days=1), LoadSummary(load=500.001, effort=5))
    rules = Rules(hard_load=500, monotony_under=False)
    slots = [light("a", 0, 300), light("b", 0, 200.001)]
    made = level(slots, rules, around=[sunday], begins=MONDAY)
    assert len(made.edits) == 1
    level_with_it = [light("a", 0, 300), light("b", 0, 200)]
    assert level(level_with_it, rules, around=[sunday], begins=MONDAY).edits == ()


@pytest.mark.parametrize("wanted", [1.9, 1.99, 2.01, 2.1, 2.4])
@pytest.mark.parametrize("seed", range(3))
def test_the_solver_has_a_week_vary_just_where_its_monotony_is_under_two(seed: int, wanted: float) -> None:
    dice = random.Random(seed)
    drawn = [dice.uniform(0, 400) for _ in range(7)]
    mean, spread = statistics.fmean(drawn), statistics.stdev(drawn)
    loads = [mean + (load - mean) * mean / spread / wanted for load in drawn]
    assert min(loads) > 0
    slots = [light(str(day), day, load, locked=True) for day, load in enumerate(loads)]
    found = {}
    for exact in (True, False):
        model = Leveller(slots, Rules(no_two_hard=False), [], MONDAY, exact=exact)
        # Nothing can be changed: what is left to the price is whether the week varies.
        model.start_from(as_planned(slots), under=UNMET)
        found[exact] = model.solve(SearchLimit(None, 1.0), SearchObserver(), lambda _: None).chosen is not None
    assert found[True] is (wanted < 2)
    assert found[False] <= found[True]


def test_a_share_of_no_work_is_not_met() -> None:
    rules = Rules(targets=(Target("squat", by="share", low=0.2),), monotony_under=False)
    made = level([light("hike", 0, 100)], rules, begins=MONDAY)
    assert made.unmet == ("target of squat",)


def test_an_intent_on_one_day_leaves_the_others_their_load() -> None:
    rules = Rules(band=Band(900, 1100), intents={2: "hard"})
    planned = [200.0, 0.0, 300.0, 0.0, 300.0, 100.0, 0.0]
    assert intended(rules, 1000, planned) == {2: pytest.approx(400)}
    assert intended(replace(rules, intents={2: "hard", 4: "easy"}), 1000, planned) == {
        2: pytest.approx(700 * 3 / 4), 4: pytest.approx(700 / 4),
    }  # fmt: skip


def test_a_week_that_is_as_it_should_be_stays_so() -> None:
    slots = [squats("a", 0), squats("b", 3)]
    made = level(slots, Rules(band=Band(350, 450)), begins=MONDAY)
    assert made == replace(made, edits=(), unmet=())
    assert made.proven
    assert made.chosen == {"a": (0, 0), "b": (0, 3)}


def test_it_stops_when_it_is_told_to_and_tells_how_far_it_came() -> None:
    slots, _, around = drawn(3, slots=6, versions=8)
    rules = Rules(band=Band.around(900), no_two_hard=False, clash_hours=24)
    watch = SearchObserver()
    whole = level(slots, rules, around=around, begins=MONDAY, observer=watch)
    assert whole.chosen
    assert watch.found > 0
    assert watch.best == whole.chosen
    assert (watch.unmet, watch.edits) == (len(whole.unmet), len(whole.edits))


class Impatient(SearchObserver):
    """Content with so many answers."""

    def __init__(self, answers: int) -> None:
        super().__init__()
        self.answers = answers
        self.prices: list[int] = []

    def note(self, chosen: Choice, price: int) -> None:
        super().note(chosen, price)
        self.prices.append(price)
        if self.found >= self.answers:
            self.stop()


@pytest.mark.parametrize("answers", range(1, 6))
@pytest.mark.parametrize("seed", range(40, 46))
def test_whenever_it_is_stopped_the_best_so_far_is_given(seed: int, answers: int) -> None:
    slots, rules, around = drawn(seed, slots=7, versions=8)
    watch = Impatient(answers)
    made = level(slots, rules, around=around, begins=MONDAY, observer=watch)
    assert watch.prices == sorted(watch.prices, reverse=True)
    assert dict(made.chosen) == dict(watch.best or {})
    if made.chosen:
        assert broken(slots, rules, made.chosen, around) == set()
        if watch.stopped:
            assert made.end in ("stopped", "proven")


@pytest.mark.parametrize("seed", range(200, 212))
def test_it_is_never_worse_than_the_plan_however_short_its_time(seed: int) -> None:
    slots, rules, around = drawn(seed, slots=9, versions=8)
    kept = not broken(slots, rules, as_planned(slots), around)
    for most in (0.0, 0.001, 0.01, 0.1):
        made = level(slots, rules, around=around, begins=MONDAY, limit=SearchLimit(None, most))
        if kept:
            assert cost(slots, rules, made.chosen) <= cost(slots, rules, as_planned(slots))
        if made.chosen:
            assert broken(slots, rules, made.chosen, around) == set()
