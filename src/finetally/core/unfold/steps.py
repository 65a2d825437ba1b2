"""Steps with everything resolved that does not change from visit to visit: movement, option, pace, sides."""

from __future__ import annotations

import math
from collections.abc import Sequence
from dataclasses import dataclass

from finetally.core.methods.given import Given
from finetally.core.methods.value import Methods
from finetally.core.movements.library import Library
from finetally.core.movements.patterns import FLOOR_POSITIONS
from finetally.core.movements.provisional import provisional_movement
from finetally.core.session.clocks import InnerClock
from finetally.core.session.document import Block
from finetally.core.session.movement import MovementDef
from finetally.core.session.problems import Path
from finetally.core.session.step import Load, Option, Step
from finetally.core.session.values import ToFailure
from finetally.core.unfold.resolve import Resolver

DEFAULT_MET = 5.0


@dataclass(frozen=True, slots=True, eq=False)
class StepPlan:
    """One step, ready to be done. Paces are fresh (no fatigue), person and squad included.

    `pace_s`: seconds a rep of the movement's own (or typed), none for holds; reps are estimated by it. `dose_rep_s`
    and `metre_s`: what a prescribed rep or metre takes, the unknown's value where the movement has none; `guessed`
    names the doses for which that was taken.
    """

    step: Step
    path: Path
    ident: str | int
    key: str
    movement: MovementDef
    option: Option | None
    sides: str
    takes_turns: bool
    pace_s: float | None
    dose_rep_s: float
    metre_s: float
    guessed: tuple[str, ...]
    effort: str
    effort_typed: str | None
    effort_factor: float
    effort_floor: float
    met: float
    kit: frozenset[str]
    on_floor: bool
    resolver: Resolver

    @property
    def name(self) -> str:
        """What the movement is called."""
        return self.movement.name or self.key

    @property
    def to_failure(self) -> bool:
        """Whether the dose is as many reps as can be done."""
        own = self.option.reps if self.option is not None else None
        return isinstance(self.step.reps if own is None else own, ToFailure)

    def reps(self, round_: int) -> int | None:
        """Reps of the dose in a round, growth and the option's factor in; None if the dose has none."""
        own = self.option.reps if self.option is not None and self.option.reps is not None else None
        value = own if own is not None else self.step.reps
        if value is None:
            return None
        reps = self.resolver.dose_in(value, round_, self.path, "reps") + (self.step.grow or 0) * round_
        if own is None and self.option is not None and self.option.dose_factor is not None:
            reps = max(1.0, math.floor(reps * self.option.dose_factor + 1e-9)) if reps > 0 else 0
        return max(0, int(reps))

    def seconds(self, round_: int) -> float | None:
        """Seconds of the dose (or of the window, under intervals) in a round."""
        if self.step.seconds is None:
            return None
        return self.resolver.dose_in(self.step.seconds, round_, self.path, "seconds") * self._factor

    def metres(self, round_: int) -> float | None:
        """Metres of the dose in a round."""
        if self.step.metres is None:
            return None
        return self.resolver.dose_in(self.step.metres, round_, self.path, "metres") * self._factor

    @property
    def _factor(self) -> float:
        return self.option.dose_factor if self.option is not None and self.option.dose_factor else 1

    def load(self, round_: int) -> Load | None:
        """What is moved in a round."""
        chosen = self.option.load if self.option is not None and self.option.load is not None else None
        value = chosen if chosen is not None else self.step.load
        if isinstance(value, list):
            return value[min(round_, len(value) - 1)]
        return value


def chosen_option(step: Step, given: Given) -> Option | None:
    """The option taken on the day: by the step's id, or one word for all that is a label, level or kit."""
    if not step.options or not given.options:
        return None
    if isinstance(given.options, str):
        word = given.options
    else:
        word = given.options.get(step.id, "") if step.id is not None else ""
    return next((option for option in step.options if option.goes_by(word)), None)


def _guessed(step: Step, option: Option | None, movement: MovementDef, rep_s: float | None) -> tuple[str, ...]:
    """The doses that take a time of the unknown: reps without a pace, metres without a speed."""
    reps = option.reps if option is not None and option.reps is not None else step.reps
    if reps is not None:
        return () if rep_s else ("reps",)
    return ("metres",) if step.metres is not None and not movement.speed_mps else ()


class StepReader:
    """Makes StepPlans from steps. A movement that nobody knows stands in as a provisional one."""

    def __init__(self, library: Library, methods: Methods, given: Given, resolver: Resolver) -> None:
        self._library = library
        self._methods = methods
        self._given = given
        self._resolver = resolver
        self._factor = given.person.pace_factor or methods.pace_factor
        self.provisional: dict[str, MovementDef] = {}
        """Movements that nobody knows, by key."""

    def movement(self, key: str) -> MovementDef:
        """Look a movement up; for an unknown one, what is taken of it until it is defined."""
        found = self._library.get(key) or self.provisional.get(key)
        if found is None:
            found = self.provisional[key] = provisional_movement(key, self._methods.unknown.met)
        return found

    def read(self, block: Block, steps: Sequence[Step], path: Path, clock: InnerClock) -> list[StepPlan]:
        """The plans of a step list; `path` is the list's."""
        return [self._plan(block, step, index, (*path, index), clock) for index, step in enumerate(steps)]

    def _plan(self, block: Block, step: Step, index: int, path: Path, clock: InnerClock) -> StepPlan:
        option = chosen_option(step, self._given)
        key = step.movement
        if option is not None and option.movement is not None:
            key = option.movement
        movement = self.movement(key)
        typed = step.effort or block.effort
        effort = typed or ("easy" if block.part in ("warm-up", "cool-down") else "hard")
        rep_s = sum(step.tempo) if step.tempo else (step.pace_s or movement.pace_s)
        kit = set(movement.kit or ())
        if option is not None and option.kit:
            kit = {option.kit} if isinstance(option.kit, str) else set(option.kit)
        sides = (option.sides if option is not None else None) or step.sides or movement.sides or "both"
        unknown = self._methods.unknown
        return StepPlan(
            step=step,
            path=path,
            ident=step.id if step.id is not None else index,
            key=key,
            movement=movement,
            option=option,
            sides=sides,
            takes_turns=sides in ("alternate", "swap"),
            pace_s=rep_s * self._factor if rep_s else None,
            dose_rep_s=(rep_s or unknown.pace_s) * self._factor,
            metre_s=self._factor / (movement.speed_mps or unknown.speed_mps),
            guessed=() if clock.windowed else _guessed(step, option, movement, rep_s),
            effort=effort,
            effort_typed=typed,
            effort_factor=self._methods.effort_factor.of(effort),
            effort_floor=self._methods.effort_floor.of(typed) if typed is not None else 0.0,
            met=movement.met if movement.met is not None else DEFAULT_MET,
            kit=frozenset(kit),
            on_floor=movement.position in FLOOR_POSITIONS,
            resolver=self._resolver,
        )
