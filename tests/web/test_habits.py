"""Habits of reading: chosen twice it is read first, in this squad alone, until it is forgotten; sessions stay as read."""

from __future__ import annotations

from typing import Any

import pytest

from finetally.core.board.problems import BoardError
from finetally.core.wall.reading import read_wall
from finetally.core.wall.reading_habits import CHOSEN_TO_BE_A_HABIT, HABIT_RULES
from finetally.shipped import shipped_library
from finetally.web.squads.models import Squad
from tests.web.conftest import World

TEXT = "Main\n3 rounds\n10 push-ups\n10 squats\nrest 90 s\n\nFinisher\n20 burpees"
RULE = "rest-below"


def read(world: World, who: str = "coach", text: str = TEXT, squad: int | None = None) -> Any:
    body = {"text": text, "squad": squad or world.squad.pk}
    answer = world.send(who, "POST", "/board", body)
    assert answer.status_code == 200, answer.content
    return answer.json()


def place(told: Any) -> Any:
    return next(one for one in told["assumed"] if one["rule"] == RULE)


def choose(world: World, reading: int, rule: str = RULE) -> None:
    body = {"rule": rule, "reading": reading, "squad": world.squad.pk}
    assert world.send("coach", "POST", "/board/readings", body).status_code == 204


def habits(world: World) -> Any:
    return world.send("coach", "GET", f"/squads/{world.squad.pk}/habits").json()


def test_what_was_chosen_twice_is_read_first(world: World) -> None:
    usual = place(read(world))
    other = 1 - usual["chosen"]
    for _ in range(CHOSEN_TO_BE_A_HABIT - 1):
        choose(world, other)
        assert place(read(world))["chosen"] == usual["chosen"]
    choose(world, other)
    now = place(read(world))
    assert (now["chosen"], now["habit"], now["settled"]) == (other, True, False)
    [kept] = habits(world)
    assert (kept["says"], kept["read_as"]) == ("a rest under the last line", HABIT_RULES[RULE].readings[other])
    # Whoever chooses the other one again begins anew, and what is chosen here goes before any habit.
    choose(world, usual["chosen"])
    assert habits(world) == []
    assert place(read(world))["habit"] is False


def test_a_habit_is_the_squads_own_and_can_be_forgotten(world: World) -> None:
    other = 1 - place(read(world))["chosen"]
    for _ in range(CHOSEN_TO_BE_A_HABIT):
        choose(world, other)
    vale = Squad.objects.get(name="Vale").pk
    assert place(read(world, "stranger", squad=vale))["habit"] is False
    assert world.send("coach", "DELETE", f"/squads/{world.squad.pk}/habits/{RULE}").status_code == 204
    assert place(read(world))["chosen"] == 1 - other
    assert world.send("coach", "DELETE", f"/squads/{world.squad.pk}/habits/{RULE}").status_code == 404


def test_what_was_read_by_habit_stays_so_when_the_habit_goes(world: World) -> None:
    other = 1 - place(read(world))["chosen"]
    for _ in range(CHOSEN_TO_BE_A_HABIT):
        choose(world, other)
    document = read(world)["document"]
    world.send("coach", "DELETE", f"/squads/{world.squad.pk}/habits/{RULE}")
    body = {"document": document, "squad": world.squad.pk, "as_typed": True}
    written = world.send("coach", "POST", "/board/write", body).json()
    assert written["as_typed"] is True, "the words still come to what was read"
    assert written["settled"] == {place(read(world))["id"]: other}


def test_what_depends_on_the_place_is_never_a_habit(world: World) -> None:
    for _ in range(CHOSEN_TO_BE_A_HABIT):
        choose(world, 1, rule="which-movement")
        choose(world, 9)
    assert habits(world) == []


TEXTS = (
    TEXT,
    "4 x 30 s plank\nrest 30 s",
    "10 min AMRAP\nBuy in 400 m run\n10 burpees\n20 squats",
    "EMOM 10\n5 burpees\n10 squats",
    "Tabata: squats, push-ups",
    "10-1 burpees",
    "1-10 push-ups",
    "3 x 10 squats, 10 push-ups",
    "40 s on 20 s off x 3\nsquats\npush-ups",
    "AMRAP\n10 squats",
    "Partner work: 30 s each, 10 rounds\nsquats",
)


@pytest.mark.parametrize("text", TEXTS)
def test_rules_told_as_habits_have_as_many_readings_as_they_say(text: str) -> None:
    library = shipped_library()
    try:
        reading = read_wall(text, library=library)
    except BoardError:
        raise AssertionError("every one of these is read") from None
    for one in reading.assumed.made:
        if one.rule in HABIT_RULES:
            assert len(one.readings) == len(HABIT_RULES[one.rule].readings), one.rule
            by_habit = read_wall(text, library=library, habits={one.rule: len(one.readings) - 1})
            found = next(other for other in by_habit.assumed.made if other.id == one.id)
            assert (found.chosen, found.habit) == (len(one.readings) - 1, True)
