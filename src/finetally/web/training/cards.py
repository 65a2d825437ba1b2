"""Cards as PDF: asked for, and drawn by the process for heavy work."""

from __future__ import annotations

from typing import Any

from finetally.core.card.card import Card, card_of
from finetally.core.methods.given import Given
from finetally.core.session.reading import parse_session
from finetally.core.tally.measure import tally
from finetally.web.jobs.models import Job
from finetally.web.jobs.use_cases import JobRequest, ask
from finetally.web.jobs.work import JobHandle
from finetally.web.squads.actor import Actor, Right
from finetally.web.squads.figuring_context import FiguringContext, context_of
from finetally.web.squads.use_cases import squad_for

FIRST = 20
"""Before comparisons and levellings: somebody stands beside the printer."""


def made_card(document: dict[str, Any], given: Given, context: FiguringContext) -> Card:
    """All that stands on a session's card. Raises DocumentError."""
    return card_of(tally(parse_session(document), library=context.library, methods=context.methods, given=given))


def ask_for_pdf(
    actor: Actor, squad_id: int | None, document: dict[str, Any], given: Given, methods: dict[str, Any], paper: str
) -> Job:
    """Put drawing a card into the queue. Raises DocumentError for a document that cannot be read."""
    squad = squad_for(actor, squad_id, Right.LOOK)
    parse_session(document)
    asked = {"document": document, "given": given.model_dump(mode="json"), "methods": methods, "paper": paper}
    return ask(actor, squad.pk, JobRequest("card", asked, priority=FIRST))


def card_job(handle: JobHandle) -> None:
    """Draw the card that a job asks for; see web/jobs/work.py."""
    # Loaded by the process for heavy work alone: it takes a third of a second.
    from finetally.card_pdf import card_pdf

    asked = handle.job.asked
    context = context_of(handle.job.squad, asked["methods"])
    card = made_card(asked["document"], Given.model_validate(asked["given"]), context)
    handle.show(file=card_pdf(card, asked["paper"]), file_name="card.pdf", file_type="application/pdf")
