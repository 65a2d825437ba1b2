"""What was done of each movement in a session, as the log keeps it: also by row of the stave, and landings."""

from __future__ import annotations

from finetally.core.movements.patterns import ROW_OF
from finetally.core.tally.figure_types import MovementFigures
from finetally.core.tally.measure import Tally


class MovementKept(MovementFigures):
    """The figures of a movement; the row of the stave that most of it is of; landings on feet, of all grades."""

    row: str
    landings: int


def movements_kept(t: Tally) -> dict[str, MovementKept]:
    """What a session came to by movement. Kept as it is: what the movement is may change later."""
    kept: dict[str, MovementKept] = {}
    for visit in t.tape.visits:
        key, movement = visit.step.key, visit.step.movement
        one = kept.get(key)
        if one is None:
            shares: dict[str, float] = {}
            for pattern, weight in movement.patterns.items():
                row = ROW_OF[pattern].name
                shares[row] = shares.get(row, 0.0) + weight
            row = max(shares, key=lambda name: shares[name], default="")
            one = kept[key] = {**t.reps.movements[key], "row": row, "landings": 0}
        one["landings"] += visit.reps * (movement.landings or 0)
    # Those that others contain have reps of their own and were never visited.
    for key, figures in t.reps.movements.items():
        kept.setdefault(key, {**figures, "row": "", "landings": 0})
    return kept
