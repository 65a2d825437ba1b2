"""All figures of a tape, family by family, in one place that states their order."""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import dataclass
from functools import cached_property

from finetally.core.methods.given import NOTHING_GIVEN, Given
from finetally.core.methods.value import DEFAULT_METHODS, Methods
from finetally.core.movements.library import Library
from finetally.core.session.budget import spend
from finetally.core.session.document import Session
from finetally.core.tally.balance import BalanceTally
from finetally.core.tally.effort import EffortTally, load_of
from finetally.core.tally.figure_types import BlockFigures, EffortFigures, RateFigures, TapeFigures, TimeFigures
from finetally.core.tally.reps import RepTally, kilograms
from finetally.core.tally.times import TimeTotals, add_up, clock_blocks, counted, over_told, told_ends
from finetally.core.tally.uptake import OxygenDemand, UptakeSegment, uptake_trace
from finetally.core.unfold.resolve import AT_PLAN, Corner, Resolver
from finetally.core.unfold.tape import PerformedVisit, RunScore, Segment, Tape
from finetally.core.unfold.unfold import Unfolder


@dataclass
class Tally:
    """A tape with everything measured on it; explanations, checks and the stave read it.

    Reps and balance are added up when they are first asked for: an exit needs neither.
    """

    session: Session
    library: Library
    methods: Methods
    given: Given
    resolver: Resolver
    tape: Tape
    clocked: list[TimeTotals]
    counted: list[bool]
    trace: list[UptakeSegment]
    effort: EffortTally
    unfolder: Unfolder

    def ended_before(self, first: int) -> Tally:
        """The same day's session as if it ended before entry `first` (above 0) of its plan, cool-down kept."""
        if self.given.until is not None:
            # What was cut short already has other entries: it is laid out anew from the whole plan.
            given = self.given.model_copy(update={"until": None})
            whole = tally(self.session, library=self.library, methods=self.methods, given=given)
            return whole.ended_before(first)
        tape, kept = self.unfolder.ended_before(self.tape, first)
        return tally_of_tape(self.session, self.methods, self.given, tape, self.unfolder, self.trace[:kept])

    @cached_property
    def reps(self) -> RepTally:
        """Reps, sides, volume and landings of the whole session."""
        made = RepTally(self.given.person, self.tape.provisional)
        for visit in self.tape.visits:
            made.add(visit)
        return made

    @cached_property
    def balance(self) -> BalanceTally:
        """Patterns and beams of the counted parts."""
        return BalanceTally(self.tape, self.counted, _visit_efforts(self.tape, self.effort), self.methods)

    @cached_property
    def firsts(self) -> list[PerformedVisit]:
        """The first visit of each step, in order of time: what is asked of steps needs no more."""
        found: dict[int, PerformedVisit] = {}
        for visit in self.tape.visits:
            if id(visit.step) not in found:
                found[id(visit.step)] = visit
        return list(found.values())

    @cached_property
    def worked(self) -> list[tuple[int, Segment, PerformedVisit]]:
        """Work segments with their number and their visit, in order of time."""
        visits = self.tape.visits
        return [
            (index, segment, visits[segment.visit])
            for index, segment in enumerate(self.tape.segments)
            if segment.visit is not None
        ]

    @property
    def whole(self) -> TimeTotals:
        """The whole session's seconds."""
        return add_up(self.clocked, [True] * len(self.clocked))

    @property
    def headline(self) -> TimeTotals:
        """The counted parts' seconds."""
        return add_up(self.clocked, self.counted)

    @property
    def rpe(self) -> float:
        """The session's effort."""
        return self.effort.session(self.counted, self.session.rpe)

    @property
    def load(self) -> float:
        """The session's load."""
        return load_of(self.rpe, self.tape.total_s, self.headline.total, self.methods)


def tally(
    session: Session,
    *,
    library: Library,
    methods: Methods = DEFAULT_METHODS,
    given: Given = NOTHING_GIVEN,
    corner: Corner = AT_PLAN,
) -> Tally:
    """Unfold a session and measure the tape. Raises DocumentError as `unfold` does."""
    unfolder = Unfolder(session, library, methods, given, corner)
    return tally_of_tape(session, methods, given, unfolder.lay_out(), unfolder)


def tally_of_tape(
    session: Session,
    methods: Methods,
    given: Given,
    tape: Tape,
    unfolder: Unfolder,
    begun: Sequence[UptakeSegment] = (),
) -> Tally:
    """Measure a tape that is there already; `begun`: the uptake over its first segments, where that is known."""
    full = tape.library
    spend(len(tape.segments))
    trace = uptake_trace(tape, OxygenDemand(tape, full, methods, given.person), methods, begun)
    effort = EffortTally(tape, trace, methods, given.person)
    clocked, chosen = clock_blocks(tape), counted(tape, methods)
    return Tally(session, full, methods, given, unfolder.resolver, tape, clocked, chosen, trace, effort, unfolder)


def _visit_efforts(tape: Tape, effort: EffortTally) -> list[float]:
    """Effort of each visit: its segments' efforts, weighted by time."""
    sums = [0.0] * len(tape.visits)
    for segment, value in zip(tape.segments, effort.windows, strict=True):
        if segment.visit is not None:
            sums[segment.visit] += value * segment.seconds
    return [s / d.seconds if d.seconds else 0.0 for s, d in zip(sums, tape.visits, strict=True)]


def measured(t: Tally) -> TapeFigures:
    """The published figures of a tally. Values only: no rounding, no prose."""
    methods = t.methods
    announced = t.session.announced_s
    headline = t.headline
    return {
        "title": t.session.title,
        **t.whole.figures(methods),
        "timetable_s": timetable_s(t),
        "announced_s": t.resolver.dose(announced) if announced is not None else None,
        "over_told_s": over_told(told_ends(announced, t.resolver), timetable_s(t))
        if announced is not None
        else None,
        "headline": headline.figures(methods),
        "parts": _parts(t),
        "blocks": _blocks(t),
        "reps": t.reps.reps,
        "movements": t.reps.movements,
        "patterns": t.balance.pattern_figures(),
        "balance": t.balance.balance(),
        "volume_kg": t.reps.volume_kg,
        "volume_called_kg": t.reps.volume_called_kg,
        "landings": t.reps.landings,
        "rates": _rates(t, headline.total - headline.talk),
        "effort": _effort(t),
    }


def timetable_s(t: Tally) -> float:
    """What the hall must be booked for: the total with capped tasks at their cap, plus the slack."""
    return booked_s(t.tape, t.session, t.resolver)


def booked_s(tape: Tape, session: Session, resolver: Resolver) -> float:
    """The timetable of a tape that was not measured."""
    return tape.total_s + sum(run.cap_slack_s for run in tape.runs) + resolver.dose(session.slack_s)


def _parts(t: Tally) -> dict[str, TimeFigures]:
    parts: dict[str, TimeTotals] = {}
    seen = {run.block for run in t.tape.runs}
    for number, of in enumerate(t.tape.blocks):
        if number in seen:
            parts.setdefault(of.part, TimeTotals()).add(t.clocked[number])
    return {name: clocked.figures(t.methods) for name, clocked in parts.items()}


def _blocks(t: Tally) -> list[BlockFigures]:
    scores: dict[int, list[RunScore]] = {}
    for run in t.tape.runs:
        scores.setdefault(run.block, []).extend(run.scores)
    return [
        {
            "id": of.ident,
            "title": of.block.title,
            "part": of.part,
            **t.clocked[number].figures(t.methods),
            "scores": scores[number],
            "rpe": t.effort.blocks[number],
        }
        for number, of in enumerate(t.tape.blocks)
        if number in scores
    ]


def _rates(t: Tally, seconds: float) -> RateFigures:
    reps = 0
    kg = 0.0
    for visit in t.tape.visits:
        if t.counted[visit.block]:
            reps += visit.reps
            kg += visit.reps * (kilograms(visit.load, visit.step.key, t.given.person) or 0.0)
    minutes = seconds / 60
    return {
        "reps_per_min": reps / minutes if minutes > 0 else None,
        "kg_per_min": kg / minutes if minutes > 0 else None,
    }


def _effort(t: Tally) -> EffortFigures:
    total = t.tape.total_s
    not_judged, guessed = t.effort.not_judged(), t.effort.guessed()
    provisional = sorted({visit.step.key for visit in t.tape.visits} & t.tape.provisional)
    breathed = above_s = gap_s = peak = 0.0
    for uptake, segment in zip(t.trace, t.tape.segments, strict=True):
        breathed += uptake.integral
        above_s += uptake.above_s
        peak = max(peak, uptake.start, uptake.end)
        if segment.kind == "work":
            gap_s += uptake.gap_s
    return {
        "mean_uptake": breathed / total if total > 0 else 0.0,
        "peak_uptake": peak,
        "above_80_s": above_s,
        "oxygen_gap_s": gap_s,
        "rpe": t.rpe,
        "load": t.load,
        "complete": not not_judged and not guessed and not provisional,
        "not_judged": not_judged,
        "guessed": guessed,
        "provisional": provisional,
    }
