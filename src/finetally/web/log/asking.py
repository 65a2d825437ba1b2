"""Asking for what was logged to be worked out: by the process for heavy work, soon."""

from __future__ import annotations

from finetally.web.jobs.use_cases import JobRequest, ask_by_itself
from finetally.web.plan.models import Entry
from finetally.web.squads.models import Squad


def ask_to_work_out(entry: Entry) -> None:
    """Have an entry worked out soon (web/log/working_out.py); asked for again while it waits, it is one job."""
    key = str(entry.pk)
    ask_by_itself(entry.squad, JobRequest("log", {"entries": [key]}, lock_name=f"log {key}"))


def ask_to_work_out_all(squad: Squad) -> None:
    """Have everything that was logged worked out and learned from, where it has changed."""
    ask_by_itself(squad, JobRequest("log", {"all": True}, lock_name=f"log of {squad.pk}"))
