"""A run as a file: the session, what was known of the day, and the events."""

from __future__ import annotations

from typing import Annotated, Literal

from pydantic import BaseModel, ConfigDict, Field, ValidationError

from finetally.core.floor.events import MAX_EVENTS, Event, RunSeconds
from finetally.core.floor.queue import Holding
from finetally.core.methods.given import NOTHING_GIVEN, Given
from finetally.core.methods.value import DEFAULT_METHODS, Methods
from finetally.core.session.json_value import JsonObject, JsonValue
from finetally.core.session.problems import DocumentError, Problem, path_text, shown


class Run(BaseModel):
    """A run: `session` as its file has it; `hold`: where time waits for the coach; `until`: looked at then.

    `t` of the events and `until`: seconds since the start. Without `until` it is the last event's.
    """

    model_config = ConfigDict(extra="forbid", frozen=True)

    fine_tally_run: Literal[1]
    session: JsonObject
    given: Given = NOTHING_GIVEN
    methods: Methods = DEFAULT_METHODS
    apart: bool = False
    hold: Holding = "entries"
    events: Annotated[list[Event], Field(max_length=MAX_EVENTS)] = []
    until: RunSeconds | None = None


def read_run(value: JsonValue) -> Run:
    """Read a run's JSON; its session is read when it is laid out.

    Raises DocumentError with a place for each problem.
    """
    try:
        return Run.model_validate(value)
    except ValidationError as error:
        raise DocumentError(
            Problem(path_text(_place(d["loc"])), shown(d["input"]), d["msg"].lower(), d["type"])
            for d in error.errors(include_url=False)
        ) from None


def _place(loc: tuple[str | int, ...]) -> tuple[str | int, ...]:
    """A place in the file: without the name of the kind of event, which stands in none."""
    return tuple(part for i, part in enumerate(loc) if not (i == 2 and loc[0] == "events"))
