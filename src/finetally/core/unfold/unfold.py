"""The main line: which blocks come when, with talk and the rests around them, each run by its clock."""

from __future__ import annotations

from collections.abc import Sequence
from copy import copy
from typing import NamedTuple

from finetally.core.methods.given import NOTHING_GIVEN, Given
from finetally.core.methods.value import DEFAULT_METHODS, Methods
from finetally.core.movements.library import Library
from finetally.core.session.budget import spend
from finetally.core.session.clocks import Rotation
from finetally.core.session.document import Section, Session
from finetally.core.session.limits import MAX_PLANNED_VISITS
from finetally.core.session.problems import refuse
from finetally.core.unfold.clock_rotation import run_rotation
from finetally.core.unfold.pace import TIME_EPS_S, Pacer
from finetally.core.unfold.perform import SideTurns
from finetally.core.unfold.program import LayoutContext, StepProgram, is_capped, program_of
from finetally.core.unfold.resolve import AT_PLAN, Corner, Resolver
from finetally.core.unfold.steps import StepReader
from finetally.core.unfold.tape import Address, BlockRun, LocatedBlock, Recorder, Tape

MAX_RUNS = 2_000
"""Passes through blocks: sections times their blocks."""


PACED_A_UNIT = 20
"""Reps or metres paced one by one that are as much work as a segment."""


class BlockPass(NamedTuple):
    """One pass through one block. `section_rest_s`: its section's rest after it, between passes or at the end."""

    block: int
    section_pass: int | None
    ends_pass: bool
    section_rest_s: float


def blocks_of(session: Session) -> list[LocatedBlock]:
    """The blocks of the file in order, with path, id (or index) and section."""
    found: list[LocatedBlock] = []
    for index, entry in enumerate(session.blocks):
        if isinstance(entry, Section):
            section = entry.id if entry.id is not None else index
            for inner, block in enumerate(entry.blocks):
                ident = block.id if block.id is not None else inner
                found.append(LocatedBlock(block, ("blocks", index, "blocks", inner), ident, section))
        else:
            found.append(LocatedBlock(entry, ("blocks", index), entry.id if entry.id is not None else index, None))
    return found


def passes_of(session: Session, resolver: Resolver) -> list[BlockPass]:
    """All passes through blocks, sections repeated, in order of time. Raises DocumentError for too many."""
    plan: list[BlockPass] = []
    number = 0
    for entry in session.blocks:
        if isinstance(entry, Section):
            times = resolver.count(entry.times)
            between, after = resolver.rest(entry.rest_between_s), resolver.rest(entry.rest_after_s)
            size = len(entry.blocks)
            if len(plan) + times * size > MAX_RUNS:
                raise refuse((), f"over {MAX_RUNS} passes through blocks", str(MAX_RUNS), "too_many")
            for section_pass in range(times):
                for inner in range(size):
                    ends = inner == size - 1
                    rest = (between if section_pass < times - 1 else after) if ends else 0.0
                    plan.append(BlockPass(number + inner, section_pass, ends, rest))
            number += size
        else:
            plan.append(BlockPass(number, None, False, 0.0))
            number += 1
    return plan


def unfold(
    session: Session,
    *,
    library: Library,
    methods: Methods = DEFAULT_METHODS,
    given: Given = NOTHING_GIVEN,
    corner: Corner = AT_PLAN,
) -> Tape:
    """Lay a session out in time.

    `library` without the file's own movements; `corner` says at which end ranges stand. Raises DocumentError
    with paths for what cannot be laid out: rounds that take no time, more than the limits.
    """
    return Unfolder(session, library, methods, given, corner).lay_out()


class _TapePosition(NamedTuple):
    """How far a tape is when a pass begins."""

    segments: int
    visits: int
    windows: int
    overflows: int
    spans: int
    turns: SideTurns


class Unfolder:
    """Lays a session out, whole and then, where it has exits, as if it ended before one of them."""

    def __init__(
        self, session: Session, library: Library, methods: Methods, given: Given, corner: Corner = AT_PLAN
    ) -> None:
        library = library.with_definitions(session.movements)
        self.session = session
        self.library = library
        self.given = given
        self.methods = methods
        self.resolver = Resolver(corner, given.scores)
        self.plan = passes_of(session, self.resolver)
        self.positions: list[_TapePosition] = []
        self.context = self.fresh_context(SideTurns())
        self.blocks = blocks_of(session)
        reader = StepReader(library, methods, given, self.resolver)
        self._planned = 0
        self.programs = [self._programs(block, reader) for block in self.blocks]
        self.provisional = frozenset(reader.provisional)
        self.library = library.with_definitions(reader.provisional.values())

    def _programs(self, of: LocatedBlock, reader: StepReader) -> list[StepProgram]:
        block, clock = of.block, of.block.clock
        if block.rest_as is not None:
            reader.movement(block.rest_as)
        if not isinstance(clock, Rotation):
            lists = [((*of.path, "steps"), block.steps or [], clock, (*of.path, "clock"), block.rounds)]
        else:
            lists = [
                (
                    (*of.path, "clock", "stations", index, "steps"),
                    station.steps,
                    clock.inner,
                    (*of.path, "clock", "inner"),
                    station.rounds if station.rounds is not None else block.rounds,
                )
                for index, station in enumerate(clock.stations)
            ]
        programs = []
        for path, steps, inner, clock_path, rounds in lists:
            plans = reader.read(block, steps, path, inner)
            program = program_of(block, inner, clock_path, steps, plans, rounds, self.resolver)
            self._planned += len(program.order)
            if self._planned > MAX_PLANNED_VISITS:
                allowed = f"{MAX_PLANNED_VISITS} in one session"
                raise refuse(of.path, f"over {MAX_PLANNED_VISITS} visits", allowed, "too_many")
            programs.append(program)
        return programs

    def fresh_context(self, turns: SideTurns) -> LayoutContext:
        """An empty tape to write on, with these turns of sides."""
        return LayoutContext(Recorder(), Pacer(self.methods), turns, self.resolver, self.methods)

    def lay_out(self) -> Tape:
        """The session as planned (up to the block `until` where the day was given so, cool-down kept)."""
        plan = self.plan
        if self.given.until is not None:
            first = self._until(plan, self.given.until)
            plan = plan[:first] + self._cool_down(first)
        tape = self._tape()
        for index, planned in enumerate(plan):
            sizes = len(tape.segments), len(tape.visits), len(tape.windows), len(tape.overflows), len(tape.spans)
            self.positions.append(_TapePosition(*sizes, self.context.turns.copy()))
            self._block(planned, last=index == len(plan) - 1)
        tape.total_s = self.context.recorder.now
        return tape

    def ended_before(self, whole: Tape, first: int) -> tuple[Tape, int]:
        """The session without everything from entry `first` (above 0) of the plan on, cool-down apart.

        `whole` is the tape of `lay_out()`; the second value tells how many of its segments the cut one begins with.
        """
        reached, rest = self.positions[first], self._cool_down(first)
        self.context = self.fresh_context(reached.turns.copy())
        tape = self._tape()
        tape.runs = [*whole.runs[: first - 1], copy(whole.runs[first - 1])]
        kept, ended = reached.segments, tape.runs[-1]
        if not rest:
            # Nothing follows now: what was rest before the next block is written no more.
            ended.end = ended.clock_end
            while kept and whole.segments[kept - 1].start >= ended.clock_end - TIME_EPS_S:
                kept -= 1
            ended.last_segment = kept
        tape.segments, tape.visits = whole.segments[:kept], whole.visits[: reached.visits]
        tape.windows, tape.spans = whole.windows[: reached.windows], whole.spans[: reached.spans]
        tape.overflows.extend(whole.overflows[: reached.overflows])
        self.context.recorder.now = ended.end
        for index, planned in enumerate(rest):
            self._block(planned, last=index == len(rest) - 1)
        tape.total_s = self.context.recorder.now
        return tape, kept

    def _tape(self) -> Tape:
        tape = self.context.recorder.tape
        tape.blocks, tape.library, tape.overflows = self.blocks, self.library, self.context.overflows
        tape.provisional = self.provisional
        return tape

    def _cool_down(self, first: int) -> list[BlockPass]:
        return [p for p in self.plan[first:] if self.blocks[p.block].part == "cool-down"]

    def _until(self, plan: Sequence[BlockPass], until: str) -> int:
        for index, planned in enumerate(plan):
            if str(self.blocks[planned.block].ident) == until:
                return index
        raise refuse(("until",), repr(until), "the id of a block", "block")

    def _block(self, planned: BlockPass, *, last: bool) -> None:
        recorder, of = self.context.recorder, self.blocks[planned.block]
        block = of.block
        recorder.begin_block(planned.block, Address(planned.section_pass, of.section, of.ident))
        run = BlockRun(planned.block, planned.section_pass, recorder.now)
        run.first_segment = len(recorder.tape.segments)
        visits, paced = len(recorder.tape.visits), self.context.pacer.paced
        if not block.talk_over:
            recorder.write("talk", self.resolver.dose(block.talk_s))
        run.clock_start = recorder.now
        self._repeats(of, run)
        run.clock_end = recorder.now
        recorder.begin_repeat(None)
        if not last and not planned.ends_pass:
            recorder.write("rest", self.resolver.rest(block.rest_after_s))
        if not last:
            recorder.write("rest", planned.section_rest_s)
        run.end = recorder.now
        run.last_segment = len(recorder.tape.segments)
        recorder.tape.runs.append(run)
        units = run.last_segment - run.first_segment + len(recorder.tape.visits) - visits
        spend(1 + units + (self.context.pacer.paced - paced) // PACED_A_UNIT)

    def _repeats(self, of: LocatedBlock, run: BlockRun) -> None:
        recorder, block = self.context.recorder, of.block
        programs = self.programs[run.block]
        times = self.resolver.count(block.repeat)
        for repeat in range(times):
            recorder.begin_repeat(repeat if times > 1 else None)
            if isinstance(block.clock, Rotation):
                inner = block.clock.inner
                cap = self.resolver.dose(inner.cap_s) if is_capped(inner) else 0.0  # type: ignore[union-attr]
                run_rotation(self.context, block.clock, programs, run, self.given.start_station, cap)
            else:
                mirrored = bool(block.mirror) and repeat % 2 == 1
                outcome = programs[0].run(self.context, run.block, mirrored=mirrored)
                run.cap_slack_s += outcome.cap_slack_s
                if outcome.score is not None:
                    run.scores.append(outcome.score)
            if repeat < times - 1:
                recorder.outside_visits()
                recorder.write("rest", self.resolver.rest(block.rest_between_repeats_s))
