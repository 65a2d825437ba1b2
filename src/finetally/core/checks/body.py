"""Checks of what the body gets: sides, neighbours, rehearsal, landings, skill, cool-down."""

from __future__ import annotations

import itertools
from collections.abc import Iterable, Iterator

from finetally.core.checks.check import (
    Finding,
    Severity,
    block_name,
    counted_blocks,
    set_edit,
    set_edits,
)
from finetally.core.checks.time import HARD_EFFORTS
from finetally.core.movements.patterns import MAIN_SHARE, ROW_OF
from finetally.core.tally.measure import Tally
from finetally.core.unfold.pace import TIME_EPS_S
from finetally.core.unfold.steps import StepPlan
from finetally.core.unfold.tape import PerformedVisit, Segment

SAME_PATTERN_REST_S = 15
TIRED_UPTAKE = 0.8
SMALL_SHARE = 0.05
UNEVEN_SHARE = 0.05
MOST_NAMED = 5


def uneven_sides(t: Tally) -> Iterator[Finding]:
    """One side gets more than the other, step by step, and no other step of the movement makes up for it."""
    sides: dict[str, list[float]] = {}
    paths: dict[str, StepPlan] = {}
    called: dict[str, float] = {}
    for visit in t.tape.visits:
        if visit.step.sides == "both":
            continue
        called[visit.step.key] = called.get(visit.step.key, 0.0) + visit.called
        mine = sides.setdefault(visit.step.key, [0, 0, 0, 0])
        for index, value in enumerate((visit.left, visit.right, visit.left_s, visit.right_s)):
            mine[index] += value
        paths.setdefault(visit.step.key, visit.step)
    for key, (left, right, left_s, right_s) in sides.items():
        # Reps that are estimated go with the seconds: one side tires first, it does not get more.
        by_time = left + right == 0 or not called.get(key)
        one, other = (left_s, right_s) if by_time else (left, right)
        # A turn that ends in the middle leaves one rep over; that is no imbalance.
        if abs(one - other) > max(1, UNEVEN_SHARE * (one + other)) + TIME_EPS_S:
            step = paths[key]
            unit = "s" if by_time else "reps"
            fields: dict[str, str | int | float] = {
                "movement": step.movement.name or key,
                "left": f"{one:.0f} {unit}",
                "right": f"{other:.0f} {unit}",
            }
            mend = None
            if step.step.id is not None and step.sides in ("swap", "alternate"):
                mend = set_edit("each side in every visit", [step.step.id, "sides"], "each")
            yield Finding((*step.path, "sides"), fields, abs(one - other), mend=mend)


def main_patterns(step: StepPlan) -> set[str]:
    """The rows that a movement mostly works (half of it or more); mobility apart."""
    rows: dict[str, float] = {}
    for pattern, weight in step.movement.patterns.items():
        rows[ROW_OF[pattern].name] = rows.get(ROW_OF[pattern].name, 0.0) + weight
    return {row for row, weight in rows.items() if weight >= MAIN_SHARE and row != "mobility"}


def same_pattern_run(t: Tally) -> Iterator[Finding]:
    """Neighbours that hit the same pattern or joint with under 15 s of rest between; not the rounds of one step.

    One finding a block: the pair with the least rest that shares a pattern, else a joint, and how many more there
    are. A joint alone is worth no more than a note.
    """
    for number, pairs in _neighbours(t).items():
        first, second, gap, patterns, joints, segment = min(pairs, key=lambda pair: (not pair[3], pair[2]))
        more = len(pairs) - 1
        fields: dict[str, str | int | float] = {
            "block": block_name(t.tape.blocks[number], number),
            "first": first.name,
            "second": second.name,
            "shared": ", ".join(patterns or joints),
            "rest": f"{gap:.0f}",
            "more": f"; so do {more} more pairs" if more > 1 else "; so does 1 more pair" if more else "",
        }
        severity: Severity = "look" if patterns else "note"
        others = tuple(dict.fromkeys(pair[1].path for pair in pairs if pair[1] is not second))
        yield Finding(second.path, fields, gap, segment.at.as_dict(), number, severity, others=others)


Pair = tuple[StepPlan, StepPlan, float, list[str], list[str], Segment]


def _neighbours(t: Tally) -> dict[int, list[Pair]]:
    """By block, each pair of steps that follow closely on each other and share a pattern or joint: once a pair."""
    found: dict[int, list[Pair]] = {}
    seen: set[frozenset[str]] = set()
    rows: dict[int, set[str]] = {}
    for (_, before, left), (_, segment, visit) in itertools.pairwise(t.worked):
        last, step = left.step, visit.step
        if step.key == last.key or before.block != segment.block or not t.counted[segment.block]:
            continue
        gap = segment.start - before.start - before.seconds
        if gap >= SAME_PATTERN_REST_S - TIME_EPS_S or frozenset((last.key, step.key)) in seen:
            continue
        for one in (last, step):
            if id(one) not in rows:
                rows[id(one)] = main_patterns(one)
        patterns = rows[id(step)] & rows[id(last)]
        joints = set(step.movement.stresses or ()) & set(last.movement.stresses or ())
        seen.add(frozenset((last.key, step.key)))
        if patterns or joints:
            pair = (last, step, gap, sorted(patterns), sorted(joints), segment)
            found.setdefault(segment.block, []).append(pair)
    return found


def unrehearsed(t: Tally) -> Iterator[Finding]:
    """Counted patterns worked at hard or above that no warm-up step touches: one finding for all of them."""
    warm = {
        ROW_OF[p].name
        for visit in t.firsts
        if t.tape.blocks[visit.block].part == "warm-up"
        for p in visit.step.movement.patterns
    }
    if not warm:
        return
    missing: dict[str, PerformedVisit] = {}
    for visit in t.firsts:
        of = t.tape.blocks[visit.block]
        if of.part in t.methods.counted_parts and visit.step.effort in HARD_EFFORTS:
            for row in sorted(main_patterns(visit.step) - warm):
                missing.setdefault(row, visit)
    if missing:
        first = next(iter(missing.values()))
        named = [f"{row} ({visit.step.name})" for row, visit in missing.items()]
        fields: dict[str, str | int | float] = {"patterns": ", ".join(named)}
        yield Finding(first.step.path, fields, len(missing), block=first.block)


def _has_part(t: Tally, part: str) -> bool:
    return any(t.tape.blocks[run.block].part == part for run in t.tape.runs)


def _hard_work(t: Tally) -> bool:
    return any(of.part in t.methods.counted_parts for _, of, _ in counted_blocks(t))


def no_warm_up(t: Tally) -> Iterator[Finding]:
    """No warm-up, in a session that does not stand alone."""
    if not t.session.stands_alone and _hard_work(t) and not _has_part(t, "warm-up"):
        yield Finding(("blocks",), {}, mend=set_edit("it is an add-on", ["stands_alone"], True))


def no_cool_down(t: Tally) -> Iterator[Finding]:
    """No cool-down, in a session that does not stand alone."""
    if not t.session.stands_alone and _hard_work(t) and not _has_part(t, "cool-down"):
        yield Finding(("blocks",), {}, mend=set_edit("it is an add-on", ["stands_alone"], True))


def cool_down_misses(t: Tally) -> Iterator[Finding]:
    """The muscle that worked most gets nothing in the cool-down."""
    if not _has_part(t, "cool-down"):
        return
    seconds: dict[int, float] = {}
    for visit in t.tape.visits:
        seconds[id(visit.step)] = seconds.get(id(visit.step), 0.0) + visit.seconds
    rows: dict[str, float] = {}
    for visit in t.firsts:
        if t.counted[visit.block]:
            for pattern, weight in visit.step.movement.patterns.items():
                if pattern != "mobility":
                    rows[pattern] = rows.get(pattern, 0.0) + weight * seconds[id(visit.step)]
    touched = {
        target
        for visit in t.firsts
        if t.tape.blocks[visit.block].part == "cool-down"
        for target in (*(visit.step.movement.relieves or ()), *visit.step.movement.patterns)
    }
    if not rows:
        return
    most = max(rows, key=lambda name: rows[name])
    if most not in touched and rows[most] > SMALL_SHARE * sum(rows.values()):
        fields: dict[str, str | int | float] = {"pattern": most, "minutes": f"{rows[most] / 60:.1f}"}
        yield Finding(("blocks",), fields, rows[most])


def landings_high(t: Tally) -> Iterator[Finding]:
    """Medium and high landings over the limit (80, 100, 120 by level; NSCA)."""
    count = t.reps.landings["medium"] + t.reps.landings["high"]
    if count > t.methods.landings_limit:
        fields: dict[str, str | int | float] = {"count": count, "limit": f"{t.methods.landings_limit:g}"}
        yield Finding(("blocks",), fields, count)


def skill_when_tired(t: Tally) -> Iterator[Finding]:
    """A skilled movement begins with uptake at 80 % or more."""
    told: set[int] = set()
    for index, segment, visit in t.worked:
        tired = t.trace[index].start >= TIRED_UPTAKE
        if visit.step.movement.skilled and tired and id(visit.step) not in told:
            told.add(id(visit.step))
            fields: dict[str, str | int | float] = {
                "movement": visit.step.name,
                "uptake": f"{t.trace[index].start:.0%}",
            }
            yield Finding(visit.step.path, fields, t.trace[index].start, segment.at.as_dict(), segment.block)


def rep_rule_unclear(t: Tally) -> Iterator[Finding]:
    """One-sided movements with a count, and nothing said about sides: one finding for all of them."""
    found = [
        visit for visit in t.firsts
        if (visit.step.movement.sides or "both") != "both"
        and visit.step.step.sides is None and visit.step.step.reps is not None
    ]  # fmt: skip
    if not found:
        return
    named = {f"{visit.step.name} (read as “{visit.step.sides}”)": None for visit in found}
    edits = [([visit.step.step.id, "sides"], visit.step.sides) for visit in found if visit.step.step.id is not None]
    mend = set_edits("say so in each place", [*edits]) if edits else None  # type: ignore[list-item]
    paths = [(*visit.step.path, "sides") for visit in found]
    blocks = {visit.block for visit in found}
    block = blocks.pop() if len(blocks) == 1 else None
    yield Finding(paths[0], {"movements": _listed(named)}, block=block, mend=mend, others=tuple(paths[1:]))


def not_judged(t: Tally) -> Iterator[Finding]:
    """Loads without one-rep maximum or reserve: their effort cannot be told. One finding for all of them."""
    steps: dict[int, PerformedVisit] = {}
    for visit, judged in zip(t.tape.visits, t.effort.judged, strict=True):
        if judged.not_judged:
            steps.setdefault(id(visit.step), visit)
    if not steps:
        return
    found = list(steps.values())
    named = dict.fromkeys(visit.step.name for visit in found)
    paths = [(*visit.step.path, "load") for visit in found]
    blocks = {visit.block for visit in found}
    block = blocks.pop() if len(blocks) == 1 else None
    yield Finding(paths[0], {"movements": _listed(named)}, block=block, others=tuple(paths[1:]))


def _listed(names: Iterable[str]) -> str:
    """Names in a row, the first few of many."""
    named = list(names)
    more = len(named) - MOST_NAMED
    return ", ".join(named[:MOST_NAMED]) + (f" and {more} more" if more > 0 else "")
