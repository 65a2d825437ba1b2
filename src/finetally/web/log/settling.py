"""Logging an entry: as its run has it, as planned, or as it is typed; several in one step; taken back."""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import dataclass, field
from typing import Any
from uuid import UUID

from django.db import transaction

from finetally.core.log.as_done import DoneSession
from finetally.core.log.as_person import as_person, was_there
from finetally.core.log.left_out import left_out_of, without_blocks
from finetally.core.log.movements import blocks_kept, movements_kept
from finetally.core.log.page import DoneDifference, LoggedFigures, differences_of, figures_of, picture_of
from finetally.core.session.ids import with_ids
from finetally.core.session.problems import DocumentError
from finetally.core.session.reading import parse_session
from finetally.core.tally.measure import Tally, tally
from finetally.core.week.planned_load import other_training, summary_of
from finetally.web.floor.models import FloorEvent, FloorRun
from finetally.web.floor.runs import whole_run
from finetally.web.log.asking import ask_to_work_out
from finetally.web.log.given_here import entry_given
from finetally.web.log.models import LoggedEntry, LoggedHow, LoggedRun
from finetally.web.log.ratings import effort_of, minutes_of
from finetally.web.plan.entries import MOST_MINUTES, entry_named, people_for, the_entry, wrong
from finetally.web.plan.models import Attendance, Entry
from finetally.web.plan.summaries import summary_json
from finetally.web.squads.actor import Actor
from finetally.web.squads.figuring_context import FiguringContext, context_of
from finetally.web.squads.models import Act, Person
from finetally.web.squads.record import record
from finetally.web.squads.today import today_of

MOST_SETTLED = 60
"""Entries that are logged in one step."""


@dataclass(frozen=True, slots=True)
class LogWish:
    """How an entry is logged: what is not said is from its run, else from the plan.

    `away`: who was not there, and all others were; `without`: who was not, and of others it stays as noted.
    `left_out`: blocks by number that were not done, where it was not run; None: as it is logged.
    """

    minutes: float | None = None
    effort: float | None = None
    away: tuple[UUID, ...] | None = None
    without: tuple[UUID, ...] = ()
    left_out: tuple[int, ...] | None = None


@dataclass(frozen=True, slots=True)
class _Done:
    """What was done of an entry, ready to be kept."""

    how: LoggedHow
    minutes: float
    estimated: float | None
    summary: dict[str, Any]
    movements: dict[str, Any]
    blocks: dict[str, Any]
    run: FloorRun | None
    figures: dict[str, Any] = field(default_factory=dict)
    differences: list[DoneDifference] = field(default_factory=list)
    left_out: list[int] = field(default_factory=list)


def log_entry(actor: Actor, entry_id: UUID, wish: LogWish) -> LoggedEntry:
    """Log an entry of today or before. For those who plan. Logged again it takes what is known now.

    Raises DocumentError.
    """
    [made] = _log_all(actor, [entry_id], wish)
    return made


def _log_all(actor: Actor, entries: Sequence[UUID], wish: LogWish) -> list[LoggedEntry]:
    """Log all of some entries, or none. Raises DocumentError."""
    # Figured before anything is locked.
    figured = []
    for key in entries:
        entry = the_entry(actor, key)
        _refuse(entry, wish)
        figured.append(figure_log(entry, wish))
    made = []
    with transaction.atomic():
        for key, ready in zip(entries, figured, strict=True):
            entry = the_entry(actor, key)
            made.append(keep_log(entry, ready, wish, actor.user_id))
            record(actor, entry.squad_id, Act.LOGGED, entry_named(entry))
            if entry.document is not None:
                ask_to_work_out(entry)
    return made


@dataclass(frozen=True, slots=True)
class FiguredLog:
    """What logging an entry will keep: the plan as measured, its runs, what was done."""

    planned: Tally | None
    runs: Sequence[LoggedRun]
    done: _Done


@dataclass(frozen=True, slots=True)
class BroughtRun:
    """A run that is not saved yet, with its events."""

    run: FloorRun
    events: list[FloorEvent]


def figure_log(entry: Entry, wish: LogWish, brought: Sequence[BroughtRun] = ()) -> FiguredLog:
    """Figure what logging an entry keeps, with its runs and those that are brought. Keeps nothing."""
    context = context_of(entry.squad)
    planned = _planned(entry, context)
    found = [(run, list(run.events.all())) for run in entry.runs.prefetch_related("events__person")]
    found += [(one.run, one.events) for one in brought]
    runs = [one for run, events in found if (one := logged_run(run, events, context)) is not None]
    left_out = _left_out(entry, wish, was_run=bool(runs))
    if not left_out:
        return FiguredLog(planned, runs, _done(entry, planned, runs, wish))
    if runs or planned is None:
        raise wrong("left_out", "blocks of what was run, or of other training", "none")
    return FiguredLog(planned, runs, _done_in_part(entry, planned, left_out, wish))


def keep_log(entry: Entry, figured: FiguredLog, wish: LogWish, user_id: int | None) -> LoggedEntry:
    """Keep an entry as logged; call it in a transaction."""
    done = figured.done
    for one in figured.runs:
        LoggedRun.objects.update_or_create(run=one.run, defaults=_fields(one))
    _came(entry, wish, done)
    effort, source = (wish.effort, "typed") if wish.effort is not None else effort_of(entry, done.estimated)
    made, _ = LoggedEntry.objects.update_or_create(
        entry=entry,
        defaults={
            "how": done.how, "run": done.run, "summary": done.summary, "movements": done.movements,
            "blocks": done.blocks, "left_out": done.left_out, "figures": done.figures,
            "differences": done.differences,
            "estimated": done.estimated, "effort_from": source, "user_id": user_id, **_pictured(figured.planned),
        },
    )  # fmt: skip
    entry.logged_minutes, entry.logged_effort = round(done.minutes, 2), round(effort, 2)
    entry.save()
    _lengthen(entry)
    return made


def _pictured(planned: Tally | None) -> dict[str, Any]:
    """What was planned, as it is kept."""
    if planned is None:
        return {}
    return {"planned": rounded(figures_of(planned)), "picture": picture_of(planned)}


def _refuse(entry: Entry, wish: LogWish) -> None:
    if entry.day > today_of(entry.squad):
        raise wrong("entry", f"a session of {entry.day.isoformat()}", "one of today or before")
    if wish.minutes is not None and not 0 <= wish.minutes <= MOST_MINUTES:
        raise wrong("minutes", f"{wish.minutes:g}", f"0 to {MOST_MINUTES}")
    if wish.effort is not None and not 0 <= wish.effort <= 10:
        raise wrong("effort", f"{wish.effort:g}", "0 to 10")


def _planned(entry: Entry, context: FiguringContext) -> Tally | None:
    """What was planned, measured; None for other training, and for what cannot be figured any more."""
    if entry.document is None:
        return None
    try:
        return tally(
            parse_session(with_ids(entry.document)), library=context.library, methods=context.methods,
            given=entry_given(entry, context),
        )  # fmt: skip
    except DocumentError:
        return None


def _left_out(entry: Entry, wish: LogWish, *, was_run: bool) -> list[int]:
    """The blocks, by number, that were not done: as it is said now, else as it was logged; a run says it itself."""
    if wish.left_out is not None or was_run:
        return sorted(set(wish.left_out or ()))
    logged = LoggedEntry.objects.filter(entry=entry).first()
    return list(logged.left_out) if logged is not None else []


def _done_in_part(entry: Entry, planned: Tally, left_out: list[int], wish: LogWish) -> _Done:
    """What was done where some blocks were left out. Raises DocumentError."""
    context = context_of(entry.squad)
    session = parse_session(without_blocks(entry.document or {}, left_out))
    done = tally(session, library=context.library, methods=context.methods, given=entry_given(entry, context))
    minutes = wish.minutes if wish.minutes is not None else done.tape.total_s / 60
    return _Done(
        LoggedHow.TYPED, minutes, done.rpe, summary_json(summary_of(done)), dict(movements_kept(done)),
        dict(blocks_kept(done, planned.session)), None, rounded(figures_of(done)),
        left_out_of(planned, left_out), left_out,
    )  # fmt: skip


def _done(entry: Entry, planned: Tally | None, kept: Sequence[LoggedRun], wish: LogWish) -> _Done:
    """What was done: typed minutes go before a run's, the longest run's before the plan's."""
    longest = max(kept, key=lambda one: one.session_s, default=None)
    if longest is not None:
        minutes = wish.minutes if wish.minutes is not None else longest.session_s / 60
        effort = float(longest.figures["effort"])
        return _Done(
            LoggedHow.RUN, minutes, effort, longest.summary, longest.movements, longest.blocks, longest.run
        )
    how = LoggedHow.PLANNED if wish.minutes is None and wish.effort is None else LoggedHow.TYPED
    if planned is None:
        minutes = wish.minutes if wish.minutes is not None else entry.minutes or minutes_of(entry)
        effort = wish.effort if wish.effort is not None else entry.effort or 0.0
        return _Done(how, minutes, None, summary_json(other_training(minutes, effort)), {}, {}, None)
    minutes = wish.minutes if wish.minutes is not None else planned.tape.total_s / 60
    summary = summary_json(summary_of(planned))
    blocks = dict(blocks_kept(planned, planned.session))
    return _Done(how, minutes, planned.rpe, summary, dict(movements_kept(planned)), blocks, None)


def logged_run(run: FloorRun, events: list[FloorEvent], context: FiguringContext) -> LoggedRun | None:
    """What a run came to; the kept one where no event came since; None where nothing was played. Keeps nothing."""
    known = LoggedRun.objects.filter(run=run).first()
    if known is not None and known.events == len(events):
        return known
    done = done_of_run(run, events, context)
    if done is None:
        return None
    t = done.tally()
    return LoggedRun(
        run=run, events=len(events), session_s=round(done.session_s, 3),
        figures=rounded(figures_of(t, done.played)),
        picture=picture_of(t), differences=differences_of(done), summary=summary_json(summary_of(t)),
        movements=dict(movements_kept(t)), blocks=dict(blocks_kept(t, parse_session(run.document))),
    )  # fmt: skip


def done_of_run(run: FloorRun, events: Sequence[FloorEvent], context: FiguringContext) -> DoneSession | None:
    """A kept run as it was done; None where nothing of it was played, or it cannot be played any more."""
    if not events:
        return None
    try:
        plain = whole_run(run, events)
        done = DoneSession(
            parse_session(run.document),
            library=context.library,
            methods=plain.methods,
            given=plain.given,
            run=plain,
        )
    except DocumentError:
        return None
    return done if done.played is not None and done.played.played else None


def _fields(one: LoggedRun) -> dict[str, Any]:
    return {
        name: getattr(one, name)
        for name in ("events", "session_s", "figures", "picture", "differences", "summary", "movements", "blocks")
    }


def _came(entry: Entry, wish: LogWish, done: _Done) -> None:
    """Note who was away, and from when to when the others were there, as the run and the coach have it."""
    people = people_for(entry)
    for person in people:
        if person.public_id in (*(wish.away or ()), *wish.without):
            Attendance.objects.update_or_create(
                entry=entry, person=person, defaults={"came": False, "minutes": None, "effort": None}
            )
            continue
        if wish.away is not None:
            Attendance.objects.filter(entry=entry, person=person, came=False).delete()
        if done.run is not None:
            _as_run(entry, person, done)


def _as_run(entry: Entry, person: Person, done: _Done) -> None:
    if done.run is None:
        return
    events = list(done.run.events.all())
    if not any(one.person_id == person.pk and one.event["do"] in ("here", "away") for one in events):
        return
    plain = whole_run(done.run, events)
    name = str(person.public_id)
    known = entry.attendance.filter(person=person).first()
    effort = known.effort if known is not None and known.effort is not None else done.estimated
    fields: dict[str, Any] = {"came": False, "minutes": None, "effort": None}
    if was_there(plain, name):
        own, since = as_person(plain, name)
        last = own.until if own.until is not None else done.minutes * 60
        fields = {"came": True, "minutes": round(max(0.0, last - since) / 60, 2), "effort": effort}
    Attendance.objects.update_or_create(entry=entry, person=person, defaults=fields)


def _lengthen(entry: Entry) -> None:
    """Who rated without being noted for other minutes did what all did."""
    noted = set()
    for run in entry.runs.all():
        noted |= set(run.events.filter(event__do__in=("here", "away")).values_list("person", flat=True))
    rated = entry.attendance.filter(came=True, effort__isnull=False).exclude(person__in=[n for n in noted if n])
    rated.filter(person__ratings__entry=entry).update(minutes=entry.logged_minutes)


def settle(actor: Actor, entries: Sequence[UUID], away: Sequence[UUID] = ()) -> list[UUID]:
    """Log several entries as they were run, or as planned, all or none. Those that are logged already stay so.

    `away`: who was at none of them; of the others it stays as it is noted. Returns those that were logged. Raises
    DocumentError.
    """
    if len(entries) > MOST_SETTLED:
        raise wrong("entries", f"{len(entries)} entries", f"up to {MOST_SETTLED} at once")
    open_ones = [key for key in dict.fromkeys(entries) if the_entry(actor, key).logged_minutes is None]
    _log_all(actor, open_ones, LogWish(without=tuple(away)))
    return open_ones


def unlog(actor: Actor, entry_id: UUID) -> None:
    """Take the log of an entry back: it waits again. Scores, ratings and notes stay."""
    with transaction.atomic():
        entry = the_entry(actor, entry_id)
        LoggedEntry.objects.filter(entry=entry).delete()
        entry.logged_minutes = entry.logged_effort = None
        entry.save()
        record(actor, entry.squad_id, Act.UNLOGGED, entry_named(entry))


def rounded(figures: LoggedFigures) -> dict[str, Any]:
    """Figures as they are kept: to a thousandth."""
    return {name: round(value, 3) if isinstance(value, float) else value for name, value in figures.items()}
