"""The log: entries are logged as run, as planned or as typed; scores, ratings and notes, and who sees what of them."""

from __future__ import annotations

from datetime import timedelta
from importlib import import_module
from typing import Any

import pytest
from django.apps import apps
from django.utils import timezone

from finetally.core import CORE_VERSION
from finetally.web.floor.models import FloorEvent, FloorRun
from finetally.web.jobs.models import Job
from finetally.web.log.models import LearnedPace, LoggedEntry, LogNote, Rating, Result
from finetally.web.log.notes import forget_notes
from finetally.web.log.working_out import catch_up
from finetally.web.people.models import Limit
from finetally.web.plan.models import Attendance, Entry
from finetally.web.squads.models import Squad
from finetally.web.squads.today import today_of
from tests.web.conftest import World
from tests.web.logbooks import (
    PULL,
    START,
    TABLET,
    a_run,
    an_entry,
    give,
    made,
    page,
    rated,
    the_week,
    write,
)


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


def test_several_are_logged_or_none_of_them(world: World) -> None:
    today = today_of(world.squad)
    first, to_come = an_entry(world, today), an_entry(world, today + timedelta(days=1))
    answer = world.send("coach", "POST", "/log/settle", {"entries": [str(first.pk), str(to_come.pk)]})
    assert answer.status_code == 422
    first.refresh_from_db()
    assert first.logged_minutes is None


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


def test_a_score_that_comes_after_the_run_is_learned_from_by_itself(world: World) -> None:
    entry, name = an_entry(world), str(world.known.own.public_id)
    run = a_run(world, entry, START, {"t": 605, "do": "stop"})
    assert FloorRun.objects.get(pk=run.pk).is_over
    give(world, run, {"t": 606, "do": "score", "block": 0, "rounds": 8, "reps": 0, "person": name}, first=9)
    assert Result.objects.get().factor is not None


def test_who_chooses_a_session_is_told_when_it_was_last_done(world: World) -> None:
    before = world.send("coach", "GET", "/sessions/names").json()
    assert [one["done_days"] for one in before] == [None]
    for days, logged in ((3, 40), (12, 40), (1, None)):
        Entry.objects.create(
            squad=world.squad, day=today_of(world.squad) - timedelta(days=days), title="Ridge", session=world.session,
            logged_minutes=logged, logged_effort=5 if logged else None,
        )  # fmt: skip
    assert [one["done_days"] for one in world.send("coach", "GET", "/sessions/names").json()] == [3]


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


def test_a_score_after_a_block_was_left_out_stands_in_its_own_window(world: World) -> None:
    """Numbers are those of the session as it then stands; the log has those of the plan."""
    document = {**PULL, "title": "Turned", "blocks": list(reversed(PULL["blocks"]))}
    entry, name = an_entry(world, document=document), str(world.known.own.public_id)
    out = {"t": 20, "do": "change", "edits": [{"op": "remove", "path": ["blocks"], "index": 0}]}
    a_run(world, entry, START, out, {"t": 500, "do": "score", "block": 0, "rounds": 8, "reps": 0, "person": name})
    [result] = page(world, entry)["results"]
    assert (result["block"], result["score"]["rounds"]) == (1, 8)
    assert result["factor"] is not None


def test_two_devices_that_count_alike_dispute_nothing(world: World) -> None:
    entry, name = an_entry(world), str(world.known.own.public_id)
    told = {"t": 362, "do": "score", "block": 0, "rounds": 5, "reps": 0, "person": name}
    run = a_run(world, entry, START, told)
    give(world, run, told, device=TABLET)
    assert [one["disputed"] for one in page(world, entry)["results"]] == [False, False]
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
    Squad.objects.filter(pk=world.squad.pk).update(asks_health=True)
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
