"""Reading a week: its entries, days and phase, and what they make together."""

from __future__ import annotations

from collections.abc import Iterable, Mapping, Sequence
from dataclasses import dataclass
from datetime import date, timedelta
from uuid import UUID

from django.db.models import Exists, F, OuterRef, Q, QuerySet
from django.shortcuts import get_object_or_404

from finetally.core.week.balance import Target, WeekBeam, WeekRow, week_beams, week_rows
from finetally.core.week.clash import Clash, clashes
from finetally.core.week.load import WEEK, AwayPeriod, WeekLoad, week_load
from finetally.core.week.plan import Intent, Rules, intended
from finetally.core.week.planned_load import PlannedLoad
from finetally.web.people.models import GroupPlace
from finetally.web.people.people import own_person
from finetally.web.plan.entries import week_of
from finetally.web.plan.models import Attendance, Day, Entry, Phase
from finetally.web.plan.summaries import LoadFields, planned_load_of
from finetally.web.snapshot import snapshot
from finetally.web.squads.actor import Actor, Right
from finetally.web.squads.models import Squad
from finetally.web.squads.today import today_of
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


@dataclass(frozen=True, slots=True)
class Whose:
    """Whose plan it is: the squad's as if all came, a group's, or one person's (keys; one of them at most)."""

    person: int | None = None
    group: int | None = None


ALL = Whose()
NOBODY = -1
"""The key of nobody: who looks without being a person of the squad sees what is for all."""


def whose_plan(actor: Actor, squad: Squad, person: UUID | None, group: int | None) -> Whose:
    """Whose plan an actor is shown: who does not plan sees what is for all and for them. One query at most."""
    if not actor.may(squad.pk, Right.PLAN):
        own = own_person(actor, squad)
        return Whose(person=own.pk if own is not None else NOBODY)
    if person is not None:
        return Whose(person=get_object_or_404(squad.people, public_id=person).pk)
    if group is not None:
        return Whose(group=get_object_or_404(squad.groups, pk=group).pk)
    return ALL


def read_week(
    actor: Actor, squad_id: int | None, day: date, person: UUID | None = None, group: int | None = None
) -> PlannedWeek:
    """The week that a day lies in; of the squad as if all came, or what is for a group or for one person.

    A few queries, however many entries there are.

    An entry for one person counts in that person's week only; the squad's week has those for all and for groups.
    Whoever does not plan sees what is for all and for themselves.
    """
    squad = squad_to_look_at(actor, squad_id)
    whose = whose_plan(actor, squad, person, group)
    with snapshot():
        return _week_of(squad, week_of(squad, day), whose)


def _week_of(squad: Squad, begins: date, whose: Whose) -> PlannedWeek:
    ends = begins + timedelta(days=WEEK)
    found = list(entries_between(squad, begins, ends, whose))
    planned_loads = planned_loads_between(squad, begins - BEFORE, ends + timedelta(days=WEEK), whose)
    inside = [planned_load for planned_load in planned_loads if begins <= planned_load.day < ends]
    beyond = [
        planned_load for planned_load in planned_loads if planned_load.day < begins or planned_load.day >= ends
    ]
    days = {one.day: one for one in squad.days.filter(day__gte=begins, day__lt=ends)}
    phase = next(
        (one for one in squad.phases.all() if one.begins <= begins < one.begins + timedelta(weeks=one.weeks)), None
    )
    away = away_of(squad, whose.person)
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


def entries_between(squad: Squad, first: date, end: date, whose: Whose = ALL) -> QuerySet[Entry]:
    """Entries from `first` to before `end`, without their documents (they are large; summaries are kept beside).

    For all and for groups; of a group, what is for all and for it; of a person, what is for all, for the groups
    that they were in on the day, and for them.
    """
    found = _between(squad, first, end, whose).defer("document").select_related("group")
    return found.annotate(newest_id=F("session__head_id"), person_public_id=F("person__public_id"))


def _between(squad: Squad, first: date, end: date, whose: Whose) -> QuerySet[Entry]:
    found = squad.entries.filter(day__gte=first, day__lt=end)
    if whose.person is not None:
        # In the group on the day of the entry: who changes groups keeps what they did.
        there = GroupPlace.objects.filter(
            Q(since=None) | Q(since__lte=OuterRef("day")), Q(until=None) | Q(until__gt=OuterRef("day")),
            group=OuterRef("group"), person=whose.person,
        )  # fmt: skip
        return found.filter(Q(person=whose.person) | Q(person=None) & (Q(group=None) | Exists(there)))
    if whose.group is not None:
        return found.filter(Q(group=None) | Q(group=whose.group), person=None)
    return found.filter(person=None)


def planned_loads_between(squad: Squad, first: date, end: date, whose: Whose = ALL) -> list[PlannedLoad]:
    """What the same entries come to: for the squad as if all came, for a person (two queries more) by attendance.

    Who is away on a day is not at what stands on it, unless it was noted that they came.

    Read without the entries' other fields: a week looks at months of them.
    """
    own: dict[UUID, Attendance] = {}
    absent: list[AwayPeriod] = []
    if whose.person is not None:
        attended = Attendance.objects.filter(
            person=whose.person, entry__squad=squad, entry__day__gte=first, entry__day__lt=end
        )
        own = {one.entry_id: one for one in attended}
        absent = [AwayPeriod(one.first, one.last, one.known) for one in squad.away.filter(person=whose.person)]
    # The order is that of the days: what happens at the same time keeps its place in sums and lists.
    found = _between(squad, first, end, whose).filter(skipped=False)
    fields = list(found.values_list(*LoadFields._fields, named=True))
    members = members_of(one.group_id for one in fields if one.group_id is not None)
    return [
        planned_load_of(one, squad.time_zone, own.get(one.pk), members)
        for one in fields
        if (own[one.pk].came if one.pk in own else not any(away.holds(one.day) for away in absent))
    ]


def members_of(groups: Iterable[int]) -> dict[int, frozenset[str]]:
    """Who is or was in groups, by group, and a name of the group itself, which its entries share. One query."""
    wanted = set(groups)
    if not wanted:
        return {}
    people: dict[int, set[str]] = {group: {f"group {group}"} for group in wanted}
    for group, person in GroupPlace.objects.filter(group__in=wanted).values_list("group", "person"):
        people[group].add(str(person))
    return {group: frozenset(found) for group, found in people.items()}


def _touches(clash: Clash, begins: date, ends: date) -> bool:
    return any(begins.isoformat() <= day < ends.isoformat() for day in clash["days"])


def away_of(squad: Squad, person: int | None = None) -> list[AwayPeriod]:
    """When the whole squad is away; with a person when they are, too."""
    found = (
        squad.away.filter(Q(person=None) | Q(person=person))
        if person is not None
        else squad.away.filter(person=None)
    )
    return [AwayPeriod(one.first, one.last, one.known) for one in found]


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
