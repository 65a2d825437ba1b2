"""Reps, sides, metres, volume and landings, from the visits of a tape."""

from __future__ import annotations

from finetally.core.methods.given import PersonGiven
from finetally.core.session.step import Load
from finetally.core.tally.figure_types import LandingFigures, MovementFigures, RepFigures
from finetally.core.unfold.tape import PerformedVisit


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

    def add(self, visit: PerformedVisit) -> None:
        """Book one visit."""
        step = visit.step
        mine = self._movement(step.key)
        mine["visits"] += 1
        mine["work_s"] += visit.seconds
        mine["called"] += visit.called
        mine["paced"] += visit.paced
        mine["estimated"] += visit.estimated
        mine["metres"] += visit.metres
        mine["metres_estimated"] += visit.metres_estimated
        reps = self.reps
        reps["called"] += visit.called
        reps["paced"] += visit.paced
        reps["estimated"] += visit.estimated
        if step.sides != "both":
            reps["left"] += visit.left
            reps["right"] += visit.right
            reps["left_s"] += visit.left_s
            reps["right_s"] += visit.right_s
        if visit.load is not None:
            self._weigh(visit, mine)
        if step.movement.landings:
            grade = step.movement.landing_grade or "medium"
            self.landings[grade] += visit.reps * step.movement.landings
        for inside in step.movement.contains or ():
            hidden = visit.reps * inside.reps
            self._movement(inside.movement)["contained"] += hidden
            reps["contained"] += hidden

    def _weigh(self, visit: PerformedVisit, mine: MovementFigures) -> None:
        kg = kilograms(visit.load, visit.step.key, self._person)
        if kg is not None:
            mine["kg"] += visit.reps * kg
            self.volume_kg += visit.reps * kg
            self.volume_called_kg += visit.called * kg
