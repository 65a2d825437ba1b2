"""What somebody says by their own link: whether they come, what they do otherwise, what they made, how it was.

Said without a network it is sent later, perhaps twice: each thing is taken once, by its number.
"""

from __future__ import annotations

from collections.abc import Sequence
from contextlib import suppress
from dataclasses import dataclass, field, replace
from datetime import datetime, timedelta
from typing import Literal
from uuid import UUID

from django.db import IntegrityError, transaction
from django.http import Http404
from django.utils import timezone

from finetally.core.floor.events import NoteKind
from finetally.core.session.problems import DocumentError
from finetally.core.session.reading import parse_session
from finetally.web.checkin.links import OwnDoor
from finetally.web.checkin.models import SaidOnce
from finetally.web.floor.step_options import step_options
from finetally.web.log.asking import ask_to_work_out
from finetally.web.log.models import RatingWay
from finetally.web.log.notes import NoteWish, write_note
from finetally.web.log.ratings import rate
from finetally.web.log.results import ResultWish, write_results
from finetally.web.log.seeing import looker_at
from finetally.web.people.freshness import say_fresh
from finetally.web.plan.entries import wrong
from finetally.web.plan.models import Attendance, Entry
from finetally.web.squads.figuring_context import context_of
from finetally.web.squads.today import day_of

WAITED = timedelta(days=14)
"""What was said without a network is taken so long after."""
AHEAD = timedelta(minutes=10)
"""How far a phone's clock may be ahead."""
LONGEST_WAIT = timedelta(days=60)
"""No phone keeps what was said for so long: a time before that is a wrong clock's."""
CLOCKS_DIFFER = timedelta(minutes=2)
"""By how much the clocks differ before times are corrected: less is the network's."""
WRONG_CLOCK = (
    "The clock of this phone, or of the server, was wrong: this waits here. Tell your coach if it stays so."
)
MOST_A_DAY = 300
NOT_THERE = "This session is not on your plan any more."
TOO_MANY = f"More than {MOST_A_DAY} things were said today: tell your coach."


@dataclass(frozen=True, slots=True)
class Saying:
    """One thing that is said: `number` made by the device, `at` by its clock; what else depends on `what`."""

    number: UUID
    at: datetime
    what: Literal["here", "away", "option", "score", "effort", "note", "fresh"]
    entry: UUID | None = None
    step: str = ""
    label: str = ""
    window: tuple[int, int, int] = (0, 0, 0)
    score: dict[str, float] | None = None
    effort: float | None = None
    kind: NoteKind = "free"
    text: str = ""
    place: str = ""
    side: str = ""
    level: int | None = None
    value: int = 0


@dataclass
class Heard:
    """What became of things that were said: those that were taken, and why others were not, by number."""

    taken: list[UUID] = field(default_factory=list)
    refused: dict[UUID, str] = field(default_factory=dict)
    waiting: dict[UUID, str] = field(default_factory=dict)


def hear(door: OwnDoor, sayings: Sequence[Saying], *, sent: datetime | None = None) -> Heard:
    """Take what somebody says, each thing by itself: one that is refused holds up no other.

    `sent`: the device's clock as it sends them; what it is wrong by is taken off their times.
    """
    heard = Heard()
    now = timezone.now()
    wrong_by = now - sent if sent is not None and abs(now - sent) > CLOCKS_DIFFER else timedelta()
    link = door.device.link
    known = set(link.said.filter(number__in=[one.number for one in sayings]).values_list("number", flat=True))
    left = MOST_A_DAY - link.said.filter(at__gte=timezone.now() - timedelta(days=1)).count()
    for told in sayings:
        one = _corrected(told, wrong_by)
        if one.number in known:
            heard.taken.append(one.number)
            continue
        if sent is not None and not now - LONGEST_WAIT <= one.at <= now + AHEAD:
            heard.waiting[one.number] = WRONG_CLOCK
            continue
        if left <= 0:
            heard.refused[one.number] = TOO_MANY
            continue
        try:
            with transaction.atomic():
                _take(door, one)
                SaidOnce.objects.create(link=link, number=one.number)
        except DocumentError as error:
            heard.refused[one.number] = error.problems[0].text
        except Http404:
            heard.refused[one.number] = NOT_THERE
        except IntegrityError:  # The same thing came by another request just now.
            heard.taken.append(one.number)
        else:
            left -= 1
            heard.taken.append(one.number)
            known.add(one.number)
    return heard


def _corrected(one: Saying, wrong_by: timedelta) -> Saying:
    """What was said, at the time by the server's clock."""
    with suppress(OverflowError):
        return replace(one, at=one.at + wrong_by)
    return one


def _take(door: OwnDoor, one: Saying) -> None:
    """Take one thing. Raises DocumentError, Http404."""
    now = timezone.now()
    if not now - WAITED <= one.at <= now + AHEAD:
        raise wrong("at", one.at.date().isoformat(), "what was said in the last 14 days")
    if one.what == "fresh":
        say_fresh(door.person, day_of(door.person.squad, one.at), one.value)
        return
    if one.entry is None:
        raise Http404
    if one.what in ("here", "away"):
        _comes(door, one)
    elif one.what == "option":
        _option(door, one)
    elif one.what == "effort":
        rate(door.actor, one.entry, door.person.public_id, one.effort, RatingWay.OWN, at=one.at)
    elif one.what == "score":
        block, section_pass, index = one.window
        _while_it_lasts(_entry(door, one), one)
        wish = ResultWish(door.person.public_id, block, section_pass, index, one.score)
        write_results(door.actor, one.entry, [wish])
    else:
        _while_it_lasts(_entry(door, one), one)
        place, side, level = (one.place, one.side, one.level) if one.kind != "free" else ("", "", None)
        write_note(
            door.actor, one.entry, NoteWish(door.person.public_id, one.kind, one.text, place, side, level)
        )  # fmt: skip


def _entry(door: OwnDoor, one: Saying) -> Entry:
    """The entry that something is said of, if it is for them. Raises Http404."""
    if one.entry is None:
        raise Http404
    return looker_at(door.actor, one.entry).entry


def _while_it_lasts(entry: Entry, one: Saying) -> None:
    """Scores and notes are told from the day itself on. Raises DocumentError."""
    if day_of(entry.squad, one.at) < entry.day:
        raise wrong("entry", f"a session of {entry.day.isoformat()}", "one that has begun")
    _not_over(entry, one)


def _comes(door: OwnDoor, one: Saying) -> None:
    """That somebody is there, or does not come; before it is logged, by the day itself."""
    entry = _entry(door, one)
    if entry.logged_minutes is not None:
        raise wrong("entry", "a logged session", "one that is not logged yet: tell your coach")
    if day_of(entry.squad, one.at) > entry.day:
        raise wrong("entry", f"a session of {entry.day.isoformat()}", "one that is not over")
    Attendance.objects.update_or_create(
        entry=entry, person=door.person, defaults={"came": one.what == "here", "said": one.what}
    )


def _option(door: OwnDoor, one: Saying) -> None:
    """Which option somebody takes of a step; none: as planned."""
    entry = _entry(door, one)
    if entry.document is None:
        raise wrong("entry", "other training", "an entry with a session")
    steps = step_options(parse_session(entry.document), context_of(entry.squad).library)
    labels = next((step.labels for step in steps if step.step == one.step), [])
    if one.label and one.label not in labels:
        raise wrong("option", repr(one.label), ", ".join(labels) or "a step with options")
    _not_over(entry, one)
    # Whoever is known to be away stays so: what they would take says nothing of their coming.
    away = entry.squad.away.filter(first__lte=entry.day, last__gte=entry.day, person=door.person).exists()
    own, _ = Attendance.objects.get_or_create(entry=entry, person=door.person, defaults={"came": not away})
    own.options = {**own.options, one.step: one.label}
    if not one.label:
        del own.options[one.step]
    own.save(update_fields=["options"])
    if entry.results.filter(person=door.person).exists() or entry.ratings.filter(person=door.person).exists():
        ask_to_work_out(entry)


def _not_over(entry: Entry, one: Saying) -> None:
    """It is told until the end of the next day, as ratings are. Raises DocumentError."""
    if day_of(entry.squad, one.at) > entry.day + timedelta(days=1):
        raise wrong("entry", f"a session of {entry.day.isoformat()}", "a session of the day or the day before")
