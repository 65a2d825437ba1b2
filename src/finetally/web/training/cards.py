"""Cards as PDF: asked for, and drawn by the process for heavy work."""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import dataclass
from typing import Any

from finetally.core.card.card import Card, CardOption, card_of
from finetally.core.measures import Units
from finetally.core.methods.given import Given
from finetally.core.session.reading import parse_session
from finetally.core.tally.measure import tally
from finetally.web.jobs.models import Job
from finetally.web.jobs.use_cases import JobRequest, ask
from finetally.web.jobs.work import JobHandle
from finetally.web.people.limits import otherwise
from finetally.web.squads.actor import Actor, Right
from finetally.web.squads.figuring_context import FiguringContext, context_of
from finetally.web.squads.today import today_of
from finetally.web.squads.use_cases import squad_for, squad_to_look_at

FIRST = 20
"""Before comparisons and levellings: somebody stands beside the printer."""


@dataclass(frozen=True, slots=True)
class CardWish:
    """A card to be drawn: of what, as whom, with which methods tried, on which paper and in which units.

    `others`: who does what otherwise.
    """

    document: dict[str, Any]
    given: Given
    methods: dict[str, Any]
    paper: str
    units: Units
    others: Sequence[CardOption]


def made_card(
    document: dict[str, Any],
    given: Given,
    context: FiguringContext,
    units: Units,
    others: Sequence[CardOption] = (),
) -> Card:
    """All that stands on a session's card. Raises DocumentError."""
    t = tally(parse_session(document), library=context.library, methods=context.methods, given=given)
    return card_of(t, others, units)


def others_on_card(actor: Actor, squad_id: int | None, document: dict[str, Any]) -> list[CardOption]:
    """Who of the squad takes which option today: names as on the wall, and never why."""
    squad = squad_to_look_at(actor, squad_id)
    library = context_of(squad).library
    found: dict[tuple[str, str, str], list[str]] = {}
    for one in otherwise(actor, squad, parse_session(document), today_of(squad)):
        if one.step.option is not None:
            known = library.get(one.step.movement)
            called = known.name or known.key if known is not None else one.step.movement
            found.setdefault((one.step.path, called, one.step.option), []).append(one.person.on_the_wall)
    return [{"movement": called, "option": option, "names": names} for (_, called, option), names in found.items()]


def ask_for_pdf(actor: Actor, squad_id: int | None, wanted: CardWish) -> Job:
    """Put drawing a card into the queue. Raises DocumentError for a document that cannot be read."""
    squad = squad_for(actor, squad_id, Right.LOOK)
    parse_session(wanted.document)
    asked = {
        "document": wanted.document, "given": wanted.given.model_dump(mode="json"), "methods": wanted.methods,
        "paper": wanted.paper, "units": wanted.units, "others": list(wanted.others),
    }  # fmt: skip
    return ask(actor, squad.pk, JobRequest("card", asked, priority=FIRST))


def card_job(handle: JobHandle) -> None:
    """Draw the card that a job asks for; see web/jobs/work.py."""
    # Loaded by the process for heavy work alone: it takes a third of a second.
    from finetally.card_pdf import card_pdf

    asked = handle.job.asked
    context = context_of(handle.job.squad, asked["methods"])
    given = Given.model_validate(asked["given"])
    card = made_card(asked["document"], given, context, asked.get("units", "metric"), asked.get("others", []))
    handle.show(file=card_pdf(card, asked["paper"]), file_name="card.pdf", file_type="application/pdf")
