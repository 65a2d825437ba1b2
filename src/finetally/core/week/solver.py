"""The leveller's model: what can be chosen, the hard rules, the aims; solved by OR-Tools CP-SAT."""

from __future__ import annotations

import itertools
import math
from collections.abc import Callable, Sequence
from datetime import date, timedelta
from typing import Any

from finetally.core.week.alternatives import Alternative
from finetally.core.week.balance import Target, row_seconds
from finetally.core.week.bout import Amount, Bout, hours_between
from finetally.core.week.clash import enough
from finetally.core.week.load import WEEK, is_hard
from finetally.core.week.plan import Rules, intended
from finetally.core.week.proposal import EDIT, UNMET, LevelEdit, Levelled, Slot, Watch, move_words

SEED = 20
DETERMINISTIC_LIMIT = 8.0
"""Of the solver's own deterministic time; about as many seconds."""

TENTHS = 10
"""Loads are summed in tenths: the solver counts in whole numbers."""

INTENT_OFF = 0.25
"""A day's intent is met within so much of its intended load (and a rest day by no load at all)."""
MOVE_COST = 5
RULES = {
    "rest-days": "nothing on rest days",
    "hall": "no session on days without the hall",
    "most-a-day": "so many sessions a day at most",
    "hard-days": "no two hard days in a row",
    "clashes": "hours between the same pattern or joint",
    "landings": "the week's landings at most",
}


def _strong_of(amount: Amount) -> frozenset[str]:
    """Rows and joints that get enough main work to clash."""
    rows = {name for name, work in amount.main.items() if enough(work)}
    return frozenset(rows | {f"joint {name}" for name, work in amount.joints.items() if enough(work)})


def _strong(version: Alternative) -> frozenset[str]:
    return _strong_of(version.amount)


class Leveller:
    """One week to be levelled, as a model of choices of one among many."""

    def __init__(self, slots: Sequence[Slot], rules: Rules, around: Sequence[Bout], begins: date) -> None:
        # The library takes a second to load: only who levels a week waits for it.
        from ortools.sat.python import cp_model

        self.cp = cp_model
        self.model: Any = cp_model.CpModel()
        self.slots, self.rules, self.around, self.begins = slots, rules, around, begins
        self.x: dict[tuple[int, int, int], Any] = {}
        self.strong = [[_strong(version) for version in slot.versions] for slot in slots]
        self.working: dict[tuple[int, str, int], list[Any]] = {}
        self.on: dict[str, Any] = {name: self.model.new_bool_var(name) for name in RULES}
        self.aims: list[tuple[str, Any]] = []
        self._choices()
        self._hard_rules()
        self._aims()

    # What can be chosen: one version and one day for each slot.
    def _choices(self) -> None:
        for s, slot in enumerate(self.slots):
            picks = []
            for v in range(len(slot.versions)):
                for day in range(WEEK):
                    as_it_is = (v, day) == (0, slot.day)
                    if not as_it_is and (self._stays(slot) or day in self.rules.gone_days):
                        continue
                    x = self.x[s, v, day] = self.model.new_bool_var(f"{slot.key}.{v}.{day}")
                    picks.append(x)
                    for name in self.strong[s][v]:
                        self.working.setdefault((s, name, day), []).append(x)
            self.model.add_exactly_one(picks)

    def _stays(self, slot: Slot) -> bool:
        """Whether a slot is not to be touched: locked, or on a day that is over."""
        return slot.locked or slot.day in self.rules.gone_days

    def _sum(self, day: int | None, value: Callable[[Slot, int], float]) -> Any:
        """Sum over what is chosen on a day (None: in the week) of a whole number for each version."""
        return sum(round(value(self.slots[s], v)) * x for (s, v, d), x in self.x.items() if day is None or d == day)

    def _load(self, day: int | None) -> Any:
        """The load of a day (None: of the week) in tenths."""
        return self._sum(day, lambda slot, v: slot.versions[v].amount.load * TENTHS)

    def _rule(self, name: str, constraint: Any) -> None:
        constraint.only_enforce_if(self.on[name])

    def _hard_rules(self) -> None:
        rules, model = self.rules, self.model
        for (s, _, day), x in self.x.items():
            slot = self.slots[s]
            if self._stays(slot):
                continue
            if day in rules.rest_days:
                self._rule("rest-days", model.add(x == 0))
            if slot.hall and day in rules.no_hall:
                self._rule("hall", model.add(x == 0))
        if rules.most_a_day is not None:
            for day in set(range(WEEK)) - rules.gone_days:
                self._rule("most-a-day", model.add(self._sum(day, lambda slot, v: 1) <= rules.most_a_day))
        if rules.no_two_hard:
            hard = [self._hard(day) for day in range(WEEK)]
            for day, (one, other) in enumerate(itertools.pairwise(hard)):
                if not {day, day + 1} <= rules.gone_days:
                    self._rule("hard-days", model.add(one + other <= 1))
            self._hard_around()
        if rules.clash_hours is not None:
            self._clashes(rules.clash_hours)
        if rules.landings_cap is not None:
            total = self._sum(None, lambda slot, v: slot.versions[v].amount.landings)
            self._rule("landings", model.add(total <= int(rules.landings_cap)))

    def _hard_around(self) -> None:
        """Next to a hard day of the week before or after nothing hard is put, as far as it can be put elsewhere."""
        for day, beyond in ((0, -1), (WEEK - 1, WEEK)):
            there = [bout for bout in self.around if (bout.day - self.begins).days == beyond]
            if not is_hard(there, self.rules.hard_effort, self.rules.hard_load):
                continue
            for (s, v, d), x in self.x.items():
                slot = self.slots[s]
                if (
                    d == day
                    and not self._stays(slot)
                    and slot.versions[v].amount.effort >= self.rules.hard_effort - 1e-9
                ):
                    self._rule("hard-days", self.model.add(x == 0))

    def _hard(self, day: int) -> Any:
        """1 where a day is hard: by a bout's effort, or by its load."""
        hard = self.model.new_bool_var(f"hard.{day}")
        for (s, v, d), x in self.x.items():
            if d == day and self.slots[s].versions[v].amount.effort >= self.rules.hard_effort - 1e-9:
                self.model.add_implication(x, hard)
        if self.rules.hard_load is not None:
            most = math.floor(self.rules.hard_load * TENTHS)
            self.model.add(self._load(day) <= most).only_enforce_if(hard.negated())
        return hard

    def _at(self, s: int, day: int) -> Bout:
        slot = self.slots[s]
        return Bout(slot.key, self.begins + timedelta(days=day), slot.versions[0].amount, slot.times[day])

    def _clashes(self, wanted: float) -> None:
        """Of two slots too near to each other only one may work enough of a pattern or joint."""
        for s, t in itertools.combinations(range(len(self.slots)), 2):
            if {self.slots[s].day, self.slots[t].day} <= self.rules.gone_days:
                continue
            near = [
                (one, other)
                for one, other in itertools.permutations(range(WEEK), 2)
                if hours_between(self._at(s, one), self._at(t, other)) < wanted - 1e-6
            ]
            for name in sorted(set().union(*self.strong[s]) & set().union(*self.strong[t])):
                for one, other in near:
                    mine, theirs = self.working.get((s, name, one)), self.working.get((t, name, other))
                    if mine and theirs:
                        self._rule("clashes", self.model.add(sum([*mine, *theirs]) <= 1))
        for s in range(len(self.slots)):
            self._clashes_around(s, wanted)

    def _clashes_around(self, s: int, wanted: float) -> None:
        """What stands in the days before and after stays: a slot that clashes with it goes elsewhere."""
        if self._stays(self.slots[s]):
            return
        for bout in self.around:
            theirs = _strong_of(bout.amount)
            for day in range(WEEK):
                if hours_between(self._at(s, day), bout) >= wanted - 1e-6:
                    continue
                for name in sorted(theirs):
                    for x in self.working.get((s, name, day), ()):
                        self._rule("clashes", self.model.add(x == 0))

    # What is aimed at: met or not, as many as can be.
    def _aims(self) -> None:
        rules, model = self.rules, self.model
        load = self._load(None)
        if rules.band is not None:
            met = self._aim("load in the band")
            model.add(load >= math.ceil(rules.band.low * TENTHS)).only_enforce_if(met)
            model.add(load <= math.floor(rules.band.high * TENTHS)).only_enforce_if(met)
            for day, wanted in intended(rules, rules.band.middle).items():
                self._intent(day, wanted)
        for target in rules.targets:
            self._target(target)
        if rules.monotony_under:
            self._monotony(load)

    def _aim(self, name: str) -> Any:
        met = self.model.new_bool_var(f"aim {name}")
        self.aims.append((name, met))
        return met

    def _intent(self, day: int, wanted: float) -> None:
        load = self._load(day)
        met = self._aim(f"intent of day {day + 1}")
        if wanted <= 0:
            self.model.add(load == 0).only_enforce_if(met)
            return
        self.model.add(load >= math.ceil(wanted * (1 - INTENT_OFF) * TENTHS)).only_enforce_if(met)
        self.model.add(load <= math.floor(wanted * (1 + INTENT_OFF) * TENTHS)).only_enforce_if(met)

    def _target(self, target: Target) -> None:
        def seconds(slot: Slot, v: int) -> float:
            return row_seconds(slot.versions[v].amount.patterns)[target.row]

        def all_rows(slot: Slot, v: int) -> float:
            return sum(row_seconds(slot.versions[v].amount.patterns).values())

        met = self._aim(f"target of {target.row}")
        mine = self._sum(None, seconds)
        total = self._sum(None, all_rows)
        for end, above in ((target.low, True), (target.high, False)):
            if end is None:
                continue
            # Shares are taken in thousandths, so that numbers stay whole.
            bound, value = (
                (round(end * 60), mine) if target.by == "minutes" else (round(end * 1000) * total, 1000 * mine)
            )
            self.model.add(value >= bound if above else value <= bound).only_enforce_if(met)

    def _monotony(self, load: Any) -> None:
        """Monotony under 2 where all seven days count: 17·S² < 98·Q (S the sum, Q the sum of squares)."""
        most = sum(max(round(v.amount.load * TENTHS) for v in slot.versions) for slot in self.slots) or 1
        squares = []
        for day in range(WEEK):
            of_day = self.model.new_int_var(0, most, f"load.{day}")
            self.model.add(of_day == self._load(day))
            square = self.model.new_int_var(0, most * most, f"square.{day}")
            self.model.add_multiplication_equality(square, [of_day, of_day])
            squares.append(square)
        total = self.model.new_int_var(0, most, "load")
        self.model.add(total == load)
        of_sum = self.model.new_int_var(0, most * most, "square")
        self.model.add_multiplication_equality(of_sum, [total, total])
        met = self._aim("monotony under 2")
        self.model.add(17 * of_sum <= 98 * sum(squares) - 1).only_enforce_if(met)

    def solve(self, watch: Watch | None) -> Levelled:
        """Minimise unmet aims, then edits, then weights."""
        edits, weights = [], []
        for (s, v, day), x in self.x.items():
            slot = self.slots[s]
            edits.append((int(v != 0) + int(day != slot.day)) * x)
            weights.append((slot.versions[v].cost + (MOVE_COST * abs(day - slot.day))) * x)
        unmet = sum(1 - met for _, met in self.aims)
        self.model.minimize(UNMET * unmet + EDIT * sum(edits) + sum(weights))
        self.model.add_assumptions(list(self.on.values()))
        solver = self._solver()
        if watch is None:
            status = solver.solve(self.model)
        else:
            watch.begin(solver)
            status = solver.solve(self.model, _noting(self.cp, watch))
        if status in (self.cp.OPTIMAL, self.cp.FEASIBLE):
            return self._read(solver, status == self.cp.OPTIMAL)
        if status == self.cp.INFEASIBLE:
            return Levelled(clashing_rules=self._clashing())
        return Levelled(proven=False)

    def _clashing(self) -> tuple[str, ...]:
        """A smallest set of rules that cannot hold together: each is needed for the contradiction."""
        kept = list(RULES)
        for name in list(kept):
            if self._infeasible([one for one in kept if one != name]):
                kept.remove(name)
        return tuple(kept)

    def _infeasible(self, names: Sequence[str]) -> bool:
        self.model.clear_assumptions()
        self.model.clear_objective()
        self.model.add_assumptions([self.on[name] for name in names])
        return bool(self._solver().solve(self.model) == self.cp.INFEASIBLE)

    def _solver(self) -> Any:
        solver = self.cp.CpSolver()
        solver.parameters.num_workers = 1
        solver.parameters.random_seed = SEED
        solver.parameters.max_deterministic_time = DETERMINISTIC_LIMIT
        # Choices of one among many with few sums: relaxing them costs more than it tells.
        solver.parameters.linearization_level = 0
        return solver

    def _read(self, solver: Any, proven: bool) -> Levelled:
        chosen = {self.slots[s].key: (v, day) for (s, v, day), x in self.x.items() if solver.boolean_value(x)}
        edits: list[LevelEdit] = []
        for slot in self.slots:
            version, day = chosen[slot.key]
            if version:
                edits.append(LevelEdit(slot.key, "version", slot.versions[version].what, version=version))
            if day != slot.day:
                edits.append(LevelEdit(slot.key, "day", move_words(slot.day, day), day=day))
        unmet = tuple(name for name, met in self.aims if not solver.boolean_value(met))
        return Levelled(chosen, tuple(edits), unmet, (), proven)


def _noting(cp: Any, watch: Watch) -> Any:
    """A callback that tells the watch of every answer; its class is made where the library is loaded."""

    class Noting(cp.CpSolverSolutionCallback):  # type: ignore[misc]
        def on_solution_callback(self) -> None:
            watch.note(self.objective_value)
            if watch.stopped:
                self.stop_search()

    return Noting()
