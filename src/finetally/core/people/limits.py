"""Limits of people (a joint, a movement) and the options of a session that they choose.

A limit is hit by a step whose movement loads the joint, or is or holds the movement. Of the step's options the
first that spares it is taken; if none does, the first that is called easier, which eases it; if there is none of
these either, the step is left open and told.
"""

from __future__ import annotations

from collections.abc import Iterable, Iterator, Mapping, Sequence
from dataclasses import dataclass
from typing import Literal

from finetally.core.movements.library import Library
from finetally.core.session.budget import spend
from finetally.core.session.document import Session
from finetally.core.session.movement import MovementDef, Sides, keys_listed
from finetally.core.session.problems import Path, path_text
from finetally.core.session.rules import blocks_with_paths, step_lists
from finetally.core.session.step import Option, Step

Joint = Literal["shoulder", "elbow", "wrist", "back", "hip", "knee", "ankle", "hamstring"]
"""What movements load, as `stresses` of their definitions names it."""
LimitSide = Literal["both", "left", "right"]
SPARED_BY: Mapping[LimitSide, Sides | None] = {"both": None, "left": "right", "right": "left"}
"""The side of a step that a limit on a side does not touch."""


@dataclass(frozen=True, slots=True)
class BodyLimit:
    """What somebody is to be spared: a joint or a movement (its key), on one side or both."""

    key: int
    joint: str | None
    movement: str | None
    side: LimitSide = "both"

    def hit_by(self, movement: MovementDef, sides: Sides | None, library: Library) -> bool:
        """Whether a movement loads what is to be spared, when it is done on these sides."""
        spared = SPARED_BY[self.side]
        if spared is not None and sides == spared:
            return False
        held = list(_held(movement, library))
        if self.movement is not None:
            return any(one.key == self.movement for one in held)
        return any(self.joint in (one.stresses or ()) for one in held)


DEEPEST = 8
"""Movements within movements within movements: definitions that hold each other must end."""


def _held(movement: MovementDef, library: Library, depth: int = 0) -> Iterator[MovementDef]:
    """The movement and all that are contained in it."""
    yield movement
    if depth < DEEPEST:
        for one in movement.contains or ():
            inner = library.get(one.movement)
            if inner is not None:
                yield from _held(inner, library, depth + 1)


@dataclass(frozen=True, slots=True)
class LimitedStep:
    """A step that somebody does otherwise, by its path in the document and its id.

    `option`: its label; None where none spares or eases what is hit. `eased`: the option is the easier one, but
    loads what is to be spared all the same. `limits`: keys of those hit. `instead`: movements that an option could
    name, from the easier ones of its movement.
    """

    path: str
    step: str | None
    movement: str
    option: str | None
    eased: bool
    limits: tuple[int, ...]
    instead: tuple[str, ...] = ()


def limited_steps(session: Session, limits: Sequence[BodyLimit], library: Library) -> list[LimitedStep]:
    """The steps of a session that limits hit, each with the option they choose, in its order.

    Raises OverBudgetError where an answer would take too much work: of many people, of a very long session.
    """
    if not limits:
        return []
    whole = library.with_definitions(session.movements)
    steps = list(_steps(session))
    spend(len(steps) * len(limits))
    found = (_limited(path, step, limits, whole) for path, step in steps)
    return [one for one in found if one is not None]


def _steps(session: Session) -> Iterator[tuple[Path, Step]]:
    for block_path, block in blocks_with_paths(session):
        for path, steps, _, _ in step_lists(block_path, block):
            yield from (((*path, index), step) for index, step in enumerate(steps))


def step_paths(session: Session) -> list[str]:
    """The paths of a session's steps, in its order."""
    return [path_text(path) for path, _ in _steps(session)]


def options_with(
    session: Session, chosen: str | Mapping[str, str], limited: Iterable[LimitedStep]
) -> dict[str, str]:
    """Options by step id, as `given.options` takes them: those chosen (a word for all, or by id), limits on top.

    Steps without an id have none.
    """
    options = dict(chosen) if not isinstance(chosen, str) else {
        step.id: option.label
        for _, step in _steps(session) if step.id is not None
        for option in reversed(step.options or ()) if option.goes_by(chosen)
    }  # fmt: skip
    taken = {one.step: one.option for one in limited if one.step is not None and one.option is not None}
    return {**options, **taken}


def _limited(path: Path, step: Step, limits: Sequence[BodyLimit], library: Library) -> LimitedStep | None:
    movement = library.get(step.movement)
    if movement is None:
        return None
    hit = [one for one in limits if one.hit_by(movement, step.sides or movement.sides, library)]
    if not hit:
        return None
    keys = tuple(one.key for one in hit)
    place = path_text(path)
    for option in step.options or ():
        if not _hits(option, step, hit, library):
            return LimitedStep(place, step.id, step.movement, option.label, False, keys)
    for option in step.options or ():
        if option.level == "easier":
            return LimitedStep(place, step.id, step.movement, option.label, True, keys)
    return LimitedStep(place, step.id, step.movement, None, False, keys, _instead(movement, hit, library))


def _hits(option: Option, step: Step, hit: Sequence[BodyLimit], library: Library) -> bool:
    movement = library.get(option.movement or step.movement)
    # A movement that nobody knows may load anything.
    return movement is None or any(
        one.hit_by(movement, option.sides or step.sides or movement.sides, library) for one in hit
    )


MOST_INSTEAD = 3


def _instead(movement: MovementDef, hit: Sequence[BodyLimit], library: Library) -> tuple[str, ...]:
    """Easier movements, the nearest first, that load nothing of what is hit."""
    seen, waiting = {movement.key}, [movement]
    found: list[str] = []
    while waiting and len(found) < MOST_INSTEAD:
        for key in keys_listed(waiting.pop(0).easier):
            one = library.get(key)
            if one is None or key in seen:
                continue
            seen.add(key)
            waiting.append(one)
            if not any(limit.hit_by(one, one.sides, library) for limit in hit):
                found.append(key)
    return tuple(found[:MOST_INSTEAD])
