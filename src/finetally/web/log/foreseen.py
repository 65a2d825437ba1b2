"""What a document's windows should be scored at: by one person, or by those of a squad from the slowest to the
quickest.

For the Bench, the card and comparisons, where nothing is planned yet. Whose pace it is, and how sure, is told with
it.
"""

from __future__ import annotations

from collections.abc import Mapping
from dataclasses import dataclass
from typing import Any, Literal
from uuid import UUID

from finetally.core.learn.pace import PaceModel
from finetally.core.learn.predicted import PredictedScore, predicted
from finetally.core.methods.given import Given
from finetally.core.session.document import Session
from finetally.core.session.reading import parse_session
from finetally.core.tally.measure import tally
from finetally.web.log.learning import PaceInUse, pace_in_use
from finetally.web.log.windows import EarlierHere, ScoredWindow, earlier_by_shape, windows_of
from finetally.web.people.limits import limits_on, options_by_limits
from finetally.web.people.people import known_people, read_person
from finetally.web.squads.actor import Actor, Right
from finetally.web.squads.figuring_context import FiguringContext, context_of
from finetally.web.squads.models import Person, Squad
from finetally.web.squads.today import today_of
from finetally.web.squads.use_cases import squad_for

Whom = Literal["person", "slowest", "middle", "quickest"]


@dataclass(frozen=True, slots=True)
class ForeseenScore:
    """What is foreseen in a window: of whom, by which pace; of a person what they made in its shape before."""

    window: ScoredWindow
    whom: Whom
    score: PredictedScore
    pace: PaceInUse
    earlier: EarlierHere | None
    days_ago: int | None = None


def foreseen_of(
    actor: Actor, squad_id: int | None, document: dict[str, Any], person_id: UUID | None = None
) -> list[ForeseenScore]:
    """What the windows of a document should be scored at, by a person or by the squad's span.

    The squad's span is for those who look; it names nobody. Some ten queries. Raises DocumentError.
    """
    session = parse_session(document)
    person: Person | None = None
    if person_id is not None:
        person = read_person(actor, person_id)
        squad = person.squad
    else:
        squad = squad_for(actor, squad_id, Right.LOOK)
    context = context_of(squad)
    windows = list(windows_of(tally(session, library=context.library, methods=context.methods)))
    if not windows:
        return []
    if person is not None:
        return _of_person(session, windows, person, context)
    return _of_squad(session, windows, squad, context)


def _of_person(
    session: Session, windows: list[ScoredWindow], person: Person, context: FiguringContext
) -> list[ForeseenScore]:
    today = today_of(person.squad)
    limits = limits_on(person.squad, today, person)
    options = options_by_limits(session, limits, person.squad)
    pace = pace_in_use(person, context.methods)
    earlier = earlier_by_shape([person.pk], {one.shape for one in windows}, today)
    found = []
    for window in windows:
        score = _score(session, window, pace, context, options)
        if score is not None:
            there = earlier.get((person.pk, window.shape))
            days_ago = (today - there.on).days if there is not None else None
            found.append(ForeseenScore(window, "person", score, pace, there, days_ago))
    return found


def _of_squad(
    session: Session, windows: list[ScoredWindow], squad: Squad, context: FiguringContext
) -> list[ForeseenScore]:
    paces = sorted(
        (pace_in_use(one, context.methods) for one in known_people(squad)), key=lambda one: one.pace_factor
    )
    if not paces:
        return []
    span: dict[Whom, PaceInUse] = {"slowest": paces[-1], "middle": paces[len(paces) // 2], "quickest": paces[0]}
    found = []
    for window in windows:
        for whom, pace in span.items():
            score = _score(session, window, pace, context, {})
            if score is not None:
                found.append(ForeseenScore(window, whom, score, pace, None))
    return found


def _score(
    session: Session, window: ScoredWindow, pace: PaceInUse, context: FiguringContext, options: Mapping[str, str]
) -> PredictedScore | None:
    given = context.given(Given(options=dict(options)))
    model = PaceModel(session, window.block, context.library, context.methods, given)
    return predicted(model, window.place, pace.pace_factor, pace.spread)
