"""Who does what otherwise in a session, as limits choose it; and documents as one person does them."""

from __future__ import annotations

from uuid import UUID

from ninja import Router, Schema

from finetally.core.session.reading import parse_session
from finetally.web.api.days import PlanDay
from finetally.web.api.openapi import DocumentBody
from finetally.web.api.request import ActorRequest
from finetally.web.people import limits
from finetally.web.people.models import Limit
from finetally.web.problems import ProblemOut
from finetally.web.squads.today import today_of
from finetally.web.squads.use_cases import squad_to_look_at

router = Router()
REFUSALS = {401: ProblemOut, 404: ProblemOut, 413: ProblemOut, 422: ProblemOut}


class OtherwiseIn(Schema):
    """A document, the day it is done on (default: today), the squad."""

    document: DocumentBody
    day: PlanDay | None = None
    squad: int | None = None


class WhyOut(Schema):
    """A limit behind it: a joint or a movement, on which side."""

    joint: str
    movement: str
    side: str


class OtherwiseOut(Schema):
    """What somebody does in the place of the step at `path`.

    `option`: by its label, None where no option spares or eases it. `eased`: it is easier, but loads the same all
    the same. `why`: for those who may know, else None. `instead`: movements that an option could name.
    """

    path: str
    movement: str
    person: UUID
    name: str
    option: str | None
    eased: bool
    why: list[WhyOut] | None
    instead: list[str]


def _why(one: Limit) -> WhyOut:
    return WhyOut(joint=one.joint, movement=one.movement, side=one.side)


def otherwise_out(one: limits.Otherwise) -> OtherwiseOut:
    """As it is shown."""
    return OtherwiseOut(
        path=one.step.path, movement=one.step.movement, person=one.person.public_id, name=one.person.on_the_wall,
        option=one.step.option, eased=one.step.eased, instead=list(one.step.instead),
        why=None if one.why is None else [_why(limit) for limit in one.why],
    )  # fmt: skip


@router.post("/otherwise", response={200: list[OtherwiseOut], **REFUSALS}, operation_id="otherwise")
def otherwise(request: ActorRequest, data: OtherwiseIn) -> list[OtherwiseOut]:
    """Who of a squad does which steps of a session otherwise, in the order of the steps.

    Everybody sees the option; why, and steps that nothing spares, are told to those who plan and to the person.
    """
    squad = squad_to_look_at(request.auth, data.squad)
    session = parse_session(data.document)
    found = limits.otherwise(request.auth, squad, session, data.day or today_of(squad))
    return [otherwise_out(one) for one in found]
