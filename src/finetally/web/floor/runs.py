"""Runs: begun on some device, perhaps without a network; their events come in when there is one, each once."""

from __future__ import annotations

from collections.abc import Iterable, Sequence
from dataclasses import dataclass
from datetime import datetime, timedelta
from typing import Any
from uuid import UUID
from zoneinfo import ZoneInfo

from django.db import transaction
from django.db.models import Count, QuerySet
from django.shortcuts import get_object_or_404
from django.utils import timezone

from finetally.core.floor.document import Run, read_run
from finetally.core.floor.events import EVENT, MAX_EVENTS, MAX_RUN_S, Event
from finetally.core.floor.published import PublishedLayout, published_layout
from finetally.core.floor.queue import Holding
from finetally.core.floor.replay import Replay
from finetally.core.session.cleaning import one_line
from finetally.core.session.json_value import JsonValue
from finetally.core.session.problems import DocumentError, refuse, shown
from finetally.core.session.reading import parse_session
from finetally.core.unfold.unfold import blocks_of
from finetally.web.floor.models import FloorEvent, FloorRun
from finetally.web.floor.screened import screened
from finetally.web.floor.sent import TEAM, SentEvent
from finetally.web.log.from_floor import take_from_floor
from finetally.web.log.given_here import entry_given
from finetally.web.plan.entries import the_entry, wrong
from finetally.web.plan.models import Entry
from finetally.web.squads.actor import Actor, Right
from finetally.web.squads.figuring_context import context_of
from finetally.web.squads.models import Act, Squad
from finetally.web.squads.record import record

RELAID = ("score", "change")
"""Events that may lay the session out anew."""

AHEAD, BACK = timedelta(minutes=5), timedelta(days=31)
"""A run begins at most so far from now: clocks differ a little, and a device may have been away for long."""


@dataclass(frozen=True, slots=True)
class RunWish:
    """A run as a device began it: of which entry, when second 0 was, how time waits, whose it is."""

    entry: UUID
    begun_at: datetime
    apart: bool = False
    hold: Holding = "entries"
    name: str = ""


def the_run(actor: Actor, run_id: UUID, right: Right = Right.PLAN) -> FloorRun:
    """One run of the actor's squads."""
    found = FloorRun.objects.filter(squad_id__in=actor.squads()).select_related("squad", "user", "entry")
    found = found.defer("entry__document")
    run = get_object_or_404(found, pk=run_id)
    actor.require(run.squad_id, right)
    return run


def begin_run(actor: Actor, run_id: UUID, wish: RunWish) -> FloorRun:
    """Keep a run that a device began; asked for again, it is the one that there is. Raises DocumentError."""
    removed = Entry.with_removed.filter(
        pk=wish.entry, squad_id__in=actor.squads(Right.PLAN), removed_at__isnull=False
    )
    for one in removed:
        says = f"{shown(one.title)}, taken off the plan"
        raise refuse(("entry",), says, "to be put back on its day first", "entry_removed")
    entry = the_entry(actor, wish.entry)
    if entry.document is None:
        raise wrong("entry", "other training", "an entry with a session")
    now = timezone.now()
    if not now - BACK <= wish.begun_at <= now + AHEAD:
        raise wrong("begun_at", wish.begun_at.isoformat(), "a time of the last 31 days")
    with transaction.atomic():
        known = FloorRun.objects.filter(pk=run_id).first()
        if known is not None:
            return the_run(actor, run_id)
        context = context_of(entry.squad)
        run = FloorRun(
            id=run_id,
            squad=entry.squad,
            entry=entry,
            day=wish.begun_at.astimezone(ZoneInfo(entry.squad.time_zone)).date(),
            title=entry.title,
            name=one_line(wish.name)[:80],
            document=entry.document,
            methods=context.methods.model_dump(mode="json", by_alias=True, exclude_unset=True),
            given=entry_given(entry, context).model_dump(mode="json", exclude_unset=True),
            apart=wish.apart,
            hold=wish.hold,
            begun_at=wish.begun_at,
            user_id=actor.user_id,
        )
        run.save(force_insert=True)
        record(actor, entry.squad_id, Act.RUN, run.title[:150])
    return run


def as_run(run: FloorRun, events: Iterable[Event] = (), *, until: float | None = None) -> Run:
    """A kept run as the core plays it, up to `until`. Raises DocumentError."""
    told: list[JsonValue] = [event.model_dump(mode="json", by_alias=True, exclude_unset=True) for event in events]
    return read_run(
        {
            "fine_tally_run": 1,
            "session": run.document,
            "methods": run.methods,
            "given": run.given,
            "apart": run.apart,
            "hold": run.hold,
            "events": told,
            "until": until,
        }
    )


def whole_run(run: FloorRun, events: Sequence[FloorEvent]) -> Run:
    """A kept run as the core plays it, to its end: the last window ends by the clock, and nobody says so.

    Raises DocumentError.
    """
    return as_run(run, [event_of(one) for one in events], until=lasted(run, events))


def lasted(run: FloorRun, events: Sequence[FloorEvent]) -> float:
    """Up to which second a run goes: its end where it has one, its last event at least."""
    last = max((float(one.event["t"]) for one in events), default=0.0)
    if run.ended_at is None:
        return last
    return min(MAX_RUN_S, max(last, (run.ended_at - run.begun_at).total_seconds()))


def take_events(actor: Actor, run_id: UUID, sent: Sequence[SentEvent]) -> list[str]:
    """Keep the events that are not kept yet, all of them or none; returns what was left out of them, in words.

    Raises DocumentError.
    """
    with transaction.atomic():
        run = the_run(actor, run_id)
        known = set(run.events.values_list("device", "number"))
        fresh = {(one.device, one.number): one for one in sent if (one.device, one.number) not in known}
        if len(known) + len(fresh) > MAX_EVENTS:
            raise refuse(("events",), f"{len(known) + len(fresh)} events of one run", str(MAX_EVENTS), "too_many")
        looked_at = screened(run.squad, fresh.values(), blocks=_blocks_of(run, fresh.values()))
        kept = FloorEvent.objects.bulk_create(
            FloorEvent(
                run=run,
                device=one.device,
                number=one.number,
                event=_without_person(one.event),
                person=looked_at.people.get(str(getattr(one.event, "person", None) or "")),
                user_id=actor.user_id,
            )
            for one in looked_at.kept
        )
        if kept:
            _note_end(run)
            take_from_floor(run, kept, _planned_numbers(run))
    return looked_at.left_out


def _blocks_of(run: FloorRun, fresh: Iterable[SentEvent]) -> int | None:
    """How many blocks the session of a run has; None where it was changed since, or cannot be read any more."""
    if any(one.event.do == "change" for one in fresh) or run.events.filter(event__do="change").exists():
        return None
    try:
        return len(blocks_of(parse_session(run.document)))
    except DocumentError:
        return None


def _planned_numbers(run: FloorRun) -> dict[int, int | None]:
    """The number that the block of each score had when the run began, by event; empty where nothing was changed.

    None for a block that was put in since.
    """
    kept = list(run.events.select_related("person"))
    if not any(one.event["do"] == "change" for one in kept):
        return {}
    try:
        replay = Replay(as_run(run, [event_of(one) for one in kept]), context_of(run.squad).library)
        replay.play()
    except DocumentError:
        return {}
    # Sorted as the replay sorts them, so that places are the same.
    in_order = sorted(kept, key=lambda one: float(one.event["t"]))
    return {in_order[place].pk: number for place, number in replay.planned.items()}


def _without_person(event: Event) -> dict[str, Any]:
    made = event.model_dump(mode="json", by_alias=True, exclude_unset=True)
    # A team of the day is nobody: it stays where it was said.
    if not TEAM.fullmatch(str(made.get("person", ""))):
        made.pop("person", None)
    return made


def event_of(kept: FloorEvent) -> Event:
    """A kept event as it was sent; of a person who was erased, without them."""
    made = dict(kept.event)
    if made["do"] in ("option", "here", "away") or kept.person is not None:
        made["person"] = str(kept.person.public_id) if kept.person is not None else ""
    event: Event = EVENT.validate_python(made)
    return event


def _note_end(run: FloorRun) -> None:
    """Keep when a run was over, or will be if nothing more is done. One that waits, or can't be played, goes on."""
    events = [event_of(one) for one in run.events.select_related("person")]
    try:
        # To the end: the last window ends by the clock, and nobody says so.
        played = Replay(as_run(run, events, until=MAX_RUN_S), context_of(run.squad).library).play()
    except DocumentError:
        return
    ended = played.played[-1].end if played.over and played.played else None
    run.ended_at = run.begun_at + timedelta(seconds=ended) if ended is not None else None
    FloorRun.objects.filter(pk=run.pk).update(ended_at=run.ended_at)


@dataclass(frozen=True, slots=True)
class RunNews:
    """A run, and the events that came after event `since` of it, in the order in which they came.

    `last`: what to ask from next time; `layouts`: what events laid out anew, by device and number.
    """

    run: FloorRun
    events: list[FloorEvent]
    last: int
    layouts: dict[str, PublishedLayout]


def news_of(run: FloorRun, since: int) -> RunNews:
    """What a device that knows a run up to an event does not know yet. One query, two more where plans changed."""
    events = list(run.events.filter(pk__gt=since).select_related("person"))
    layouts = layouts_of(run) if any(one.event["do"] in RELAID for one in events) else {}
    return RunNews(run, events, events[-1].pk if events else since, layouts)


def layouts_of(run: FloorRun) -> dict[str, PublishedLayout]:
    """What the scores and changes of a run laid out anew, by the device and number of each."""
    kept = list(run.events.select_related("person"))
    events = [event_of(one) for one in kept]
    replay = Replay(as_run(run, events), context_of(run.squad).library)
    replay.play()
    # Sorted as the replay sorts them, so that places are the same.
    in_order = sorted(kept, key=lambda one: float(one.event["t"]))
    return {
        event_key(in_order[place]): published_layout(replay.laid_out[place], layout)
        for place, layout in replay.layouts.items()
    }


def event_key(kept: FloorEvent) -> str:
    """What an event is known by."""
    return f"{kept.device}/{kept.number}"


def runs_of_day(squad: Squad, day: Any) -> QuerySet[FloorRun]:
    """The runs of a squad on a day, with how many events each has."""
    return squad.runs.filter(day=day).select_related("user").annotate(count=Count("events")).defer("document")
