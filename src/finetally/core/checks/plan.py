"""Checks of what is written and never happens: doses that do not fit, rests that nobody takes."""

from __future__ import annotations

from collections.abc import Iterator

from finetally.core.checks.check import Fields, Finding, block_name
from finetally.core.session.clocks import Every, Intervals, Task
from finetally.core.session.document import Section
from finetally.core.session.problems import Path
from finetally.core.session.values import FromScore, PerRoundValue
from finetally.core.tally.measure import Tally
from finetally.core.unfold.pace import TIME_EPS_S
from finetally.core.words import clock_text


def dose_over_window(t: Tally) -> Iterator[Finding]:
    """A dose in reps takes longer than the window it stands in."""
    seen: set[int] = set()
    for visit in t.tape.visits:
        of = t.tape.blocks[visit.block]
        step = visit.step
        if id(step) in seen or not of.block.clock.windowed or not visit.called:
            continue
        needed = visit.called * step.dose_rep_s
        if needed > visit.seconds + TIME_EPS_S:
            seen.add(id(step))
            fields: Fields = {
                "movement": step.name, "needed": clock_text(needed), "window": clock_text(visit.seconds),
            }  # fmt: skip
            yield Finding((*step.path, "reps"), fields, needed - visit.seconds, block=visit.block)


def filler_late(t: Tally) -> Iterator[Finding]:
    """A filler never begins: what stands before it takes up to its mark."""
    begun = {(visit.block, visit.step.ident) for visit in t.tape.visits}
    for number, of in enumerate(t.tape.blocks):
        clock = of.block.clock
        if not isinstance(clock, Every):
            continue
        for index, step in enumerate(of.block.steps or ()):
            ident = step.id if step.id is not None else index
            if step.fill and (number, ident) not in begun and any(run.block == number for run in t.tape.runs):
                mark = t.resolver.dose(clock.work_until_s, t.resolver.dose(clock.period_s))
                movement = t.library.get(step.movement)
                name = (movement.name if movement is not None else None) or step.movement
                fields: Fields = {"movement": name, "mark": clock_text(mark)}
                yield Finding((*of.path, "steps", index, "fill"), fields, mark, block=number)


def rest_never_taken(t: Tally) -> Iterator[Finding]:
    """A rest that is written where nothing follows it: after the last block, between rounds of one."""
    last = len(t.tape.blocks) - 1
    for number, of in enumerate(t.tape.blocks):
        block, clock = of.block, of.block.clock
        name = block_name(of, number)
        if number == last and of.section is None and t.resolver.rest(block.rest_after_s) > 0:
            yield Finding((*of.path, "rest_after_s"), {"rest": "the rest after it", "block": name}, block=number)
        once = t.resolver.count(block.repeat) == 1
        if once and t.resolver.rest(block.rest_between_repeats_s) > 0:
            fields: Fields = {"rest": "the rest between times", "block": name}
            yield Finding((*of.path, "rest_between_repeats_s"), fields, block=number)
        if (
            not isinstance(clock, Intervals | Task)
            or block.visit not in (None, "rounds")
            or clock.round_rest_s is None
        ):
            continue
        listed = any(isinstance(value, list) for step in block.steps or () for value in (step.reps, step.seconds))
        several = block.rounds is not None and t.resolver.count(block.rounds) > 1
        rest = 0.0 if isinstance(clock.round_rest_s, list) else t.resolver.rest(clock.round_rest_s)
        if rest > 0 and once and not listed and not several:
            fields = {"rest": "the rest between rounds", "block": name}
            yield Finding((*of.path, "clock", "round_rest_s"), fields, block=number)
    for index, entry in enumerate(t.session.blocks):
        if (
            isinstance(entry, Section)
            and t.resolver.count(entry.times) == 1
            and t.resolver.rest(entry.rest_between_s) > 0
        ):
            named = {"rest": "the rest between passes", "block": entry.section or "what is gone through together"}
            yield Finding(("blocks", index, "rest_between_s"), {**named})


def score_from_nowhere(t: Tally) -> Iterator[Finding]:
    """A value that goes on from a score of a block that is not there, or that makes none."""
    scored = {str(t.tape.blocks[run.block].ident) for run in t.tape.runs if run.scores}
    scored |= {t.tape.blocks[run.block].block.title or "" for run in t.tape.runs if run.scores}
    for number, of in enumerate(t.tape.blocks):
        values: list[tuple[Path, PerRoundValue]] = [(("rounds",), of.block.rounds), (("repeat",), of.block.repeat)]
        for index, step in enumerate(of.block.steps or ()):
            values += [(("steps", index, key), getattr(step, key)) for key in ("reps", "seconds", "metres")]
        for path, value in values:
            if isinstance(value, FromScore) and value.source.block not in scored:
                # Known from an earlier session's log.
                if value.source.block in t.given.scores:
                    continue
                fields: Fields = {"block": block_name(of, number), "source": value.source.block}
                yield Finding((*of.path, *path), fields, block=number)


def dose_falls_away(t: Tally) -> Iterator[Finding]:
    """A dose that shrinks to nothing before its rounds are over."""
    for visit in t.firsts:
        step = visit.step
        if step.step.reps is None or (step.step.grow or 0) >= 0:
            continue
        if step.reps(t.resolver.count(t.tape.blocks[visit.block].block.rounds) - 1) == 0:
            yield Finding((*step.path, "grow"), {"movement": step.name}, block=visit.block)
