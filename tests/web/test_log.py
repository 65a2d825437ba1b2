"""The log: entries are logged as run, as planned or as typed; scores, ratings and notes, and who sees what of them."""

from __future__ import annotations

import json
from datetime import date, timedelta
from importlib import import_module
from typing import Any

import pytest
from django.apps import apps
from django.utils import timezone

from finetally.core import CORE_VERSION
from finetally.core.log.document import read_log
from finetally.core.log.learn import learn
from finetally.shipped import shipped_library
from finetally.web.floor.models import FloorEvent, FloorRun
from finetally.web.jobs.models import Job
from finetally.web.log.models import LearnedPace, LoggedEntry, LogNote, Rating, Result, WatchRecording
from finetally.web.log.notes import forget_notes
from finetally.web.log.working_out import catch_up
from finetally.web.people.models import Limit
from finetally.web.plan.models import Attendance, Entry
from finetally.web.plan.summaries import inside, summarise
from finetally.web.squads.figuring_context import context_of
from finetally.web.squads.models import Person, Squad
from finetally.web.squads.today import today_of
from tests.web.conftest import World

STEPS = [
    {"id": "b", "movement": "burpee", "reps": 5},
    {
        "id": "p",
        "movement": "push-up",
        "reps": 10,
        "options": [{"label": "knees", "level": "easier", "movement": "knee-push-up"}],
    },
]
DOCUMENT: dict[str, Any] = {
    "fine_tally": 1,
    "title": "Ridge pull",
    "blocks": [
        {"id": "w", "title": "Window", "clock": {"kind": "amrap", "window_s": 360}, "steps": STEPS},
        {
            "id": "r",
            "title": "Swings",
            "clock": {"kind": "intervals", "work_s": 30, "rest_s": 30},
            "rounds": 4,
            "steps": [{"movement": "swing"}],
        },
    ],
}
DEVICE, TABLET = "a-phone-on-a-box", "a-tablet-on-a-box"


def an_entry(world: World, day: date | None = None, document: dict[str, Any] = DOCUMENT) -> Entry:
    """As the plan keeps it: with the definitions of its movements inside."""
    context = context_of(world.squad)
    whole = inside(document, context)
    entry = Entry(squad=world.squad, day=day or today_of(world.squad), title=document["title"], document=whole)
    summarise(whole, context).put(entry)
    entry.save()
    return entry


def a_run(world: World, entry: Entry, *events: dict[str, Any], device: str = DEVICE) -> FloorRun:
    """A run of it that was begun an hour ago, with what was sent from one device."""
    begun = timezone.now() - timedelta(hours=1)
    run = FloorRun.objects.create(
        squad=world.squad, entry=entry, day=entry.day, title=entry.title, document=entry.document, begun_at=begun,
        hold="never", user=world.users["coach"],
    )  # fmt: skip
    give(world, run, *events, device=device)
    return run


def give(world: World, run: FloorRun, *events: dict[str, Any], device: str = DEVICE, first: int = 0) -> None:
    sent = [{"device": device, "number": first + n, "event": one} for n, one in enumerate(events)]
    answer = world.send("coach", "POST", f"/floor/runs/{run.pk}/events", {"events": sent})
    assert answer.status_code == 200, answer.content


def page(world: World, entry: Entry, who: str = "coach") -> Any:
    answer = world.send(who, "GET", f"/log/entries/{entry.pk}")
    assert answer.status_code == 200, answer.content
    return answer.json()


def write(world: World, entry: Entry, *scores: dict[str, Any], who: str = "coach") -> Any:
    return world.send(who, "PUT", f"/log/entries/{entry.pk}/results", {"results": list(scores)})


def made(person: Person, rounds: int, reps: int, **more: Any) -> dict[str, Any]:
    return {"person": str(person.public_id), "block": 0, "score": {"rounds": rounds, "reps": reps}, **more}


def the_week(world: World, entry: Entry, person: Person | None = None) -> Any:
    of = f"&person={person.public_id}" if person is not None else ""
    return world.send("coach", "GET", f"/plan/week?day={entry.day}&squad={world.squad.pk}{of}").json()


START = {"t": 0, "do": "start"}


def test_as_planned_in_one_step(world: World) -> None:
    entry, other = an_entry(world), an_entry(world, today_of(world.squad) - timedelta(days=1))
    listed = world.send("coach", "GET", f"/log?squad={world.squad.pk}").json()
    assert [one["id"] for one in listed["waiting"]] == [str(other.pk), str(entry.pk)]
    settled = world.send("coach", "POST", "/log/settle", {"entries": [str(entry.pk), str(other.pk)]}).json()
    assert len(settled["entries"]) == 2
    told = page(world, entry)
    assert (told["logged"], told["how"], told["effort_from"]) == (True, "planned", "estimate")
    assert told["minutes"] == pytest.approx(told["planned"]["total_s"] / 60, abs=0.01)
    assert told["effort"] == pytest.approx(told["planned"]["effort"], abs=0.01)
    listed = world.send("coach", "GET", f"/log?squad={world.squad.pk}").json()
    assert (listed["waiting"], len(listed["entries"])) == ([], 2)


def test_a_run_is_logged_as_it_was_done(world: World) -> None:
    entry = an_entry(world)
    # The window as planned, then 90 s of waiting are a pause, and the last two swings are left out.
    run = a_run(
        world, entry, START, {"t": 365, "do": "pause"}, {"t": 455, "do": "resume"}, {"t": 580, "do": "stop"}
    )
    world.send("coach", "PUT", f"/log/entries/{entry.pk}", {})
    told = page(world, entry)
    assert told["how"] == "run"
    assert told["minutes"] == pytest.approx(580 / 60, abs=0.01)
    [one] = told["runs"]
    assert one["run"] == str(run.pk)
    kinds = {difference["kind"]: difference for difference in one["differences"]}
    assert kinds["paused"]["seconds"] == pytest.approx(90)
    assert kinds["skipped"]["seconds"] < 0
    assert one["figures"]["work_s"] < told["planned"]["work_s"]
    # The week takes what was done.
    week = the_week(world, entry)
    assert week["load"]["totals"]["load"] == pytest.approx(told["minutes"] * told["effort"], rel=0.01)
    assert week["load"]["totals"]["work-min"] == pytest.approx(one["figures"]["work_s"] / 60, abs=0.01)


def test_what_is_logged_stays_whatever_becomes_of_the_methods(world: World) -> None:
    entry = an_entry(world)
    a_run(world, entry, START, {"t": 600, "do": "stop"})
    world.send("coach", "PUT", f"/log/entries/{entry.pk}", {})
    before = page(world, entry)
    patch = {"capacity_met": 6, "fatigue": 1}
    assert world.send("head", "PATCH", f"/squads/{world.squad.pk}/methods", {"methods": patch}).status_code < 300
    after = page(world, entry)
    for key in ("planned", "picture", "runs", "minutes", "effort"):
        assert after[key] == before[key], key


def test_scores_of_the_floor_come_into_the_log_with_what_was_expected(world: World) -> None:
    entry, person = an_entry(world), world.known.own
    name = str(person.public_id)
    run = a_run(world, entry, START, {"t": 362, "do": "score", "block": 0, "rounds": 8, "reps": 3, "person": name})
    give(world, run, {"t": 600, "do": "stop"}, first=9)
    world.send("coach", "PUT", f"/log/entries/{entry.pk}", {})
    [result] = page(world, entry)["results"]
    assert (result["person"], result["score"]["rounds"], result["way"]) == (name, 8, "floor")
    assert result["factor"] is not None
    assert result["expected"]["least"]["rounds"] <= result["expected"]["expected"]["rounds"]
    assert LearnedPace.objects.get(person=person).scores == 1


def test_the_same_device_corrects_and_another_disputes(world: World) -> None:
    entry, person = an_entry(world), world.known.own
    name = str(person.public_id)
    told = {"do": "score", "block": 0, "person": name}
    run = a_run(world, entry, START, {"t": 362, "rounds": 4, "reps": 0, **told})
    give(world, run, {"t": 365, "rounds": 5, "reps": 0, **told}, first=5)
    assert [one.score for one in Result.objects.filter(entry=entry)] == [{"rounds": 5, "reps": 0}]
    give(world, run, {"t": 370, "rounds": 6, "reps": 0, **told}, device=TABLET)
    five, six = page(world, entry)["results"]
    assert (five["used"], six["used"]) == (False, True)
    listed = world.send("coach", "GET", f"/log?squad={world.squad.pk}").json()
    assert listed["waiting"][0]["disputed"] == 1
    assert world.send("coach", "POST", f"/log/results/{five['id']}/use").status_code == 204
    five, six = page(world, entry)["results"]
    assert (five["used"], five["chosen"], six["used"]) == (True, True, False)
    listed = world.send("coach", "GET", f"/log?squad={world.squad.pk}").json()
    assert listed["waiting"][0]["disputed"] == 0


def test_a_persons_own_count_stands_beside_the_coachs(world: World) -> None:
    entry, person = an_entry(world), world.known.own
    assert write(world, entry, made(person, 5, 2), who="athlete").status_code == 204
    [own] = page(world, entry)["results"]
    assert (own["way"], own["used"]) == ("own", True)
    assert write(world, entry, made(person, 4, 9)).status_code == 204
    ways = {one["way"]: one["used"] for one in page(world, entry)["results"]}
    assert ways == {"own": False, "typed": True}
    # Typed again it is a correction; sent as nothing it is taken back.
    write(world, entry, made(person, 4, 10))
    assert {one["score"]["reps"] for one in page(world, entry)["results"]} == {2, 10}
    write(world, entry, {"person": str(person.public_id), "block": 0})
    assert [one["way"] for one in page(world, entry)["results"]] == ["own"]


@pytest.mark.parametrize(
    ("wrong", "place"),
    [
        ({"block": 9, "score": {"rounds": 1}}, "results[0].block"),
        ({"block": 0, "score": {"rounds": 1, "time_s": 4}}, "results[0].score"),
        ({"block": 0, "score": {}}, "results[0].score"),
        ({"block": 0, "score": {"rounds": 20_000}}, "results[0].score.rounds"),
        ({"block": 0, "score": {"rounds": 1}, "sets": [{"kg": 2000, "reps": 1}]}, "results[0].sets[0]"),
    ],
)
def test_a_wrong_score_is_refused_with_its_place_and_nothing_is_kept(
    world: World, wrong: dict[str, Any], place: str
) -> None:
    entry = an_entry(world)
    answer = write(world, entry, {"person": str(world.known.own.public_id), **wrong})
    assert (answer.status_code, answer.json()["problems"][0]["path"]) == (422, place)
    assert not Result.objects.exists()


def rated(world: World, entry: Entry, person: Person | None, effort: float | None, who: str = "coach") -> Any:
    body = {"person": str(person.public_id) if person is not None else None, "effort": effort}
    return world.send(who, "PUT", f"/log/entries/{entry.pk}/rating", body)


def test_ratings_carry_the_load_each_for_themselves(world: World) -> None:
    entry, person, other = an_entry(world), world.known.own, world.planned.person
    world.send("coach", "PUT", f"/log/entries/{entry.pk}", {})
    minutes = page(world, entry)["minutes"]
    assert rated(world, entry, person, 8).status_code == 204
    assert rated(world, entry, other, 5).status_code == 204
    told = page(world, entry)
    assert (told["effort"], told["effort_from"]) == (6.5, "ratings")
    assert the_week(world, entry)["load"]["totals"]["load"] == pytest.approx(6.5 * minutes, rel=0.01)
    assert the_week(world, entry, person)["load"]["totals"]["load"] == pytest.approx(8 * minutes, rel=0.01)
    assert the_week(world, entry, other)["load"]["totals"]["load"] == pytest.approx(5 * minutes, rel=0.01)
    rated(world, entry, person, None)
    assert page(world, entry)["effort"] == 5


def test_one_figure_for_the_group_counts_for_load_and_teaches_nobody(world: World) -> None:
    entry = an_entry(world)
    world.send("coach", "PUT", f"/log/entries/{entry.pk}", {})
    assert rated(world, entry, None, 9).status_code == 204
    told = page(world, entry)
    assert (told["effort"], told["effort_from"], told["group_rating"]) == (9, "group", 9)
    assert not LearnedPace.objects.exists()
    rated(world, entry, world.known.own, 6)
    assert page(world, entry)["effort"] == 6


def test_an_athlete_rates_until_the_end_of_the_next_day_and_only_themselves(world: World) -> None:
    today = today_of(world.squad)
    for days, status in ((0, 204), (1, 204), (2, 422)):
        entry = an_entry(world, today - timedelta(days=days))
        assert rated(world, entry, world.known.own, 7, "athlete").status_code == status
        assert rated(world, entry, world.planned.person, 7, "athlete").status_code == 404
        assert rated(world, entry, None, 7, "athlete").status_code == 404
    assert rated(world, an_entry(world, today + timedelta(days=1)), world.known.own, 7).status_code == 422


def test_a_rating_just_after_the_end_is_marked(world: World) -> None:
    entry = an_entry(world)
    run = a_run(world, entry, START, {"t": 600, "do": "stop"})
    FloorRun.objects.filter(pk=run.pk).update(ended_at=timezone.now() - timedelta(minutes=3))
    rated(world, entry, world.known.own, 7)
    assert Rating.objects.get().early is True
    FloorRun.objects.filter(pk=run.pk).update(ended_at=timezone.now() - timedelta(minutes=13))
    rated(world, entry, world.known.own, 7)
    assert Rating.objects.get().early is False


def test_an_athlete_sees_their_own_alone(world: World) -> None:
    entry, person, other = an_entry(world), world.known.own, world.planned.person
    world.send("coach", "PUT", f"/log/entries/{entry.pk}", {})
    write(world, entry, made(person, 5, 0), made(other, 6, 0))
    rated(world, entry, person, 6)
    rated(world, entry, other, 9)
    Limit.objects.create(person=other, joint="knee", first=entry.day)
    world.send("coach", "POST", f"/log/entries/{entry.pk}/notes", {"person": str(other.public_id), "text": "shoes"})
    world.send("coach", "POST", f"/log/entries/{entry.pk}/notes", {"text": "the squad was late"})
    told = page(world, entry, "athlete")
    assert [one["person"] for one in told["people"]] == [str(person.public_id)]
    assert {one["person"] for one in told["results"]} == {str(person.public_id)}
    assert told["notes"] == []
    assert told["group_rating"] is None
    assert str(other.public_id) not in str(told)
    [line] = world.send("athlete", "GET", f"/log?squad={world.squad.pk}").json()["entries"]
    assert (line["rated"], line["ratings"], line["notes"], line["results"]) == (6, 1, 0, 1)
    assert world.send("athlete", "GET", f"/log/people/{other.public_id}").status_code == 404
    assert world.send("athlete", "GET", f"/log/people/{person.public_id}").status_code == 200


def test_what_is_for_one_other_person_does_not_exist(world: World) -> None:
    entry = an_entry(world)
    entry.person = world.planned.person
    entry.save()
    assert world.send("athlete", "GET", f"/log/entries/{entry.pk}").status_code == 404
    assert world.send("athlete", "GET", f"/log?squad={world.squad.pk}").json()["entries"] == []


def test_health_is_asked_for_only_where_a_squad_does_and_its_caution_comes_at_once(world: World) -> None:
    entry = an_entry(world)
    note = {"person": str(world.known.own.public_id), "kind": "dizziness", "text": "after the swings"}
    path = f"/log/entries/{entry.pk}/notes"
    assert world.send("athlete", "POST", path, note).status_code == 422
    Squad.objects.filter(pk=world.squad.pk).update(asks_health=True)
    answer = world.send("athlete", "POST", path, note)
    assert answer.status_code == 201
    assert "tell somebody now" in answer.json()["caution"]
    [told] = page(world, entry)["notes"]
    assert (told["health"], told["lifted"]) == (True, None)
    assert world.send("coach", "POST", f"/log/notes/{told['id']}/lift").status_code == 204
    assert page(world, entry)["notes"][0]["lifted"] is not None


def test_notes_of_health_are_forgotten_in_time_and_only_that_they_were_stays(world: World) -> None:
    entry, name = an_entry(world), str(world.known.own.public_id)
    run = a_run(world, entry, START, {"t": 9, "do": "note", "text": "left calf", "kind": "pain", "person": name})
    free = LogNote.objects.create(entry=entry, kind="free", text="cold hall")
    old = timezone.now() - timedelta(days=370)
    LogNote.objects.update(at=old)
    assert forget_notes() == 1
    assert forget_notes() == 0
    [pain] = LogNote.objects.filter(kind="pain")
    assert (pain.text, pain.emptied, pain.person) == ("", True, world.known.own)
    free.refresh_from_db()
    assert free.text == "cold hall"
    assert "left calf" not in str(list(FloorEvent.objects.filter(run=run).values_list("event", flat=True)))


def eight_logged(world: World, person: Person, rounds: int, reps: int) -> list[Entry]:
    """Four sessions with the same score each, a week apart, the last one a week ago."""
    found = []
    for weeks in (4, 3, 2, 1):
        entry = an_entry(world, today_of(world.squad) - timedelta(weeks=weeks))
        assert write(world, entry, made(person, rounds, reps)).status_code == 204
        found.append(entry)
    return found


def expected(world: World, entry: Entry, person: Person) -> Any:
    found = world.send("coach", "GET", f"/log/entries/{entry.pk}/expected").json()
    return next(one for one in found if one["person"] == str(person.public_id))


def test_from_four_scores_on_the_next_estimate_moves_and_can_be_put_back(world: World) -> None:
    person, coming = world.known.own, an_entry(world)
    Squad.objects.filter(pk=world.squad.pk).update(learning="auto")
    before = expected(world, coming, person)
    assert before["pace"]["source"] == "squad"
    quick = before["score"]["expected"]["rounds"] + 3
    summary = Entry.objects.get(pk=coming.pk).summary
    eight_logged(world, person, quick, 0)
    after = expected(world, coming, person)
    assert (after["pace"]["source"], after["pace"]["scores"]) == ("learned", 4)
    assert after["pace"]["factor"] < 1
    assert after["score"]["expected"]["rounds"] > before["score"]["expected"]["rounds"]
    told = world.send("coach", "GET", f"/log/people/{person.public_id}").json()
    assert told["learned"]["counts"] is True
    assert len(told["learned"]["why"]["pace"]) == 4
    # Figures of somebody go by it; planned copies never move.
    asked = {"document": DOCUMENT, "person": str(person.public_id), "squad": world.squad.pk}
    as_person = world.send("coach", "POST", "/figures", asked).json()["figures"]["blocks"][0]["scores"][0]
    assert as_person["rounds"] == after["score"]["expected"]["rounds"]
    assert Entry.objects.get(pk=coming.pk).summary == summary
    assert world.send("coach", "PUT", f"/log/people/{person.public_id}/learned", {"use": "no"}).status_code == 204
    assert expected(world, coming, person)["score"] == before["score"]


def test_three_scores_are_not_enough_and_asking_means_asking(world: World) -> None:
    person, coming = world.known.own, an_entry(world)
    Squad.objects.filter(pk=world.squad.pk).update(learning="ask")
    eight_logged(world, person, 12, 0)
    assert expected(world, coming, person)["pace"]["source"] == "squad"
    world.send("coach", "PUT", f"/log/people/{person.public_id}/learned", {"use": "yes"})
    assert expected(world, coming, person)["pace"]["source"] == "learned"
    Result.objects.filter(entry__day__lt=today_of(world.squad) - timedelta(weeks=3)).delete()
    write(world, an_entry(world, today_of(world.squad) - timedelta(days=2)), made(person, 12, 0))
    LearnedPace.objects.filter(person=person).update(scores=3)
    assert expected(world, coming, person)["pace"]["source"] == "squad"


def test_estimates_that_are_off_three_times_running_are_told(world: World) -> None:
    person, coming = world.known.own, an_entry(world)
    usual = expected(world, coming, person)["score"]["expected"]["rounds"]
    eight_logged(world, person, usual + 4, 0)
    [told] = [one for one in page(world, coming)["people"] if one["person"] == str(person.public_id)]
    assert len(told["off"]["factors"]) == 3
    assert told["off"]["fits"] < 0.9


def test_knee_push_ups_do_not_make_anybody_quicker(world: World) -> None:
    """More rounds with an easier option are the same pace, where the option is known."""
    person = world.known.own
    entry, plain = an_entry(world), an_entry(world, today_of(world.squad) - timedelta(days=1))
    write(world, entry, made(person, 8, 0, options={"p": "knees"}))
    write(world, plain, made(person, 8, 0))
    knees = Result.objects.get(entry=entry).factor
    pushed = Result.objects.get(entry=plain).factor
    assert knees is not None
    assert pushed is not None
    # The knees' pace is the quicker one: the same rounds are the less quick there.
    assert knees >= pushed


def test_a_window_that_was_cut_short_teaches_nothing_of_pace(world: World) -> None:
    entry, person = an_entry(world), world.known.own
    name = str(person.public_id)
    told = {"t": 205, "do": "score", "block": 0, "rounds": 3, "reps": 0, "person": name}
    a_run(world, entry, START, {"t": 200, "do": "skip", "what": "block"}, told, {"t": 300, "do": "stop"})
    world.send("coach", "PUT", f"/log/entries/{entry.pk}", {})
    assert Result.objects.get().factor is None


def test_who_came_late_and_who_left_is_noted_with_their_minutes(world: World) -> None:
    entry, late, left = an_entry(world), world.known.own, world.planned.person
    a_run(
        world, entry, {"t": 0, "do": "away", "person": str(late.public_id), "why": "late"}, START,
        {"t": 120, "do": "here", "person": str(late.public_id)},
        {"t": 300, "do": "away", "person": str(left.public_id), "why": "left"}, {"t": 600, "do": "stop"},
    )  # fmt: skip
    world.send("coach", "PUT", f"/log/entries/{entry.pk}", {})
    minutes = {one.person_id: one.minutes for one in Attendance.objects.filter(entry=entry)}
    assert minutes[late.pk] == pytest.approx(8, abs=0.05)
    assert minutes[left.pk] == pytest.approx(5, abs=0.05)


def test_taken_back_it_waits_again_and_nothing_of_it_is_lost(world: World) -> None:
    entry = an_entry(world)
    world.send("coach", "PUT", f"/log/entries/{entry.pk}", {"minutes": 40, "effort": 7})
    write(world, entry, made(world.known.own, 5, 0))
    assert world.send("coach", "DELETE", f"/log/entries/{entry.pk}").status_code == 204
    told = page(world, entry)
    assert (told["logged"], len(told["results"])) == (False, 1)
    assert not LoggedEntry.objects.exists()


def test_other_training_is_logged_too(world: World) -> None:
    hike = Entry.objects.create(
        squad=world.squad, day=today_of(world.squad), title="Hike", minutes=90, effort=3, summary={"load": 270}
    )
    world.send("coach", "POST", "/log/settle", {"entries": [str(hike.pk)]})
    told = page(world, hike)
    assert (told["minutes"], told["effort"], told["planned"]) == (90, 3, None)


def test_tomorrow_is_not_logged(world: World) -> None:
    entry = an_entry(world, today_of(world.squad) + timedelta(days=1))
    assert world.send("coach", "PUT", f"/log/entries/{entry.pk}", {}).status_code == 422


def test_nothing_is_worked_out_twice(world: World) -> None:
    entry = an_entry(world)
    write(world, entry, made(world.known.own, 5, 0))
    kept = Result.objects.get()
    write(world, entry, made(world.planned.person, 6, 0))
    again = Result.objects.get(pk=kept.pk)
    assert (again.key, again.predicted) == (kept.key, kept.predicted)
    assert Job.objects.filter(kind="log").count() == 2
    assert CORE_VERSION


def test_a_rating_far_from_the_estimate_is_told_and_a_note_of_pain_stands_until_it_is_lifted(world: World) -> None:
    Squad.objects.filter(pk=world.squad.pk).update(asks_health=True)
    before, entry = an_entry(world, today_of(world.squad) - timedelta(days=2)), an_entry(world)
    name = str(world.known.own.public_id)
    note = {"person": name, "kind": "pain", "text": "calf", "level": 2}
    world.send("coach", "POST", f"/log/entries/{before.pk}/notes", note)
    rated(world, entry, world.known.own, 10 if page(world, entry)["planned"]["effort"] < 7 else 1)
    [told] = [one for one in page(world, entry)["people"] if one["person"] == name]
    assert (told["far"], told["standing"]) == (True, 1)
    world.send("coach", "POST", f"/log/notes/{LogNote.objects.get(kind='pain').pk}/lift")
    rated(world, entry, world.known.own, round(told["estimated"]))
    [told] = [one for one in page(world, entry)["people"] if one["person"] == name]
    assert (told["far"], told["standing"]) == (False, 0)


def test_what_was_scored_before_there_was_a_log_comes_into_it(world: World) -> None:
    entry, name = an_entry(world), str(world.known.own.public_id)
    told = {"do": "score", "block": 0, "person": name}
    run = a_run(
        world, entry, START, {"t": 362, "rounds": 4, "reps": 0, **told}, {"t": 365, "rounds": 5, "reps": 0, **told}
    )
    give(world, run, {"t": 370, "rounds": 6, "reps": 0, **told}, device=TABLET)
    give(world, run, {"t": 380, "do": "note", "text": "cold", "kind": "kit"}, first=7)
    kept = [(one.score, one.device, one.used) for one in Result.objects.order_by("id")]
    Result.objects.all().delete()
    LogNote.objects.all().delete()
    import_module("finetally.web.log.migrations.0002_from_runs").from_runs(apps, None)
    assert [(one.score, one.device, one.used) for one in Result.objects.order_by("id")] == kept
    assert [one.text for one in LogNote.objects.all()] == ["cold"]
    assert catch_up() == 1
    assert Result.objects.exclude(key="").count() == 2


# Watches.

TCX = """<?xml version="1.0"?>
<Database xmlns="http://example.invalid/v2"><Activities><Activity>
<Id>serial-77</Id><Lap><Track>
<Trackpoint><Time>2026-11-02T18:00:00Z</Time><Position><LatitudeDegrees>54.1</LatitudeDegrees></Position>
<HeartRateBpm><Value>120</Value></HeartRateBpm></Trackpoint>
<Trackpoint><Time>2026-11-02T18:00:10Z</Time><HeartRateBpm><Value>150</Value></HeartRateBpm></Trackpoint>
<Trackpoint><Time>2026-11-02T18:00:20Z</Time><HeartRateBpm><Value>160</Value></HeartRateBpm></Trackpoint>
</Track></Lap></Activity></Activities></Database>"""


def put_pulse(world: World, entry: Entry, kind: str, text: str, who: str = "coach", **more: Any) -> Any:
    body = {"person": str(world.known.own.public_id), "kind": kind, "text": text, **more}
    return world.send(who, "PUT", f"/log/entries/{entry.pk}/watch", body)


def test_of_a_watch_time_and_pulse_alone_are_kept(world: World) -> None:
    entry = an_entry(world)
    assert put_pulse(world, entry, "tcx", TCX).status_code == 422, "only where the squad asks for health"
    Squad.objects.filter(pk=world.squad.pk).update(asks_health=True)
    made = put_pulse(world, entry, "tcx", TCX, max_hr=200, rest_hr=50).json()
    assert (made["figures"]["peak"], made["figures"]["mean"], made["figures"]["known_s"]) == (160, 135, 20)
    assert made["figures"]["above"] == {"60": 20, "70": 10, "80": 0, "90": 0}
    kept = str(list(WatchRecording.objects.values()))
    assert "54.1" not in kept
    assert "serial-77" not in kept
    assert page(world, entry, "athlete")["pulses"][0]["figures"]["peak"] == 160
    assert world.send("athlete", "DELETE", f"/log/watch/{made['id']}/curve").status_code == 204
    [told] = page(world, entry)["pulses"]
    assert (told["curve"], told["figures"]["peak"]) == (None, 160)


@pytest.mark.parametrize(
    ("kind", "text"),
    [
        ("csv", "t,pulse\n0,100"),
        ("csv", "time_s,hr\n0,100\nlater,110"),
        ("csv", "time_s,hr\n0,100"),
        ("csv", "time_s,hr\n0,100\n90000,110"),
        ("tcx", "<not xml"),
        ("tcx", '<!DOCTYPE a [<!ENTITY b "c">]><a>&b;</a>'),
        ("tcx", TCX.replace("2026-11-02T18:00:10Z", "yesterday")),
    ],
    ids=["headings", "no number", "one reading", "over a day", "no xml", "entities", "no time"],
)
def test_what_is_no_recording_is_refused(world: World, kind: str, text: str) -> None:
    Squad.objects.filter(pk=world.squad.pk).update(asks_health=True)
    answer = put_pulse(world, an_entry(world), kind, text)
    assert answer.status_code == 422, answer.content
    assert not WatchRecording.objects.exists()


# Out, and in again.


def taken_out(world: World, kind: str = "json", who: str = "coach", **more: Any) -> Any:
    asked = "&".join(f"{key}={value}" for key, value in more.items())
    answer = world.send(who, "GET", f"/log/file.{kind}?squad={world.squad.pk}&{asked}")
    assert answer.status_code == 200, answer.content
    return answer


def a_log(world: World) -> None:
    """Two sessions: one with an option and ratings, one run in which somebody came late."""
    person, other = world.known.own, world.planned.person
    before = an_entry(world, today_of(world.squad) - timedelta(days=8))
    write(world, before, made(person, 8, 2), made(other, 6, 0, options={"p": "knees"}))
    rated(world, before, person, 8)
    entry = an_entry(world)
    a_run(
        world, entry, START, {"t": 100, "do": "here", "person": str(other.public_id)},
        {"t": 700, "do": "stop"}, {"t": 700, "do": "note", "text": "secret", "person": str(other.public_id)},
    )  # fmt: skip
    write(world, entry, made(person, 7, 5))
    rated(world, entry, other, 4)
    world.send("coach", "PUT", f"/log/entries/{entry.pk}", {})


def learned_rows() -> list[tuple[Any, ...]]:
    rows = LearnedPace.objects.order_by("person__name")
    return [
        (
            one.person.name,
            round(one.pace_factor, 4),
            round(one.spread, 4),
            one.scores,
            round(one.effort_offset, 3),
            one.ratings,
        )
        for one in rows
    ]


def test_a_log_goes_out_and_comes_in_again_with_the_same_figures(world: World) -> None:
    a_log(world)
    text = taken_out(world).content.decode()
    before = learned_rows()
    entries = Entry.objects.filter(title="Ridge pull").count()
    [minutes] = Entry.objects.filter(title="Ridge pull", logged_minutes__isnull=False).values_list(
        "logged_minutes", flat=True
    )
    assert "secret" not in text
    # What the command line makes of the file is what is kept here.
    log = read_log(json.loads(text))
    methods = context_of(world.squad).methods
    told = {person: one.figures() for person, one in learn(log, library=shipped_library(), methods=methods).items()}
    assert [(name, *told[name].values()) for name in sorted(told)] == before
    Entry.objects.filter(title="Ridge pull").delete()
    FloorRun.objects.filter(title="Ridge pull").delete()
    LearnedPace.objects.all().delete()
    answer = world.send("coach", "POST", "/log/file", {"text": text, "squad": world.squad.pk})
    assert (answer.status_code, answer.json()) == (200, {"sessions": 2})
    assert learned_rows() == before
    assert Entry.objects.filter(title="Ridge pull").count() == entries
    assert Entry.objects.filter(title="Ridge pull", logged_minutes=minutes).exists()
    # Brought again it makes nothing twice.
    world.send("coach", "POST", "/log/file", {"text": text, "squad": world.squad.pk})
    assert Entry.objects.filter(title="Ridge pull").count() == entries
    assert learned_rows() == before
    assert json.loads(taken_out(world).content)["entries"] == json.loads(text)["entries"]


def test_a_file_with_people_whom_nobody_knows_changes_nothing_and_tells_each(world: World) -> None:
    a_log(world)
    text = taken_out(world).content.decode().replace("Tamsin Arkwell", "Nobody Known")
    results = Result.objects.count()
    answer = world.send("coach", "POST", "/log/file", {"text": text, "squad": world.squad.pk})
    assert answer.status_code == 422
    assert {one["path"].rpartition(".")[2] for one in answer.json()["problems"]} == {"person"}
    assert Result.objects.count() == results


def test_one_persons_log_is_theirs_alone(world: World) -> None:
    a_log(world)
    own = taken_out(world, who="athlete", person=world.known.own.public_id)
    assert {one["person"] for one in json.loads(own.content)["entries"]} == {"Tamsin Arkwell"}
    assert "Somebody" not in own.content.decode()


def test_the_table_has_a_row_for_each_score_and_rating(world: World) -> None:
    a_log(world)
    lines = taken_out(world, "csv").content.decode().splitlines()
    assert lines[0].startswith("date,person,session,block")
    assert len(lines) == 1 + 3 + 2
    assert any(",8,2," in line and "Tamsin Arkwell" in line for line in lines)
    assert any("knees" in line for line in lines)
