"""Checks of sessions that nobody plans: too long or short to be meant, rounds that are a load, loads of no bar.

Bounds are house assumptions: what a coach would read twice.
"""

from __future__ import annotations

from collections.abc import Iterator

from finetally.core.checks.check import Fields, Finding, block_name
from finetally.core.session.clocks import Task
from finetally.core.tally.measure import Tally
from finetally.core.tally.reps import kilograms
from finetally.core.unfold.steps import StepPlan
from finetally.core.words import clock_text

LONGEST_S = 3 * 3600
SHORTEST_S = 20
MOST_ROUNDS = 30
MOST_REPS_A_SET = 60
MOST_KG_A_REP = 1000
BIG_ROUNDS = 40
"""Rounds from which a number is more likely a load."""
BARS = frozenset({"barbell", "dumbbell", "kettlebell"})


def session_too_long(t: Tally) -> Iterator[Finding]:
    """A session of more than three hours; the question is about the block that takes most of it."""
    total = t.tape.total_s
    if total <= LONGEST_S:
        return
    number, seconds = max(enumerate(one.total for one in t.clocked), key=lambda one: one[1])
    of = t.tape.blocks[number]
    rounds = t.resolver.count(of.block.rounds) if of.block.rounds is not None else 1
    question = "are its minutes seconds, or its metres yards or kilometres?"
    if rounds > MOST_ROUNDS:
        question = _of_rounds(rounds)
    elif rounds > 1:
        question = f"is that the time of all {rounds} rounds, and not of each?"
    fields: Fields = {
        "total": clock_text(total), "part": clock_text(seconds), "block": block_name(of, number),
        "question": question,
    }  # fmt: skip
    yield Finding(of.path, fields, total)


def session_too_short(t: Tally) -> Iterator[Finding]:
    """A session that is over in less than twenty seconds."""
    total = t.tape.total_s
    if t.tape.visits and total < SHORTEST_S:
        yield Finding(("blocks",), {"total": f"{total:.0f} s"}, total)


def _of_rounds(rounds: int) -> str:
    return f"is {rounds} a load?" if rounds >= BIG_ROUNDS else f"is {rounds} a number of repetitions?"


def _is_lift(step: StepPlan) -> bool:
    return step.step.load is not None or bool(step.kit & BARS)


def rounds_unlikely(t: Tally) -> Iterator[Finding]:
    """More than thirty rounds of a lift at one's own pace."""
    reported: set[int] = set()
    for visit in t.firsts:
        of = t.tape.blocks[visit.block]
        if visit.block in reported or not isinstance(of.work_clock, Task) or of.block.rounds is None:
            continue
        rounds = t.resolver.count(of.block.rounds)
        if rounds > MOST_ROUNDS and _is_lift(visit.step):
            reported.add(visit.block)
            fields: Fields = {"rounds": rounds, "movement": visit.step.name, "question": _of_rounds(rounds)}
            yield Finding((*of.path, "rounds"), fields, rounds, block=visit.block)


def set_unlikely(t: Tally) -> Iterator[Finding]:
    """More than sixty repetitions of a loaded lift in one set."""
    reported: set[int] = set()
    for visit in t.tape.visits:
        step = visit.step
        if visit.called <= MOST_REPS_A_SET or step.step.load is None or id(step) in reported:
            continue
        reported.add(id(step))
        fields: Fields = {"reps": visit.called, "movement": step.name}
        yield Finding((*step.path, "reps"), fields, visit.called, block=visit.block)


def load_unlikely(t: Tally) -> Iterator[Finding]:
    """More than 1,000 kg in one repetition."""
    for visit in t.firsts:
        weight = kilograms(visit.load, visit.step.key, t.given.person) or 0.0
        if weight > MOST_KG_A_REP:
            fields: Fields = {
                "movement": visit.step.name, "weight": f"{weight:,.0f} kg", "less": f"{weight / 10:,.0f} kg",
            }  # fmt: skip
            yield Finding((*visit.step.path, "load"), fields, weight, block=visit.block)
