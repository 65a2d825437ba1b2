"""The leveller: its answers against an independent checker of the rules, and against trying everything."""

from __future__ import annotations

import itertools
import json
import random
from collections.abc import Mapping
from dataclasses import replace
from datetime import date, timedelta
from typing import Any

import pytest

from finetally.core.edits.edit import apply_edits
from finetally.core.session.ids import with_ids
from finetally.core.session.reading import parse_session
from finetally.core.tally.measure import tally
from finetally.core.week.alternatives import MOST_ALTERNATIVES, Alternative, alternatives_of
from finetally.core.week.balance import Target, off_target, row_seconds
from finetally.core.week.bout import Amount, Bout, Work, amount_of
from finetally.core.week.clash import clashes
from finetally.core.week.level import level
from finetally.core.week.load import is_hard, monotony
from finetally.core.week.plan import Band, Rules, intended
from finetally.core.week.proposal import Slot, Watch, bouts_of, taken
from finetally.core.week.solver import INTENT_OFF, MOVE_COST
from finetally.shipped import shipped_library
from tests.conftest import CASES

MONDAY = date(2026, 12, 7)
Chosen = Mapping[str, tuple[int, int]]


def days_of(bouts: list[Bout]) -> list[list[Bout]]:
    return [[one for one in bouts if one.day == MONDAY + timedelta(days=n)] for n in range(7)]


def stays(slot: Slot, rules: Rules) -> bool:
    return slot.locked or slot.day in rules.gone_days


def broken(slots: list[Slot], rules: Rules, chosen: Chosen, around: list[Bout]) -> set[str]:
    """The hard rules that a week breaks, from the definitions and not from the solver's model."""
    bouts = bouts_of(slots, chosen, MONDAY)
    days = days_of(bouts)
    found = set()
    for slot in slots:
        version, day = chosen[slot.key]
        moved = (version, day) != (0, slot.day)
        if slot.locked and moved:
            found.add("locked")
        if moved and {day, slot.day} & rules.gone_days:
            found.add("gone")
        if not stays(slot, rules) and day in rules.rest_days:
            found.add("rest-days")
        if not stays(slot, rules) and slot.hall and day in rules.no_hall:
            found.add("hall")
    to_come = [day for n, day in enumerate(days) if n not in rules.gone_days]
    if rules.most_a_day is not None and any(len(day) > rules.most_a_day for day in to_come):
        found.add("most-a-day")
    hard = [is_hard(day, rules.hard_effort, rules.hard_load) for day in days]
    for n, (one, other) in enumerate(itertools.pairwise(hard)):
        if rules.no_two_hard and one and other and not {n, n + 1} <= rules.gone_days:
            found.add("hard-days")
    beyond = {0: MONDAY - timedelta(days=1), 6: MONDAY + timedelta(days=7)}
    for slot in slots:
        version, day = chosen[slot.key]
        next_to = [one for one in around if one.day == beyond.get(day)]
        effort = slot.versions[version].amount.effort
        hard_there = is_hard(next_to, rules.hard_effort, rules.hard_load)
        if rules.no_two_hard and not stays(slot, rules) and effort >= rules.hard_effort and hard_there:
            found.add("hard-days")
    # What is locked cannot go elsewhere, whatever stands in the weeks beside.
    own, free = {slot.key for slot in slots}, {slot.key for slot in slots if not stays(slot, rules)}
    over = {slot.key for slot in slots if slot.day in rules.gone_days}
    if rules.clash_hours is not None:
        for one in clashes([*bouts, *around], rules.clash_hours):
            pair = {one["first"], one["second"]}
            if (pair <= own and not pair <= over) or pair & free:
                found.add("clashes")
    if rules.landings_cap is not None and sum(one.amount.landings for one in bouts) > rules.landings_cap:
        found.add("landings")
    return found


def unmet(slots: list[Slot], rules: Rules, chosen: Chosen) -> int:
    """Aims that are not met, from the definitions (loads in whole tenths, as they are shown)."""
    bouts = bouts_of(slots, chosen, MONDAY)
    loads = [sum(round(one.amount.load, 1) for one in day) for day in days_of(bouts)]
    total = sum(loads)
    missed = 0
    if rules.band is not None:
        missed += not rules.band.low - 1e-6 <= total <= rules.band.high + 1e-6
        for day, wanted in intended(rules, rules.band.middle).items():
            missed += abs(loads[day] - wanted) > INTENT_OFF * wanted + 1e-6
    rows = [row_seconds(one.amount.patterns) for one in bouts]
    everything = sum(sum(one.values()) for one in rows)
    for target in rules.targets:
        mine = sum(one[target.row] for one in rows)
        missed += off_target(target, mine, mine / everything if everything else 0.0) != 0
    if rules.monotony_under:
        value = monotony(loads)["value"]
        missed += value is None or value >= 2 - 1e-12
    return missed


def cost(slots: list[Slot], rules: Rules, chosen: Chosen) -> tuple[int, int, int]:
    edits = weights = 0
    for slot in slots:
        version, day = chosen[slot.key]
        edits += int(version != 0) + int(day != slot.day)
        weights += slot.versions[version].cost + MOVE_COST * abs(day - slot.day)
    return unmet(slots, rules, chosen), edits, weights


def drawn(seed: int, slots: int, versions: int) -> tuple[list[Slot], Rules, list[Bout]]:
    """A week made up by dice."""
    dice = random.Random(seed)

    def amount() -> Amount:
        rows = dice.sample(["squat", "hinge", "lunge", "push", "pull"], 2)
        work = {row: Work(float(dice.choice([60, 200, 400])), dice.randint(0, 4)) for row in rows}
        return Amount(
            load=float(dice.randint(60, 400)),
            effort=dice.choice([4.0, 6.0, 7.5]),
            landings=dice.choice([0, 0, 40]),
            patterns={"squat" if row == "squat" else "hinge" if row == "hinge" else "brace": 300.0 for row in rows},
            main=work,
        )

    made = []
    for number in range(slots):
        kinds = ["as-is", *dice.choices(["dose", "swap", "format"], k=versions - 1)]
        options = [Alternative(kind, kind, amount()) for kind in kinds]
        locked = dice.random() < 0.15
        made.append(Slot(f"s{number}", dice.randrange(7), options, locked=locked, hall=dice.random() < 0.8))
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
        hard_load=dice.choice([None, 500]),
        monotony_under=dice.random() < 0.5,
        targets=(Target("squat", low=5),) if dice.random() < 0.5 else (),
    )
    around = [Bout("before", MONDAY - timedelta(days=1), amount())] if dice.random() < 0.4 else []
    if dice.random() < 0.3:
        around.append(Bout("after", MONDAY + timedelta(days=7), amount()))
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
    amount = Amount(load=200, effort=8, main={"squat": Work(400, 0)})
    return Slot(key, day, [Alternative("as-is", "as it is", amount)], **more)


def test_rules_that_clash_are_named_and_no_others() -> None:
    slots = [squats("a", 0, locked=True), squats("b", 1, locked=True)]
    made = level(slots, Rules(rest_days=frozenset({3})), begins=MONDAY)
    assert made.chosen == {}
    # Each of the two alone contradicts what is locked: dropping one is not enough, so one of them is named first.
    assert set(made.clashing_rules) <= {"hard-days", "clashes"}
    assert made.clashing_rules
    crowded = level(
        [squats(str(n), n) for n in range(8)],
        Rules(most_a_day=1, no_two_hard=False, clash_hours=None),
        begins=MONDAY,
    )
    assert crowded.clashing_rules == ("most-a-day",)


def test_a_week_that_is_as_it_should_be_stays_so() -> None:
    slots = [squats("a", 0), squats("b", 3)]
    made = level(slots, Rules(band=Band(350, 450)), begins=MONDAY)
    assert made == replace(made, edits=(), unmet=())
    assert made.chosen == {"a": (0, 0), "b": (0, 3)}


def test_it_stops_when_it_is_told_to_and_tells_how_far_it_came() -> None:
    slots, _, around = drawn(3, slots=6, versions=8)
    rules = Rules(band=Band.around(900), no_two_hard=False, clash_hours=24)
    watch = Watch()
    whole = level(slots, rules, around=around, begins=MONDAY, watch=watch)
    assert whole.chosen
    assert watch.found > 0
    assert (watch.unmet, watch.edits) == (len(whole.unmet), len(whole.edits))
    early = Watch()
    early.stop()
    made = level(slots, rules, around=around, begins=MONDAY, watch=early)
    assert early.found <= 1
    if made.chosen:
        assert broken(slots, rules, made.chosen, around) == set()


@pytest.mark.parametrize("case", ["whole-session", "density-stations", "rounds-with-rest"])
def test_alternatives_are_whole_sessions_that_come_to_what_they_say(case: str) -> None:
    library = shipped_library()
    document = with_ids(json.loads((CASES / f"sessions/{case}.json").read_text("utf-8"))["session"])
    made = alternatives_of(document, library=library)
    assert 2 < len(made) <= MOST_ALTERNATIVES
    assert made[0].kind == "as-is"
    assert made[0].document == document
    for one in made:
        after, _ = apply_edits(document, one.edits)
        assert after == one.document
        assert amount_of(tally(parse_session(after), library=library)) == one.amount
    assert {one.kind for one in made[1:]} >= {"dose"}
    assert [one.what for one in alternatives_of(document, library=library)] == [one.what for one in made]
