"""Counts that disagree: which one is used, and why."""

from __future__ import annotations

from dataclasses import dataclass
from typing import Any
from uuid import UUID

from django.db.models import QuerySet

from finetally.web.log.models import Result, ResultWay


@dataclass(frozen=True, slots=True)
class ScoredPlace:
    """A self-paced window of an entry, and whose score in it is meant (keys; `whose`: person, session, team 2)."""

    entry: UUID | None
    person: int | None
    whose: str
    block: int
    section_pass: int
    index: int

    def fields(self) -> dict[str, Any]:
        """As fields of a result."""
        return {
            "entry_id": self.entry, "person_id": self.person, "whose": self.whose, "block": self.block,
            "section_pass": self.section_pass, "index": self.index,
        }  # fmt: skip

    def results(self) -> QuerySet[Result]:
        """What was told of it so far. Lazy."""
        return Result.objects.filter(**self.fields())


def corrected(told: QuerySet[Result]) -> dict[str, Any]:
    """Take away what somebody corrects; what stays of it: what was expected then, and what was done otherwise."""
    last = told.order_by("id").last()
    told.delete()
    return {} if last is None else {"predicted": last.predicted, "options": last.options}


def settle_used(window: ScoredPlace) -> None:
    """Say which of a window's results is used: one that a coach settled, else the latest that a coach gave.

    A count of the person's own is used where there is no other. What differs from the used one is disputed until
    one is settled. Where only sets or options were noted nothing was counted: that disputes no count.
    """
    told = list(window.results().order_by("at", "id"))
    if not told:
        return
    counts = [one for one in told if one.score or one.unfinished] or told
    chosen = [one for one in counts if one.chosen]
    by_coach = [one for one in counts if one.way != ResultWay.OWN]
    used = (chosen or by_coach or counts)[-1]
    for one in told:
        one.used = one.pk == used.pk
        one.disputed = not chosen and one in counts and (one.score, one.unfinished) != (used.score, used.unfinished)
    Result.objects.bulk_update(told, ["used", "disputed"])
