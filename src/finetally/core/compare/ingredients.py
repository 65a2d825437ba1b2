"""What a block comes down to before it is recast: movements with loads, sides and pace, and how hard."""

from __future__ import annotations

import math
from collections.abc import Mapping, Sequence
from dataclasses import dataclass, field
from typing import Literal

from finetally.core.formats.axes import NO_HINTS, PlanHints
from finetally.core.formats.doses import usual_dose
from finetally.core.formats.names import claimed
from finetally.core.formats.table import Recognised, recognise
from finetally.core.methods.one_rep_max import possible_reps
from finetally.core.methods.value import Methods
from finetally.core.movements.library import Library
from finetally.core.session.clocks import Intervals
from finetally.core.session.document import Block, BlockOrSection
from finetally.core.session.movement import MovementDef
from finetally.core.session.parts import blocks_of_entry, changed, set_values, steps_of_entry, without, work_clock
from finetally.core.session.rules import DOSE_KEYS
from finetally.core.session.step import Load, Step
from finetally.core.session.values import FieldValue, ToFailure
from finetally.core.tally.measure import Tally

KEPT_WORDS = ("part", "effort", "rest_as", "title", "notes", "talk_s", "optional", "calls")
"""Not among them: `rpe` and `on_purpose`, which were said of the old format."""
REPLACED_STEP_KEYS = (*DOSE_KEYS, "grow", "fill", "chain", "rest_s")
MAX_INGREDIENTS = 40
"""Movements that one comparison pours: more than any floor has stations for."""

StepDose = Mapping[str, FieldValue]
TurnEnd = Literal["windows", "reps"]
"""What ends a turn of a movement in the plan: a window, or its reps (metres, a hold) themselves."""


class NoIngredientsError(ValueError):
    """There is nothing to pour, or too much; says what."""


@dataclass(frozen=True)
class Ingredients:
    """Steps without doses, each one's usual dose, the coach's own words of the block, and what the plan already is.

    `ends`: what ends each step's turn in the plan (None where there is no plan), `words_end` that of the block
    whose words they are. `own`: the formats that the plan is. `losses`: what is not carried over as it stood.
    `people`: how many do it together, where that is known.
    """

    steps: tuple[Step, ...]
    doses: tuple[StepDose, ...]
    words: Mapping[str, FieldValue]
    definitions: tuple[MovementDef, ...] = ()
    ends: tuple[TurnEnd | None, ...] = ()
    words_end: TurnEnd | None = None
    hints: PlanHints = NO_HINTS
    own: Mapping[str, Recognised] = field(default_factory=dict)
    plan: tuple[BlockOrSection, ...] = ()
    losses: tuple[str, ...] = ()
    people: int | None = None

    @property
    def heavy(self) -> list[str]:
        """Movements whose sets are heavy: against a one-rep maximum, with a reserve, or to failure."""
        pairs = zip(self.steps, self.doses, strict=True)
        return list(dict.fromkeys(step.movement for step, dose in pairs if is_heavy(step, dose)))


def is_heavy(step: Step, dose: StepDose | None = None) -> bool:
    """Whether a set is heavy: against a one-rep maximum, with a reserve, or to failure."""
    loads = step.load if isinstance(step.load, list) else [step.load]
    reps = step.reps if dose is None else dose.get("reps")
    listed = reps if isinstance(reps, list) else [reps]
    return (
        step.reserve is not None
        or any(load is not None and load.pct_1rm is not None for load in loads)
        or any(isinstance(one, ToFailure) for one in listed)
    )


def of_entries(entries: Sequence[BlockOrSection], t: Tally, library: Library) -> Ingredients:
    """The ingredients of blocks as they stand; `t` is the tally of them alone.

    A step that stands in them several times is one ingredient; within a block, one that has another dose there is
    one of its own. Raises NoIngredientsError where there are none.
    """
    found: list[tuple[Step, StepDose, TurnEnd, int]] = []
    losses: list[str] = []
    blocks = [block for entry in entries for block in blocks_of_entry(entry)]
    for number, block in enumerate(blocks):
        ends: TurnEnd = "windows" if work_clock(block).windowed else "reps"
        for step in steps_of_entry(block):
            bare = without(step, *REPLACED_STEP_KEYS)
            if isinstance(bare.load, list):
                bare = changed(bare, load=bare.load[0])
                known_as = library.get(step.movement)
                name = (known_as and known_as.name) or step.movement.replace("-", " ")
                losses.append(f"{name}: its load changes from round to round; the first is used")
            dose = _dose(step, t, library)
            if not any(_same(bare, known) and (at != number or dose == of) for known, of, _, at in found):
                found.append((bare, dose, ends, number))
    first = blocks[0] if blocks else None
    return _checked(
        Ingredients(
            steps=tuple(one[0] for one in found),
            doses=tuple(one[1] for one in found),
            words={} if first is None else _words(first),
            definitions=tuple(t.session.movements or ()),
            ends=tuple(one[2] for one in found),
            words_end=None if first is None else ("windows" if work_clock(first).windowed else "reps"),
            hints=_near(entries),
            own={one.format.key: one for one in recognise(entries)},
            plan=tuple(entries),
            losses=tuple(dict.fromkeys(losses)),
        )
    )


def of_steps(
    steps: Sequence[Step], library: Library, methods: Methods, definitions: Sequence[MovementDef] = ()
) -> Ingredients:
    """Ingredients chosen fresh: steps with their doses, or with the doses that their movements usually get.

    A heavy set without one keeps two reps in reserve, by the school of `methods`.
    """
    full = library.with_definitions(list(definitions) or None)
    doses = tuple(
        {name: value for name, value in set_values(step, DOSE_KEYS).items() if not isinstance(value, list)}
        or (_heavy_dose(step, methods) if is_heavy(step) else usual_dose(step.movement, full))
        for step in steps
    )
    bare = tuple(_first_load(without(step, *REPLACED_STEP_KEYS)) for step in steps)
    made = Ingredients(bare, doses, {"part": "main"}, tuple(definitions), tuple(None for _ in steps))
    return _checked(made)


HEAVY_REPS, KEPT_IN_RESERVE = 5, 2
"""Reps of a heavy set where none are told; and how many of those that its load leaves possible are kept back."""


def _heavy_dose(step: Step, methods: Methods) -> StepDose:
    load = _first_load(step).load
    if isinstance(load, Load) and load.pct_1rm is not None:
        possible = math.floor(possible_reps(load.pct_1rm / 100, methods.one_rm)) - KEPT_IN_RESERVE
        return {"reps": max(1, min(2 * HEAVY_REPS, possible))}
    return {"reps": HEAVY_REPS}


def _first_load(step: Step) -> Step:
    return changed(step, load=step.load[0]) if isinstance(step.load, list) else step


def _checked(made: Ingredients) -> Ingredients:
    if not made.steps:
        raise NoIngredientsError("there are no movements to pour")
    if len(made.steps) > MAX_INGREDIENTS:
        raise NoIngredientsError(f"{len(made.steps)} movements; at most {MAX_INGREDIENTS} can be poured")
    return made


def _same(one: Step, other: Step) -> bool:
    return without(one, "id") == without(other, "id")


def _near(entries: Sequence[BlockOrSection]) -> PlanHints:
    """Rounds, window and rest of a plan of one block."""
    block = entries[0]
    if len(entries) != 1 or not isinstance(block, Block):
        return NO_HINTS
    lists = [step.reps for step in block.steps or () if isinstance(step.reps, list)]
    rounds = block.rounds if isinstance(block.rounds, int) else len(lists[0]) if lists else None
    clock = work_clock(block)
    work, rest = (clock.work_s, clock.rest_s) if isinstance(clock, Intervals) else (None, None)
    return PlanHints(
        rounds,
        work if isinstance(work, int | float) else None,
        rest if isinstance(rest, int | float) else None,
    )


def _dose(step: Step, t: Tally, library: Library) -> StepDose:
    """The dose of one visit: as written; for a list or a window what a visit held on the mean, in whole reps."""
    plain = {
        name: value
        for name, value in set_values(step, DOSE_KEYS).items()
        if value is not None and not isinstance(value, list)
    }
    if plain:
        return plain
    done = t.reps.movements.get(step.movement)
    if done is None or not done["visits"]:
        return usual_dose(step.movement, library)
    movement = t.library.get(step.movement)
    per_side = (step.sides or (movement.sides if movement else None)) == "each"
    reps = done["called"] + done["paced"] + done["estimated"]
    mean = reps / done["visits"] / (2 if per_side else 1)
    if mean >= 1:
        return {"reps": math.floor(mean + 1e-9)}
    if movement is not None and movement.pace_s:
        return {"reps": 1}
    return {"seconds": max(5, 5 * math.floor(done["work_s"] / done["visits"] / 5))}


def _words(block: Block) -> Mapping[str, FieldValue]:
    """The coach's own words of a block that hold in any format; a title that names the old one does not."""
    words = set_values(block, KEPT_WORDS)
    if claimed(str(words.get("title") or "")):
        del words["title"]
    return words


def loaded(load: Load | None) -> bool:
    """Whether anything is moved but the body."""
    return load is not None and bool(load.kg or load.pct_1rm or load.bodyweight)
