"""What is known of an entry's day beside its plan: scores of earlier sessions it goes on from, whose pace it is."""

from __future__ import annotations

from collections.abc import Iterable, Mapping
from datetime import date, timedelta
from typing import Any

from finetally.core.floor.from_score import blocks_taken_from
from finetally.core.learn.pace import middle_score
from finetally.core.methods.given import Given, PersonGiven, Score
from finetally.web.log.models import Result
from finetally.web.log.windows import block_numbers
from finetally.web.people.pace import PaceInUse, pace_in_use
from finetally.web.people.people import known_people
from finetally.web.plan.models import Entry
from finetally.web.squads.figuring_context import FiguringContext
from finetally.web.squads.models import Person, Squad
from finetally.web.squads.today import today_of

MOST_LOOKED_THROUGH = 60
"""Earlier entries with scores that are looked through for a block, the newest first."""


def entry_given(entry: Entry, context: FiguringContext, given: Given | None = None) -> Given:
    """What is known of an entry's day: scores that it goes on from, and the pace of whom it is for alone.

    `given`: what is known otherwise, which goes before it. Queries only where there is something to look for.
    """
    known = given if given is not None else Given(person=person_given(entry, context))
    scores = scores_before(entry.squad, entry.document, entry.day, entry.person_id)
    return context.given(known.model_copy(update={"scores": {**scores, **known.scores}}) if scores else known)


def person_given(entry: Entry, context: FiguringContext) -> PersonGiven:
    """The pace of the one person an entry is for; nothing where it is for several, or theirs is the squad's."""
    pace = entry_pace(entry, context)
    return PersonGiven() if pace.source == "squad" else PersonGiven(pace_factor=pace.pace_factor)


def entry_pace(entry: Entry, context: FiguringContext) -> PaceInUse:
    """Whose pace an entry is laid out at: of the one person it is for, else the squad's."""
    person = known_people(entry.squad).filter(pk=entry.person_id).first() if entry.person_id is not None else None
    return pace_in_use(person, context.methods)


def scores_before(squad: Squad, document: Any, before: date, person: int | None = None) -> dict[str, Score]:
    """The last scores, before a day, of blocks that a document goes on from and does not have itself.

    Of one person (by key) theirs; else what the session as a whole made, or whoever stands in the middle.
    """
    wanted = _sought(document)
    found: dict[str, Score] = {}
    if not wanted:
        return found
    earlier = squad.entries.filter(day__lt=before, document__isnull=False, results__used=True).distinct()
    for entry in earlier.order_by("-day", "-time", "-created_at")[:MOST_LOOKED_THROUGH]:
        numbers = {ident: n for ident, n in block_numbers(entry.document).items() if ident in wanted - {*found}}
        if numbers:
            made = entry.results.filter(block__in=numbers.values(), used=True, unfinished="").exclude(score={})
            for ident, number in numbers.items():
                score = _of_block([one for one in made if one.block == number], person)
                if score is not None:
                    found[ident] = score
        if len(found) == len(wanted):
            break
    return found


def with_scores_before(squad: Squad, document: Any, given: Given, person: Person | None = None) -> Given:
    """What is known of today, with the scores that a document goes on from; those that were sent go before."""
    tomorrow = today_of(squad) + timedelta(days=1)
    scores = scores_before(squad, document, tomorrow, person.pk if person is not None else None)
    return given.model_copy(update={"scores": {**scores, **given.scores}}) if scores else given


def _sought(document: Any) -> set[str]:
    """The blocks that values of a document are taken from and that stand elsewhere, by id."""
    taken = blocks_taken_from(document)
    return taken - {*block_numbers(document)} if taken else taken


def _of_block(made: Iterable[Result], person: int | None) -> Score | None:
    """Of a block's results: this person's last window; of nobody in particular the session's own, or the middle."""
    by_whom: dict[int | None, Mapping[str, Any]] = {}
    for one in made:
        if one.person_id is not None or one.whose == "session":
            by_whom[one.person_id] = one.score
    if person is not None:
        score = by_whom.get(person)
    elif None in by_whom:
        score = by_whom[None]
    else:
        score = middle_score(by_whom.values())
    if score is None or "time_s" in score:
        return None
    return Score(**{name: score.get(name) for name in Score.model_fields})
