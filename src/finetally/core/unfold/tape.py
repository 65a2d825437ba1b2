"""The tape: a session laid out in time as addressed segments. What every figure and the floor timer run on."""

from __future__ import annotations

from dataclasses import dataclass, field
from typing import Literal, NamedTuple

from typing_extensions import TypedDict

from finetally.core.movements.library import Library
from finetally.core.session.clocks import InnerClock
from finetally.core.session.document import Block
from finetally.core.session.limits import MAX_SEGMENTS, MAX_VISITS
from finetally.core.session.parts import work_clock
from finetally.core.session.problems import Path, PathPart, refuse
from finetally.core.session.step import Load
from finetally.core.unfold.steps import StepPlan

TAPE_VERSION = 1

SegmentKind = Literal["work", "rest", "change", "talk"]
SegmentEnd = Literal["clock", "done", "cap"]
Identity = str | int


class Address(NamedTuple):
    """Where a segment belongs: ids where there are any, else indices from 0; `None` where it does not apply.

    `visit` counts the visits of one run of the block's clock; `piece` the segments that follow a visit
    (parts cut by a pulse, breather, change-over, rest), so that every address on a tape is unique.
    """

    section_pass: int | None
    section: Identity | None
    block: Identity
    repeat: int | None = None
    round_: int | None = None
    visit: int | None = None
    station: Identity | None = None
    step: Identity | None = None
    side: str | None = None
    piece: int | None = None

    def as_dict(self) -> dict[str, Identity]:
        """The published form: keys as in `PUBLISHED_KEYS`, absent where there is nothing."""
        return {key: value for key, value in zip(PUBLISHED_KEYS, self, strict=True) if value is not None}


PUBLISHED_KEYS = (
    "pass", "section", "block", "repeat", "round", "visit", "station", "step", "side", "piece",
)  # fmt: skip
"""The fields of an address, in their order, as the published tape names them."""


@dataclass(slots=True, eq=False)
class PerformedVisit:
    """One visit as it was done: seconds of work, and what was counted in them. Not changed once on a tape."""

    step: StepPlan
    load: Load | None
    block: int
    seconds: float
    called: int = 0
    paced: int = 0
    estimated: int = 0
    left: float = 0
    right: float = 0
    left_s: float = 0
    right_s: float = 0
    metres: float = 0
    metres_estimated: float = 0
    per_side: bool = False

    @property
    def reps(self) -> int:
        """Called, paced and estimated together: what was lifted, landed, or done on a side."""
        return self.called + self.paced + self.estimated


class Segment(NamedTuple):
    """A stretch of time of one kind. `visit` is an index into `Tape.visits`; `taken` marks a breather."""

    start: float
    seconds: float
    kind: SegmentKind
    visit: int | None
    owner: Address
    piece: int
    block: int
    ends: SegmentEnd
    taken: bool
    window: int | None

    @property
    def at(self) -> Address:
        """Its own address: that of the visit (or place) it belongs to, with its piece."""
        return self.owner._replace(piece=self.piece) if self.piece else self.owner


class EmptyVisit(NamedTuple):
    """A visit that takes no time (a dose of 0): its index among the visits, and the segment that follows it.

    `window`: the window it was entered in, as its index on the tape.
    """

    visit: int
    before: int
    window: int | None


class Window(NamedTuple):
    """A stretch that the clock sets: an interval, a period, an amrap's window, a capped task. Ends at most then."""

    start: float
    seconds: float


class Overflow(NamedTuple):
    """What did not fit into a period: seconds needed against seconds there, at the slot's first step."""

    at: Address
    needed_s: float
    period_s: float


class RunScore(TypedDict, total=False):
    """What a run of a clock scored: its time in seconds, or whole rounds and reps into the next.

    `station`: the name of the one where it was scored.
    """

    rounds: int
    reps: int
    time_s: float
    station: str


class ClockSpan(NamedTuple):
    """One run of a clock: its segments `first` to before `end`, in a rotation with the wait for the slowest.

    `clock_end` is where the clock's own segments end. `sets`: the first segment of each of its rounds or sets,
    group by group; empty where the clock counts no rounds of its own (`amrap`).
    """

    first: int
    clock_end: int
    end: int
    sets: tuple[int, ...]


@dataclass(slots=True)
class BlockRun:
    """One pass through one block: `block` is its number in the file. Times in seconds from the start."""

    block: int
    section_pass: int | None
    start: float
    clock_start: float = 0
    clock_end: float = 0
    end: float = 0
    first_segment: int = 0
    last_segment: int = 0
    cap_slack_s: float = 0
    scores: list[RunScore] = field(default_factory=list)


@dataclass(frozen=True, slots=True)
class LocatedBlock:
    """A block of the file: its model, its path, its id or path index, and the section it is in."""

    block: Block
    path: Path
    ident: Identity
    section: Identity | None

    @property
    def edit_path(self) -> list[PathPart]:
        """The path that edits of it go by: its id, which holds wherever it is moved, or its path."""
        return [self.block.id] if self.block.id is not None else list(self.path)

    @property
    def part(self) -> str:
        """The part it belongs to; main if unsaid."""
        return self.block.part or "main"

    @property
    def work_clock(self) -> InnerClock:
        """The clock that its work runs on: the inner one in a rotation."""
        return work_clock(self.block)


@dataclass(slots=True)
class Tape:
    """Segments in order of time without gaps; the visits they show; the runs of blocks they belong to."""

    segments: list[Segment] = field(default_factory=list)
    visits: list[PerformedVisit] = field(default_factory=list)
    empty_visits: list[EmptyVisit] = field(default_factory=list)
    windows: list[Window] = field(default_factory=list)
    runs: list[BlockRun] = field(default_factory=list)
    spans: list[ClockSpan] = field(default_factory=list)
    blocks: list[LocatedBlock] = field(default_factory=list)
    overflows: list[Overflow] = field(default_factory=list)
    library: Library = field(default_factory=lambda: Library(()))
    provisional: frozenset[str] = frozenset()
    total_s: float = 0


class Recorder:
    """Writes a tape: keeps the time and the address that the next segment gets."""

    def __init__(self) -> None:
        self.tape = Tape()
        self.now = 0.0
        self.block = 0
        self.repeat: int | None = None
        self.station: Identity | None = None
        self.window: int | None = None
        self._base = self._at = Address(None, None, 0)
        self._in_visit = False
        self._visit = -1
        self._piece = 0
        self._loose = 0
        self._entered = 0
        self._clock_first = 0
        self._sets: list[int] = []

    def enter_visit(self) -> None:
        """Count a visit, also one that takes no time: this is what ends every loop over visits.

        Raises DocumentError over the limit.
        """
        self._entered += 1
        if self._entered > MAX_VISITS:
            raise refuse((), f"over {MAX_VISITS} visits", f"{MAX_VISITS} in one session", "too_many")

    def begin_block(self, number: int, base: Address) -> None:
        """Start writing the run of a block; `base` holds its pass, section and block."""
        self.block, self._base = number, base
        self.repeat = self.station = self.window = None
        self._visit, self._loose = -1, 0
        self.outside_visits()

    def begin_clock(self) -> None:
        """A clock starts to run: what is written up to `end_clock` is one span."""
        self._clock_first, self._sets = len(self.tape.segments), []

    def begin_set(self) -> None:
        """Another round or set of the running clock begins with the next segment."""
        self._sets.append(len(self.tape.segments))

    def end_clock(self) -> None:
        """The running clock is over."""
        end = len(self.tape.segments)
        self.tape.spans.append(ClockSpan(self._clock_first, end, end, tuple(self._sets)))

    def wait_for_slowest(self, seconds: float) -> None:
        """Rest until the slowest station is done: it belongs to the turn of the clock that was over last."""
        self.write("rest", seconds)
        self.tape.spans[-1] = self.tape.spans[-1]._replace(end=len(self.tape.segments))

    def begin_repeat(self, repeat: int | None) -> None:
        """Start another run of the block's clock; `None` for a block that runs once."""
        self.repeat, self._visit = repeat, -1
        self.outside_visits()

    def outside_visits(self) -> None:
        """Segments from here on belong to no visit."""
        self._at = self._base._replace(repeat=self.repeat)
        self._in_visit = False

    @property
    def here(self) -> Address:
        """The address of the visit (or place) being written."""
        return self._at

    def open_window(self, seconds: float) -> None:
        """The clock sets a window of so many seconds from now on."""
        self.tape.windows.append(Window(self.now, seconds))
        self.window = len(self.tape.windows) - 1

    def begin_visit(self, performed: PerformedVisit, round_: int, side: str | None) -> int:
        """Start a visit; returns its index for `write`."""
        self.enter_visit()
        self._visit += 1
        self._piece = 0
        self._in_visit = True
        base, step = self._base, performed.step.ident
        self._at = Address(
            base.section_pass, base.section, base.block, self.repeat, round_, self._visit, self.station, step, side
        )
        self.tape.visits.append(performed)
        number = len(self.tape.visits) - 1
        if performed.seconds <= 0:
            self.tape.empty_visits.append(EmptyVisit(number, len(self.tape.segments), self.window))
        return number

    def write(
        self,
        kind: SegmentKind,
        seconds: float,
        ends: SegmentEnd = "clock",
        visit: int | None = None,
        taken: bool = False,
    ) -> None:
        """Append a segment of so many seconds and move the time on; nothing is written for no time.

        Raises DocumentError over the limit.
        """
        if seconds <= 0:
            return
        segments = self.tape.segments
        if len(segments) >= MAX_SEGMENTS:
            raise refuse((), f"over {MAX_SEGMENTS} segments", f"{MAX_SEGMENTS} in one session", "too_many")
        piece = self._piece if self._in_visit else self._loose
        segments.append(
            Segment(self.now, seconds, kind, visit, self._at, piece, self.block, ends, taken, self.window)
        )
        if self._in_visit:
            self._piece += 1
        else:
            self._loose += 1
        self.now += seconds
