"""The leveller on weeks of whole sessions and their versions."""

from __future__ import annotations

import json
from dataclasses import replace
from typing import Any

import pytest

from finetally.core.edits.edit import apply_edits
from finetally.core.session.ids import with_ids
from finetally.core.session.reading import parse_session
from finetally.core.tally.measure import tally
from finetally.core.week.alternatives import MOST_ALTERNATIVES, Alternative, alternatives_of
from finetally.core.week.level import level
from finetally.core.week.plan import Band, Rules
from finetally.core.week.planned_load import LoadSummary, summary_of
from finetally.core.week.proposal import SearchLimit, Slot
from finetally.core.week.review import as_planned, review
from finetally.shipped import shipped_library
from tests.conftest import CASES
from tests.core.test_level import MONDAY, light


def of_documents() -> list[list[Alternative]]:
    """Versions of the reference sessions."""
    library = shipped_library()
    files = sorted((CASES / "sessions").glob("*.json"))[:10]
    return [alternatives_of(json.loads(one.read_text("utf-8"))["session"], library=library) for one in files]


@pytest.fixture(scope="module")
def versions() -> list[list[Alternative]]:
    return of_documents()


@pytest.mark.parametrize("entries", [7, 14, 21])
@pytest.mark.parametrize("hours", [None, 48])
def test_an_even_week_becomes_better_or_stays(
    versions: list[list[Alternative]], entries: int, hours: float | None
) -> None:
    slots = [Slot(f"s{n}", n % 7, versions[n % len(versions)]) for n in range(entries)]
    total = sum(slot.versions[0].summary.load for slot in slots)
    rules = Rules(
        band=Band.around(total * 0.92), most_a_day=max(2, entries // 7), no_two_hard=False, clash_hours=hours
    )
    made = level(slots, rules, begins=MONDAY, limit=SearchLimit(None, 1.0))
    if not made.chosen:
        assert made.clashing_rules or made.end == "time"
        return
    stands = review(slots, made.chosen, rules, begins=MONDAY)
    assert stands.keeps_rules
    assert (stands.unmet, stands.met) == (made.unmet, made.met)
    assert "load in the band" in made.met
    plan = review(slots, as_planned(slots), rules, begins=MONDAY)
    assert len(made.unmet) <= len(plan.unmet)


def test_that_nothing_varies_enough_is_proven_without_a_search() -> None:
    slots = [light(str(n), n % 7, 100 + n) for n in range(14)]
    made = level(slots, Rules(band=Band(1400, 1500), clash_hours=None), begins=MONDAY)
    assert (made.unmet, made.proven, made.edits) == (("monotony under 2",), True, ())


COACHED: dict[str, Any] = {
    "two sessions": {"days": (1, 4)},
    "six locked": {"days": (0, 1, 2, 3, 4, 5, 6), "locked": range(6)},
    "a match on Saturday": {"days": (0, 1, 3, 5), "locked": (3,), "match": 3},
    "three hall days": {"days": (0, 1, 2, 3, 4), "rules": {"no_hall": frozenset({1, 3, 5, 6})}},
    "a test week": {"days": (0, 1, 2, 3), "rules": {"band": Band(300, 500), "intents": {0: "hard", 3: "easy"}}},
}


@pytest.mark.parametrize("name", COACHED)
def test_the_weeks_of_a_coach(versions: list[list[Alternative]], name: str) -> None:
    week = COACHED[name]
    slots = []
    for n, day in enumerate(week["days"]):
        own = versions[n % len(versions)]
        if n == week.get("match"):
            own = [Alternative("as-is", "as it is", LoadSummary(load=450, effort=9, minutes=50))]
        slots.append(Slot(f"s{n}", day, own, locked=n in week.get("locked", ()), hall=n != week.get("match")))
    total = sum(slot.versions[0].summary.load for slot in slots)
    rules = replace(Rules(band=Band.around(total * 0.9)), **week.get("rules", {}))
    made = level(slots, rules, begins=MONDAY, limit=SearchLimit(None, 3.0))
    assert made.chosen
    stands = review(slots, made.chosen, rules, begins=MONDAY)
    assert stands.keeps_rules
    plan = review(slots, as_planned(slots), rules, begins=MONDAY)
    if plan.keeps_rules:
        assert stands.price <= plan.price
    for n in week.get("locked", ()):
        assert made.chosen[f"s{n}"] == (0, week["days"][n])


KINDS = {"whole-session": {"format"}, "density-stations": set(), "rounds-with-rest": {"format", "swap"}}


@pytest.mark.parametrize("case", KINDS)
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
        assert summary_of(tally(parse_session(after), library=library)) == one.summary
    assert {one.kind for one in made[1:]} >= {"dose", *KINDS[case]}
    assert [one.what for one in alternatives_of(document, library=library)] == [one.what for one in made]
