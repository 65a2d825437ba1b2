"""Reading a week: its entries, days and phase, and what they make together."""

from __future__ import annotations

from collections.abc import Mapping, Sequence
from dataclasses import dataclass
from datetime import date, timedelta
from uuid import UUID
from zoneinfo import ZoneInfo

from django.db.models import F, Q, QuerySet
from django.utils import timezone

from finetally.core.week.balance import Target, WeekBeam, WeekRow, week_beams, week_rows
from finetally.core.week.clash import Clash, clashes
from finetally.core.week.load import WEEK, AwayPeriod, WeekLoad, week_load
from finetally.core.week.plan import Intent, Rules, intended
from finetally.core.week.planned_load import PlannedLoad
from finetally.web.plan.entries import week_of
from finetally.web.plan.models import Attendance, Day, Entry, Phase
from finetally.web.plan.summaries import LoadFields, planned_load_of
from finetally.web.squads.actor import Actor, Right
from finetally.web.squads.models import Squad
from finetally.web.squads.use_cases import squad_to_look_at

BEFORE = timedelta(weeks=12)
"""So far back a week looks: by then hardly anything is left of a load in a mean weighted over 28 days."""


@dataclass(frozen=True, slots=True)
class PlannedWeek:
    """A week as it is shown. `intended`: loads days are to carry.

    `beyond`: planned loads of all other days that the week looks at; `around`: those near enough to clash.
    """

    squad: Squad
    begins: date
    entries: Sequence[Entry]
    planned_loads: Sequence[PlannedLoad]
    beyond: Sequence[PlannedLoad]
    around: Sequence[PlannedLoad]
    days: Mapping[date, Day]
    phase: Phase | None
    rules: Rules
    load: WeekLoad
    rows: Sequence[WeekRow]
    beams: Sequence[WeekBeam]
    clashes: Sequence[Clash]
    intended: Mapping[int, float]


def read_week(actor: Actor, squad_id: int | None, day: date, person: int | None = None) -> PlannedWeek:
    """The week that a day lies in; of the squad as if all came, or what is for one person.

    A few queries, however many entries there are.

    An entry for one person counts in that person's week only; the squad's week has those for all and for groups.
    Whoever does not plan sees what is for all and for themselves.
    """
    squad = squad_to_look_at(actor, squad_id)
    if not actor.may(squad.pk, Right.PLAN):
        person = _own_person(actor, squad)
    begins = week_of(squad, day)
    ends = begins + timedelta(days=WEEK)
    found = list(entries_between(squad, begins, ends, person))
    planned_loads = planned_loads_between(squad, begins - BEFORE, ends + timedelta(days=WEEK), person)
    inside = [planned_load for planned_load in planned_loads if begins <= planned_load.day < ends]
    beyond = [
        planned_load for planned_load in planned_loads if planned_load.day < begins or planned_load.day >= ends
    ]
    days = {one.day: one for one in squad.days.filter(day__gte=begins, day__lt=ends)}
    phase = next(
        (one for one in squad.phases.all() if one.begins <= begins < one.begins + timedelta(weeks=one.weeks)), None
    )
    away = away_of(squad)
    rules = rules_of(squad, begins, days, phase, away)
    first = min((planned_load.day for planned_load in planned_loads), default=None)
    near = [planned_load for planned_load in beyond if abs((planned_load.day - begins).days) <= WEEK + 2]
    methods = squad.methods_value()
    load = week_load(
        planned_loads, begins, history_from=first, hard_effort=methods.hard_day_effort,
        hard_load=methods.hard_day_load, today=today_of(squad), away=away,
    )  # fmt: skip
    total = load["totals"]["load"]
    planned = [one["totals"]["load"] for one in load["days"]]
    return PlannedWeek(
        squad, begins, found, inside, beyond, near, days, phase,
        rules, load,
        week_rows(inside, begins, rules.targets), week_beams(inside, begins),
        [one for one in clashes([*inside, *near], methods.clash_hours) if _touches(one, begins, ends)],
        intended(rules, rules.band.middle if rules.band is not None else total, planned),
    )  # fmt: skip


def entries_between(squad: Squad, first: date, end: date, person: int | None = None) -> QuerySet[Entry]:
    """Entries from `first` to before `end`, without their documents (they are large; summaries are kept beside).

    For all and for groups, and for one person if one is named.
    """
    found = _between(squad, first, end, person).defer("document")
    return found.annotate(newest_id=F("session__head_id"))


def _between(squad: Squad, first: date, end: date, person: int | None) -> QuerySet[Entry]:
    whose = Q(person_id=None) | Q(person_id=person) if person is not None else Q(person_id=None)
    return squad.entries.filter(whose, day__gte=first, day__lt=end)


def planned_loads_between(squad: Squad, first: date, end: date, person: int | None = None) -> list[PlannedLoad]:
    """What the same entries come to: for the squad as if all came, for a person (one query more) by attendance.

    Read without the entries' other fields: a week looks at months of them.
    """
    own: dict[UUID, Attendance] = {}
    if person is not None:
        attended = Attendance.objects.filter(
            person_id=person, entry__squad=squad, entry__day__gte=first, entry__day__lt=end
        )
        own = {one.entry_id: one for one in attended}
    # The order is that of the days: what happens at the same time keeps its place in sums and lists.
    found = _between(squad, first, end, person).filter(skipped=False)
    return [
        planned_load_of(one, squad.time_zone, own.get(one.pk))
        for one in found.values_list(*LoadFields._fields, named=True)
        if one.pk not in own or own[one.pk].came
    ]


def _own_person(actor: Actor, squad: Squad) -> int | None:
    """The person that a member is in a squad, if any."""
    if actor.user_id is None:
        return None
    return squad.people.filter(user_id=actor.user_id).values_list("pk", flat=True).first()


def _touches(clash: Clash, begins: date, ends: date) -> bool:
    return any(begins.isoformat() <= day < ends.isoformat() for day in clash["days"])


def today_of(squad: Squad) -> date:
    """The day that it is where the squad is."""
    return timezone.now().astimezone(ZoneInfo(squad.time_zone)).date()


def away_of(squad: Squad) -> list[AwayPeriod]:
    """When the whole squad is away."""
    return [AwayPeriod(one.first, one.last, one.known) for one in squad.away.all()]


def rules_of(
    squad: Squad, begins: date, days: Mapping[date, Day], phase: Phase | None, away: Sequence[AwayPeriod]
) -> Rules:
    """What holds in a week of the squad: its methods, its phase's load, its days. Times away are kept free."""
    methods = squad.methods_value()
    numbered = {(one.day - begins).days: one for one in days.values()}
    intents: dict[int, Intent] = {n: one.intent for n, one in numbered.items() if one.intent}  # type: ignore[misc]
    return Rules(
        band=phase.band if phase is not None else None,
        intents=intents,
        shares={n: one.share for n, one in numbered.items() if one.share is not None},
        rest_days=frozenset(
            n
            for n in range(WEEK)
            if intents.get(n) == "rest" or any(one.holds(begins + timedelta(days=n)) for one in away)
        ),
        no_hall=frozenset(n for n, one in numbered.items() if not one.hall),
        clash_hours=methods.clash_hours,
        hard_effort=methods.hard_day_effort,
        hard_load=methods.hard_day_load,
        targets=[Target(row, one.by, one.low, one.high) for row, one in methods.week_targets.items()],
    )
