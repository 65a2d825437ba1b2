"""A place of a search axis: the blocks there, the held figure they come to, and all that is in their way."""

from __future__ import annotations

from collections.abc import Sequence
from typing import NamedTuple

from finetally.core.compare.bounds_kept import TapeMeasurer
from finetally.core.compare.held import Held, called_by_movement
from finetally.core.compare.ingredients import Ingredients, StepDose
from finetally.core.compare.pouring import dose_values, pour_into
from finetally.core.compare.refusal import Cause, of_breach
from finetally.core.compare.search import OVER
from finetally.core.formats.axes import ParamValues
from finetally.core.formats.bounds import Bound
from finetally.core.formats.format import AnyFormat
from finetally.core.formats.params import CannotMakeError, FormatParams
from finetally.core.methods.value import Methods
from finetally.core.movements.library import Library
from finetally.core.session.clocks import Task
from finetally.core.session.document import BlockOrSection
from finetally.core.session.parts import session_of
from finetally.core.session.problems import DocumentError
from finetally.core.tally.measure import tally
from finetally.core.unfold.tape import Tape
from finetally.core.unfold.unfold import unfold


class AxisPoint(NamedTuple):
    """A place of an axis: the held figure there (OVER where it cannot be), and all that was found out."""

    value: float
    causes: tuple[Cause, ...]
    params: FormatParams
    entries: list[BlockOrSection]
    tape: Tape
    short: tuple[Cause, ...]


class AxisError(Exception):
    """An axis cannot do it."""

    def __init__(self, *causes: Cause) -> None:
        super().__init__()
        self.causes = causes


class FormatRefusedError(AxisError):
    """No axis of the format can."""


class AxisEvaluator:
    """Looks at places of formats' axes, for one lot of ingredients with one thing held still.

    `plan`: the tape of the plan alone, where there is one. `lifted`: measures whose bounds are not looked at.
    """

    def __init__(
        self,
        ingredients: Ingredients,
        held: Held,
        library: Library,
        methods: Methods,
        plan: Tape | None,
        lifted: frozenset[str],
    ) -> None:
        self._of = ingredients
        self._held = held
        self._library = library
        self._named = library.with_definitions(list(ingredients.definitions) or None)
        self._methods = methods
        self._measurer = TapeMeasurer(ingredients, methods, plan)
        self._lifted = lifted

    def bounds(self, chosen: AnyFormat) -> list[Bound]:
        """The bounds that a format is held to."""
        return [bound for bound in chosen.usual if bound.measure not in self._lifted]

    def name(self, key: str) -> str:
        """A movement's name by its key."""
        movement = self._named.get(key)
        return movement.name if movement is not None and movement.name else key.replace("-", " ")

    def is_hold(self, key: str) -> bool:
        """Whether a movement is held, or is mobility: such may go on without a rest."""
        movement = self._named.get(key)
        if movement is None:
            return False
        return set(movement.patterns) == {"mobility"} or (movement.pace_s is None and movement.speed_mps is None)

    def at(
        self,
        chosen: AnyFormat,
        values: ParamValues,
        base: FormatParams,
        doses: Sequence[StepDose] | None = None,
    ) -> AxisPoint:
        """A place of an axis. Raises AxisError for what cannot be made or laid out at all."""
        named, factor = dose_values(values)
        params = base.model_copy(update=named)
        try:
            entries = pour_into(self._of, chosen, params, self._of.doses if doses is None else doses, factor)
            tape, load = self._laid_out(entries)
        except CannotMakeError as no:
            raise AxisError(Cause("cannot", str(no))) from None
        except DocumentError as error:
            raise AxisError(Cause("cannot", error.problems[0].text)) from None
        self._refuse_uncountable(chosen, params, tape)
        value, causes = self._held_value(tape, load)
        breaches = self._measurer.breaches(self.bounds(chosen), tape)
        causes += [of_breach(one, self.name) for one in breaches if one.over]
        if _is_capped(tape):
            causes.append(Cause("cap", f"the cap would end {chosen.name.lower()} before it is done"))
        short = tuple(of_breach(one, self.name) for one in breaches if not one.over)
        return AxisPoint(OVER if causes else value, tuple(causes), params, entries, tape, short)

    def _laid_out(self, entries: Sequence[BlockOrSection]) -> tuple[Tape, float]:
        session = session_of(entries, self._of.definitions, stands_alone=True)
        if self._held.what == "load":
            t = tally(session, library=self._library, methods=self._methods)
            return t.tape, t.load
        return unfold(session, library=self._library, methods=self._methods), 0.0

    def _refuse_uncountable(self, chosen: AnyFormat, params: FormatParams, tape: Tape) -> None:
        """Refuse reps that a format would count (or the clock) and that nobody can: at whatever numbers."""
        if chosen.dose == "made" or chosen.rep_origin(params) == "paced":
            # A guessed pace is good enough for what the coach counts herself.
            keys = dict.fromkeys(visit.step.key for visit in tape.visits if "reps" in visit.step.guessed)
            guessed = [key for key in keys if key not in self._held.reps]
            if guessed:
                text = f"{', '.join(map(self.name, guessed))} cannot be counted in reps: no pace is known"
                raise FormatRefusedError(Cause("no-pace", text, None, tuple(guessed)))
        if self._held.what == "reps":
            uncalled = [key for key in called_by_movement(tape) if not self._held.reps.get(key)]
            if uncalled:
                text = f"the plan calls no reps of {self.name(uncalled[0])}, and {chosen.name} would"
                raise FormatRefusedError(Cause("uncalled", text, None, tuple(uncalled)))

    def _held_value(self, tape: Tape, load: float) -> tuple[float, list[Cause]]:
        causes: list[Cause] = []
        if tape.overflows:
            worst = max(tape.overflows, key=lambda one: one.needed_s / one.period_s)
            text = f"a start would ask for {worst.needed_s:.0f} s and has {worst.period_s:g} s"
            causes.append(Cause("overflow", text, weight=worst.needed_s / worst.period_s))
        if self._held.what == "total":
            return tape.total_s, causes
        if self._held.what == "work":
            return sum(visit.seconds for visit in tape.visits), causes
        if self._held.what == "load":
            return load, causes
        shares = (n / self._held.reps[key] for key, n in called_by_movement(tape).items())
        return max(shares, default=0.0), causes


def _is_capped(tape: Tape) -> bool:
    """Whether a cap cuts anything off."""
    capped = {
        n
        for n, of in enumerate(tape.blocks)
        if isinstance(of.block.clock, Task) and of.block.clock.cap_s is not None
    }
    return bool(capped) and any(segment.ends == "cap" and segment.block in capped for segment in tape.segments)
