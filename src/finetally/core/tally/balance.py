"""Balance over the parts that count: patterns, rows of the scheme, beams, planes."""

from __future__ import annotations

from collections.abc import Iterable, Mapping, Sequence

from finetally.core.methods.value import Methods
from finetally.core.movements.patterns import FLOOR_POSITIONS, PATTERN_BEAMS, SCHEMES
from finetally.core.session.movement import MovementDef
from finetally.core.tally.figure_types import BalanceFigures, BeamFigures, PatternFigures, RowFigures
from finetally.core.unfold.tape import Tape

PLANES = ("sagittal", "frontal", "transverse")


class PatternWork:
    """What adds up for one pattern, muscle or side: work seconds, visits, and the measure that shares go by."""

    __slots__ = ("measure", "visits", "work_s")

    def __init__(self) -> None:
        self.work_s = self.measure = 0.0
        self.visits = 0

    def add(self, work_s: float, measure: float, visits: int) -> None:
        """Add the part of so many visits: seconds of work, and the measure that shares go by."""
        self.work_s += work_s
        self.measure += measure
        self.visits += visits


class BalanceTally:
    """Weighs every visit of the counted blocks by its movement's patterns, position and plane."""

    def __init__(
        self, tape: Tape, counted: Sequence[bool], visit_effort: Sequence[float], methods: Methods
    ) -> None:
        self._methods = methods
        self.patterns: dict[str, PatternWork] = {}
        self.positions: dict[str, PatternWork] = {}
        self.planes: dict[str, PatternWork] = {}
        self.left = self.right = self.unassigned_s = 0.0
        self._row_visits = dict.fromkeys((row.name for row in SCHEMES[methods.balance]), 0)
        by = methods.balance_by
        # Weights belong to the movement, so visits are added up by movement before they are weighed.
        sums: dict[int, tuple[MovementDef, PatternWork]] = {}
        for visit, effort in zip(tape.visits, visit_effort, strict=True):
            if not counted[visit.block]:
                continue
            work = visit.seconds
            measure = work if by == "work-time" else 1.0 if by == "visits" else effort * work
            movement = visit.step.movement
            _, mine = sums.setdefault(id(movement), (movement, PatternWork()))
            mine.add(work, measure, 1)
            self.left += visit.left_s
            self.right += visit.right_s
        for movement, mine in sums.values():
            self._weigh_movement(movement, mine)

    def _weigh_movement(self, movement: MovementDef, visit: PatternWork) -> None:
        if not movement.patterns:
            self.unassigned_s += visit.work_s
        for name, weight in movement.patterns.items():
            _weigh(self.patterns, name, weight, visit)
        for row in SCHEMES[self._methods.balance]:
            # A set is one visit of a row, also where its movement has two patterns of it.
            if any(movement.patterns.get(member, 0) > 0 for member in row.members):
                self._row_visits[row.name] += visit.visits
        place = "floor" if movement.position in FLOOR_POSITIONS else movement.position or "standing"
        _weigh(self.positions, place, 1, visit)
        _weigh(self.planes, movement.plane or "sagittal", 1, visit)

    def measure(self, names: Iterable[str]) -> float:
        """The measure of several fine patterns together: seconds, visits, or seconds × effort (`balance_by`)."""
        return sum(self.patterns[name].measure for name in names if name in self.patterns)

    def pattern_figures(self) -> dict[str, PatternFigures]:
        """Fine patterns, mobility among them; shares of all."""
        return _figures(self.patterns)

    def balance(self) -> BalanceFigures:
        """Rows of the chosen scheme with shares among themselves, and all beams."""
        scheme = SCHEMES[self._methods.balance]
        rows: dict[str, RowFigures] = {}
        total = self.measure(member for row in scheme for member in row.members)
        for row in scheme:
            members = [self.patterns[name] for name in row.members if name in self.patterns]
            measure = sum(one.measure for one in members)
            rows[row.name] = {
                "code": row.code,
                "work_s": sum(one.work_s for one in members),
                "share": measure / total if total else 0.0,
                "visits": self._row_visits[row.name],
            }
        mobility = self.patterns.get("mobility")
        return {
            "scheme": self._methods.balance,
            "by": self._methods.balance_by,
            "rows": rows,
            "mobility_s": mobility.work_s if mobility else 0.0,
            "unassigned_s": self.unassigned_s,
            "beams": self._beams(),
            "planes": {name: one["share"] for name, one in _figures(self.planes).items()},
        }

    def _beams(self) -> dict[str, BeamFigures]:
        beams = {}
        for beam in PATTERN_BEAMS:
            left, right = self._side(beam.left_weights), self._side(beam.right_weights)
            beams[beam.name] = _beam(beam.left, beam.right, left, right)
        beams["left-right"] = _beam("left", "right", self.left, self.right)
        floor, standing = self.positions.get("floor"), self.positions.get("standing")
        beams["floor-standing"] = _beam(
            "floor", "standing", floor.measure if floor else 0.0, standing.measure if standing else 0.0
        )
        return beams

    def _side(self, weights: Iterable[tuple[str, float]]) -> float:
        return sum(self.patterns[name].measure * weight for name, weight in weights if name in self.patterns)


def _weigh(into: dict[str, PatternWork], name: str, weight: float, visit: PatternWork) -> None:
    if weight <= 0:
        return
    one = into.get(name)
    if one is None:
        one = into[name] = PatternWork()
    one.add(visit.work_s * weight, visit.measure * weight, visit.visits)


def _figures(weighed: Mapping[str, PatternWork]) -> dict[str, PatternFigures]:
    total = sum(one.measure for one in weighed.values())
    return {
        name: {
            "work_s": one.work_s,
            "share": one.measure / total if total else 0.0,
            "visits": one.visits,
        }
        for name, one in weighed.items()
    }


def _beam(left_name: str, right_name: str, left: float, right: float) -> BeamFigures:
    total = left + right
    return {
        "left_name": left_name,
        "right_name": right_name,
        "left": left,
        "right": right,
        "left_share": left / total if total else None,
    }
