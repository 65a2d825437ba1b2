"""Days as the API takes them: of a century that a plan can lie in, with room around for the weeks it looks at."""

from __future__ import annotations

from datetime import date
from typing import Annotated

from pydantic import AfterValidator
from pydantic_core import PydanticCustomError

FIRST, LAST = date(2000, 1, 1), date(2099, 12, 31)


def _in_bounds(day: date) -> date:
    if not FIRST <= day <= LAST:
        bounds = {"first": str(FIRST), "last": str(LAST), "found": str(day)}
        raise PydanticCustomError("day", "a day from {first} to {last}", bounds)
    return day


PlanDay = Annotated[date, AfterValidator(_in_bounds)]
"""A local day of a squad's plan."""
