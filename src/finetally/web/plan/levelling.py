"""Levelling a week: proposals, any part of which can be taken, and each of which can be undone."""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import dataclass, replace
from datetime import date, datetime, timedelta
from typing import Any
from uuid import UUID
from zoneinfo import ZoneInfo

from django.db import transaction
from django.shortcuts import get_object_or_404

from finetally.core.edits.edit import EditError, apply_edits
from finetally.core.week.alternatives import Alternative
from finetally.core.week.clash import Clash, clashes
from finetally.core.week.level import level
from finetally.core.week.load import WEEK, WeekLoad, week_load
from finetally.core.week.proposal import LevelEdit, Levelled, Slot, bouts_of, move_words, taken
from finetally.web.plan.amounts import EDITS, figured_amount, inside, start_of, versions_of
from finetally.web.plan.entries import wrong
from finetally.web.plan.models import Change, Entry
from finetally.web.plan.running import watched
from finetally.web.plan.week import PlannedWeek, read_week
from finetally.web.squads.actor import Actor, Right
from finetally.web.squads.house import house_of
from finetally.web.versions import require_version, version_of

MOST_SLOTS = 21
"""Entries that one week is levelled with: three a day."""


Asked = tuple[LevelEdit, str]
"""An edit, and the state of its entry that it was made on."""


@dataclass(frozen=True, slots=True)
class Outcome:
    """What a week comes to with some edits taken."""

    load: WeekLoad
    clashes: Sequence[Clash]


@dataclass(frozen=True, slots=True)
class Proposal:
    """The leveller's answer, the week as it stands, and with every edit taken."""

    levelled: Levelled
    titles: dict[str, str]
    states: dict[str, str]
    before: Outcome
    after: Outcome | None


def _slots(week: PlannedWeek) -> list[Slot]:
    """The week's entries as the leveller takes them; what is logged, other or locked stays as it is."""
    house = house_of(week.squad)
    entries = {str(one.pk): one for one in week.entries}
    documents = _documents(week)
    free = [
        one for one in week.bouts
        if one.key in documents and not entries[one.key].locked and not one.logged
    ]  # fmt: skip
    versions = dict(
        zip((one.key for one in free), versions_of((documents[one.key] for one in free), house), strict=True)
    )
    slots = []
    for bout in week.bouts:
        entry = entries[bout.key]
        own = versions.get(bout.key)
        times = tuple(
            start_of(week.begins + timedelta(days=n), entry.time, week.squad.time_zone) for n in range(WEEK)
        )
        slots.append(
            Slot(
                bout.key,
                (bout.day - week.begins).days,
                own if own is not None else [Alternative("as-is", "as it is", bout.amount)],
                locked=own is None,
                hall=bout.key in documents,
                times=times,
            )
        )
    return slots


def _documents(week: PlannedWeek) -> dict[str, Any]:
    """The documents of a week's sessions, by entry. One query."""
    ids = [one.pk for one in week.entries]
    found = Entry.objects.filter(pk__in=ids).values_list("pk", "document")
    return {str(pk): document for pk, document in found if document is not None}


def _outcome(week: PlannedWeek, slots: Sequence[Slot], edits: Sequence[LevelEdit]) -> Outcome:
    """The week with some edits taken."""
    methods = week.squad.methods_value()
    bouts = bouts_of(slots, taken(slots, edits), week.begins)
    everything = [*bouts, *week.around]
    load = week_load(
        everything,
        week.begins,
        history_from=min((one.day for one in everything), default=None),
        hard_effort=methods.hard_day_effort,
        hard_load=methods.hard_day_load,
    )
    own = {slot.key for slot in slots}
    found = [one for one in clashes(everything, methods.clash_hours) if one["first"] in own or one["second"] in own]
    return Outcome(load, found)


def propose(
    actor: Actor,
    squad_id: int | None,
    day: date,
    changes: dict[str, Any],
    *,
    keep_gone: bool = False,
    today: date | None = None,
    ticket: str = "",
) -> Proposal:
    """Level the week that a day lies in. `changes`: rules set otherwise for this answer (most_a_day …).

    `keep_gone`: what stands on days before `today` (now, where the squad is) stays. While it is under way it can be
    looked at and stopped by its `ticket`.
    """
    week, slots = _week(actor, squad_id, day)
    now = today or datetime.now(ZoneInfo(week.squad.time_zone)).date()
    gone = min(WEEK, max(0, (now - week.begins).days)) if keep_gone else 0
    rules = replace(week.rules, gone_days=frozenset(range(gone)), **changes)
    with watched(actor.user_id or 0, ticket) as watch:
        made = level(slots, rules, around=week.around, begins=week.begins, watch=watch)
    after = _outcome(week, slots, made.edits) if made.chosen else None
    states = states_of(week)
    titles, made_on = {key: one[0] for key, one in states.items()}, {key: one[1] for key, one in states.items()}
    return Proposal(made, titles, made_on, _outcome(week, slots, ()), after)


def _week(actor: Actor, squad_id: int | None, day: date) -> tuple[PlannedWeek, list[Slot]]:
    week = read_week(actor, squad_id, day)
    actor.require(week.squad.pk, Right.PLAN)
    if len(week.bouts) > MOST_SLOTS:
        raise wrong("day", f"{len(week.bouts)} entries in the week", f"at most {MOST_SLOTS} to level")
    return week, _slots(week)


def preview(actor: Actor, squad_id: int | None, day: date, edits: Sequence[Asked]) -> Outcome:
    """What the week comes to with only these edits taken.

    Raises DocumentError for edits of another week, ChangedError where an entry is another by now.
    """
    week, slots = _week(actor, squad_id, day)
    return _outcome(week, slots, _told(week, slots, edits))


def _told(week: PlannedWeek, slots: Sequence[Slot], edits: Sequence[Asked]) -> list[LevelEdit]:
    """The edits as they are meant, in words from here, each made on what stands. Raises as `preview`."""
    known = {slot.key: slot for slot in slots}
    states = states_of(week)
    told = []
    for number, (edit, made_on) in enumerate(edits):
        slot = known.get(edit.slot)
        if slot is None or slot.locked:
            raise wrong(f"edits[{number}].slot", repr(edit.slot), "an entry of the week that is not locked")
        if edit.version is not None and not 0 <= edit.version < len(slot.versions):
            raise wrong(f"edits[{number}].version", str(edit.version), "a version that was proposed")
        if edit.day is not None and not 0 <= edit.day < WEEK:
            raise wrong(f"edits[{number}].day", str(edit.day), "0 to 6")
        title, state = states[edit.slot]
        require_version(title, made_on, state)
        if edit.version is not None:
            kind, what = "version", slot.versions[edit.version].what
        else:
            kind, what = "day", move_words(slot.day, edit.day if edit.day is not None else slot.day)
        told.append(LevelEdit(edit.slot, kind, what, edit.version, edit.day))
    return told


def states_of(week: PlannedWeek) -> dict[str, tuple[str, str]]:
    """Of each entry its title, and what an edit of it is made on: its copy, its day, the squad's methods."""
    documents, house = _documents(week), house_of(week.squad)
    methods = house.methods.model_dump(mode="json", by_alias=True)
    return {
        str(one.pk): (
            one.title,
            version_of(documents.get(str(one.pk)), one.day.isoformat(), one.locked, methods, house.library_key),
        )
        for one in week.entries
    }


def take(actor: Actor, squad_id: int | None, day: date, asked: Sequence[Asked]) -> Change:
    """Make edits of a proposal, as one change of which each can be undone alone. Raises as `preview`.

    All is figured before the one writer's lock is taken; with it only what changed in between is figured anew.
    """
    _told(*_week(actor, squad_id, day), asked)
    with transaction.atomic():
        week, slots = _week(actor, squad_id, day)
        edits = _told(week, slots, asked)
        known = {slot.key: slot for slot in slots}
        entries = {str(one.pk): one for one in week.entries}
        house = house_of(week.squad)
        items = []
        for edit in edits:
            entry = entries[edit.slot]
            item: dict[str, Any] = {"entry": edit.slot, "title": entry.title, "what": edit.what, "undone": False}
            if edit.day is not None:
                item["day_before"], item["day"] = (
                    entry.day.isoformat(),
                    (week.begins + timedelta(days=edit.day)).isoformat(),
                )
                entry.day = week.begins + timedelta(days=edit.day)
            if edit.version is not None and entry.document is not None:
                forward = known[edit.slot].versions[edit.version].edits
                after, inverse = apply_edits(entry.document, forward)
                # A movement that was swapped in gets its definition inside, as the others have.
                entry.document = inside(after, house)
                entry.changed = True
                item["inverse"] = EDITS.dump_python(tuple(inverse), mode="json")
                entry.amount = figured_amount(entry.document, house)
            entry.save()
            items.append(item)
        return Change.objects.create(squad=week.squad, author_id=actor.user_id, items=items)


def undo(actor: Actor, change_id: int, number: int) -> Change:
    """Undo one edit of a change; the others stay. Raises DocumentError where a later edit lies over it."""
    with transaction.atomic():
        change = get_object_or_404(Change, pk=change_id, squad_id__in=actor.squads())
        actor.require(change.squad_id, Right.PLAN)
        if not 0 <= number < len(change.items) or change.items[number]["undone"]:
            raise wrong("item", str(number), "an edit of this change that is not undone yet")
        item = change.items[number]
        entry = get_object_or_404(Entry, pk=UUID(item["entry"]), squad_id=change.squad_id)
        if "day" in item:
            if entry.day.isoformat() != item["day"]:
                raise wrong("item", f"now on {entry.day}", f"the day it was moved to, {item['day']}")
            entry.day = date.fromisoformat(item["day_before"])
        if "inverse" in item and entry.document is not None:
            try:
                entry.document, _ = apply_edits(entry.document, EDITS.validate_python(item["inverse"]))
                entry.amount = figured_amount(entry.document, house_of(change.squad))
                source = entry.revision.document if entry.revision is not None else None
                entry.changed = source is None or source["blocks"] != entry.document["blocks"]
            except EditError as error:
                raise wrong("item", str(error), "an entry that nobody has changed since") from None
        entry.save()
        item["undone"] = True
        change.save()
    return change


def latest_changes(actor: Actor, squad_id: int, entries: Sequence[str]) -> list[Change]:
    """The last few changes that touched some entries."""
    wanted = set(entries)
    found = Change.objects.filter(squad_id=squad_id)[:20]
    return [one for one in found if any(item["entry"] in wanted for item in one.items)][:5]
