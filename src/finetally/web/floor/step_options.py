"""The steps of a session that some may do otherwise."""

from __future__ import annotations

from dataclasses import dataclass

from finetally.core.floor.replan.changes import steps_of
from finetally.core.movements.library import Library
from finetally.core.session.document import Session
from finetally.core.unfold.unfold import blocks_of


@dataclass(frozen=True, slots=True)
class StepOptions:
    """A step, by id, that some may do otherwise: its movement's name, the labels of its options, its block."""

    step: str
    name: str
    labels: list[str]
    block: int


def step_options(session: Session, library: Library) -> list[StepOptions]:
    """The steps of a session that have options; by id, as options are taken by it."""
    known = library.with_definitions(session.movements)
    found: list[StepOptions] = []
    for number, of in enumerate(blocks_of(session)):
        for _, step in steps_of(of):
            movement = known.get(step.movement)
            name = (movement.name if movement is not None else None) or step.movement
            if step.id is not None and step.options:
                found.append(StepOptions(step.id, name, [one.label for one in step.options], number))
    return found
