"""Movements and formats whose estimates have been off, for the squad as a whole, three sessions running."""

from __future__ import annotations

import math
from collections.abc import Iterator
from dataclasses import dataclass
from datetime import timedelta
from typing import Literal

from finetally.core.formats.table import BY_KEY
from finetally.core.learn.off import OffCourse, ScoreAway, off_together
from finetally.web.log.models import Result
from finetally.web.squads.figuring_context import context_of
from finetally.web.squads.models import Squad
from finetally.web.squads.today import today_of

LOOKED_AT = timedelta(weeks=8)
"""Scores of longer ago tell nothing of the estimates of today."""

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
    return [*_of(squad, "movement"), *_of(squad, "format")]


def _of(squad: Squad, of: OfWhat) -> Iterator[KindOff]:
    context = context_of(squad)
    for key, scores in _scores(squad, of).items():
        off = off_together(scores)
        if off is None:
            continue
        if of == "format":
            known_format = BY_KEY.get(key)
            yield KindOff(of, key, known_format.name if known_format is not None else key, off)
            continue
        movement = context.library.get(key)
        rep_s = movement.pace_s if movement is not None else None
        fits_s = rep_s * off["fits"] if rep_s is not None else None
        name = movement.name if movement is not None else None
        yield KindOff(of, key, name or key, off, rep_s, fits_s)


def _scores(squad: Squad, of: OfWhat) -> dict[str, list[ScoreAway]]:
    """How far scores were from what was foreseen, by movement or format, in order of time."""
    made = Result.objects.filter(
        entry__squad=squad, entry__day__gte=today_of(squad) - LOOKED_AT, used=True, person__isnull=False,
        factor__isnull=False, predicted__isnull=False,
    ).exclude(**{of: ""})  # fmt: skip
    rows = made.order_by("entry__day", "entry", "id").values_list(of, "entry", "factor", "predicted")
    found: dict[str, list[ScoreAway]] = {}
    for key, entry, factor, predicted in rows:
        if factor is None or predicted is None:
            continue
        away = math.log(factor / predicted["pace_factor"])
        found.setdefault(key, []).append({"session": str(entry), "away": away, "spread": predicted["spread"]})
    return found
