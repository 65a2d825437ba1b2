"""Reps, sides, metres, volume and landings, from the visits of a tape."""

from __future__ import annotations

from finetally.core.methods.given import PersonGiven
from finetally.core.session.step import Load
from finetally.core.tally.shapes import LandingFigures, MovementFigures, RepFigures
from finetally.core.unfold.tape import Done


def kilograms(load: Load | None, movement: str, person: PersonGiven) -> float | None:
    """What one rep moves, in kg: all implements together; None where it cannot be known.

    Shares of the one-rep maximum and of body weight count once a person is given.
    """
    if load is None:
        return None
    if load.kg is not None:
        return load.kg * (load.count or 1)
    if load.pct_1rm is not None:
        maximum = person.one_rm.get(movement)
        return None if maximum is None else maximum * load.pct_1rm / 100
    if load.bodyweight is not None and person.body_kg is not None:
        return person.body_kg * load.bodyweight
    return None


def _empty_movement(*, provisional: bool) -> MovementFigures:
    return {
        "provisional": provisional,
        "visits": 0,
        "work_s": 0.0,
        "called": 0,
        "paced": 0,
        "estimated": 0,
        "contained": 0,
        "metres": 0.0,
        "metres_estimated": 0.0,
        "kg": 0.0,
    }


class RepTally:
    """Adds visits up: by movement, by kind of rep, by side."""

    def __init__(self, person: PersonGiven, provisional: frozenset[str] = frozenset()) -> None:
        self._person = person
        self._provisional = provisional
        self.movements: dict[str, MovementFigures] = {}
        self.reps: RepFigures = {
            "called": 0,
            "paced": 0,
            "estimated": 0,
            "contained": 0,
            "left": 0,
            "right": 0,
            "left_s": 0.0,
            "right_s": 0.0,
        }
        self.landings: LandingFigures = {"low": 0, "medium": 0, "high": 0}
        self.volume_kg = 0.0
        self.volume_called_kg = 0.0

    def _movement(self, key: str) -> MovementFigures:
        found = self.movements.get(key)
        if found is None:
            found = self.movements[key] = _empty_movement(provisional=key in self._provisional)
        return found

    def add(self, done: Done) -> None:
        """Book one visit."""
        step = done.step
        mine = self._movement(step.key)
        mine["visits"] += 1
        mine["work_s"] += done.seconds
        mine["called"] += done.called
        mine["paced"] += done.paced
        mine["estimated"] += done.estimated
        mine["metres"] += done.metres
        mine["metres_estimated"] += done.metres_estimated
        reps = self.reps
        reps["called"] += done.called
        reps["paced"] += done.paced
        reps["estimated"] += done.estimated
        reps["left"] += done.left
        reps["right"] += done.right
        reps["left_s"] += done.left_s
        reps["right_s"] += done.right_s
        if done.load is not None:
            self._weigh(done, mine)
        if step.movement.landings:
            grade = step.movement.landing_grade or "medium"
            self.landings[grade] += done.reps * step.movement.landings
        for inside in step.movement.contains or ():
            hidden = done.reps * inside.reps
            self._movement(inside.movement)["contained"] += hidden
            reps["contained"] += hidden

    def _weigh(self, done: Done, mine: MovementFigures) -> None:
        kg = kilograms(done.load, done.step.key, self._person)
        if kg is not None:
            mine["kg"] += done.reps * kg
            self.volume_kg += done.reps * kg
            self.volume_called_kg += done.called * kg
