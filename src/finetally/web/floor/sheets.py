"""What the floor needs of an entry before it starts: its sheet, who is expected, who does what otherwise."""

from __future__ import annotations

from dataclasses import dataclass
from datetime import date, timedelta
from uuid import UUID

from finetally.core.card.card import CardOption, KitLine, card_of
from finetally.core.card.cautions import own_cautions, usual_cautions
from finetally.core.floor.document import Run
from finetally.core.floor.published import PublishedLayout, PublishedSheet, published_layout, published_sheet
from finetally.core.floor.sheet import sheet
from finetally.core.floor.splits import PlannedRounds, planned_rounds
from finetally.core.floor.variants import variants_of
from finetally.core.session.reading import parse_session
from finetally.core.tally.exits import exits_of
from finetally.core.tally.measure import Tally, tally
from finetally.web.floor.absent import gone_before
from finetally.web.floor.crowd import PersonPlaced, placed
from finetally.web.floor.meant import with_said
from finetally.web.floor.models import FloorRun
from finetally.web.floor.runs import runs_of_day
from finetally.web.floor.scores import EarlierScore, earlier_of
from finetally.web.floor.step_options import StepOptions, step_options
from finetally.web.log.foreseen import ForeseenHere, foreseen_among, foreseen_by
from finetally.web.log.given_here import entry_given, entry_pace
from finetally.web.log.reports import kinds_by_person
from finetally.web.log.windows import windows_of
from finetally.web.people.freshness import fresh_on
from finetally.web.people.pace import PaceInUse
from finetally.web.people.people import known_people
from finetally.web.plan.entries import attendance_of, the_entry, wrong
from finetally.web.plan.models import Entry
from finetally.web.squads.actor import Actor, Right
from finetally.web.squads.figuring_context import FiguringContext, context_of
from finetally.web.squads.models import Squad
from finetally.web.squads.today import today_of
from finetally.web.squads.use_cases import squad_for
from finetally.web.training.cards import others_on_card

LOOKS_BACK = timedelta(days=7)
"""Entries that were not logged are told for so long."""


@dataclass(frozen=True, slots=True)
class SentVariant:
    """What follows from a score that may be made (see `Variant`), as it is sent along."""

    block: int
    take: str
    value: int
    layout: PublishedLayout


@dataclass(frozen=True, slots=True)
class ExitWay:
    """A block before which the session may end, by number: minutes and load with it, and ended there."""

    block: int
    whole_s: float
    whole_load: float
    ended_s: float
    ended_load: float


@dataclass(frozen=True, slots=True)
class FloorSheet:
    """All that running an entry needs, also once there is no network.

    `apart`: the sheet where each goes at their own pace, for sessions where that makes another one. `minutes`: what
    the timetable comes to. `pace`: whose it is laid out at; `foreseen`: what its windows should
    be scored at. `people` in the order of stations; `away`: the keys of those who do not come;
    `said`, `fresh`: by key what they said themselves of coming, and of how fresh they are today; `reports`: by key
    which kinds of health reports are open.
    """

    entry: Entry
    sheet: PublishedSheet
    apart: PublishedSheet | None
    exits: list[ExitWay]
    variants: list[SentVariant]
    minutes: float
    kit: list[KitLine]
    own_cautions: list[str]
    usual_cautions: list[str]
    people: list[PersonPlaced]
    away: set[int]
    said: dict[int, str]
    fresh: dict[int, int]
    reports: dict[int, list[str]]
    others: list[CardOption]
    options: list[StepOptions]
    planned: list[PlannedRounds]
    earlier: list[EarlierScore]
    pace: PaceInUse
    foreseen: ForeseenHere


def sheet_of_entry(actor: Actor, entry_id: UUID) -> FloorSheet:
    """The floor's sheet of an entry, for those who plan. Raises DocumentError."""
    entry = the_entry(actor, entry_id)
    if entry.document is None:
        raise wrong("entry", "other training", "an entry with a session")
    context = context_of(entry.squad)
    given = entry_given(entry, context)
    session = parse_session(entry.document)
    made = sheet(session, library=context.library, methods=context.methods, given=given)
    apart = sheet(session, library=context.library, methods=context.methods, given=given, apart=True)
    t = tally(session, library=context.library, methods=context.methods, given=given)
    options = step_options(session, context.library)
    expected = attendance_of(actor, entry_id)
    gone = gone_before(entry)
    # What was noted of this entry itself goes first.
    comes = [one.person.pk for one in expected if one.comes and (one.own is not None or one.person.pk not in gone)]
    card = card_of(t, people=len(comes))
    own = own_cautions(session)
    run = Run(fine_tally_run=1, session=entry.document, methods=context.methods, given=given)
    return FloorSheet(
        entry=entry,
        sheet=published_sheet(made),
        apart=published_sheet(apart) if len(apart.beats) != len(made.beats) else None,
        exits=exit_ways(t),
        variants=[
            SentVariant(one.block, one.take, one.value, published_layout(one.sheet, one.layout, before=made))
            for one in variants_of(run, made, library=context.library)
        ],
        minutes=card["timetable_s"] / 60,
        kit=card["kit"],
        own_cautions=own,
        usual_cautions=usual_cautions(own),
        people=placed(entry, [one.person for one in expected]),
        away={one.person.pk for one in expected} - set(comes),
        said={one.person.pk: one.own.said for one in expected if one.own is not None and one.own.said},
        fresh=fresh_on([one.person.pk for one in expected], entry.day),
        reports=kinds_by_person(entry.squad, entry.day),
        others=with_said(entry, others_on_card(actor, entry.squad_id, entry.document), options),
        planned=planned_rounds(made),
        options=options,
        earlier=earlier_of(entry, windows_of(t)),
        pace=entry_pace(entry, context),
        foreseen=_foreseen(entry, t, comes, context),
    )


def _foreseen(entry: Entry, t: Tally, comes: list[int], context: FiguringContext) -> ForeseenHere:
    """What is foreseen of the one person an entry is for, else among those who come."""
    if entry.person is not None:
        return foreseen_by(t, entry.person, context)
    people = list(known_people(entry.squad).filter(pk__in=comes))
    return foreseen_among(t, people, entry.squad, context, tells=True)


def exit_ways(t: Tally) -> list[ExitWay]:
    """What it comes to where the session ends before each of its exits, beside the whole."""
    numbers = {of.ident: number for number, of in enumerate(t.tape.blocks)}
    return [
        ExitWay(numbers[one["before"]], t.tape.total_s, t.load, one["total_s"], one["load"]) for one in exits_of(t)
    ]


@dataclass(frozen=True, slots=True)
class FloorDay:
    """A squad's day on the floor: its entries, the runs that were begun on it; `unlogged`: of the days before."""

    squad: Squad
    day: date
    entries: list[Entry]
    runs: list[FloorRun]
    unlogged: list[Entry]


def floor_day(actor: Actor, squad_id: int | None) -> FloorDay:
    """What a squad has to run today, and what of it was run; for those who plan. Four queries."""
    squad = squad_for(actor, squad_id, Right.PLAN)
    day = today_of(squad)
    entries = squad.entries.filter(day=day, skipped=False).select_related("group", "person")
    past = squad.entries.filter(day__lt=day, day__gte=day - LOOKS_BACK, skipped=False, logged_minutes=None)
    return FloorDay(squad, day, list(entries), list(runs_of_day(squad, day)), list(past.defer("document")))
