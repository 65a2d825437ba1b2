"""The one process for heavy work: levelling, large comparisons, PDFs. Only it loads the solver and the PDF writer.

Started and ended with the web processes (running/serving.py), and behind them in line for the processor.
"""

from __future__ import annotations

import os
import signal
import sys
import threading
import time
from types import FrameType
from typing import TYPE_CHECKING

from finetally.running.backup import forget_freed_pages
from finetally.running.installation import current_installation, hold
from finetally.running.start import use_django

if TYPE_CHECKING:
    from django_tasks_db.management.commands.db_worker import Worker

NICE = 10
POLL_S = 0.1
"""Seconds between looking for work; looking takes no lock."""
PRUNE_S = 3600.0
QUEUE_AGAIN_S = 60.0
"""Seconds between looking for jobs that wait without a place in the queue."""
PARENT_S = 1.0
FORGET_AGAIN_S = 5.0
"""Seconds until freed pages are tried to be written over again, where somebody was in the way."""


class Loop:
    """Takes jobs one after the other until it is told to end, or whoever started it is gone."""

    def __init__(self, parent: int) -> None:
        self.ending = False
        self.parent = parent
        self._taking: Worker | None = None
        self._installation = current_installation()
        self._forgotten = self._forget_at = 0.0

    def end(self, signum: int = 0, frame: FrameType | None = None) -> None:
        """End after the present job, which is content with what it has."""
        from finetally.web.jobs.work import stop_work

        self.ending = True
        if self._taking is not None:
            self._taking.running = False
        stop_work()

    def run(self) -> None:
        """Until the end."""
        from django_tasks_db.models import DBTaskResult

        from finetally.web.accounts.upkeep import prune as prune_accounts
        from finetally.web.checkin.upkeep import prune as prune_checkins
        from finetally.web.jobs.upkeep import prune, queue_forgotten, tidy_after_end
        from finetally.web.jobs.work import write_ends
        from finetally.web.log.incoming import forget_parts
        from finetally.web.log.notes import forget_notes
        from finetally.web.log.working_out import catch_up
        from finetally.web.plan.refigure import everywhere
        from finetally.web.plan.upkeep import prune as prune_plan
        from finetally.web.squads.history import forget_history
        from finetally.web.training.upkeep import prune as prune_training

        tidy_after_end()
        everywhere()
        catch_up()
        threading.Thread(target=self._with_parent, daemon=True).start()
        pruned, queued = -PRUNE_S, time.monotonic()
        while not self.ending:
            if time.monotonic() - pruned > PRUNE_S:
                prune()
                prune_training()
                prune_plan()
                prune_accounts()
                forget_history()
                forget_notes()
                forget_parts()
                prune_checkins()
                pruned = time.monotonic()
            self._forget_freed_pages()
            write_ends()
            if time.monotonic() - queued > QUEUE_AGAIN_S:
                queue_forgotten()
                queued = time.monotonic()
            if DBTaskResult.objects.ready().exists():
                self._take()
            else:
                time.sleep(POLL_S)

    def _forget_freed_pages(self) -> None:
        """After somebody was erased: what is deleted stands in freed pages until the file is written anew."""
        erased = self._installation.erased
        latest = erased.stat().st_mtime if erased.exists() else 0.0
        if latest <= self._forgotten or time.monotonic() < self._forget_at:
            return
        if forget_freed_pages(self._installation.database):
            self._forgotten = latest
        else:
            self._forget_at = time.monotonic() + FORGET_AGAIN_S

    def _take(self) -> None:
        """Do what waits. A task is taken in a moment of its own; nothing is locked while it is done."""
        from django_tasks_db.management.commands.db_worker import Worker

        self._taking = Worker(
            queue_names=["default"], excluded_queue_names=[], interval=POLL_S, batch=True, backend_name="default",
            startup_delay=False, max_tasks=None, worker_id=f"{os.getpid()}",
        )  # fmt: skip
        if not self.ending:
            self._taking.run()

    def _with_parent(self) -> None:
        held = None
        while os.getppid() == self.parent:
            # By this others see that it runs; an earlier one that still ends may hold it for a while.
            held = held if held is not None else hold(self._installation.worker_lock)
            time.sleep(PARENT_S)
        self.end()


def main() -> int:
    """Work until told to end, or until the process that the command line names is no longer its parent."""
    os.nice(NICE)
    use_django()
    # Named by whoever started it: by now that one may be gone already.
    loop = Loop(int(sys.argv[1]) if len(sys.argv) > 1 else os.getppid())
    for number in (signal.SIGTERM, signal.SIGINT):
        signal.signal(number, loop.end)
    loop.run()
    return 0


if __name__ == "__main__":
    sys.exit(main())
