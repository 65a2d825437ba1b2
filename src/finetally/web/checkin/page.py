"""The one page behind a person's own link: today's session as they do it, and what they said of it.

Health goes in and not out: what they said of pain, dizziness or how fresh they are is never told here again.
"""

from __future__ import annotations

from collections.abc import Mapping
from dataclasses import dataclass, field
from datetime import date, timedelta
from typing import Any

from finetally.core.board.writer import write_wall
from finetally.core.card.cautions import cautions_of
from finetally.core.learn.predicted import PredictedScore
from finetally.core.measures import Units
from finetally.core.session.problems import DocumentError
from finetally.core.session.reading import parse_session
from finetally.core.tally.measure import tally
from finetally.web.accounts.own import units_of
from finetally.web.checkin.links import OwnDoor
from finetally.web.checkin.models import CheckInDevice
from finetally.web.floor.meant import meant_otherwise
from finetally.web.floor.step_options import step_options
from finetally.web.log.foreseen import foreseen_by
from finetally.web.log.given_here import entry_given
from finetally.web.log.models import Rating, Result, ResultWay
from finetally.web.log.ratings import minutes_of
from finetally.web.log.windows import ScoredWindow, earlier_by_shape, windows_of
from finetally.web.people.freshness import fresh_today
from finetally.web.people.limits import limits_on, options_by_limits
from finetally.web.people.people import known_people
from finetally.web.plan.entries import people_for
from finetally.web.plan.models import Attendance, Entry
from finetally.web.squads.figuring_context import context_of
from finetally.web.squads.models import Person
from finetally.web.squads.today import today_of

MOST_LAST = 12
"""Own results of earlier sessions that are shown."""


@dataclass(frozen=True, slots=True)
class OwnStep:
    """A step with options: which one they take ('' as planned), and whether a limit says so."""

    step: str
    name: str
    labels: list[str]
    taken: str
    fixed: bool


@dataclass(frozen=True, slots=True)
class OwnWindow:
    """A window that takes a score: what is expected of them, what they made last and at best, what they said."""

    window: ScoredWindow
    target: PredictedScore | None
    last: Mapping[str, Any] | None
    best: Mapping[str, Any] | None
    score: Mapping[str, Any] | None


@dataclass(frozen=True, slots=True)
class OwnEntry:
    """An entry of today or yesterday that is for somebody, as they see it."""

    entry: Entry
    minutes: float
    text: str
    cautions: list[str]
    said: str
    effort: float | None
    steps: list[OwnStep] = field(default_factory=list)
    windows: list[OwnWindow] = field(default_factory=list)


@dataclass(frozen=True, slots=True)
class OwnResult:
    """Something that somebody made in a session before."""

    day: date
    title: str
    score: Mapping[str, Any]


@dataclass(frozen=True, slots=True)
class OwnPage:
    """The page. `fresh_sent`: whether they said today how fresh they are; what, is not told."""

    person: Person
    today: date
    entries: list[OwnEntry]
    results: list[OwnResult]
    devices: list[CheckInDevice]
    this: CheckInDevice
    fresh_sent: bool
    units: Units


def own_page(door: OwnDoor, units: Units | None = None) -> OwnPage:
    """What the holder of a link sees today. Some twenty queries a session.

    `units`: what they read masses and distances in; None is what their account says, if they have one.
    """
    squad = door.person.squad
    person = known_people(squad).get(pk=door.person.pk)
    today = today_of(squad)
    units = units or units_of(person.user_id)
    entries = squad.entries.filter(day__gte=today - timedelta(days=1), day__lte=today, skipped=False)
    mine = [one for one in entries.select_related("squad", "group", "person") if person in people_for(one)]
    return OwnPage(
        person,
        today,
        [_own_entry(one, person, units) for one in reversed(mine)],
        _results(person, today),
        list(door.device.link.devices.all()),
        door.device,
        fresh_today(person),
        units,
    )


def _own_entry(entry: Entry, person: Person, units: Units) -> OwnEntry:
    attended = Attendance.objects.filter(entry=entry, person=person).first()
    rated = Rating.objects.filter(entry=entry, person=person).values_list("effort", flat=True).first()
    said = attended.said if attended is not None else ""
    plain = OwnEntry(entry, minutes_of(entry), "", [], said, rated)
    if entry.document is None:
        return plain
    try:
        return _with_session(entry, person, plain, units)
    except DocumentError:
        # Kept by an older release, and refused today: the page still has its title, and takes what is said.
        return plain


def _with_session(entry: Entry, person: Person, plain: OwnEntry, units: Units) -> OwnEntry:
    """An entry with its session: the text for the wall, what they do otherwise, what is expected of them."""
    context = context_of(entry.squad)
    session = parse_session(entry.document)
    limited = options_by_limits(session, limits_on(entry.squad, entry.day, person), entry.squad)
    taken = meant_otherwise(entry, session).get(person.pk, {})
    t = tally(
        session, library=context.library, methods=context.methods, given=entry_given(entry, context)
    )  # fmt: skip
    return OwnEntry(
        entry,
        plain.minutes,
        # Cautions have a place of their own on the page.
        write_wall(
            {key: one for key, one in (entry.document or {}).items() if key != "cautions"},
            library=context.library, units=units,
        ),
        cautions_of(session),
        plain.said,
        plain.effort,
        [
            OwnStep(one.step, one.name, one.labels, taken.get(one.step, ""), one.step in limited)
            for one in step_options(session, context.library)
        ],
        _windows(entry, person, list(windows_of(t)), {
            (one.window.block, one.window.section_pass, one.window.place): one.score
            for one in foreseen_by(t, person, context, taken).scores
        }),
    )  # fmt: skip


def _windows(
    entry: Entry,
    person: Person,
    windows: list[ScoredWindow],
    targets: Mapping[tuple[int, int, int], PredictedScore],
) -> list[OwnWindow]:
    earlier = earlier_by_shape([person.pk], {one.shape for one in windows}, entry.day)
    told: dict[tuple[int, int, int], Mapping[str, Any]] = {}
    for made in Result.objects.filter(entry=entry, person=person, way=ResultWay.OWN, unfinished=""):
        told[made.block, made.section_pass, made.index] = made.score
    found = []
    for one in windows:
        place = one.block, one.section_pass, one.place
        before = earlier.get((person.pk, one.shape))
        last, best = (before.last, before.best) if before is not None else (None, None)
        found.append(OwnWindow(one, targets.get(place), last, best, told.get(place)))
    return found


def _results(person: Person, today: date) -> list[OwnResult]:
    """What somebody made lately, the latest first. One query."""
    made = Result.objects.filter(person=person, used=True, unfinished="", entry__day__lt=today)
    made = made.filter(entry__removed_at=None).exclude(score={})
    rows = made.order_by("-entry__day", "-id").values_list("entry__day", "entry__title", "score")
    return [OwnResult(*row) for row in rows[:MOST_LAST]]
