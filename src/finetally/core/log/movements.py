"""What was done of each movement, as the log keeps it: in a session, in its scored blocks, behind one score."""

from __future__ import annotations

from collections.abc import Iterable, Mapping, Sequence

from typing_extensions import TypedDict

from finetally.core.learn.pace import PaceModel
from finetally.core.movements.patterns import MAIN_SHARE, ROW_OF
from finetally.core.session.document import Session
from finetally.core.tally.figure_types import MovementFigures
from finetally.core.tally.measure import Tally
from finetally.core.tally.reps import RepTally
from finetally.core.unfold.unfold import blocks_of


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


class BlockDone(TypedDict):
    """A scored block: how many scores make it whole, and the reps and kilograms of each movement in it."""

    scores: int
    movements: dict[str, BlockMovement]


class BlockMovement(TypedDict):
    """A movement in a block: reps by how they are known, kilograms."""

    called: int
    paced: int
    estimated: int
    kg: float


class CountedMovement(TypedDict):
    """What a score says was done of a movement: reps, kilograms."""

    reps: int
    kg: float


def blocks_kept(t: Tally, planned: Session) -> dict[str, BlockDone]:
    """The scored blocks of a session (or of a run of it), by the number that each has in the planned one."""
    numbers = {(of.section, of.ident): number for number, of in enumerate(blocks_of(planned))}
    scores: dict[int, int] = {}
    for run in t.tape.runs:
        scores[run.block] = scores.get(run.block, 0) + len(run.scores)
    tallies: dict[int, RepTally] = {}
    for visit in t.tape.visits:
        if scores.get(visit.block):
            tallies.setdefault(visit.block, RepTally(t.given.person)).add(visit)
    kept: dict[str, BlockDone] = {}
    for block, made in tallies.items():
        of = t.tape.blocks[block]
        number = numbers.get((of.section, of.ident))
        if number is not None:
            kept[str(number)] = {
                "scores": scores[block],
                "movements": {
                    key: {
                        "called": one["called"], "paced": one["paced"], "estimated": one["estimated"],
                        "kg": one["kg"],
                    }
                    for key, one in made.movements.items()
                },
            }  # fmt: skip
    return kept


def counted_of(model: PaceModel, factor: float) -> dict[str, CountedMovement]:
    """What was done of each movement behind a score whose pace factor this is.

    Empty for a block that makes several scores a pass: which reps are of which is not told.
    """
    tape = model.tape(factor)
    if len(tape.runs[0].scores) != 1:
        return {}
    made = RepTally(model.given.person)
    for visit in tape.visits:
        made.add(visit)
    return {
        key: {"reps": one["called"] + one["paced"] + one["estimated"], "kg": one["kg"]}
        for key, one in made.movements.items()
    }


def mainly_of(t: Tally) -> list[str]:
    """Of each block, in order of the file, the movement that more than half of its work is, by key; "" for none."""
    seconds: list[dict[str, float]] = [{} for _ in t.tape.blocks]
    for visit in t.tape.visits:
        mine = seconds[visit.block]
        mine[visit.step.key] = mine.get(visit.step.key, 0.0) + visit.seconds
    most = [max(mine, key=lambda key: mine[key], default="") for mine in seconds]
    return [
        key if key and mine[key] > MAIN_SHARE * sum(mine.values()) else ""
        for key, mine in zip(most, seconds, strict=True)
    ]


def with_counted(
    movements: Mapping[str, MovementKept],
    blocks: Mapping[str, BlockDone],
    counted: Mapping[str, Sequence[Mapping[str, CountedMovement]]],
) -> dict[str, MovementDone]:
    """The movements of a session with what somebody's scores say in the place of what was figured of those blocks.

    `counted`: by block, one for each score. A block counts where all its scores are there; elsewhere what was
    figured stands.
    """
    made = {key: _as_figured(one) for key, one in movements.items()}
    for block, scores in counted.items():
        figured = blocks.get(block)
        if figured is None or figured["scores"] != len(scores):
            continue
        for key, part in figured["movements"].items():
            mine = made[key]
            mine["called"] -= part["called"]
            mine["paced"] -= part["paced"]
            mine["estimated"] -= part["estimated"]
            mine["kg"] -= part["kg"]
        for score in scores:
            for key, said in score.items():
                mine = made.setdefault(key, {**NOTHING_DONE})
                mine["counted"] += said["reps"]
                mine["kg"] += said["kg"]
    return made


def _as_figured(one: MovementKept) -> MovementDone:
    # An older release kept no row and no landings.
    return {
        "visits": one["visits"], "counted": 0, "called": one["called"], "paced": one["paced"],
        "estimated": one["estimated"], "kg": one["kg"], "row": one.get("row", ""),
        "landings": one.get("landings", 0),
    }  # fmt: skip


class MovementDone(TypedDict):
    """What somebody did of a movement: sets, reps by how they are known (counted: a score says so), kilograms."""

    visits: int
    counted: int
    called: int
    paced: int
    estimated: int
    kg: float
    row: str
    landings: int


NOTHING_DONE: MovementDone = {
    "visits": 0, "counted": 0, "called": 0, "paced": 0, "estimated": 0, "kg": 0.0, "row": "", "landings": 0,
}  # fmt: skip


class DoneDensity(TypedDict):
    """Work as share of the time, repetitions (of all kinds) and kilograms a minute."""

    work: float
    reps: float
    kg: float


def density_of(minutes: float, work_s: float, reps: int, kg: float) -> DoneDensity | None:
    """How dense so many minutes of sessions were; None for no minutes."""
    if minutes <= 0:
        return None
    return {"work": work_s / 60 / minutes, "reps": reps / minutes, "kg": kg / minutes}


def moved_kg(sets: Iterable[Mapping[str, float]]) -> float:
    """Kilograms that sets (each with `kg` and `reps`) moved together; those without a weight move none."""
    return sum(one.get("kg", 0) * one.get("reps", 0) for one in sets)
