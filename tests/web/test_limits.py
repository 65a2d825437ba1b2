"""Limits of people: what they make of a session, who knows why, how long they hold."""

from __future__ import annotations

from typing import Any

import pytest

from finetally.web.people.models import Limit
from tests.web.conftest import World
from tests.web.test_people import JUMPS, limited, on, otherwise, path_of


def test_a_limit_chooses_the_option_and_everybody_sees_it(world: World) -> None:
    person = world.planned.person
    Limit.objects.all().delete()
    limited(world, person, note="torn in the gully")
    told = otherwise(world, "coach")
    assert [(one["path"], one["name"], one["option"]) for one in told] == [
        ("blocks[0].steps[1]", "Somebody", "bridge"),
        ("blocks[0].steps[2]", "Somebody", None),
    ]
    assert [one["why"] for one in told] == [[{"joint": "knee", "movement": "", "side": "both"}]] * 2
    [seen] = otherwise(world, "athlete")
    assert (seen["path"], seen["option"], seen["why"]) == ("blocks[0].steps[1]", "bridge", None)


def test_the_person_knows_why_and_what_nothing_spares(world: World) -> None:
    Limit.objects.all().delete()
    limited(world, world.known.own)
    assert [(one["path"], one["why"] is not None) for one in otherwise(world, "athlete")] == [
        ("blocks[0].steps[1]", True),
        ("blocks[0].steps[2]", True),
    ]


def test_a_limit_holds_from_its_first_day_to_its_last(world: World) -> None:
    Limit.objects.all().delete()
    limited(world, world.planned.person, first=on(2), last=on(4))
    assert [len(otherwise(world, "coach", day=on(day))) for day in range(7)] == [0, 0, 2, 2, 2, 0, 0]


def test_figures_and_the_card_are_of_the_person_with_their_options(world: World) -> None:
    Limit.objects.all().delete()
    person = world.planned.person
    limited(world, person, joint="wrist")

    def movements(**more: Any) -> set[str]:
        body = {"document": JUMPS, "squad": world.squad.pk, **more}
        figures = world.send("coach", "POST", "/figures", body).json()["figures"]
        return set(figures["movements"])

    assert "push-up" in movements()
    assert "push-up" in movements(given={"options": {"s1": "no such"}})
    as_them = movements(person=str(person.public_id))
    assert as_them == {"knee-push-up", "box-jump", "squat-jump"}
    card = world.send("athlete", "POST", "/card", {"document": JUMPS, "squad": world.squad.pk})
    assert card.json()["card"]["others"] == [
        {"movement": "push-up", "option": "from the knees", "names": ["Somebody"]}
    ]
    assert b"wrist" not in card.content


@pytest.mark.parametrize(("who", "reads"), [("head", True), ("coach", False), ("athlete", True)])
def test_the_note_of_a_limit_is_the_head_coachs_and_the_persons(world: World, who: str, reads: bool) -> None:
    limited(world, world.known.own, note="torn in the gully")
    [limit] = world.send(who, "GET", path_of(world.known.own)).json()["limits"]
    assert limit["note"] == ("torn in the gully" if reads else None)


def test_who_may_not_read_notes_writes_none(world: World) -> None:
    body = {"first": on(0), "joint": "knee", "note": "hearsay"}
    assert world.send("coach", "POST", f"{path_of(world.known.own)}/limits", body).status_code == 201
    assert Limit.objects.get(person=world.known.own).note == ""


@pytest.mark.parametrize(
    ("body", "place"),
    [({"joint": ""}, "joint"), ({"movement": "burpee"}, "joint"), ({"joint": "tail"}, "joint"), ({"side": "top"}, "side"),
     ({"joint": "", "movement": "gate-dive"}, "movement"), ({"last": on(-1)}, "last"), ({"note": "x" * 501}, "note")],
)  # fmt: skip
def test_a_limit_that_says_nothing_is_refused(world: World, body: dict[str, Any], place: str) -> None:
    good = {"joint": "knee", "first": on(0)}
    refused = world.send("head", "POST", f"{path_of(world.known.own)}/limits", {**good, **body})
    assert (refused.status_code, refused.json()["problems"][0]["path"]) == (422, place)


def test_an_ended_limit_holds_no_more_and_stays_in_the_past(world: World) -> None:
    made = limited(world, world.known.own, first=on(-5))
    world.send("athlete", "DELETE", f"/people/limits/{made['id']}")
    [kept] = world.send("coach", "GET", path_of(world.known.own)).json()["limits"]
    assert (kept["last"], kept["holds"]) == (on(-1), False)
    begun_today = limited(world, world.known.own)
    world.send("athlete", "DELETE", f"/people/limits/{begun_today['id']}")
    assert Limit.objects.filter(person=world.known.own).count() == 1
