"""Movements and formats whose estimates have been off, for the squad as a whole, three sessions running."""

from __future__ import annotations

from collections.abc import Iterator, Mapping
from dataclasses import dataclass
from typing import Literal

from finetally.core.formats.table import BY_KEY
from finetally.core.learn.learned import PaceSeen
from finetally.core.learn.off import OffCourse, ScoreSeen, fitting_pace, off_together
from finetally.web.log.learning import TELLS_FOR
from finetally.web.log.models import Result
from finetally.web.squads.figuring_context import context_of
from finetally.web.squads.models import Squad
from finetally.web.squads.today import today_of

OfWhat = Literal["movement", "format"]


@dataclass(frozen=True, slots=True)
class KindOff:
    """A movement or a format that was off; of a movement the seconds a repetition takes, planned and as fits."""

    of: OfWhat
    key: str
    name: str
    off: OffCourse
    rep_s: float | None = None
    fits_s: float | None = None


def kinds_off(squad: Squad) -> list[KindOff]:
    """What of the squad's estimates was off lately, movements first. One query."""
    movements: dict[str, list[ScoreSeen]] = {}
    formats: dict[str, list[ScoreSeen]] = {}
    for movement, format_key, score in _scores(squad):
        movements.setdefault(movement, []).append(score)
        formats.setdefault(format_key, []).append(score)
    return [*_movements_off(squad, movements), *_formats_off(formats)]


def _movements_off(squad: Squad, scores: Mapping[str, list[ScoreSeen]]) -> Iterator[KindOff]:
    library = context_of(squad).library
    for key, some in scores.items():
        off = off_together(some) if key else None
        if off is not None:
            movement = library.get(key)
            name = movement.name if movement is not None else None
            rep_s = movement.pace_s if movement is not None else None
            fits_s = fitting_pace(rep_s, off) if rep_s is not None else None
            yield KindOff("movement", key, name or key, off, rep_s, fits_s)


def _formats_off(scores: Mapping[str, list[ScoreSeen]]) -> Iterator[KindOff]:
    for key, some in scores.items():
        off = off_together(some) if key else None
        if off is not None:
            known = BY_KEY.get(key)
            yield KindOff("format", key, known.name if known is not None else key, off)


def _scores(squad: Squad) -> Iterator[tuple[str, str, ScoreSeen]]:
    """The scores of people that something was foreseen of, in order of time, with movement and format."""
    made = Result.objects.filter(
        entry__squad=squad, entry__day__gte=today_of(squad) - TELLS_FOR, used=True, person__isnull=False,
        factor__isnull=False, predicted__isnull=False, entry__removed_at=None,
    ).order_by("entry__day", "entry", "id")  # fmt: skip
    fields = ("movement", "format", "entry", "entry__day", "factor", "predicted")
    for movement, format_key, entry, day, factor, predicted in made.values_list(*fields):
        if factor is not None and predicted is not None:
            seen = PaceSeen(day, factor)
            yield movement, format_key, ScoreSeen(str(entry), seen, predicted["pace_factor"], predicted["spread"])
