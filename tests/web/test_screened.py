"""What a device may not leave on the server: health against the switch or without consent, things of people gone."""

from __future__ import annotations

from typing import Any
from uuid import uuid4

import pytest

from finetally.web.floor.models import FloorEvent
from finetally.web.log.models import LogNote, Result
from finetally.web.log.reports import open_reports
from finetally.web.squads.models import Person, Squad
from finetally.web.squads.today import today_of
from tests.web.conftest import World
from tests.web.test_floor import begun, sent

PAIN = {"t": 9, "do": "note", "text": "left calf", "kind": "pain"}
HURT = {"t": 9, "do": "note", "text": "fell on the wrist", "kind": "hurt"}
LEFT_HURT = {"t": 10, "do": "away", "why": "hurt"}


@pytest.mark.parametrize(("switched_on", "young"), [(False, False), (True, True), (True, False)])
def test_health_through_the_floor_obeys_the_switch_and_the_guardian(
    world: World, switched_on: bool, young: bool
) -> None:
    Squad.objects.filter(pk=world.squad.pk).update(asks_health=switched_on)
    Person.objects.filter(pk=world.known.own.pk).update(under_age=young)
    who = {"person": str(world.known.own.public_id)}
    answer = sent(world, begun(world), *({**one, **who} for one in (PAIN, HURT, LEFT_HURT))).json()
    kept = switched_on and not young
    assert len(answer["left_out"]) == (0 if kept else 1)
    assert LogNote.objects.filter(person=world.known.own, kind__in=("pain", "hurt")).count() == (2 if kept else 0)
    said = str(list(FloorEvent.objects.values_list("event", flat=True)))
    assert ("left calf" in said, "wrist" in said, "hurt" in said) == (kept, kept, kept)
    reported = {one.kind for one in open_reports(world.squad, today_of(world.squad))}
    # The note stands with the entry's own day, which is ahead.
    assert reported == ({"hurt"} if kept else set())
    # That they left stays: their minutes end there.
    assert [one["event"]["do"] for one in answer["events"] if one["event"].get("person")][-1:] == ["away"]


def test_of_nobody_in_particular_health_is_kept_by_the_switch_alone(world: World) -> None:
    Squad.objects.filter(pk=world.squad.pk).update(asks_health=True)
    assert sent(world, begun(world), PAIN).json()["left_out"] == []


def test_a_score_or_note_of_somebody_unknown_is_dropped_and_said_and_never_the_sessions_own(world: World) -> None:
    gone = {"person": str(uuid4())}
    score: dict[str, Any] = {"t": 20, "do": "score", "block": 0, "rounds": 4, "reps": 0}
    answer = sent(
        world, begun(world), {**score, **gone}, {**PAIN, "kind": "free", **gone}, {**score, "t": 21}
    ).json()
    assert len(answer["left_out"]) == 1
    assert [(one["event"]["do"], one["event"]["t"]) for one in answer["events"]][-1] == ("score", 21)
    assert Result.objects.filter(whose="session").count() == 1
    assert not LogNote.objects.filter(kind="free", text="left calf").exists()
    # Sent once more, as after a lost answer: the same.
    again = sent(world, str(FloorEvent.objects.latest("pk").run_id), {**score, **gone, "t": 22}).json()
    assert len(again["left_out"]) == 1


def test_a_team_of_the_day_is_not_somebody_unknown(world: World) -> None:
    score = {"t": 20, "do": "score", "block": 0, "rounds": 4, "reps": 0, "person": "team 2"}
    answer = sent(world, begun(world), score).json()
    assert (answer["left_out"], answer["events"][-1]["event"]["person"]) == ([], "team 2")


def test_a_score_of_two_kinds_or_of_no_block_is_left_out_and_said(world: World) -> None:
    score: dict[str, Any] = {"t": 20, "do": "score", "block": 0, "rounds": 4}
    odd = [{**score, "time_s": 70}, {**score, "block": 9999}]
    answer = sent(world, begun(world), *odd, {**score, "t": 21}).json()
    assert [one[:16] for one in answer["left_out"]] == ["A score of round", "A score of block"]
    assert [one["event"]["t"] for one in answer["events"] if one["event"]["do"] == "score"] == [21]
