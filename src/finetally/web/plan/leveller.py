"""The work of levelling a week, done by the process for heavy work: versions, the search, the answer."""

from __future__ import annotations

from collections.abc import Mapping, Sequence
from dataclasses import asdict, dataclass, replace
from datetime import date, timedelta
from typing import Any

from django.conf import settings

from finetally.core.edits.edit import EDIT_LIST
from finetally.core.week.alternatives import COST, Alternative, alternatives_of
from finetally.core.week.balance import WeekRow, week_rows
from finetally.core.week.clash import Clash, clashes
from finetally.core.week.level import level
from finetally.core.week.load import WEEK, WeekLoad, week_load
from finetally.core.week.plan import Rules
from finetally.core.week.proposal import (
    MOVE_COST,
    Choice,
    Levelled,
    SearchLimit,
    SearchObserver,
    Slot,
    edits_of,
    entries_of,
)
from finetally.core.week.review import RULE_WORDS, RuleBreak, breaks, review
from finetally.web.jobs.work import JobHandle
from finetally.web.plan.refigure import aged, refigure
from finetally.web.plan.summaries import documents_of, start_of, state_of, summary_from_json, summary_json
from finetally.web.plan.week import PlannedWeek, away_of, read_week
from finetally.web.squads.figuring_context import FiguringContext, context_of
from finetally.web.squads.today import today_of


@dataclass(frozen=True, slots=True)
class WeekOutcome:
    """What a week comes to with some edits taken, its rows, and the rules that it then breaks."""

    load: WeekLoad
    rows: Sequence[WeekRow]
    clashes: Sequence[Clash]
    breaks: Sequence[RuleBreak]


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
            planned_load.key,
            (planned_load.day - week.begins).days,
            versions.get(planned_load.key) or [Alternative("as-is", "as it is", planned_load.summary)],
            locked=planned_load.key not in versions,
            hall=planned_load.key in sessions,
            people=planned_load.people,
            times=tuple(
                start_of(week.begins + timedelta(days=n), entries[planned_load.key].time, week.squad.time_zone)
                for n in range(WEEK)
            ),
        )
        for planned_load in week.planned_loads
    ]


def week_outcome(week: PlannedWeek, slots: Sequence[Slot], chosen: Choice, rules: Rules) -> WeekOutcome:
    """The week with versions and days as chosen, with the history that the page shows."""
    methods = week.squad.methods_value()
    planned_loads = entries_of(slots, chosen, week.begins)
    # What was logged stays logged, wherever the rest goes.
    logged = {one.key for one in week.planned_loads if one.logged}
    planned_loads = [replace(one, logged=one.key in logged) for one in planned_loads]
    everything = [*planned_loads, *week.beyond]
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
    near = [*planned_loads, *week.around]
    found = [one for one in clashes(near, methods.clash_hours) if one["first"] in own or one["second"] in own]
    broken = breaks(slots, chosen, rules, around=week.around, begins=week.begins)
    return WeekOutcome(load, week_rows(planned_loads, week.begins, rules.targets), found, list(broken))


def versions_of(week: PlannedWeek, context: FiguringContext, handle: JobHandle) -> dict[str, list[Alternative]]:
    """Versions of every session that may be changed; of none more once somebody is content."""
    made = {}
    entries = {str(one.pk): one for one in week.entries}
    documents = documents_of(week.entries)
    for planned_load in week.planned_loads:
        document = documents.get(planned_load.key)
        if document is None or entries[planned_load.key].locked or planned_load.logged:
            continue
        own = [Alternative("as-is", "as it is", planned_load.summary)]
        if not handle.stopped:
            found = alternatives_of(document, library=context.library, methods=context.methods)
            # To the places that load summaries are kept with, so that a version weighs what it will once taken.
            own = [replace(one, summary=summary_from_json(summary_json(one.summary)), document={}) for one in found]
        made[planned_load.key] = own
    return made


class _AnswerTeller(SearchObserver):
    """Lays down every better answer."""

    def __init__(self, telling: Any) -> None:
        super().__init__()
        self._telling = telling

    def note(self, chosen: Choice, price: int) -> None:
        super().note(chosen, price)
        self._telling(self)


def level_job(handle: JobHandle) -> None:
    """Level the week that a job asks for; see web/jobs/work.py."""
    asked, job = handle.job.asked, handle.job
    week = read_week(handle.asker(), job.squad_id, date.fromisoformat(asked["day"]))
    context = context_of(week.squad)
    # A version and the plan are figured alike, or the two tell different loads of the same week.
    own = aged(week.squad, context).filter(pk__in=[one.pk for one in week.entries]).defer("document")
    if refigure(own, context):
        week = read_week(handle.asker(), job.squad_id, date.fromisoformat(asked["day"]))
    states = {str(one.pk): state_of(one, context) for one in week.entries}
    sessions = frozenset(documents_of(week.entries))
    slots = slots_of(week, versions_of(week, context, handle), sessions)
    rules = rules_for(week, asked)
    maker = _AnswerMaker(week, slots, rules, states)

    def tell(observer: SearchObserver) -> None:
        best = observer.best or {}
        handle.show(
            progress={"found": observer.found, "unmet": observer.unmet, "edits": observer.edits},
            answer=lambda: maker.answer(maker.so_far(best)),
            private=lambda: maker.private(best),
        )

    observer = _AnswerTeller(tell)
    handle.on_stop(observer.stop)
    limit = SearchLimit(settings.LEVEL_SECONDS or None, settings.LEVEL_DETERMINISTIC)
    made = level(slots, rules, around=week.around, begins=week.begins, observer=observer, limit=limit)
    handle.show(answer=maker.answer(made), private=maker.private(made.chosen))


class _AnswerMaker:
    """Makes of a choice what is kept with the job."""

    def __init__(self, week: PlannedWeek, slots: Sequence[Slot], rules: Rules, states: Mapping[str, str]) -> None:
        self.week, self.slots, self.rules, self.states = week, slots, rules, states

    def so_far(self, chosen: Choice) -> Levelled:
        """An answer out of the best so far."""
        stands = review(self.slots, chosen, self.rules, around=self.week.around, begins=self.week.begins)
        return Levelled(chosen, edits_of(self.slots, chosen), stands.met, stands.unmet, end="stopped")

    def answer(self, made: Levelled) -> dict[str, Any]:
        """What is shown of it."""
        as_is = {slot.key: (0, slot.day) for slot in self.slots}
        after = week_outcome(self.week, self.slots, made.chosen, self.rules) if made.chosen else None
        return {
            "edits": [{**asdict(one), "made_on": self.states[one.slot]} for one in made.edits],
            "titles": {str(one.pk): one.title for one in self.week.entries},
            "met": list(made.met),
            "unmet": list(made.unmet),
            "clashing_rules": [RULE_WORDS[name] for name in made.clashing_rules],
            "found": bool(made.chosen),
            "end": made.end,
            "weights": {**{kind: cost for kind, cost in COST.items() if cost}, "a day's move": MOVE_COST},
            "before": outcome_fields(week_outcome(self.week, self.slots, as_is, self.rules)),
            "after": outcome_fields(after) if after is not None else None,
        }

    def private(self, chosen: Choice) -> dict[str, Any]:
        """Of each version that is proposed what it comes to and what makes it; the sessions among the entries."""
        versions = {}
        for slot in self.slots:
            number = chosen.get(slot.key, (0, 0))[0]
            if number:
                one = slot.versions[number]
                versions[slot.key] = {
                    "what": one.what,
                    "summary": summary_json(one.summary),
                    "edits": EDIT_LIST.dump_python(list(one.edits), mode="json"),
                }
        return {"versions": versions, "sessions": sorted(slot.key for slot in self.slots if slot.hall)}


def outcome_fields(one: WeekOutcome) -> dict[str, Any]:
    """An outcome as it is kept and shown."""
    return {
        "load": one.load,
        "rows": list(one.rows),
        "clashes": list(one.clashes),
        "breaks": [{**asdict(each), "rule": RULE_WORDS[each.rule]} for each in one.breaks],
    }
