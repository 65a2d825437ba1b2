"""What a step says on the wall behind its movement's name: its dose and its qualities."""

from __future__ import annotations

from collections.abc import Iterator

from pydantic import ValidationError

from finetally.core.board.values import load_text, metres_text, number, quoted, reps_text, time_text
from finetally.core.measures import Units
from finetally.core.session.movement import Sides
from finetally.core.session.parts import as_written, changed, set_values
from finetally.core.session.step import Option, Step
from finetally.core.session.values import PerRoundValue, ToFailure

SIDE_PHRASES: dict[Sides, str] = {
    "each": " each side",
    "left": " on the left",
    "right": " on the right",
    "both": " both sides",
    "alternate": ", sides take turns",
    "swap": ", sides swap",
}


def dose_text(step: Step, units: Units | None = None) -> str:
    """How much of it, with a blank behind; nothing where no dose is said. `units`: see load_text."""
    reps, seconds, metres = reps_text(step.reps), time_text(step.seconds), metres_text(step.metres, units)
    if reps and seconds:
        return f"{reps} within {seconds} "
    if reps:
        return f"{reps} "
    if seconds:
        return f"{seconds} "
    return f"{metres} " if metres else ""


def _failure_text(reps: PerRoundValue, before: str) -> str:
    """`to failure`, with the reps it is planned at where they are given; nothing for other doses."""
    if not isinstance(reps, ToFailure):
        return ""
    return f"{before}to failure" + ("" if reps.plan is None else f" (plan {number(reps.plan)})")


def step_of(option: Option) -> Step:
    """An option as a step, so that what a text said of it (`30 s plank, easy`) is written again.

    Keys that options do not have are kept in a document as unknown; those that steps have are read here as theirs.
    """
    said = {key: value for key, value in as_written(option).items() if key in Step.model_fields}
    try:
        return Step.model_validate({"movement": "-", **said})
    except ValidationError:
        return changed(Step(movement="-"), **set_values(option, ("movement", "reps", "sides", "load")))


def quality_texts(step: Step, units: Units | None = None) -> Iterator[str]:
    """What goes with a movement; each part brings the comma or the blank before it. `units`: see load_text."""
    sides = "" if step.sides is None else SIDE_PHRASES[step.sides]
    comma = sides.startswith(",")
    yield sides
    yield _failure_text(step.reps, ", " if comma else " ")
    load = load_text(step.load, units)
    if load:
        yield f", {load}" if comma else f" {load}"
    yield from _rarer(step)


def _rarer(step: Step) -> Iterator[str]:
    """What is said of few movements: growth, tempo, effort, reserve, pace, a rest and a note of its own."""
    if step.fill:
        yield " to fill"
    if step.grow is not None:
        yield f", {step.grow:+d} each round"
    if step.tempo is not None:
        yield f", tempo {'-'.join(map(number, step.tempo))}"
    if step.effort:
        yield f", effort {step.effort}"
    if step.reserve is not None:
        yield f", {number(step.reserve)} in reserve"
    if step.pace_s is not None:
        yield f", {time_text(step.pace_s)} a rep"
    rest = time_text(step.rest_s)
    if rest:
        yield f", rest {rest}"
    note = quoted(step.note or "")
    if note:
        yield f", note {note}"
