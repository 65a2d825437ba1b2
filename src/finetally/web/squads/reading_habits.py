"""Habits of reading: what a squad chose twice in its texts is read first from then on, until it is forgotten."""

from __future__ import annotations

from dataclasses import dataclass

from django.db import transaction
from django.shortcuts import get_object_or_404

from finetally.core.wall.reading_habits import CHOSEN_TO_BE_A_HABIT, HABIT_RULES
from finetally.web.squads.actor import Actor, Right
from finetally.web.squads.models import Act, ReadingHabit, Squad
from finetally.web.squads.record import record
from finetally.web.squads.use_cases import squad_for


@dataclass(frozen=True, slots=True)
class HabitHere:
    """A habit of a squad: the kind of place, how it is read, other readings, how often chosen running."""

    rule: str
    says: str
    read_as: str
    others: list[str]
    times: int


def chose_reading(actor: Actor, squad_id: int | None, rule: str, reading: int) -> None:
    """Note that a place was read as chosen, where its kind may be a habit. For those who plan."""
    squad = squad_for(actor, squad_id, Right.PLAN)
    known = HABIT_RULES.get(rule)
    if known is None or not 0 <= reading < len(known.readings):
        return
    with transaction.atomic():
        found, made = ReadingHabit.objects.get_or_create(squad=squad, rule=rule, defaults={"reading": reading})
        if not made:
            found.times = found.times + 1 if found.reading == reading else 1
            found.reading = reading
            found.save()


def habits_of(squad: Squad) -> dict[str, int]:
    """The readings that are a squad's habit, by rule, as the core takes them. One query."""
    return {one.rule: one.reading for one in _in_force(squad)}


def list_habits(actor: Actor, squad_id: int) -> list[HabitHere]:
    """A squad's habits of reading, in a coach's words; for those who plan."""
    squad = squad_for(actor, squad_id, Right.PLAN)
    return [_here(one) for one in _in_force(squad)]


def forget_habit(actor: Actor, squad_id: int, rule: str) -> None:
    """From now on such places are read as for anybody. For those who plan."""
    squad = squad_for(actor, squad_id, Right.PLAN)
    with transaction.atomic():
        get_object_or_404(ReadingHabit, squad=squad, rule=rule).delete()
        record(actor, squad.pk, Act.HABIT_FORGOTTEN, HABIT_RULES[rule].says if rule in HABIT_RULES else rule)


def _in_force(squad: Squad) -> list[ReadingHabit]:
    kept = ReadingHabit.objects.filter(squad=squad, times__gte=CHOSEN_TO_BE_A_HABIT)
    return [one for one in kept if one.rule in HABIT_RULES and one.reading < len(HABIT_RULES[one.rule].readings)]


def _here(one: ReadingHabit) -> HabitHere:
    rule = HABIT_RULES[one.rule]
    others = [text for number, text in enumerate(rule.readings) if number != one.reading]
    return HabitHere(one.rule, rule.says, rule.readings[one.reading], others, one.times)
