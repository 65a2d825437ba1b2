"""Given: what is known about the day and the person; empty while planning."""

from __future__ import annotations

from typing import Annotated

from pydantic import BaseModel, ConfigDict, Field

PersonNumber = Annotated[float, Field(gt=0, le=2000, allow_inf_nan=False)]
Whole = Annotated[int, Field(ge=0, le=10_000)]


class _Known(BaseModel):
    model_config = ConfigDict(extra="forbid", frozen=True)


class PersonGiven(_Known):
    """One person: one-rep maxima in kg by movement, body mass, capacity in MET, pace factor, effort offset."""

    one_rm: dict[str, PersonNumber] = {}
    body_kg: PersonNumber | None = None
    capacity_met: PersonNumber | None = None
    pace_factor: PersonNumber | None = None
    effort_offset: Annotated[float, Field(ge=-10, le=10, allow_inf_nan=False)] = 0


class Score(_Known):
    """What a block was scored at: whole rounds, reps into the next, the rung reached."""

    rounds: Whole | None = None
    reps: Whole | None = None
    rung: Whole | None = None


class Given(_Known):
    """`options`: one word for all steps (a label, level or kit) or a label per step id. `scores` by block id.

    `start_station`: index from 0, or the station's id or name. `until`: the session ends before this block.

    `kit`: how many of each there are in the hall.
    """

    person: PersonGiven = PersonGiven()
    options: str | dict[str, str] = {}
    scores: dict[str, Score] = {}
    start_station: Annotated[int, Field(ge=0)] | str | None = None
    until: str | None = None
    kit: dict[str, Annotated[int, Field(ge=0, le=10_000)]] = {}


NOTHING_GIVEN = Given()
