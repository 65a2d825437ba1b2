"""The leveller's model, solved by OR-Tools CP-SAT: the rules and aims that review.py checks, in whole numbers."""

from __future__ import annotations

import itertools
import math
from collections.abc import Callable, Collection, Iterator, Mapping, Sequence
from dataclasses import dataclass
from datetime import date, timedelta
from functools import partial
from typing import TYPE_CHECKING

from finetally.core.week.aims import LOAD_SCALE, SHARE_SCALE, Aim, aims_of, load_units, row_units
from finetally.core.week.clash import enough
from finetally.core.week.load import WEEK, is_hard
from finetally.core.week.plan import Rules
from finetally.core.week.planned_load import GAP_MIN, LoadSummary, PlannedLoad, hours_between
from finetally.core.week.proposal import EDIT, MOVE_COST, UNMET, Choice, SearchLimit, SearchObserver, Slot
from finetally.core.week.review import EFFORT_EPS, RULE_WORDS, planned_day_loads, stays
from finetally.core.week.squares import square, square_over, square_under

if TYPE_CHECKING:
    from ortools.sat.python import cp_model
    from ortools.sat.python.cp_model import LinearExprT

SEED = 20
SHARE_EPS = 1e-6


def _lasts_over(minutes: float, summary: LoadSummary) -> bool:
    return summary.minutes > minutes + SHARE_EPS


def _is_strong(name: str, summary: LoadSummary) -> bool:
    return name in _strong_of(summary)


@dataclass(frozen=True, slots=True)
class Solution:
    """What a search came to, in `seconds` and `deterministic` time: `chosen` the best found, if any.

    `whole`: nothing cheaper can be (nor is, if none).
    """

    chosen: Choice | None
    whole: bool
    seconds: float
    deterministic: float


def _strong_of(summary: LoadSummary) -> frozenset[str]:
    """Rows and joints that get enough main work to clash."""
    rows = {name for name, work in summary.main.items() if enough(work)}
    return frozenset(rows | {f"joint {name}" for name, work in summary.joints.items() if enough(work)})


class Leveller:
    """One week to be levelled, as a model: for each slot one version and one day.

    `kept`: the names of the hard rules that hold, all unless it is asked which contradict each other. Not `exact`:
    squares are taken in straight pieces, which is quicker; what is found holds, but not all that there is is found.
    """

    def __init__(
        self,
        slots: Sequence[Slot],
        rules: Rules,
        around: Sequence[PlannedLoad],
        begins: date,
        kept: Collection[str] = tuple(RULE_WORDS),
        *,
        exact: bool = True,
    ) -> None:
        # The library takes a second to load: only who levels a week waits for it.
        from ortools.sat.python import cp_model

        self.cp = cp_model
        self.model = cp_model.CpModel()
        self.slots, self.rules, self.around, self.begins, self.kept = slots, rules, around, begins, kept
        self.exact = exact
        self.free = [not stays(slot, rules) for slot in slots]
        self.loads = [[load_units(version.summary) for version in slot.versions] for slot in slots]
        self.is_version = [self._one_of(s, "version", self._versions(s)) for s in range(len(slots))]
        self.is_on = [self._one_of(s, "day", self._days(s)) for s in range(len(slots))]
        self.strong = [self._strong(s) for s in range(len(slots))]
        self.day_loads: Sequence[cp_model.IntVar] | None = None
        self._hard_rules()
        self.aims = [(aim, self._aim(aim)) for aim in aims_of(rules, planned_day_loads(slots))]
        self.price = self._price()

    # What can be chosen.
    def _versions(self, s: int) -> list[int]:
        return list(range(len(self.slots[s].versions))) if self.free[s] else [0]

    def _days(self, s: int) -> list[int]:
        if not self.free[s]:
            return [self.slots[s].day]
        return [day for day in range(WEEK) if day not in self.rules.gone_days]

    def _one_of(self, s: int, what: str, options: Sequence[int]) -> dict[int, cp_model.IntVar]:
        """A truth for each option, exactly one of which holds; a constant where there is no choice."""
        if len(options) == 1:
            return {options[0]: self.model.new_constant(1)}
        made = {one: self.model.new_bool_var(f"{self.slots[s].key}.{what}.{one}") for one in options}
        self.model.add_exactly_one(made.values())
        return made

    def _any_of(self, s: int, which: Callable[[LoadSummary], bool]) -> cp_model.IntVar | None:
        """Whether a slot's version is one of those; None where none is."""
        wanted = [is_it for v, is_it in self.is_version[s].items() if which(self.slots[s].versions[v].summary)]
        if not wanted or len(wanted) == len(self.is_version[s]):
            return self.model.new_constant(1) if wanted else None
        if len(wanted) == 1:
            return wanted[0]
        made = self.model.new_bool_var("")
        self.model.add(sum(wanted) == made)
        return made

    def _strong(self, s: int) -> dict[str, cp_model.IntVar]:
        """Rows and joints that a slot may work enough to clash, and whether it does."""
        names = sorted(set().union(*(_strong_of(self.slots[s].versions[v].summary) for v in self.is_version[s])))
        found = {name: self._any_of(s, partial(_is_strong, name)) for name in names}
        return {name: is_it for name, is_it in found.items() if is_it is not None}

    def _sum(self, value: Callable[[LoadSummary], int]) -> LinearExprT:
        """Sum over the versions chosen of a whole number."""
        return sum(
            value(self.slots[s].versions[v].summary) * is_it
            for s, versions in enumerate(self.is_version)
            for v, is_it in versions.items()
        )

    def _load(self, day: int | None) -> LinearExprT:
        """The load of a day (None: of the week) in whole units."""
        if day is None:
            return self._sum(load_units)
        if self.day_loads is None:
            self.day_loads = self._loads_of_days()
        return self.day_loads[day]

    def _loads_of_days(self) -> Sequence[cp_model.IntVar]:
        """The loads of the seven days: each slot's on the day that it stands on."""
        parts: list[list[LinearExprT]] = [[] for _ in range(WEEK)]
        for s, loads in enumerate(self.loads):
            if len(self.is_on[s]) == 1:
                (day,) = self.is_on[s]
                parts[day] += [loads[v] * is_it for v, is_it in self.is_version[s].items()]
                continue
            own = sum(loads[v] * is_it for v, is_it in self.is_version[s].items())
            there = []
            for day, is_on in self.is_on[s].items():
                part = self.model.new_int_var(0, max(loads), "")
                self.model.add(part == own).only_enforce_if(is_on)
                self.model.add(part == 0).only_enforce_if(is_on.negated())
                parts[day].append(part)
                there.append(part)
            self.model.add(sum(there) == own)
        most = sum(max(loads) for loads in self.loads)
        made = []
        for day in range(WEEK):
            load = self.model.new_int_var(0, most, f"load.{day}")
            self.model.add(load == sum(parts[day]))
            made.append(load)
        return made

    # The hard rules.
    def _staying(self, day: int) -> list[PlannedLoad]:
        """What stands on a day and cannot be changed; -1 and 7 are the days beside the week."""
        if day in (-1, WEEK):
            return [one for one in self.around if (one.day - self.begins).days == day]
        return [self._at(s, day) for s, slot in enumerate(self.slots) if not self.free[s] and slot.day == day]

    def _hard_rules(self) -> None:
        rules, kept = self.rules, self.kept
        for s, days in enumerate(self.is_on):
            for day, is_on in days.items() if self.free[s] else ():
                if "rest-days" in kept and day in rules.rest_days:
                    self.model.add(is_on == 0)
                if "hall" in kept and self.slots[s].hall and day in rules.no_hall:
                    self.model.add(is_on == 0)
        if "most-a-day" in kept and rules.most_a_day is not None:
            for day in range(WEEK):
                left = max(0, rules.most_a_day - len(self._staying(day)))
                there = [days[day] for s, days in enumerate(self.is_on) if self.free[s] and day in days]
                self.model.add(sum(there) <= left)
        self._rules_of_pairs()
        if "landings" in kept and rules.landings_cap is not None:
            self._landings(rules.landings_cap)

    def _rules_of_pairs(self) -> None:
        """Rules about two sessions, on one day or on days that are near each other."""
        rules, kept = self.rules, self.kept
        if "overlap" in kept:
            self._overlaps()
        if "hard-days" in kept and rules.no_two_hard:
            self._hard_days()
            self._hard_twice()
        if "clashes" in kept and rules.clash_hours is not None:
            self._clashes(rules.clash_hours)

    def _pairs(self) -> Iterator[tuple[int, int]]:
        """Slots of which one at least may be changed, and that somebody does both of."""
        for s, t in itertools.combinations(range(len(self.slots)), 2):
            if (self.free[s] or self.free[t]) and self._at(s, 0).shares_people(self._at(t, 0)):
                yield s, t

    def _overlaps(self) -> None:
        """On one day the later of two begins when the earlier is over, and half an hour more."""
        for s, t in self._pairs():
            for day in sorted(self.is_on[s].keys() & self.is_on[t].keys()):
                starts = self.slots[s].times[day], self.slots[t].times[day]
                if starts[0] is None or starts[1] is None:
                    continue
                first = s if starts[0] <= starts[1] else t
                minutes = abs(starts[1] - starts[0]) / timedelta(minutes=1)
                too_long = self._any_of(first, partial(_lasts_over, minutes - GAP_MIN))
                if too_long is not None:
                    all_of = (self.is_on[s][day], self.is_on[t][day], too_long)
                    self.model.add_bool_or(*(truth.negated() for truth in all_of))

    def _hard_twice(self) -> None:
        """Of two sessions on one day one is hard at most."""
        hard = [self._any_of(s, self._is_hard_version) for s in range(len(self.slots))]
        for s, t in self._pairs():
            one, other = hard[s], hard[t]
            if one is None or other is None:
                continue
            for day in sorted(self.is_on[s].keys() & self.is_on[t].keys()):
                all_of = (self.is_on[s][day], self.is_on[t][day], one, other)
                self.model.add_bool_or(*(truth.negated() for truth in all_of))

    def _is_hard_version(self, summary: LoadSummary) -> bool:
        return summary.effort >= self.rules.hard_effort - EFFORT_EPS

    def _hard_days(self) -> None:
        """Of two days in a row one is hard at most, those beside the week among them; not where both stay so."""
        fixed = {day: self._is_hard(self._staying(day)) for day in range(-1, WEEK + 1)}
        beside = {day: int(fixed[day]) for day in (-1, WEEK)}
        hard: dict[int, cp_model.LinearExpr | int] = {**self._hard(), **beside}
        for day in range(-1, WEEK):
            if not (fixed[day] and fixed[day + 1]):
                self.model.add(hard[day] + hard[day + 1] <= 1)

    def _is_hard(self, entries: Sequence[PlannedLoad]) -> bool:
        return is_hard(entries, self.rules.hard_effort, self.rules.hard_load)

    def _hard(self) -> dict[int, cp_model.IntVar]:
        """For each day 1 where it is hard: by a planned load's effort, or by its load."""
        hard = {day: self.model.new_bool_var(f"hard.{day}") for day in range(WEEK)}
        for s, days in enumerate(self.is_on):
            is_hard_one = self._any_of(s, self._is_hard_version)
            if is_hard_one is None:
                continue
            for day, is_on in days.items():
                self.model.add_bool_or(is_on.negated(), is_hard_one.negated(), hard[day])
        if self.rules.hard_load is not None:
            most = math.floor(self.rules.hard_load * LOAD_SCALE + SHARE_EPS)
            for day in range(WEEK):
                self.model.add(self._load(day) <= most).only_enforce_if(hard[day].negated())
        return hard

    def _at(self, s: int, day: int) -> PlannedLoad:
        slot = self.slots[s]
        summary, starts = slot.versions[0].summary, slot.times[day]
        return PlannedLoad(slot.key, self.begins + timedelta(days=day), summary, starts, people=slot.people)

    def _clashes(self, wanted: float) -> None:
        """Of two slots too near to each other only one may work enough of a pattern or joint."""
        for s, t in self._pairs():
            shared = sorted(self.strong[s].keys() & self.strong[t].keys())
            if not shared:
                continue
            for (one, mine), (other, theirs) in itertools.product(self.is_on[s].items(), self.is_on[t].items()):
                if hours_between(self._at(s, one), self._at(t, other)) >= wanted - SHARE_EPS:
                    continue
                for name in shared:
                    all_of = (mine, theirs, self.strong[s][name], self.strong[t][name])
                    self.model.add_bool_or(*(truth.negated() for truth in all_of))
        for s in range(len(self.slots)):
            if self.free[s]:
                self._clashes_around(s, wanted)

    def _clashes_around(self, s: int, wanted: float) -> None:
        """What stands in the days before and after stays: a slot that clashes with it goes elsewhere."""
        for entry in self.around:
            shared = sorted(_strong_of(entry.summary) & self.strong[s].keys())
            for day, is_on in self.is_on[s].items() if shared else ():
                at = self._at(s, day)
                if at.shares_people(entry) and hours_between(at, entry) < wanted - SHARE_EPS:
                    for name in shared:
                        self.model.add_bool_or(is_on.negated(), self.strong[s][name].negated())

    def _landings(self, cap: float) -> None:
        """The week's landings; where what stays is over the cap alone, nothing can hold it."""
        staying = sum(
            s.versions[0].summary.limited_landings
            for s, free in zip(self.slots, self.free, strict=True)
            if not free
        )
        if staying <= cap:
            self.model.add(self._sum(lambda summary: summary.limited_landings) <= math.floor(cap))

    # What is aimed at: met or not, as many as can be.
    def _aim(self, aim: Aim) -> LinearExprT:
        met = self.model.new_bool_var(f"aim {aim.name}")
        if aim.kind == "monotony":
            self._monotony(met)
            return met
        unit: LinearExprT = 1
        if aim.kind == "target":
            value = self._sum(lambda summary: row_units(summary, aim.row))
            if aim.share:
                unit = self._sum(row_units)
                value = SHARE_SCALE * value
                if aim.low:
                    self.model.add(unit >= 1).only_enforce_if(met)
        else:
            value = self._load(aim.day)
        if aim.low is not None:
            self.model.add(value >= aim.low * unit).only_enforce_if(met)
        if aim.high is not None:
            self.model.add(value <= aim.high * unit).only_enforce_if(met)
        return met

    def _monotony(self, met: cp_model.IntVar) -> None:
        """Monotony under 2, as aims.varied has it; in straight pieces where only some of them are wanted."""
        most = sum(max(loads) for loads in self.loads) or 1
        total = self.model.new_int_var(0, most, "load")
        self.model.add(total == self._load(None))
        self.model.add(total == sum(self._load(day) for day in range(WEEK)))
        piece = square if self.exact else square_under
        squares = [piece(self.model, self._load(day), self._most_on(day)) for day in range(WEEK)]
        of_sum = (square if self.exact else square_over)(self.model, total, most)
        self.model.add(17 * of_sum <= 98 * sum(squares) - 1).only_enforce_if(met)

    def _most_on(self, day: int) -> int:
        """No load of a day is larger."""
        loads = [max(loads) for loads, days in zip(self.loads, self.is_on, strict=True) if day in days]
        most = self.rules.most_a_day
        if most is not None and "most-a-day" in self.kept:
            loads = sorted(loads, reverse=True)[: max(most, len(self._staying(day)))]
        return sum(loads) or 1

    def _price(self) -> LinearExprT:
        """What is minimised: unmet aims, then edits, then their weight."""
        terms = [UNMET * (1 - met) for _, met in self.aims]
        for slot, versions, days in zip(self.slots, self.is_version, self.is_on, strict=True):
            terms += [(EDIT * int(v != 0) + slot.versions[v].cost) * is_it for v, is_it in versions.items()]
            terms += [
                (EDIT * int(day != slot.day) + MOVE_COST * abs(day - slot.day)) * is_on
                for day, is_on in days.items()
            ]
        return sum(terms)

    def start_from(self, chosen: Mapping[str, tuple[int, int]], under: int | None) -> None:
        """Begin with a choice that is known; `under`: only what is cheaper is of use."""
        for slot, versions, days in zip(self.slots, self.is_version, self.is_on, strict=True):
            version, day = chosen[slot.key]
            for options, wanted in ((versions, version), (days, day)):
                for one, is_it in options.items() if len(options) > 1 else ():
                    self.model.add_hint(is_it, int(one == wanted))
        if under is not None:
            self.model.add(self.price <= under - 1)

    def solve(self, limit: SearchLimit, observer: SearchObserver, hold: Callable[[Choice], None]) -> Solution:
        """The cheapest choice within the limit. Each answer is handed to `hold` as it is found."""
        self.model.minimize(self.price)
        solver = self._solver(limit)
        observer.begin(solver)
        status = solver.solve(self.model, _holding(observer, lambda value: hold(self._read(value))))
        found = status in (self.cp.OPTIMAL, self.cp.FEASIBLE)
        whole = status in (self.cp.OPTIMAL, self.cp.INFEASIBLE)
        chosen = self._read(solver.boolean_value) if found else None
        return Solution(chosen, whole, solver.wall_time, solver.deterministic_time)

    def _solver(self, limit: SearchLimit) -> cp_model.CpSolver:
        solver = self.cp.CpSolver()
        solver.parameters.num_workers = 1
        solver.parameters.random_seed = SEED
        solver.parameters.max_deterministic_time = limit.deterministic
        if limit.seconds is not None:
            solver.parameters.max_time_in_seconds = limit.seconds
        # Choices of one among many with few sums: relaxing them costs more than it tells.
        solver.parameters.linearization_level = 0
        return solver

    def _read(self, value: Callable[[cp_model.IntVar], bool]) -> Choice:
        chosen = {}
        for slot, versions, days in zip(self.slots, self.is_version, self.is_on, strict=True):
            pick = [next(one for one, is_it in options.items() if value(is_it)) for options in (versions, days)]
            chosen[slot.key] = (pick[0], pick[1])
        return chosen


def _holding(
    observer: SearchObserver, hold: Callable[[Callable[[cp_model.IntVar], bool]], None]
) -> cp_model.CpSolverSolutionCallback:
    """A callback for every answer; its class is made where the library is loaded."""
    from ortools.sat.python import cp_model

    class Holding(cp_model.CpSolverSolutionCallback):
        def on_solution_callback(self) -> None:
            hold(self.boolean_value)
            if observer.stopped:
                self.stop_search()

    return Holding()
