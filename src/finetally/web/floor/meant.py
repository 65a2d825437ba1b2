"""What people mean to do otherwise at an entry: what their limits choose, and what they said they would take."""

from __future__ import annotations

from finetally.core.card.card import CardOption
from finetally.core.session.document import Session
from finetally.web.floor.step_options import StepOptions
from finetally.web.people.limits import limits_by_person, options_by_limits
from finetally.web.plan.models import Entry


def said_options(entry: Entry) -> dict[int, dict[str, str]]:
    """The options, by step id, that people said they would take, by the key of the person. One query."""
    said = entry.attendance.exclude(options={}).exclude(person=None)
    return {key: options for key, options in said.values_list("person", "options") if key is not None}


def meant_otherwise(entry: Entry, session: Session) -> dict[int, dict[str, str]]:
    """By person what they do otherwise, by step id. What a limit spares somebody is not theirs to choose away.

    Two queries.
    """
    found = said_options(entry)
    for key, limits in limits_by_person(entry.squad, entry.day).items():
        found[key] = {**found.get(key, {}), **options_by_limits(session, limits, entry.squad)}
    return found


def with_said(entry: Entry, others: list[CardOption], steps: list[StepOptions]) -> list[CardOption]:
    """Who takes which option, with what people said themselves; names as on the wall. Two queries."""
    said = said_options(entry)
    names = {one.pk: one.on_the_wall for one in entry.squad.people.filter(pk__in=said)}
    found = {(one["movement"], one["option"]): list(one["names"]) for one in others}
    for step in steps:
        for key, options in said.items():
            label = options.get(step.step)
            if label in step.labels and key in names:
                taken = found.setdefault((step.name, label), [])
                if names[key] not in taken:
                    taken.append(names[key])
    return [{"movement": movement, "option": label, "names": who} for (movement, label), who in found.items()]
