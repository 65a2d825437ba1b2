"""A squad's methods: what the page shows, what a change reaches and writes down, what is refused."""

from __future__ import annotations

from typing import Any

import pytest

from finetally.web.plan.models import Entry
from tests.web.conftest import DOCUMENT, World


def page(world: World, who: str = "head") -> Any:
    return world.send(who, "GET", f"/squads/{world.squad.pk}/methods/page").json()


def change(world: World, **methods: Any) -> Any:
    return world.send("head", "PATCH", f"/squads/{world.squad.pk}/methods", {"methods": methods})


def test_the_page_shows_samples_as_the_squads_other_settings_make_them(world: World) -> None:
    def lines() -> Any:
        shown = page(world)
        return {one["key"]: [view["lines"] for view in one["views"]] for one in shown["schools"]}

    before = lines()
    assert change(world, effort_factor={"easy": 0.7, "steady": 1.0, "hard": 1.0, "all-out": 1.0}).status_code == 200
    after = lines()
    assert after["counted_parts"] != before["counted_parts"]
    assert after["closing_rest"] == before["closing_rest"]


def test_who_may_change_is_told_and_what_a_change_reaches(world: World) -> None:
    assert (page(world)["can_change"], page(world, "coach")["can_change"]) == (True, False)
    for logged in (None, 30):
        Entry.objects.create(
            squad=world.squad,
            day="2026-12-07",
            title="x",
            document=DOCUMENT,
            logged_minutes=logged,
            logged_effort=logged and 5,
        )
    assert page(world)["reach"] == {"sessions": 1, "planned": 1, "logged": 1}


def test_a_change_is_written_down_with_what_it_was(world: World) -> None:
    change(world, fatigue=0.3, breathers={"easy": 0, "steady": 0.1, "hard": 0.2, "all-out": 0.3})
    change(world, fatigue=None, density="by-the-clock")
    told = world.send("coach", "GET", f"/squads/{world.squad.pk}/methods/history").json()
    assert [one["says"] for one in told] == [
        "Work of a self-paced window: at pace → by the clock; How much longer reps become at most: 0.3 → 0.25",
        "Breathers, as a share of each bout: 0/0.05/0.1/0.15 → 0/0.1/0.2/0.3; "
        "How much longer reps become at most: 0.25 → 0.3",
    ]
    assert told[0]["by"] == "head"
    change(world, hard_day_load=300, counted_parts=["main"], muted_checks=["no-warm-up"])
    told = world.send("coach", "GET", f"/squads/{world.squad.pk}/methods/history").json()
    assert told[0]["says"] == (
        "Parts that count: main part and finisher → the main part alone; "
        "A day is hard also from a load of: effort alone counts → 300; Checks that are told no more"
    )


@pytest.mark.parametrize(
    ("methods", "place"),
    [
        ({"fatigue": 9}, "methods.fatigue"),
        ({"change": {"step": 1, "kit": 2, "down": 2, "up": 99}}, "methods.change.up"),
        ({"effort_scale": [[0.1, 0], [1, 11]]}, "methods.effort_scale.1"),
        ({"capacity_met": -1}, "methods.capacity_met"),
    ],
)
def test_what_is_beyond_sense_is_refused_by_its_place(world: World, methods: Any, place: str) -> None:
    refused = change(world, **methods)
    assert refused.status_code == 422
    assert refused.json()["problems"][0]["path"] == place
    assert page(world)["methods"]["fatigue"] == 0.25
