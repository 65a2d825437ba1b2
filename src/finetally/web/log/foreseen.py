"""What a document's windows should be scored at: by one person, or by those of a squad from the slowest to the
quickest.

For the Bench, the card and comparisons, where nothing is planned yet. Whose pace it is, and how sure, is told with
it.
"""

from __future__ import annotations

from collections.abc import Mapping, Sequence
from dataclasses import dataclass, field
from typing import Any, Literal
from uuid import UUID

from finetally.core.learn.pace import PaceModel
from finetally.core.learn.predicted import PredictedScore, predicted
from finetally.core.methods.given import Given
from finetally.core.session.reading import parse_session
from finetally.core.tally.measure import Tally, tally
from finetally.web.floor.step_options import step_options
from finetally.web.log.given_here import with_scores_before
from finetally.web.log.whose_pace import OfGroup, told_span
from finetally.web.log.windows import EarlierHere, ScoredWindow, earlier_by_shape, last_results, windows_of
from finetally.web.people.limits import limits_by_person, limits_on, options_by_limits
from finetally.web.people.pace import PaceInUse, pace_in_use
from finetally.web.people.people import known_people, read_person
from finetally.web.squads.actor import Actor, Right
from finetally.web.squads.figuring_context import FiguringContext, context_of
from finetally.web.squads.models import Person, Squad
from finetally.web.squads.today import today_of
from finetally.web.squads.use_cases import squad_for

Whom = OfGroup | Literal["person"]


@dataclass(frozen=True, slots=True)
class ForeseenScore:
    """What is foreseen in a window: of whom, by which pace; of a person what they made in its shape before."""

    window: ScoredWindow
    whom: Whom
    score: PredictedScore
    pace: PaceInUse
    earlier: EarlierHere | None
    days_ago: int | None = None


@dataclass(frozen=True, slots=True)
class NamedTarget:
    """What somebody who agreed to be named made in a window's shape before."""

    window: ScoredWindow
    name: str
    earlier: EarlierHere
    days_ago: int


@dataclass(frozen=True, slots=True)
class TookLast:
    """What somebody did otherwise when they last did a window of this shape."""

    window: ScoredWindow
    name: str
    options: list[str]


@dataclass(frozen=True, slots=True)
class ForeseenHere:
    """What is foreseen in a document's windows; of a squad targets by name, and who did what otherwise."""

    scores: list[ForeseenScore]
    targets: list[NamedTarget] = field(default_factory=list)
    took: list[TookLast] = field(default_factory=list)


def foreseen_of(
    actor: Actor, squad_id: int | None, document: dict[str, Any], person_id: UUID | None = None
) -> ForeseenHere:
    """What the windows of a document should be scored at, by a person or by the squad's span.

    The squad's span is for those who look; only those are named who agreed to it. What people did otherwise is for
    those who plan. Some ten queries. Raises DocumentError.
    """
    session = parse_session(document)
    person = read_person(actor, person_id) if person_id is not None else None
    squad = person.squad if person is not None else squad_for(actor, squad_id, Right.LOOK)
    context = context_of(squad)
    given = with_scores_before(squad, document, Given(), person)
    t = tally(session, library=context.library, methods=context.methods, given=given)
    if person is not None:
        return foreseen_by(t, person, context)
    return foreseen_among(t, list(known_people(squad)), squad, context, tells=actor.may(squad.pk, Right.PLAN))


def foreseen_by(
    t: Tally, person: Person, context: FiguringContext, options: Mapping[str, str] | None = None
) -> ForeseenHere:
    """What the windows of a session should be scored at by one person today.

    `options`: what they do otherwise, by step id; None: what their limits choose.
    """
    windows = list(windows_of(t))
    if not windows:
        return ForeseenHere([])
    if options is None:
        options = options_by_limits(
            t.session, limits_on(person.squad, today_of(person.squad), person), person.squad
        )
    return ForeseenHere(_of_person(t, windows, person, context, options))


def foreseen_among(
    t: Tally, people: Sequence[Person], squad: Squad, context: FiguringContext, *, tells: bool
) -> ForeseenHere:
    """What the windows of a session should be scored at from the slowest to the quickest of some people.

    `people`: as `known_people` has them; `tells`: also who did what otherwise, for those who plan.
    """
    windows = list(windows_of(t))
    if not windows:
        return ForeseenHere([])
    scores = _of_span(t, windows, told_span(people, context.methods, plans=tells), context)
    named = [one for one in people if one.is_named]
    took = took_last(t, people, windows, squad, context) if tells else []
    return ForeseenHere(scores, targets_of(squad, named, windows), took)


def targets_of(squad: Squad, named: Sequence[Person], windows: list[ScoredWindow]) -> list[NamedTarget]:
    """What some who agreed to be named made in windows of these shapes before today. One query."""
    today = today_of(squad)
    made = earlier_by_shape([one.pk for one in named], {one.shape for one in windows}, today) if named else {}
    return [
        NamedTarget(window, one.on_the_wall, there, (today - there.on).days)
        for window in windows
        for one in named
        if (there := made.get((one.pk, window.shape))) is not None
    ]


def took_last(
    t: Tally, people: Sequence[Person], windows: list[ScoredWindow], squad: Squad, context: FiguringContext
) -> list[TookLast]:
    """Who did a step of these windows otherwise when they last did one of the shape. Few queries.

    Whom a limit of today has do so is told elsewhere, and not here.
    """
    today = today_of(squad)
    made = last_results([one.pk for one in people], {one.shape for one in windows}, today)
    first = {window.shape: window for window in reversed(windows)}
    labels: dict[int, set[str]] = {}
    for step in step_options(t.session, context.library):
        labels.setdefault(step.block, set()).update(step.labels)
    limits = limits_by_person(squad, today)
    found = []
    for shape, window in first.items():
        for one in people:
            there = made.get((one.pk, shape))
            took = set(there.options.values()) & labels.get(window.block, set()) if there is not None else set()
            if took and one.pk in limits:
                took -= set(options_by_limits(t.session, limits[one.pk], squad).values())
            if took:
                found.append(TookLast(window, one.on_the_wall, sorted(took)))
    return found


def _of_person(
    t: Tally, windows: list[ScoredWindow], person: Person, context: FiguringContext, options: Mapping[str, str]
) -> list[ForeseenScore]:
    today = today_of(person.squad)
    pace = pace_in_use(person, context.methods)
    earlier = earlier_by_shape([person.pk], {one.shape for one in windows}, today)
    found = []
    for window in windows:
        score = _score(t, window, pace, context, options)
        if score is not None:
            there = earlier.get((person.pk, window.shape))
            days_ago = (today - there.on).days if there is not None else None
            found.append(ForeseenScore(window, "person", score, pace, there, days_ago))
    return found


def _of_span(
    t: Tally, windows: list[ScoredWindow], span: Mapping[OfGroup, PaceInUse], context: FiguringContext
) -> list[ForeseenScore]:
    found = []
    for window in windows:
        for whom, pace in span.items():
            score = _score(t, window, pace, context, {})
            if score is not None:
                found.append(ForeseenScore(window, whom, score, pace, None))
    return found


def _score(
    t: Tally, window: ScoredWindow, pace: PaceInUse, context: FiguringContext, options: Mapping[str, str]
) -> PredictedScore | None:
    given = context.given(Given(options=dict(options), scores=t.given.scores))
    model = PaceModel(t.session, window.block, context.library, context.methods, given)
    return predicted(model, window.place, pace.pace_factor, pace.spread)
