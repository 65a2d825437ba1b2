"""What of a run's events is kept: nothing of health that may not be, nothing of people who are not there."""

from __future__ import annotations

from collections.abc import Iterable
from dataclasses import dataclass, field, replace

from finetally.core.floor.events import Event, NoteTaken, Presence, ScoreMade
from finetally.core.log.notes import HEALTH_KINDS
from finetally.web.floor.sent import SentEvent
from finetally.web.squads.models import Person, Squad

NOT_IN_SQUAD = "A score or a note of somebody who is not in the squad any more was not kept."
SWITCHED_OFF = "Notes of health are off in this squad: what was said of it was not kept."
TWO_KINDS = "A score of rounds and a time at once was not kept: it is one or the other."
NO_BLOCK = "A score of block {0}, which this session does not have, was not kept."
NO_CONSENT = "Notes of health of {0} may not be kept, and were not. A head coach knows why."


@dataclass
class Screened:
    """Events to keep, the people they name by id, and what was left out, in words, each once."""

    kept: list[SentEvent] = field(default_factory=list)
    people: dict[str, Person] = field(default_factory=dict)
    left_out: list[str] = field(default_factory=list)


def screened(squad: Squad, sent: Iterable[SentEvent], *, blocks: int | None = None) -> Screened:
    """Look through what a device sent. One query where somebody is named.

    `blocks`: how many blocks the session has; None where it was changed since.
    """
    told = list(sent)
    made = Screened(people=_people(squad, told))
    for one in told:
        name = str(getattr(one.event, "person", None) or "")
        person = made.people.get(name)
        if name and person is None and one.event.do in ("score", "note") and not one.names_team:
            _tell(made, NOT_IN_SQUAD)
            continue
        amiss = _score_amiss(one.event, blocks) if isinstance(one.event, ScoreMade) else ""
        if amiss:
            _tell(made, amiss)
            continue
        why = _health_off(squad, one.event, person)
        if why:
            _tell(made, why)
        if why and isinstance(one.event, Presence):
            # That they left stays, and not why.
            made.kept.append(replace(one, event=one.event.model_copy(update={"why": "left"})))
        elif not why:
            made.kept.append(one)
    return made


def _tell(made: Screened, words: str) -> None:
    if words not in made.left_out:
        made.left_out.append(words)


def _score_amiss(score: ScoreMade, blocks: int | None) -> str:
    """Why a score says nothing; empty where it does."""
    if score.time_s is not None and not (score.rounds is None and score.reps is None and score.rung is None):
        return TWO_KINDS
    return NO_BLOCK.format(score.block + 1) if blocks is not None and score.block >= blocks else ""


def _health_off(squad: Squad, event: Event, person: Person | None) -> str:
    """Why an event of health may not be kept; empty where it may, or where it is about something else."""
    note = isinstance(event, NoteTaken) and event.kind in HEALTH_KINDS
    if not note and not (isinstance(event, Presence) and event.why == "hurt"):
        return ""
    if not squad.asks_health:
        return SWITCHED_OFF
    return NO_CONSENT.format(person.on_the_wall) if person is not None and person.keeps_little else ""


def _people(squad: Squad, sent: Iterable[SentEvent]) -> dict[str, Person]:
    """Those of the squad that events name, by their id."""
    named = {str(getattr(one.event, "person", None) or "") for one in sent} - {""}
    return {str(one.public_id): one for one in squad.people.all() if str(one.public_id) in named} if named else {}
