"""Recast: the same ingredients poured into named formats, with one thing held still (docs/formats.md)."""

from __future__ import annotations

import functools
from collections.abc import Mapping, Sequence
from dataclasses import dataclass, field
from typing import NamedTuple

from finetally.core.compare.axis_point import AxisError, AxisEvaluator, AxisPoint, FormatRefusedError
from finetally.core.compare.held import Held, called_by_movement
from finetally.core.compare.ingredients import Ingredients, StepDose, TurnEnd
from finetally.core.compare.pouring import dose_values, ends_of, not_carried, plan_alone
from finetally.core.compare.refusal import Cause, nearest
from finetally.core.compare.search import OVER, last_within
from finetally.core.formats.axes import Axis, ParamValues, PlanHints, magnitude, rounds_at
from finetally.core.formats.bounds import Bound
from finetally.core.formats.format import AnyFormat
from finetally.core.formats.params import FormatParams
from finetally.core.methods.value import DEFAULT_METHODS, Methods
from finetally.core.movements.library import Library
from finetally.core.session.document import BlockOrSection
from finetally.core.session.values import FAILURE_PLAN, ToFailure
from finetally.core.unfold.pace import TIME_EPS_S
from finetally.core.unfold.tape import Tape
from finetally.core.words import clock_text


@dataclass(frozen=True, slots=True)
class Recast:
    """Ingredients in one format: its entries and numbers, what of the held figure is left; or why it cannot be.

    `left` is target less made, never below 0; for reps it is the sum, and `left_reps` has each movement's.
    `losses`: what could not be carried over as it stood. `causes`: all that is in the way, where something is.
    """

    key: str
    params: FormatParams | None = None
    entries: tuple[BlockOrSection, ...] = ()
    made: float = 0.0
    left: float = 0.0
    left_reps: Mapping[str, int] = field(default_factory=dict)
    losses: tuple[str, ...] = ()
    causes: tuple[Cause, ...] = ()

    @property
    def why(self) -> str | None:
        """Why it cannot be, in words; None where it can."""
        return "; ".join(one.text for one in self.causes) or None


class _Found(NamedTuple):
    params: FormatParams
    entries: list[BlockOrSection]
    made: float
    left: float
    left_reps: Mapping[str, int]
    rounds: int | None


class Recaster:
    """Pours one lot of ingredients into formats, with one thing held still.

    `plan`: the tape of the plan alone, where there is one. `lifted`: measures whose bounds are not looked at.
    """

    def __init__(
        self,
        ingredients: Ingredients,
        held: Held,
        *,
        library: Library,
        methods: Methods = DEFAULT_METHODS,
        plan: Tape | None = None,
        lifted: frozenset[str] = frozenset(),
    ) -> None:
        self._of = ingredients
        self._held = held
        self._places = AxisEvaluator(ingredients, held, library, methods, plan, lifted)
        self._rate: float | None = None

    def into(self, chosen: AnyFormat, own: FormatParams | None = None) -> Recast:
        """The closest there is in a format that is not over what is held, within the bounds of its use.

        `own`: the coach's own numbers (a shape's), of which only the free one is turned. Never raises for what a
        format cannot hold: then `causes` says why. Deterministic.
        """
        key = chosen.key
        is_plan = self._of.own.get(key)
        if is_plan is not None and own is None:
            if self._held.plans:
                entries = plan_alone(self._of.plan)
                return Recast(key, is_plan.params, tuple(entries), self._held.amount)
            own = is_plan.params
        causes = self._never(chosen, own or chosen.defaults(), is_plan=is_plan is not None)
        if causes:
            return Recast(key, causes=causes)
        hints = PlanHints(self._of.hints.rounds, self._of.hints.work_s, self._of.hints.rest_s, own)
        return self._searched(chosen, chosen.search(len(self._of.steps), hints), own or chosen.defaults())

    def _searched(self, chosen: AnyFormat, axes: Sequence[Axis], base: FormatParams) -> Recast:
        best: _Found | None = None
        self._rate = None
        failures: list[tuple[Cause, ...]] = []
        for number, axis in enumerate(axes):
            try:
                found = self._along(chosen, axis, base)
            except FormatRefusedError as never:
                return Recast(chosen.key, causes=never.causes)
            except AxisError as no:
                failures.append(no.causes)
                continue
            if best is None or self._better(found, best):
                best = found
            if best.left <= TIME_EPS_S:
                best = self._in_own_rounds(chosen, axes[number + 1 :], base, best)
                break
        if best is None:
            return Recast(
                chosen.key, causes=nearest(failures) or (Cause("cannot", f"{chosen.name} has no numbers for this"),)
            )
        share = best.left / self._held.amount if self._held.amount else 0.0
        bound = self._bound_of_left(chosen)
        if bound is not None and bound.high is not None and share > bound.high + TIME_EPS_S:
            return Recast(chosen.key, causes=(self._too_little(best, bound),))
        losses = not_carried(self._of, chosen, best.params)
        return Recast(
            chosen.key, best.params, tuple(best.entries), best.made, best.left, best.left_reps, losses
        )  # fmt: skip

    def _in_own_rounds(self, chosen: AnyFormat, axes: Sequence[Axis], base: FormatParams, best: _Found) -> _Found:
        """Nothing is left over: then the plan's own rounds, where they leave nothing either."""
        own = self._of.hints.rounds
        if own is None or best.rounds in (None, own):
            return best
        for axis in axes:
            for place in [[values] for values in axis if rounds_at(values) == own]:
                try:
                    found = self._along(chosen, place, base)
                except AxisError:
                    continue
                if found.left <= TIME_EPS_S:
                    return found
        return best

    def _better(self, one: _Found, other: _Found) -> bool:
        """Less left over; of equals the plan's own rounds."""
        if abs(one.left - other.left) > TIME_EPS_S:
            return one.left < other.left
        own = self._of.hints.rounds
        return own is not None and one.rounds == own and other.rounds != own

    def _bound_of_left(self, chosen: AnyFormat) -> Bound | None:
        return next((bound for bound in self._places.bounds(chosen) if bound.measure == "left"), None)

    def _never(self, chosen: AnyFormat, params: FormatParams, *, is_plan: bool) -> tuple[Cause, ...]:
        """What is in the way whatever the numbers."""
        causes: list[Cause] = []
        count = chosen.refused(len(self._of.steps))
        if count is not None:
            causes.append(Cause("count", count))
        heavy = self._of.heavy
        if heavy and not chosen.keeps_sets:
            names = ", ".join(map(self._places.name, heavy))
            text = f"heavy sets of {names} need sets and rests, which {chosen.name} does not keep"
            causes.append(Cause("heavy", text, None, tuple(heavy)))
        # What the plan is already, the coach has meant so.
        hard = self._hard(ends_of(chosen, params)) if chosen.no_rest and not is_plan else []
        if hard:
            names = ", ".join(map(self._places.name, hard))
            text = f"{chosen.name} has no rest: {names} would have to be easy or steady, or a hold"
            causes.append(Cause("too-hard", text, None, tuple(hard)))
        if self._held.what == "reps":
            causes += self._no_reps(chosen, params)
        return tuple(causes)

    def _hard(self, ends: TurnEnd) -> list[str]:
        """Movements that are done hard (as the main part is where nothing else is said) and are no holds."""
        of = self._of
        usual = "easy" if of.words.get("part") in ("warm-up", "cool-down") else "hard"
        word = of.words.get("effort") if of.words_end in (None, ends) else None
        found = []
        for step, was in zip(of.steps, of.ends, strict=True):
            effort = (step.effort if was in (None, ends) else None) or word or usual
            if effort in ("hard", "all-out") and not self._places.is_hold(step.movement):
                found.append(step.movement)
        return found

    def _no_reps(self, chosen: AnyFormat, params: FormatParams) -> list[Cause]:
        if not self._held.reps:
            return [Cause("no-reps", "the plan calls no reps, so there are none to hold still")]
        are = chosen.rep_origin(params)
        if are == "guessed":
            return [Cause("no-reps", f"{chosen.name} calls no reps: its windows hold as many as they hold")]
        if are == "paced":
            return [Cause("no-reps", f"{chosen.name} calls no reps: the clock ends it, they are paced")]
        return []

    def _along(self, chosen: AnyFormat, axis: Axis, base: FormatParams) -> _Found:
        if not axis:
            raise AxisError(Cause("cannot", f"{chosen.name} has no numbers for so many movements"))
        if self._held.what == "reps" and chosen.dose in ("reps", "any"):
            # Only rounds share reps out; whatever else is free has nothing to do with them.
            turns = "rounds" in axis[0] or "sets" in axis[0]
            return self._shared_out(chosen, axis if turns else axis[:1], base)
        at = functools.cache(lambda index: self._places.at(chosen, axis[index], base))
        sizes = [magnitude(values) for values in axis]
        index = last_within(lambda i: at(i).value, sizes, self._target, self._rate)
        point = at(max(index, 0))
        if point.causes:
            raise AxisError(*point.causes)
        if index < 0:
            raise AxisError(self._too_much(point))
        # The next axis of a format grows about as this one did.
        self._rate = point.value / sizes[index] if sizes[index] else None
        self._long_enough(point)
        return self._found(point, axis[index])

    def _long_enough(self, point: AxisPoint) -> None:
        """Refuse what is too short: a bound that asks for more, or a movement that is never reached."""
        causes = list(point.short)
        reached = {done.step.key for done in point.tape.visits if done.seconds > TIME_EPS_S}
        missed = [step.movement for step in self._of.steps if step.movement not in reached]
        if missed:
            text = f"it would be over before {self._places.name(missed[0])} is reached"
            causes.append(Cause("reach", text, None, tuple(missed)))
        if causes:
            raise AxisError(*causes)

    def _found(self, point: AxisPoint, values: ParamValues) -> _Found:
        rounds = rounds_at(values)
        if self._held.what != "reps":
            left = max(0.0, self._target - point.value)
            return _Found(point.params, point.entries, point.value, left, {}, rounds)
        called = called_by_movement(point.tape)
        left_reps = {key: reps - called.get(key, 0) for key, reps in self._held.reps.items()}
        over = float(sum(left_reps.values()))
        return _Found(point.params, point.entries, self._held.amount - over, over, left_reps, rounds)

    @property
    def _target(self) -> float:
        # Reps are measured by the movement that is nearest to going over: at 1 it has all of them.
        return 1.0 if self._held.what == "reps" else float(self._held.target or 0)

    def _shared_out(self, chosen: AnyFormat, axis: Axis, base: FormatParams) -> _Found:
        """Reps that are to come to given sums, shared out among rounds.

        The rounds that leave fewest over; of equals the plan's own, then those nearest to them.
        """
        if "reps" in type(base).model_fields:
            base = base.model_copy(update={"reps": None})
        line = [dose_values(values)[0] for values in axis]
        first = self._places.at(chosen, line[0], base, self._dosed({}))
        turns = [rounds_at(values) or 1 for values in line]
        once = {key: called / turns[0] for key, called in called_by_movement(first.tape).items()}
        held = {key: reps for key, reps in self._held.reps.items() if once.get(key)}
        hints = self._of.hints.rounds or turns[0]
        options: list[tuple[int, int, int, dict[str, int]]] = []
        to_failure = self._to_failure()
        for index, rounds in enumerate(turns):
            doses = {key: int(reps // (once[key] * rounds)) for key, reps in held.items()}
            if not doses or any(dose < to_failure.get(key, 1) for key, dose in doses.items()):
                break
            # A set to failure is as long as it is: only their number can be shared out.
            doses.update({key: reps for key, reps in to_failure.items() if key in doses})
            left = sum(reps - round(doses[key] * once[key] * rounds) for key, reps in held.items())
            options.append((left, abs(rounds - hints), index, doses))
        failures: list[tuple[Cause, ...]] = []
        for _, _, index, shared in sorted(options, key=lambda option: option[:3]):
            point = self._places.at(chosen, line[index], base, self._dosed(shared))
            if point.causes:
                failures.append(point.causes)
                continue
            try:
                self._long_enough(point)
            except AxisError as no:
                failures.append(no.causes)
                continue
            return self._found(point, line[index])
        raise AxisError(*(nearest(failures) or (Cause("few-reps", "there are fewer reps than visits"),)))

    def _dosed(self, reps: Mapping[str, int]) -> list[StepDose]:
        """Each step's dose with its reps replaced (by one, where none are given); time and sets to failure stay."""
        return [
            {"reps": reps.get(step.movement, 1)}
            if step.movement in self._held.reps and not (reps and isinstance(dose.get("reps"), ToFailure))
            else dose
            for step, dose in zip(self._of.steps, self._of.doses, strict=True)
        ]

    def _to_failure(self) -> dict[str, int]:
        """Movements whose sets go to failure, with the reps that a set is figured at."""
        doses = {step.movement: dose.get("reps") for step, dose in zip(self._of.steps, self._of.doses, strict=True)}
        return {key: reps.plan or FAILURE_PLAN for key, reps in doses.items() if isinstance(reps, ToFailure)}

    def _too_much(self, point: AxisPoint) -> Cause:
        """Why even the least there is goes over what is held."""
        target = self._target
        off = point.value / target if target else OVER
        if self._held.what == "reps":
            called = called_by_movement(point.tape)
            key = max(called, key=lambda one: called[one] / self._held.reps[one])
            name, held = self._places.name(key), self._held.reps[key]
            text = f"the least it calls is {called[key]} × {name}; {held} are to be held"
            return Cause("least", text, None, (key,), off)
        return Cause(
            "least",
            f"the least it comes to is {self._said(point.value)}; {self._said(target)} is to be held",
            weight=off,
        )

    def _too_little(self, best: _Found, bound: Bound) -> Cause:
        """Why the most there is leaves too much over."""
        if self._held.what == "reps":
            text = f"the most it calls is {best.made:.0f} of {self._held.amount:.0f} reps"
        else:
            text = f"the most it comes to is {self._said(best.made)} of {self._said(self._target)}"
        return Cause("left", f"{text} ({bound.why})", "left")

    def _said(self, value: float) -> str:
        return f"a load of {value:.0f}" if self._held.what == "load" else clock_text(value)
