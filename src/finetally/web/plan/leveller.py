"""The work of levelling a week, done by the process for heavy work: versions, the search, the answer."""

from __future__ import annotations

from collections.abc import Mapping, Sequence
from dataclasses import asdict, dataclass, replace
from datetime import date, timedelta
from typing import Any

from django.conf import settings

from finetally.core.week.alternatives import COST, Alternative, alternatives_of
from finetally.core.week.balance import WeekRow, week_rows
from finetally.core.week.clash import Clash, clashes
from finetally.core.week.level import level
from finetally.core.week.load import WEEK, WeekLoad, week_load
from finetally.core.week.plan import Rules
from finetally.core.week.proposal import MOVE_COST, Levelled, Limit, Slot, Watch, bouts_of, edits_of
from finetally.core.week.solver import RULES
from finetally.core.week.standing import Break, breaks, standing
from finetally.web.jobs.work import Desk
from finetally.web.plan.amounts import EDITS, as_kept, documents_of, from_kept, start_of, state_of
from finetally.web.plan.refigure import aged, refigure
from finetally.web.plan.week import PlannedWeek, away_of, read_week, today_of
from finetally.web.squads.house import House, house_of

Chosen = Mapping[str, tuple[int, int]]


@dataclass(frozen=True, slots=True)
class Outcome:
    """What a week comes to with some edits taken, its rows, and the rules that it then breaks."""

    load: WeekLoad
    rows: Sequence[WeekRow]
    clashes: Sequence[Clash]
    breaks: Sequence[Break]


def rules_for(week: PlannedWeek, asked: Mapping[str, Any]) -> Rules:
    """The week's rules with what was asked otherwise. Days gone by are over, unless asked otherwise."""
    gone = max(0, (date.fromisoformat(asked["today"]) - week.begins).days)
    over = frozenset() if asked["gone"] else frozenset(range(min(WEEK, gone)))
    return replace(week.rules, gone_days=over, **asked["changes"])


def slots_of(
    week: PlannedWeek, versions: Mapping[str, Sequence[Alternative]], sessions: frozenset[str]
) -> list[Slot]:
    """The week's entries as the leveller takes them. `versions`: of those that may be changed, the first as it is.

    What has none stays as it is. `sessions`: the entries that need the hall.
    """
    entries = {str(one.pk): one for one in week.entries}
    return [
        Slot(
            bout.key,
            (bout.day - week.begins).days,
            versions.get(bout.key) or [Alternative("as-is", "as it is", bout.amount)],
            locked=bout.key not in versions,
            hall=bout.key in sessions,
            times=tuple(
                start_of(week.begins + timedelta(days=n), entries[bout.key].time, week.squad.time_zone)
                for n in range(WEEK)
            ),
        )
        for bout in week.bouts
    ]


def outcome(week: PlannedWeek, slots: Sequence[Slot], chosen: Chosen, rules: Rules) -> Outcome:
    """The week with versions and days as chosen, with the history that the page shows."""
    methods = week.squad.methods_value()
    bouts = bouts_of(slots, chosen, week.begins)
    # What was logged stays logged, wherever the rest goes.
    logged = {one.key for one in week.bouts if one.logged}
    bouts = [replace(one, logged=one.key in logged) for one in bouts]
    everything = [*bouts, *week.beyond]
    load = week_load(
        everything,
        week.begins,
        history_from=min((one.day for one in everything), default=None),
        hard_effort=methods.hard_day_effort,
        hard_load=methods.hard_day_load,
        today=today_of(week.squad),
        away=away_of(week.squad),
    )
    own = {slot.key for slot in slots}
    near = [*bouts, *week.around]
    found = [one for one in clashes(near, methods.clash_hours) if one["first"] in own or one["second"] in own]
    broken = breaks(slots, chosen, rules, around=week.around, begins=week.begins)
    return Outcome(load, week_rows(bouts, week.begins, rules.targets), found, list(broken))


def versions_of(week: PlannedWeek, house: House, desk: Desk) -> dict[str, list[Alternative]]:
    """Versions of every session that may be changed; of none more once somebody is content."""
    made = {}
    entries = {str(one.pk): one for one in week.entries}
    documents = documents_of(week.entries)
    for bout in week.bouts:
        document = documents.get(bout.key)
        if document is None or entries[bout.key].locked or bout.logged:
            continue
        own = [Alternative("as-is", "as it is", bout.amount)]
        if not desk.stopped:
            found = alternatives_of(document, library=house.library, methods=house.methods)
            # To the places that amounts are kept with, so that a version weighs what it will once taken.
            own = [replace(one, amount=from_kept(as_kept(one.amount)), document={}) for one in found]
        made[bout.key] = own
    return made


class _Telling(Watch):
    """Lays down every better answer."""

    def __init__(self, telling: Any) -> None:
        super().__init__()
        self._telling = telling

    def note(self, chosen: Chosen, price: int) -> None:
        super().note(chosen, price)
        self._telling(self)


def work(desk: Desk) -> None:
    """Level the week that a job asks for; see web/jobs/work.py."""
    asked, job = desk.job.asked, desk.job
    week = read_week(desk.asker(), job.squad_id, date.fromisoformat(asked["day"]))
    house = house_of(week.squad)
    # A version and the plan are figured alike, or the two tell different loads of the same week.
    own = aged(week.squad, house).filter(pk__in=[one.pk for one in week.entries]).defer("document")
    if refigure(own, house):
        week = read_week(desk.asker(), job.squad_id, date.fromisoformat(asked["day"]))
    states = {str(one.pk): state_of(one, house) for one in week.entries}
    sessions = frozenset(documents_of(week.entries))
    slots = slots_of(week, versions_of(week, house, desk), sessions)
    rules = rules_for(week, asked)
    maker = _Maker(week, slots, rules, states)

    def tell(watch: Watch) -> None:
        best = watch.best or {}
        desk.show(
            progress={"found": watch.found, "unmet": watch.unmet, "edits": watch.edits},
            answer=lambda: maker.answer(maker.so_far(best)),
            private=lambda: maker.private(best),
        )

    watch = _Telling(tell)
    desk.on_stop(watch.stop)
    limit = Limit(settings.LEVEL_SECONDS or None, settings.LEVEL_DETERMINISTIC)
    made = level(slots, rules, around=week.around, begins=week.begins, watch=watch, limit=limit)
    desk.show(answer=maker.answer(made), private=maker.private(made.chosen))


class _Maker:
    """Makes of a choice what is kept with the job."""

    def __init__(self, week: PlannedWeek, slots: Sequence[Slot], rules: Rules, states: Mapping[str, str]) -> None:
        self.week, self.slots, self.rules, self.states = week, slots, rules, states

    def so_far(self, chosen: Chosen) -> Levelled:
        """An answer out of the best so far."""
        stands = standing(self.slots, chosen, self.rules, around=self.week.around, begins=self.week.begins)
        return Levelled(chosen, edits_of(self.slots, chosen), stands.met, stands.unmet, end="stopped")

    def answer(self, made: Levelled) -> dict[str, Any]:
        """What is shown of it."""
        as_is = {slot.key: (0, slot.day) for slot in self.slots}
        after = outcome(self.week, self.slots, made.chosen, self.rules) if made.chosen else None
        return {
            "edits": [{**asdict(one), "made_on": self.states[one.slot]} for one in made.edits],
            "titles": {str(one.pk): one.title for one in self.week.entries},
            "met": list(made.met),
            "unmet": list(made.unmet),
            "clashing_rules": [RULES[name] for name in made.clashing_rules],
            "found": bool(made.chosen),
            "end": made.end,
            "weights": {**{kind: cost for kind, cost in COST.items() if cost}, "a day's move": MOVE_COST},
            "before": outcome_fields(outcome(self.week, self.slots, as_is, self.rules)),
            "after": outcome_fields(after) if after is not None else None,
        }

    def private(self, chosen: Chosen) -> dict[str, Any]:
        """Of each version that is proposed what it comes to and what makes it; the sessions among the entries."""
        versions = {}
        for slot in self.slots:
            number = chosen.get(slot.key, (0, 0))[0]
            if number:
                one = slot.versions[number]
                versions[slot.key] = {
                    "what": one.what,
                    "amount": as_kept(one.amount),
                    "edits": EDITS.dump_python(one.edits, mode="json"),
                }
        return {"versions": versions, "sessions": sorted(slot.key for slot in self.slots if slot.hall)}


def outcome_fields(one: Outcome) -> dict[str, Any]:
    """An outcome as it is kept and shown."""
    return {
        "load": one.load,
        "rows": list(one.rows),
        "clashes": list(one.clashes),
        "breaks": [{**asdict(each), "rule": RULES[each.rule]} for each in one.breaks],
    }
