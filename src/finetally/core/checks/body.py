"""Checks of what the body gets: sides, neighbours, rehearsal, landings, skill, cool-down."""

from __future__ import annotations

from collections.abc import Iterator

from finetally.core.checks.check import Finding, counted_blocks, set_edit, work_segments
from finetally.core.checks.time import HARD_EFFORTS
from finetally.core.movements.patterns import ROW_OF
from finetally.core.session.step import Effort
from finetally.core.tally.measure import Tally
from finetally.core.unfold.pace import EPS
from finetally.core.unfold.steps import StepPlan
from finetally.core.unfold.tape import Done

SAME_PATTERN_REST_S = 15
MAIN_SHARE = 0.5
TIRED_UPTAKE = 0.8
SMALL_SHARE = 0.05
UNEVEN_SHARE = 0.05
EFFORTS: tuple[Effort, ...] = ("easy", "steady", "hard", "all-out")


def uneven_sides(t: Tally) -> Iterator[Finding]:
    """One side gets more than the other, step by step, and no other step of the movement makes up for it."""
    sides: dict[str, list[float]] = {}
    paths: dict[str, StepPlan] = {}
    for done in t.tape.visits:
        mine = sides.setdefault(done.step.key, [0, 0, 0, 0])
        for index, value in enumerate((done.left, done.right, done.left_s, done.right_s)):
            mine[index] += value
        paths.setdefault(done.step.key, done.step)
    for key, (left, right, left_s, right_s) in sides.items():
        by_time = left + right == 0
        one, other = (left_s, right_s) if by_time else (left, right)
        # A turn that ends in the middle leaves one rep over; that is no imbalance.
        if abs(one - other) > max(1, UNEVEN_SHARE * (one + other)) + EPS:
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
    """Neighbours that hit the same pattern or joint with under 15 s of rest between; not the rounds of one step."""
    seen: set[tuple[str, str]] = set()
    segments = t.tape.segments
    before: int | None = None
    rows: dict[int, set[str]] = {}
    for index, segment, done in work_segments(t):
        previous, before = before, index
        if previous is None or not t.counted[segment.block] or segments[previous].block != segment.block:
            continue
        last = t.tape.visits[segments[previous].visit or 0].step
        step = done.step
        gap = segment.start - segments[previous].start - segments[previous].seconds
        if step is last or gap >= SAME_PATTERN_REST_S - EPS or (last.key, step.key) in seen:
            continue
        for one in (last, step):
            if id(one) not in rows:
                rows[id(one)] = main_patterns(one)
        patterns = rows[id(step)] & rows[id(last)]
        joints = set(step.movement.stresses or ()) & set(last.movement.stresses or ())
        shared = sorted(patterns) or sorted(joints)
        if not shared:
            continue
        seen.add((last.key, step.key))
        fields: dict[str, str | int | float] = {
            "first": last.movement.name or last.key,
            "second": step.movement.name or step.key,
            "shared": ", ".join(shared),
            "rest": f"{gap:.0f}",
        }
        yield Finding(step.path, fields, gap, segment.at.as_dict(), segment.block)


def unrehearsed(t: Tally) -> Iterator[Finding]:
    """Counted patterns worked at hard or above that no warm-up step touches: one finding for all of them."""
    warm = {
        ROW_OF[p].name
        for done in t.tape.visits
        if t.tape.blocks[done.block].part == "warm-up"
        for p in done.step.movement.patterns
    }
    if not warm:
        return
    firsts: dict[int, Done] = {}
    for done in t.tape.visits:
        firsts.setdefault(id(done.step), done)
    missing: dict[str, Done] = {}
    for done in firsts.values():
        of = t.tape.blocks[done.block]
        if of.part in t.methods.counted_parts and done.step.effort in HARD_EFFORTS:
            for row in sorted(main_patterns(done.step) - warm):
                missing.setdefault(row, done)
    if missing:
        first = next(iter(missing.values()))
        named = [f"{row} ({done.step.movement.name or done.step.key})" for row, done in missing.items()]
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
    rows: dict[str, float] = {}
    for done in t.tape.visits:
        if t.counted[done.block]:
            for pattern, weight in done.step.movement.patterns.items():
                if pattern != "mobility":
                    rows[pattern] = rows.get(pattern, 0.0) + weight * done.seconds
    touched = {
        target
        for done in t.tape.visits
        if t.tape.blocks[done.block].part == "cool-down"
        for target in (*RELEASES.get(done.step.key, ()), *done.step.movement.patterns)
    }
    if not rows:
        return
    most = max(rows, key=lambda name: rows[name])
    if most not in touched and rows[most] > SMALL_SHARE * sum(rows.values()):
        fields: dict[str, str | int | float] = {"pattern": most, "minutes": f"{rows[most] / 60:.1f}"}
        yield Finding(("blocks",), fields, rows[most])


RELEASES: dict[str, tuple[str, ...]] = {
    "calf-stretch": ("jump", "travel"),
    "hip-flexor-stretch": ("lunge", "flex", "travel"),
    "chest-stretch": ("push-level", "push-overhead"),
    "childs-pose": ("pull-overhead", "pull-level", "hinge", "brace"),
    "hamstring-stretch": ("hinge",),
    "quad-stretch": ("squat", "lunge", "jump"),
    "glute-stretch": ("hinge", "lunge", "squat"),
    "lat-stretch": ("pull-overhead", "pull-level", "push-overhead", "carry"),
    "shoulder-stretch": ("push-overhead", "push-level", "pull-level"),
    "open-book": ("twist", "push-level"),
    "thread-needle": ("twist", "pull-level"),
    "cat-cow": ("brace", "flex", "carry", "hinge"),
    "squat-hold": ("squat",),
    "ankle-rock": ("jump", "travel", "squat"),
}
"""Which patterns a stretch gives relief after."""


def landings_high(t: Tally) -> Iterator[Finding]:
    """Medium and high landings over the limit (80, 100, 120 by level; NSCA)."""
    count = t.reps.landings["medium"] + t.reps.landings["high"]
    if count > t.methods.landings_limit:
        fields: dict[str, str | int | float] = {"count": count, "limit": f"{t.methods.landings_limit:g}"}
        yield Finding(("blocks",), fields, count)


def skill_when_tired(t: Tally) -> Iterator[Finding]:
    """A skilled movement begins with uptake at 80 % or more."""
    told: set[int] = set()
    for index, segment, done in work_segments(t):
        tired = t.trace[index].start >= TIRED_UPTAKE
        if done.step.movement.skilled and tired and id(done.step) not in told:
            told.add(id(done.step))
            fields: dict[str, str | int | float] = {
                "movement": done.step.movement.name or done.step.key,
                "uptake": f"{t.trace[index].start:.0%}",
            }
            yield Finding(done.step.path, fields, t.trace[index].start, segment.at.as_dict(), segment.block)


def rep_rule_unclear(t: Tally) -> Iterator[Finding]:
    """A one-sided movement with a count, and nothing said about sides."""
    told: set[int] = set()
    for done in t.tape.visits:
        step = done.step
        one_sided = (step.movement.sides or "both") != "both"
        if one_sided and step.step.sides is None and step.step.reps is not None and id(step) not in told:
            told.add(id(step))
            mend = None
            if step.step.id is not None:
                mend = set_edit(f"say so: {step.sides}", [step.step.id, "sides"], step.sides)
            fields = {"movement": step.movement.name or step.key, "read_as": step.sides}
            yield Finding((*step.path, "sides"), {**fields}, block=done.block, mend=mend)


def not_judged(t: Tally) -> Iterator[Finding]:
    """A load without one-rep maximum or reserve: its effort cannot be told."""
    told: set[int] = set()
    for done, judged in zip(t.tape.visits, t.effort.judged, strict=True):
        if judged.not_judged and id(done.step) not in told:
            told.add(id(done.step))
            fields = {"movement": done.step.movement.name or done.step.key}
            yield Finding((*done.step.path, "load"), {**fields}, block=done.block)
