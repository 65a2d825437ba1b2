"""Recast: the same ingredients poured into named formats, with one thing held still (docs/formats.md)."""

from __future__ import annotations

import bisect
import functools
import math
from collections.abc import Callable, Mapping, Sequence
from dataclasses import dataclass, field
from typing import Any, Literal

from finetally.core.compare.ingredients import DOSES, Ingredients, alone
from finetally.core.formats.lanes import DOSE_FACTOR, size_of
from finetally.core.formats.remake import without_twins
from finetally.core.formats.shape import CannotMakeError, Entry, Format, Lane, Params, Steps
from finetally.core.formats.table import BY_KEY, make
from finetally.core.methods.value import DEFAULT_METHODS, Methods
from finetally.core.movements.library import Library
from finetally.core.session.entries import blocks_in
from finetally.core.session.movement import MovementDef
from finetally.core.session.problems import DocumentError, refuse
from finetally.core.session.reading import parse_session
from finetally.core.tally.measure import Tally, tally
from finetally.core.unfold.pace import EPS
from finetally.core.unfold.tape import Tape
from finetally.core.unfold.unfold import unfold

Hold = Literal["total", "work", "reps", "load"]
OVER = math.inf
OF_EVERY_BLOCK = ("part", "effort", "rest_as")
"""Words that go on every block where a format makes several; the others go on the first."""


@dataclass(frozen=True, slots=True)
class Held:
    """What is held still: seconds, or load; or reps called by movement (`reps`). `target` is None for reps."""

    what: Hold
    target: float | None = None
    reps: Mapping[str, int] = field(default_factory=dict)


@dataclass(frozen=True, slots=True)
class Recast:
    """Ingredients in one format: its entries and numbers, what of the held figure is left; or `why` it cannot be.

    `left` is target less made, never below 0; for reps it is the sum, and `left_reps` has each movement's.
    """

    key: str
    params: Params = field(default_factory=dict)
    entries: tuple[Entry, ...] = ()
    made: float = 0.0
    left: float = 0.0
    left_reps: Mapping[str, int] = field(default_factory=dict)
    why: str | None = None


class _NotThisWayError(Exception):
    """A lane (or the format) cannot do it: why."""


def held_of(t: Tally, what: Hold) -> Held:
    """The plan's own figure, held still. `t` is the tally of the plan's blocks alone."""
    if what == "reps":
        return Held("reps", None, {key: one["called"] for key, one in t.reps.movements.items() if one["called"]})
    return Held(what, {"total": t.whole.total, "work": t.whole.work, "load": t.load}[what])


def recast(
    ingredients: Ingredients,
    key: str,
    held: Held,
    *,
    library: Library,
    methods: Methods = DEFAULT_METHODS,
    own: Params | None = None,
) -> Recast:
    """Pour ingredients into format `key` and turn its free numbers until the held figure is closest, not over it.

    `own`: numbers that are not free, where the coach has set them (default: the format's). Never raises for what
    a format cannot hold: then `why` says so. Raises KeyError for a format that there is not. Deterministic.
    """
    return _Pourer(ingredients, BY_KEY[key], held, library, methods, own or {}).go()


def poured(
    ingredients: Ingredients, chosen: Format, params: Params, doses: Sequence[Mapping[str, Any]]
) -> list[Entry]:
    """The entries of a format at given numbers. Raises CannotMakeError where it cannot hold them."""
    factor = params.get(DOSE_FACTOR, 1)
    takes = chosen.dose in ("reps", "any")
    steps: Steps = [
        {**step, **({name: _times(value, factor) for name, value in dose.items()} if takes else {})}
        for step, dose in zip(ingredients.steps, doses, strict=True)
    ]
    entries = make(chosen.key, steps, {name: value for name, value in params.items() if name != DOSE_FACTOR})
    blocks = [block for entry in entries for block in blocks_in(entry)]
    if chosen.dose == "any" and blocks[0]["clock"]["kind"] == "intervals":
        # A movement pyramid runs on either clock: where windows are set, doses go.
        for step in blocks[0]["steps"]:
            for name in DOSES:
                step.pop(name, None)
    # What stands alone ends with its work: a rest after it belongs to what comes next.
    blocks[-1].pop("rest_after_s", None)
    for index, block in enumerate(blocks):
        block.update({w: v for w, v in ingredients.words.items() if w in OF_EVERY_BLOCK or index == 0})
    return without_twins(entries)


def _times(value: Any, factor: float) -> Any:
    if factor == 1:
        return value
    if isinstance(value, dict):
        return {k: _times(v, factor) if isinstance(v, int | float) else v for k, v in value.items()}
    return max(1, math.floor(value * factor + 1e-9))


@dataclass(slots=True)
class _Found:
    params: Params
    entries: list[Entry]
    made: float
    left: float
    left_reps: Mapping[str, int]


class _Pourer:
    def __init__(
        self, ingredients: Ingredients, chosen: Format, held: Held, library: Library, methods: Methods, own: Params
    ) -> None:
        self._of = ingredients
        self._format = chosen
        self._held = held
        self._library = library
        self._named = library.with_definitions(_definitions(ingredients))
        self._methods = methods
        self._own = own

    def go(self) -> Recast:
        key = self._format.key
        why = self._format.hold(self._of.steps) or self._cannot_count()
        if why is not None:
            return Recast(key, why=why)
        reasons: list[str] = []
        for tier in self._format.free(len(self._of.steps)):
            best: _Found | None = None
            for lane in tier:
                if best is not None and best.left <= EPS:
                    break
                try:
                    found = self._best_of(lane)
                except (_NotThisWayError, CannotMakeError) as no:
                    reasons.append(str(no))
                    continue
                except DocumentError as error:
                    reasons.append(self._refusal(error))
                    continue
                if best is None or found.left < best.left - EPS:
                    best = found
            if best is not None:
                return Recast(key, best.params, tuple(best.entries), best.made, best.left, best.left_reps)
        return Recast(key, why=reasons[0] if reasons else f"{self._format.name} has nothing to turn")

    def _cannot_count(self) -> str | None:
        if self._held.what != "reps":
            return None
        if not self._held.reps:
            return "the plan calls no reps, so there are none to hold still"
        if self._format.dose == "window" or self._clock() == "intervals":
            return f"{self._format.name} calls no reps: its windows hold as many as they hold"
        if self._clock() == "amrap":
            return f"{self._format.name} calls no reps: the clock ends it, they are paced"
        return None

    def _clock(self) -> str:
        """The clock that the format's work runs on, told by what it makes."""
        try:
            entries = self._entries(self._format.free(len(self._of.steps))[0][0][0], self._of.doses)
        except CannotMakeError:
            return ""
        block = entries[0]["blocks"][0] if "section" in entries[0] else entries[0]
        clock: dict[str, Any] = block["clock"]
        return str(clock["inner"]["kind"] if clock["kind"] == "rotation" else clock["kind"])

    def _entries(self, free: Params, doses: Sequence[Mapping[str, Any]]) -> list[Entry]:
        return poured(self._of, self._format, {**self._own, **free}, doses)

    def _best_of(self, lane: Lane) -> _Found:
        if self._held.what == "reps" and self._format.dose in ("reps", "any"):
            # Only rounds share reps out; whatever else is free has nothing to do with them.
            return self._shared_out(lane if "rounds" in lane[0] else lane[:1])
        at = functools.cache(lambda index: self._value(lane[index]))
        low, tape = at(0)
        if low == OVER:
            raise _NotThisWayError(self._over(tape))
        if low > self._target + EPS:
            raise _NotThisWayError(self._too_much(tape, low))
        index = last_within(lambda i: at(i)[0], [size_of(free) for free in lane], self._target)
        made, tape = at(index)
        if index + 1 < len(lane) and at(index + 1)[0] == OVER:
            raise _NotThisWayError(self._over(at(index + 1)[1]))
        reached = {done.step.key for done in tape.visits if done.seconds > EPS}
        missed = [step["movement"] for step in self._of.steps if step["movement"] not in reached]
        if missed:
            raise _NotThisWayError(f"it would be over before {self._name(missed[0])} is reached")
        entries = self._entries(lane[index], self._of.doses)
        if self._held.what == "reps":
            return self._found(lane[index], entries, tape)
        return _Found(lane[index], entries, made, max(0.0, self._target - made), {})

    def _found(self, free: Params, entries: list[Entry], tape: Tape) -> _Found:
        """What is left of reps that are held."""
        called = called_by_movement(tape)
        left = {key: reps - called.get(key, 0) for key, reps in self._held.reps.items()}
        over = float(sum(left.values()))
        return _Found(free, entries, float(sum(self._held.reps.values())) - over, over, left)

    @property
    def _target(self) -> float:
        # Reps are measured by the movement that is nearest to going over: at 1 it has all of them.
        return 1.0 if self._held.what == "reps" else float(self._held.target or 0)

    def _value(self, free: Params) -> tuple[float, Tape]:
        """The held figure at some numbers (OVER where a start cannot hold its doses), and the tape."""
        entries = self._entries(free, self._of.doses)
        if self._held.what == "load":
            session = parse_session(alone(entries, self._of.definitions))
            t = tally(session, library=self._library, methods=self._methods)
            self._refuse_guesses(t.tape)
            return (OVER if t.tape.overflows else t.load), t.tape
        tape = self._tape(entries)
        if tape.overflows:
            return OVER, tape
        if self._held.what == "total":
            return tape.total_s, tape
        if self._held.what == "work":
            return sum(done.seconds for done in tape.visits), tape
        return max((self._share(key, n) for key, n in called_by_movement(tape).items()), default=0.0), tape

    def _share(self, key: str, called: int) -> float:
        """Reps of a movement as a share of those held; OVER for one that the plan calls none of."""
        return called / self._held.reps[key] if self._held.reps.get(key) else OVER

    def _shared_out(self, lane: Lane) -> _Found:
        """Reps that are to come to given sums, shared out among rounds.

        The rounds that leave fewest over; of equals those nearest to the plan's own, else to the usual ones.
        """
        lane = [{name: value for name, value in free.items() if name != DOSE_FACTOR} for free in lane]
        once = called_by_movement(self._tape(self._entries(lane[0], self._dosed({}))))
        held = {key: reps for key, reps in self._held.reps.items() if once.get(key)}
        usual = {**self._format.defaults(), **self._own}.get("rounds")
        near = usual if isinstance(usual, int) else 1
        options: list[tuple[int, int, int, dict[str, int]]] = []
        for index in range(len(lane)):
            visits = index + 1
            doses = {key: reps // (once[key] * visits) for key, reps in held.items()}
            if not doses or min(doses.values()) < 1:
                break
            left = sum(reps - doses[key] * once[key] * visits for key, reps in held.items())
            options.append((left, abs(visits - near), index, doses))
        for _, _, index, shared in sorted(options, key=lambda option: option[:3]):
            entries = self._entries(lane[index], self._dosed(shared))
            tape = self._tape(entries)
            if not tape.overflows:
                return self._found(lane[index], entries, tape)
        raise _NotThisWayError(
            "the reps do not fit into its starts" if options else "there are fewer reps than visits"
        )

    def _tape(self, entries: Sequence[Entry]) -> Tape:
        session = parse_session(alone(entries, self._of.definitions))
        tape = unfold(session, library=self._library, methods=self._methods)
        self._refuse_guesses(tape)
        return tape

    def _refuse_guesses(self, tape: Tape) -> None:
        """A guessed pace is good enough for what the coach counts herself, not for what a format would count."""
        for done in tape.visits:
            if "reps" in done.step.guessed and done.step.key not in self._held.reps:
                raise refuse((*done.step.path, "reps"), "reps", "a movement with a pace", "no_pace")

    def _dosed(self, reps: Mapping[str, int]) -> list[Mapping[str, Any]]:
        """Each step's dose with its reps replaced (by one, where none are given); time stays."""
        return [
            {"reps": reps.get(step["movement"], 1)} if step["movement"] in self._held.reps else dose
            for step, dose in zip(self._of.steps, self._of.doses, strict=True)
        ]

    def _refusal(self, error: DocumentError) -> str:
        problem = error.problems[0]
        if problem.code == "no_pace":
            unpaced = [
                s["movement"] for s in self._of.steps if (m := self._named.get(s["movement"])) and not m.pace_s
            ]
            return f"{', '.join(map(self._name, unpaced))} cannot be counted in reps: no pace is known"
        return problem.text

    def _name(self, key: str) -> str:
        movement = self._named.get(key)
        return movement.name if movement is not None and movement.name else key

    def _over(self, tape: Tape) -> str:
        """Why a tape has no value: a start is too short for its doses, or it calls reps that the plan does not."""
        if tape.overflows:
            return _overflow(tape)
        uncalled = next(key for key in called_by_movement(tape) if not self._held.reps.get(key))
        return f"the plan calls no reps of {self._name(uncalled)}, and {self._format.name} would"

    def _too_much(self, tape: Tape, least: float) -> str:
        target = self._target
        if self._held.what == "reps":
            called = called_by_movement(tape)
            key = max(called, key=lambda one: self._share(one, called[one]))
            held = self._held.reps.get(key, 0)
            return f"the least it calls is {called[key]} × {self._name(key)}; {held} are to be held"
        if self._held.what == "load":
            return f"the least it comes to is a load of {least:.0f}; {target:.0f} is to be held"
        return f"the least it comes to is {_clock(least)}; {_clock(target)} is to be held"


def _definitions(ingredients: Ingredients) -> list[MovementDef] | None:
    if not ingredients.definitions:
        return None
    blank = {"clock": {"kind": "intervals", "work_s": 20}, "steps": list(ingredients.steps)}
    return parse_session(alone([blank], ingredients.definitions)).movements


def last_within(value: Callable[[int], float], sizes: Sequence[float], target: float) -> int:
    """The last place whose value is not over `target`; the first one is not. Values only grow, about as `sizes` do.

    Guesses along the line through what is known, halves where the line misleads: a few values where there are
    hundreds of places, and the same answer as trying every one.
    """
    low, high = 0, len(sizes)
    at_low, at_high = value(0), OVER
    below = (0.0, 0.0)
    tries = 0
    while high - low > 1:
        tries += 1
        known = (sizes[low], at_low)
        other = (sizes[high], at_high) if at_high < OVER else below
        guess = (low + high) // 2 if tries % 5 == 0 else _along_line(known, other, target, sizes)
        guess = min(high - 1, max(low + 1, guess))
        found = value(guess)
        if found <= target + EPS:
            below, low, at_low = known, guess, found
        else:
            high, at_high = guess, found
    return low


def _along_line(one: tuple[float, float], other: tuple[float, float], target: float, sizes: Sequence[float]) -> int:
    """The last place that the line through two known ones (size and value) keeps within the target."""
    rise = (other[1] - one[1]) / (other[0] - one[0]) if other[0] != one[0] else 0.0
    if rise <= 0:
        return 0
    return bisect.bisect_right(sizes, one[0] + (target - one[1]) / rise + EPS) - 1


def _overflow(tape: Tape) -> str:
    worst = max(tape.overflows, key=lambda one: one.needed_s)
    return f"a start would ask for {math.ceil(worst.needed_s)} s and has {worst.period_s:g} s"


def _clock(seconds: float) -> str:
    return f"{round(seconds) // 60}:{round(seconds) % 60:02d}"


def called_by_movement(tape: Tape) -> dict[str, int]:
    """Reps called, by movement."""
    called: dict[str, int] = {}
    for done in tape.visits:
        if done.called:
            called[done.step.key] = called.get(done.step.key, 0) + done.called
    return called
