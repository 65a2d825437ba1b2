"""Jobs: what is asked for, whose they are, how they end; amounts that age."""

from __future__ import annotations

from datetime import date, timedelta
from typing import Any

import pytest
from django.db import OperationalError
from django.utils import timezone
from django_tasks_db.models import DBTaskResult

from finetally.core.week.planned_load import LoadSummary
from finetally.web.jobs import work
from finetally.web.jobs.models import Job, JobState
from finetally.web.jobs.upkeep import MOST_TIMES_BEGUN, prune, queue_forgotten, tidy_after_end
from finetally.web.jobs.use_cases import MOST_WAITING, JobRequest, ask, waiting_before
from finetally.web.jobs.work import FAULT, as_kept, work_on, write_ends
from finetally.web.plan.models import Entry
from finetally.web.plan.refigure import aged, methods_changed
from finetally.web.plan.summaries import methods_key, summary_from_json, summary_json
from finetally.web.squads.actor import member
from finetally.web.squads.figuring_context import context_of
from finetally.web.training.models import Summary
from tests.web.conftest import DOCUMENT, World

ASKED: dict[str, Any] = {"document": DOCUMENT, "formats": ["even-intervals", "strict-20-10"]}
SWEPT = {"document": DOCUMENT, "format": "even-intervals", "param": "work_s", "low": 20, "high": 40, "step": 5}


@pytest.fixture
def waiting(settings: Any) -> None:
    """Nobody takes jobs: they wait."""
    settings.TASKS = {"default": {"BACKEND": "django_tasks.backends.dummy.DummyBackend"}}


@pytest.mark.parametrize(("path", "body"), [("/compare", ASKED), ("/compare/sweep", SWEPT)])
def test_a_large_comparison_is_a_job_with_the_same_answer(
    world: World, settings: Any, path: str, body: dict[str, Any]
) -> None:
    at_once = world.send("coach", "POST", path, body)
    assert at_once.status_code == 200
    settings.LARGE_UNITS = 10
    later = world.send("coach", "POST", path, body)
    assert (later.status_code, later.json()["state"]) == (202, "done")
    answer = world.send("coach", "GET", f"/jobs/{later.json()['id']}/answer")
    assert answer.json() == at_once.json()
    assert world.send("head", "GET", f"/jobs/{later.json()['id']}/answer").status_code == 404


def test_a_large_comparison_comes_as_a_file_too(world: World, settings: Any) -> None:
    at_once = world.send("coach", "POST", "/compare.csv", ASKED).content
    settings.LARGE_UNITS = 10
    job = world.send("coach", "POST", "/compare.csv", ASKED).json()
    file = world.send("coach", "GET", f"/jobs/{job['id']}/file")
    assert file.content == at_once
    assert file["Content-Disposition"] == 'attachment; filename="side-by-side.csv"'


def test_what_a_job_refuses_is_told_with_its_place(world: World, settings: Any) -> None:
    settings.JOB_UNITS = settings.LARGE_UNITS = 10
    job = world.send("coach", "POST", "/compare", ASKED).json()
    assert (job["state"], job["over"], job["answered"]) == ("refused", True, False)
    assert job["problems"][0]["code"] == "over_budget"
    assert world.send("coach", "GET", f"/jobs/{job['id']}/answer").status_code == 422


def test_a_fault_is_the_jobs_and_told_as_ours(world: World, monkeypatch: pytest.MonkeyPatch) -> None:
    monkeypatch.setattr("finetally.web.training.cards.made_card", lambda *_: 1 / 0)
    job = world.send("coach", "POST", "/card.pdf", {"document": DOCUMENT}).json()
    assert (job["state"], job["problems"][0]["code"]) == ("refused", "fault")


def wanted(number: int, **more: Any) -> JobRequest:
    return JobRequest("card", {"number": number}, **more)


def test_asking_twice_is_one_job_and_each_place_has_one(world: World, waiting: None) -> None:
    coach, head = member(world.users["coach"].pk), member(world.users["head"].pk)
    first = ask(coach, world.squad.pk, wanted(1))
    assert ask(coach, world.squad.pk, wanted(1)).pk == first.pk
    assert ask(head, world.squad.pk, wanted(1)).pk != first.pk
    shared = wanted(2, shared=True, lock_name="level 1")
    assert ask(coach, world.squad.pk, shared).pk == ask(head, world.squad.pk, shared).pk
    with pytest.raises(Exception, match="under way"):
        ask(head, world.squad.pk, wanted(3, shared=True, lock_name="level 1"))


def test_the_queue_goes_by_priority_and_nobody_fills_it(world: World, waiting: None) -> None:
    coach = member(world.users["coach"].pk)
    jobs = [ask(coach, world.squad.pk, wanted(n)) for n in range(3)]
    hurried = ask(coach, world.squad.pk, wanted(9, priority=20))
    assert [waiting_before(one) for one in (hurried, *jobs)] == [0, 1, 2, 3]
    for n in range(MOST_WAITING - 4):
        ask(coach, world.squad.pk, wanted(100 + n))
    with pytest.raises(Exception, match=f"{MOST_WAITING} jobs under way"):
        ask(coach, world.squad.pk, wanted(500))


def test_a_waiting_job_that_is_stopped_ends_at_once(world: World, waiting: None) -> None:
    job = ask(member(world.users["coach"].pk), world.squad.pk, wanted(1))
    assert world.send("coach", "DELETE", f"/jobs/{job.pk}").status_code == 204
    job.refresh_from_db()
    assert (job.state, job.is_over) == (JobState.STOPPED, True)


def test_jobs_that_broke_off_are_over_and_old_ones_are_dropped(world: World) -> None:
    Job.objects.all().delete()
    running = Job.objects.create(kind="level", squad=world.squad, state=JobState.RUNNING, answer={"edits": []})
    assert tidy_after_end() == 1
    running.refresh_from_db()
    assert (running.state, running.answer) == (JobState.BROKEN, {"edits": []})
    assert prune() == 0
    Job.objects.update(created_at=timezone.now() - timedelta(days=2))
    assert prune() == 1


def test_a_job_that_has_to_be_done_is_begun_anew_and_not_for_ever(world: World, waiting: None) -> None:
    Job.objects.all().delete()
    running = Job.objects.create(kind="log", squad=world.squad, state=JobState.RUNNING, times_begun=1)
    assert tidy_after_end() == 0
    running.refresh_from_db()
    assert running.state == JobState.WAITING
    Job.objects.update(state=JobState.RUNNING, times_begun=MOST_TIMES_BEGUN)
    tidy_after_end()
    running.refresh_from_db()
    assert (running.state, running.refusal) == (JobState.REFUSED, [as_kept(FAULT)])


def test_a_job_whose_process_was_killed_between_two_steps_is_taken_again(world: World, settings: Any) -> None:
    Job.objects.all().delete()
    settings.TASKS = {"default": {"BACKEND": "django_tasks_db.DatabaseBackend", "QUEUES": ["default"]}}
    job = ask(member(world.users["coach"].pk), world.squad.pk, wanted(1, lock_name="level 1"))
    assert queue_forgotten() == 0
    # The task was taken; then the process was killed, before it wrote that the job runs.
    DBTaskResult.objects.update(status="RUNNING")
    tidy_after_end()
    [task] = DBTaskResult.objects.all()
    assert (task.status, task.args_kwargs["args"]) == ("READY", [str(job.pk)])


def test_an_end_that_cannot_be_written_is_written_at_the_next_look(
    world: World, monkeypatch: pytest.MonkeyPatch, waiting: None
) -> None:
    job = ask(member(world.users["coach"].pk), world.squad.pk, JobRequest("log", {"entries": []}))
    write = work._write

    def full(handle: Any, **more: Any) -> None:
        if "state" in more:
            raise OperationalError("database or disk is full")
        write(handle, **more)

    monkeypatch.setattr(work, "_write", full)
    work_on.call(str(job.pk))
    job.refresh_from_db()
    assert job.state == JobState.RUNNING
    monkeypatch.setattr(work, "_write", write)
    write_ends()
    job.refresh_from_db()
    assert (job.state, job.answer) == (JobState.DONE, {"count": 0})


def test_amounts_of_older_releases_are_read_as_what_they_were() -> None:
    kept = {
        "load": 120.5,
        "effort": 6,
        "reps": 80,
        "landings": 12,
        "patterns": {"squat": 60.0},
        "main": {"squat": [60, 1]},
    }
    old = summary_from_json(kept)
    assert (old.reps, old.landings, old.load) == ({"mixed": 80}, {"mixed": 12}, 120.5)
    new = LoadSummary(load=1.5, reps={"called": 3}, landings={"high": 2}, patterns={"hinge": 2.0})
    assert summary_from_json(summary_json(new)) == new


def test_only_methods_that_figures_read_make_amounts_age(world: World) -> None:
    body = {"session": str(world.session.pk), "day": date(2026, 12, 7).isoformat()}
    planned, logged = (world.send("coach", "POST", "/plan/entries", body).json() for _ in range(2))
    done = {"logged_minutes": 30, "logged_effort": 5}
    world.send("coach", "PATCH", f"/plan/entries/{logged['id']}", done)
    squad, before = world.squad, methods_key(context_of(world.squad))
    squad.methods = {"clash_hours": 24, "muted_checks": ["no-warm-up"], "hard_day_load": 300}
    squad.save()
    assert methods_key(context_of(squad)) == before
    assert methods_changed(squad) is None
    squad.methods = {"effort_factor": {"easy": 0.5, "steady": 0.8, "hard": 1.0, "all-out": 1.2}, "rest_met": 1.2}
    squad.save()
    assert {str(one.pk) for one in aged(squad, context_of(squad))} == {planned["id"]}
    job = methods_changed(squad)
    assert job is not None
    assert job.progress == {"count": 1}
    entries = {str(one.pk): one for one in Entry.objects.filter(squad=squad)}
    assert entries[planned["id"]].figured_with == methods_key(context_of(squad))
    assert entries[planned["id"]].summary["load"] != planned["load"]
    assert entries[planned["id"]].sequence == 0
    assert entries[logged["id"]].figured_with == before
    assert methods_changed(squad) is None


def test_what_is_left_to_figure_anew_is_either_an_entry_or_a_session_of_the_list(world: World) -> None:
    squad = world.squad
    assert methods_changed(squad) is None
    # Nothing is kept of the sessions in the list: they are figured, no entry is.
    Summary.objects.all().delete()
    job = methods_changed(squad)
    assert job is not None
    assert job.progress == {"count": 0}
    assert Summary.objects.exists()
    assert methods_changed(squad) is None
    # An entry is of an older core, the list is not.
    body = {"session": str(world.session.pk), "day": date(2026, 12, 7).isoformat()}
    world.send("coach", "POST", "/plan/entries", body)
    squad.entries.filter(document__isnull=False).update(figured_with="older")
    job = methods_changed(squad)
    assert job is not None
    assert job.progress == {"count": 1}
    assert methods_changed(squad) is None
