"""Working on jobs: what the one process for heavy work does with each, and what it tells meanwhile.

Nothing is written while something is figured: progress is written by a thread of its own, in moments.
"""

from __future__ import annotations

import logging
import threading
import time
from collections.abc import Callable, Iterator
from contextlib import contextmanager
from typing import Any

from django.conf import settings
from django.db import OperationalError, connection, transaction
from django.db.models import F
from django.utils import timezone
from django.utils.module_loading import import_string
from django_tasks import task

from finetally.core.session.budget import budget_of
from finetally.core.session.problems import DocumentError, Problem
from finetally.web.jobs.models import Job, JobState
from finetally.web.log_lines import lines, log_number
from finetally.web.squads.actor import Actor, member

log = logging.getLogger(__name__)
LOOK_S = 0.25
"""Seconds between looking whether somebody asked to stop, and telling how far it is."""

FAULT = Problem("job", "a fault of ours", "to ask again; what was asked changed nothing", "fault")


def as_kept(problem: Problem) -> dict[str, str]:
    """A problem as a job keeps it."""
    return {"path": problem.path, "found": problem.found, "allowed": problem.allowed, "code": problem.code}


class JobHandle:
    """What a job's work is handed: a place to lay down the best so far, and whether to stop.

    Used from the thread that works and from the one that looks on.
    """

    def __init__(self, job: Job) -> None:
        self.job = job
        self.stopped = False
        self.process_ends = False
        self._lock = threading.Lock()
        self._on_stop: Callable[[], None] | None = None
        self._shown: dict[str, Any] = {}

    def asker(self) -> Actor:
        """Whoever asked for the job. One query. Raises LookupError for one that nobody asked for."""
        if self.job.owner_id is None:
            raise LookupError(f"nobody asked for this {self.job.kind}")
        return member(self.job.owner_id)

    def on_stop(self, act: Callable[[], None]) -> None:
        """What to do when somebody is content; at once if somebody was already."""
        with self._lock:
            self._on_stop = act
        if self.stopped:
            act()

    def stop(self, *, process_ends: bool = False) -> None:
        """Somebody is content with the best so far, or the process ends."""
        with self._lock:
            self.process_ends = self.process_ends or process_ends
            self.stopped, act = True, self._on_stop
        if act is not None:
            act()

    def show(self, **fields: Any) -> None:
        """Lay down fields of the job (progress, answer, file …), or what makes them when they are written."""
        with self._lock:
            self._shown.update(fields)

    def shown(self) -> dict[str, Any]:
        """What was laid down since it was last asked."""
        with self._lock:
            shown, self._shown = self._shown, {}
        return {name: made() if callable(made) else made for name, made in shown.items()}


_handles: list[JobHandle] = []
"""Of the job that this process works on now: none or one."""


def stop_work() -> None:
    """End what this process works on; what it has so far is kept."""
    for handle in list(_handles):
        handle.stop(process_ends=True)


class LaterError(Exception):
    """The process ends, or cannot write now, and the job has to go on: a later look starts it again."""


@task()
def work_on(job_id: str) -> None:
    """Do one job and keep its answer. Never raises: a fault is the job's refusal."""
    waiting = Job.objects.filter(pk=job_id, state=JobState.WAITING)
    begun = {"seen_at": timezone.now(), "times_begun": F("times_begun") + 1}
    if not waiting.update(state=JobState.RUNNING, **begun):
        return
    job = Job.objects.select_related("squad").get(pk=job_id)
    handle = JobHandle(job)
    _handles.append(handle)
    last: dict[str, Any] = {}
    began = time.perf_counter()
    try:
        work: Callable[[JobHandle], None] = import_string(settings.JOB_KINDS[job.kind])
        with budget_of(settings.JOB_UNITS), _looked_on(handle):
            work(handle)
        last["state"] = JobState.STOPPED if handle.stopped else JobState.DONE
    except LaterError:
        log.info("a job goes on later")
        # What ended well for its process does not count against it.
        last.update(state=JobState.WAITING, times_begun=max(0, job.times_begun - 1))
    except DocumentError as error:
        last.update(state=JobState.REFUSED, refusal=[as_kept(one) for one in error.problems])
    except Exception:
        log.exception("a job could not be done")
        last.update(state=JobState.REFUSED, refusal=[as_kept(FAULT)])
    finally:
        _handles.remove(handle)
    if last["state"] != JobState.WAITING:
        last["ended_at"] = timezone.now()
    end_of_job(handle, last)
    who = None if job.owner_id is None else log_number("account", job.owner_id)
    took = round(1000 * (time.perf_counter() - began), 1)
    lines.info({"what": "job", "kind": job.kind, "ended": last["state"].value, "ms": took, "who": who})


_unwritten: list[tuple[JobHandle, dict[str, Any]]] = []
"""How jobs ended that could not be written yet: the database was busy, or its disk full."""


def end_of_job(handle: JobHandle, last: dict[str, Any]) -> None:
    """Write how a job ended; where that cannot be done it is kept, and written by a later `write_ends`."""
    _unwritten.append((handle, {**handle.shown(), **last}))
    write_ends()


def write_ends() -> None:
    """Write the ends of jobs that could not be written before. The process for heavy work calls it at each look."""
    while _unwritten:
        handle, last = _unwritten[0]
        try:
            _write(handle, **last)
        except OperationalError:
            log.info("the end of a job cannot be written: it is tried again")
            return
        _unwritten.pop(0)


def _write(handle: JobHandle, **more: Any) -> None:
    fields = {**handle.shown(), **more}
    if fields:
        fields["seen_at"] = timezone.now()
        with transaction.atomic():
            Job.objects.filter(pk=handle.job.pk).update(**fields)


@contextmanager
def _looked_on(handle: JobHandle) -> Iterator[None]:
    """Inside, another thread tells how far the work is, and stops it when somebody asks."""
    if connection.in_atomic_block:
        # Nobody else can see the job before this transaction ends, nor ask for its end.
        yield
        return
    over = threading.Event()
    thread = threading.Thread(target=_look_on, args=(handle, over), daemon=True)
    thread.start()
    try:
        yield
    finally:
        over.set()
        thread.join()


def _look_on(handle: JobHandle, over: threading.Event) -> None:
    try:
        while not over.wait(LOOK_S):
            try:
                if Job.objects.filter(pk=handle.job.pk, stop_asked=True).exists():
                    handle.stop()
                _write(handle)
            except OperationalError:
                log.info("the database is busy: progress is told later")
    finally:
        connection.close()
