"""The log as a file: one JSON of what people did, in the form that `docs/log.schema.json` publishes."""

from __future__ import annotations

from datetime import date
from typing import Annotated, Any, Literal

from pydantic import BaseModel, ConfigDict, Field, ValidationError, model_validator

from finetally.core.floor.document import Run, read_run
from finetally.core.floor.events import FloorCount, FloorName, RunSeconds
from finetally.core.methods.given import Given, Score
from finetally.core.session.json_value import JsonObject, JsonValue
from finetally.core.session.problems import DocumentError, Problem, path_text, shown

MAX_LOG_ENTRIES = 20_000
"""Entries of one file: a year of 40 people with six sessions a week are 12,480."""
MAX_SCORES = 200
"""Scores of one person in one session: more self-paced windows than a day has room for."""

DEEPER_IN_LOG = 4
"""Levels of a log above its deepest session: the file, its entries, one entry, its run."""


class _Kept(BaseModel):
    model_config = ConfigDict(extra="forbid", frozen=True)


class LogScore(_Kept):
    """A score: of which block (number in the file), which of its scored windows; rounds and reps, or a time."""

    block: FloorCount
    index: FloorCount = 0
    rounds: FloorCount | None = None
    reps: FloorCount | None = None
    time_s: RunSeconds | None = None

    @model_validator(mode="after")
    def _one_kind(self) -> LogScore:
        timed, counted = self.time_s is not None, self.rounds is not None or self.reps is not None
        if timed == counted:
            raise ValueError("either rounds and reps, or a time")
        return self


class DoneGiven(_Kept):
    """What was known of the day: which options were taken, what blocks scored for the session."""

    options: str | dict[str, str] = {}
    scores: dict[str, Score] = {}

    def given(self) -> Given:
        """As figures take it."""
        return Given(options=self.options, scores=self.scores)


class LogEntry(_Kept):
    """What one person did of one session on a day. `run`: as docs/run.schema.json has it, or its events alone."""

    date: date
    person: FloorName
    session: JsonObject
    scores: Annotated[list[LogScore], Field(max_length=MAX_SCORES)] = []
    rated: Annotated[float, Field(ge=0, le=10, allow_inf_nan=False)] | None = None
    given: DoneGiven | None = None
    run: JsonObject | None = None

    def as_run(self, methods: JsonObject) -> Run | None:
        """The run, if it is known, of this session with the options that were taken. Raises DocumentError."""
        if self.run is None:
            return None
        given = self.given.model_dump(mode="json") if self.given is not None else {}
        return read_run(
            {"fine_tally_run": 1, "session": self.session, "given": given, "methods": methods, **self.run}
        )


class Log(_Kept):
    """Everything that is logged of some people, as it stands on a day."""

    fine_tally_log: Literal[1]
    as_of: date
    entries: Annotated[list[LogEntry], Field(max_length=MAX_LOG_ENTRIES)] = []


def read_log(value: JsonValue) -> Log:
    """Read a log's JSON; its sessions are read when they are figured. Raises DocumentError with every place."""
    try:
        return Log.model_validate(value)
    except ValidationError as error:
        raise DocumentError(log_problems(error)) from None


def log_problems(error: ValidationError, *at: str | int) -> list[Problem]:
    """What is wrong with a log or a part of it, each with its place in the file."""
    return [
        Problem(path_text((*at, *d["loc"])), shown(d["input"]), d["msg"].lower(), d["type"])
        for d in error.errors(include_url=False)
    ]


def log_schema() -> dict[str, Any]:
    """The JSON Schema of a log file."""
    made: dict[str, Any] = Log.model_json_schema(by_alias=True)
    return made
