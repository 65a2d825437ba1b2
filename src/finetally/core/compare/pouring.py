"""Pouring: the blocks of a format at given numbers, and what of the ingredients it could not take along."""

from __future__ import annotations

import math
from collections.abc import Mapping, Sequence

from finetally.core.compare.ingredients import Ingredients, StepDose, TurnEnd
from finetally.core.formats.axes import DOSE_FACTOR, ParamValues, number_of
from finetally.core.formats.format import AnyFormat
from finetally.core.formats.params import FormatParams
from finetally.core.formats.remake import with_words, without_twins
from finetally.core.formats.table import make_of
from finetally.core.session.document import Block, BlockOrSection, Section
from finetally.core.session.parts import changed, without
from finetally.core.session.step import Step
from finetally.core.session.values import CountRange, FieldValue

OF_EVERY_BLOCK = ("part", "effort", "rest_as")
"""Words that go on every block where a format makes several; the others go on the first."""

ENDS_IN_WORDS = {"windows": "windows", "reps": "paced reps"}


def pour_into(
    of: Ingredients, chosen: AnyFormat, params: FormatParams, doses: Sequence[StepDose], factor: float = 1
) -> list[BlockOrSection]:
    """The entries of a format at given numbers; doses are taken `factor` times. Raises CannotMakeError."""
    takes = chosen.dose in ("reps", "any") and chosen.rep_origin(params) != "guessed"
    ends = ends_of(chosen, params)
    steps = [
        _carried(changed(step, **_times(dose, factor)) if takes else step, chosen, was, ends)
        for step, dose, was in zip(of.steps, doses, of.ends, strict=True)
    ]
    words = {name: value for name, value in of.words.items() if name != "effort" or _holds(of.words_end, ends)}
    entries = _without_last_rest(make_of(chosen, steps, params))
    everywhere = {name: value for name, value in words.items() if name in OF_EVERY_BLOCK}
    entries = [
        with_words(_on_every_block(entry, everywhere), words if at == 0 else {}) for at, entry in enumerate(entries)
    ]
    return without_twins(entries)


def ends_of(chosen: AnyFormat, params: FormatParams) -> TurnEnd:
    """What ends a turn of a movement in a format."""
    return "windows" if chosen.rep_origin(params) == "guessed" else "reps"


def _holds(was: TurnEnd | None, ends: TurnEnd) -> bool:
    """Whether an effort word holds: said of windows it means a pace that paced reps do not have."""
    return was is None or was == ends


def _carried(step: Step, chosen: AnyFormat, was: TurnEnd | None, ends: TurnEnd) -> Step:
    if step.effort is not None and not _holds(was, ends):
        step = without(step, "effort")
    return without(step, "tempo") if chosen.raced else step


def not_carried(of: Ingredients, chosen: AnyFormat, params: FormatParams) -> tuple[str, ...]:
    """What could not be taken along, in words: loads by round, effort words, tempo."""
    told = list(of.losses)
    ends = ends_of(chosen, params)
    said: dict[str, TurnEnd | None] = {
        step.effort: was for step, was in zip(of.steps, of.ends, strict=True) if step.effort is not None
    }
    word = of.words.get("effort")
    if isinstance(word, str):
        said[word] = of.words_end
    for effort, was in said.items():
        if was is not None and not _holds(was, ends):
            told.append(f"“{effort}” was said of {ENDS_IN_WORDS[was]}: on {ENDS_IN_WORDS[ends]} it is left off")
    if chosen.raced and any(step.tempo is not None for step in of.steps):
        told.append("a tempo is not kept against the clock: it is left off")
    return tuple(told)


def _times(dose: StepDose, factor: float) -> StepDose:
    return dose if factor == 1 else {name: _scaled(value, factor) for name, value in dose.items()}


def _scaled(value: FieldValue, factor: float) -> FieldValue:
    if isinstance(value, int | float):
        return _so_many(value, factor)
    if isinstance(value, CountRange):
        plan = None if value.plan is None else _so_many(value.plan, factor)
        made = CountRange(low=_so_many(value.low, factor), high=_so_many(value.high, factor))
        return made if plan is None else changed(made, plan=plan)
    return value


def _so_many(value: float, factor: float) -> int:
    return max(1, math.floor(value * factor + 1e-9))


def _without_last_rest(entries: list[BlockOrSection]) -> list[BlockOrSection]:
    """What stands alone ends with its work: a rest after it belongs to what comes next."""
    *before, last = entries
    if isinstance(last, Section):
        *blocks, end = last.blocks
        last = without(changed(last, blocks=[*blocks, without(end, "rest_after_s")]), "rest_after_s")
    return [*before, last if isinstance(last, Section) else without(last, "rest_after_s")]


def _on_every_block(entry: BlockOrSection, words: Mapping[str, FieldValue]) -> BlockOrSection:
    if isinstance(entry, Section):
        return changed(entry, blocks=[changed(block, **words) for block in entry.blocks])
    return changed(entry, **words)


def plan_alone(entries: Sequence[BlockOrSection]) -> list[BlockOrSection]:
    """The plan's own blocks as they stand, but for the rest after them and what was said of them as a whole."""
    made = _without_last_rest(list(entries))
    return [without(one, "rpe", "on_purpose") if isinstance(one, Block) else one for one in made]


def dose_values(values: ParamValues) -> tuple[ParamValues, float]:
    """Values of an axis, parted: parameters, and how many times doses are taken."""
    return {k: v for k, v in values.items() if k != DOSE_FACTOR}, number_of(values, DOSE_FACTOR, 1)
