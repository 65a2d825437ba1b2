"""What happens while a session runs: the events of a run, as they are kept and sent."""

from __future__ import annotations

from typing import Annotated, Literal

from pydantic import BaseModel, ConfigDict, Field, TypeAdapter

from finetally.core.edits.edit import Edit
from finetally.core.session.limits import MAX_DURATION_S, MAX_LABEL, MAX_TEXT

MAX_RUN_S = 2 * MAX_DURATION_S
"""Seconds of a run: the longest session, and as long again of pauses and waits."""

MAX_EVENTS = 5_000
"""Events of one run: one a second for over an hour, far above what hands can give."""

MAX_CHANGES = 200
"""Edits of one change."""

FloorOrder = Literal["pause", "resume", "next", "more", "set", "skip", "again", "back", "stop"]
What = Literal["block", "round"]
FloorCount = Annotated[int, Field(ge=0, le=10_000)]
FloorName = Annotated[str, Field(max_length=MAX_LABEL)]
RunSeconds = Annotated[float, Field(ge=0, le=MAX_RUN_S, allow_inf_nan=False)]


class _Event(BaseModel):
    """`t`: seconds since the start of the run. `on`: beats played when the order was given (see `Timer`)."""

    model_config = ConfigDict(extra="forbid", frozen=True)

    t: RunSeconds


class Start(_Event):
    """The first beat begins; only the first of them counts."""

    do: Literal["start"]


class Simple(_Event):
    """An order that says nothing more."""

    do: Literal["pause", "resume", "next", "back", "stop"]
    on: FloorCount | None = None


class More(_Event):
    """The running beat is so many seconds longer, or shorter."""

    do: Literal["more"]
    s: Annotated[float, Field(ge=-MAX_DURATION_S, le=MAX_DURATION_S, allow_inf_nan=False)]
    on: FloorCount | None = None


class SetLength(_Event):
    """Beats like the running one last so many seconds from now on."""

    do: Literal["set"]
    kind: Literal["work", "rest"]
    s: Annotated[float, Field(ge=0, le=MAX_DURATION_S, allow_inf_nan=False)]
    on: FloorCount | None = None


class SkipOrAgain(_Event):
    """A block or round is left out, or comes once more."""

    do: Literal["skip", "again"]
    what: What = "block"
    on: FloorCount | None = None


class Lap(_Event):
    """A round of the self-paced beat is done."""

    do: Literal["lap"]


class Undo(_Event):
    """The last order or lap that did something is taken back."""

    do: Literal["undo"]


class ScoreMade(_Event):
    """What was made in a self-paced window: `index` of the block's windows of pass `pass`, `block` its number.

    Either rounds (and reps into the next), a time or a rung.
    """

    model_config = ConfigDict(populate_by_name=True)

    do: Literal["score"]
    block: FloorCount
    section_pass: FloorCount = Field(default=0, alias="pass")
    index: FloorCount = 0
    rounds: FloorCount | None = None
    reps: FloorCount | None = None
    rung: FloorCount | None = None
    time_s: RunSeconds | None = None
    person: FloorName | None = None


NoteKind = Literal["pain", "dizziness", "form", "kit", "hurt", "free"]


class NoteTaken(_Event):
    """Something to remember: of the session, or of a person."""

    do: Literal["note"]
    text: Annotated[str, Field(max_length=MAX_TEXT)]
    person: FloorName | None = None
    kind: NoteKind = "free"


class OptionTaken(_Event):
    """A person does a step otherwise."""

    do: Literal["option"]
    person: FloorName
    step: FloorName
    label: FloorName


class Presence(_Event):
    """A person is here from now on, or away."""

    do: Literal["here", "away"]
    person: FloorName
    why: Literal["late", "left", "hurt"] | None = None


class ExitAsked(_Event):
    """At an exit: whether the session ended there."""

    do: Literal["exit"]
    taken: bool


class RunChange(_Event):
    """The session from the next beat on is laid out anew with these edits; `from` names what they were made on."""

    model_config = ConfigDict(populate_by_name=True)

    do: Literal["change"]
    edits: Annotated[list[Edit], Field(max_length=MAX_CHANGES)]
    made_on: FloorName | None = Field(default=None, alias="from")


Event = Annotated[
    Start
    | Simple
    | More
    | SetLength
    | SkipOrAgain
    | Lap
    | Undo
    | ScoreMade
    | NoteTaken
    | OptionTaken
    | Presence
    | ExitAsked
    | RunChange,
    Field(discriminator="do"),
]
EVENT: TypeAdapter[Event] = TypeAdapter(Event)
"""Reads one event."""

EVENT_LIST: TypeAdapter[list[Event]] = TypeAdapter(list[Event])
"""Reads events from JSON, and writes them."""
