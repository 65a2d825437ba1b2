"""Levelling a week: asking for it, looking at parts of a proposal, taking some of them, undoing each."""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import dataclass
from datetime import date, timedelta
from typing import Any
from uuid import UUID

from django.db import transaction
from django.shortcuts import get_object_or_404

from finetally.core.edits.edit import EDIT_LIST, EditError, apply_edits
from finetally.core.week.alternatives import Alternative
from finetally.core.week.proposal import LevelEdit, move_words, taken
from finetally.web.jobs.models import Job
from finetally.web.jobs.use_cases import JobRequest, answered, ask
from finetally.web.plan.entries import wrong
from finetally.web.plan.leveller import WeekOutcome, rules_for, slots_of, week_outcome
from finetally.web.plan.models import Change, Entry
from finetally.web.plan.summaries import (
    SummarisedDocument,
    documents_of,
    inside,
    state_of,
    summarise,
    summary_from_json,
)
from finetally.web.plan.week import PlannedWeek, read_week
from finetally.web.squads.actor import Actor, Right
from finetally.web.squads.figuring_context import FiguringContext, context_of
from finetally.web.squads.models import Act
from finetally.web.squads.record import record
from finetally.web.squads.today import today_of
from finetally.web.versions import require_version

MOST_SLOTS = 21
"""Entries that one week is levelled with: three a day."""


def ask_to_level(
    actor: Actor,
    squad_id: int | None,
    day: date,
    changes: dict[str, Any],
    *,
    gone: bool = False,
    today: date | None,
) -> Job:
    """Put levelling the week that a day lies in into the queue; a squad has one at a time. Raises DocumentError.

    `changes`: rules set otherwise for this answer (most_a_day …). What stands on days before `today` (None: now,
    where the squad is) stays, unless `gone`.
    """
    week = read_week(actor, squad_id, day)
    actor.require(week.squad.pk, Right.PLAN)
    if len(week.planned_loads) > MOST_SLOTS:
        raise wrong("day", f"{len(week.planned_loads)} entries in the week", f"at most {MOST_SLOTS} to level")
    now = today or today_of(week.squad)
    asked = {"day": week.begins.isoformat(), "changes": changes, "gone": gone, "today": now.isoformat()}
    return ask(actor, week.squad.pk, JobRequest("level", asked, lock_name=f"level {week.squad.pk}", shared=True))


def preview(actor: Actor, job_id: UUID, picked: Sequence[int]) -> WeekOutcome:
    """What the week comes to with only these edits of a proposal taken, and which rules that breaks.

    Raises DocumentError for edits that there are not, ChangedError where an entry is another by now.
    """
    job = answered(actor, job_id, "level")
    week = _week(actor, job)
    edits = _picked(week, job, picked)
    locked = {str(one.pk) for one in week.entries if one.locked}
    sessions = frozenset(job.private["sessions"])
    # As the proposal had it: sessions may be changed, other training stays where it is.
    versions = {
        planned_load.key: [Alternative("as-is", "as it is", planned_load.summary)]
        for planned_load in week.planned_loads
        if planned_load.key in sessions and planned_load.key not in locked and not planned_load.logged
    }
    for key, kept in job.private["versions"].items():
        if key in versions:
            versions[key].append(Alternative("dose", kept["what"], summary_from_json(kept["summary"])))
    slots = slots_of(week, versions, sessions)
    chosen = taken(slots, [_to_kept(one) for one in edits])
    return week_outcome(week, slots, chosen, rules_for(week, job.asked))


def _to_kept(edit: LevelEdit) -> LevelEdit:
    """An edit whose version is the one that is kept with the job."""
    return edit if edit.version is None else LevelEdit(edit.slot, edit.kind, edit.what, 1, edit.day)


def _week(actor: Actor, job: Job) -> PlannedWeek:
    week = read_week(actor, job.squad_id, date.fromisoformat(job.asked["day"]))
    actor.require(week.squad.pk, Right.PLAN)
    return week


def _picked(week: PlannedWeek, job: Job, picked: Sequence[int]) -> list[LevelEdit]:
    """The edits of a proposal that are meant, each made on what stands. Raises as `preview`."""
    offered = (job.answer or {}).get("edits", [])
    entries = {str(one.pk): one for one in week.entries}
    context = context_of(week.squad)
    edits = []
    for place, number in enumerate(dict.fromkeys(picked)):
        if not 0 <= number < len(offered):
            raise wrong(f"edits[{place}]", str(number), f"one of the {len(offered)} edits that were proposed")
        one = offered[number]
        entry = entries.get(one["slot"])
        title = job.answer["titles"].get(one["slot"], "") if job.answer else ""
        require_version(title, one["made_on"], state_of(entry, context) if entry is not None else "")
        edits.append(LevelEdit(one["slot"], one["kind"], one["what"], one["version"], one["day"]))
    return edits


@dataclass(frozen=True, slots=True)
class _Made:
    """What an entry becomes: its new day, its new copy with what that comes to, what undoes that copy's edits."""

    day: date | None = None
    document: dict[str, Any] | None = None
    summarised: SummarisedDocument | None = None
    inverse: list[dict[str, Any]] | None = None


def take(actor: Actor, job_id: UUID, picked: Sequence[int]) -> Change:
    """Make edits of a proposal, as one change of which each can be undone alone. Raises as `preview`.

    All is figured before the one writer's lock is taken; with it, what was figured is only put in its place.
    """
    job = answered(actor, job_id, "level")
    week = _week(actor, job)
    edits = _picked(week, job, picked)
    documents, context = documents_of(week.entries), context_of(week.squad)
    made = [_made(one, job, week.begins, documents.get(one.slot), context) for one in edits]
    with transaction.atomic():
        week = _week(actor, job)
        _picked(week, job, picked)
        entries = {str(one.pk): one for one in week.entries}
        items = []
        for edit, own in zip(edits, made, strict=True):
            entry = entries[edit.slot]
            what = edit.what if own.day is None else move_words((entry.day - week.begins).days, edit.day or 0)
            item: dict[str, Any] = {"entry": edit.slot, "title": entry.title, "what": what, "undone": False}
            if own.day is not None:
                item["day_before"], item["day"] = entry.day.isoformat(), own.day.isoformat()
                entry.day = own.day
            if own.document is not None and own.summarised is not None:
                entry.document, entry.changed = own.document, True
                own.summarised.put(entry)
                item["inverse"] = own.inverse
            entry.save()
            items.append(item)
        record(actor, week.squad.pk, Act.LEVELLED, f"{len(items)} edits")
        return Change.objects.create(squad=week.squad, author_id=actor.user_id, items=items)


def _made(
    edit: LevelEdit, job: Job, begins: date, document: dict[str, Any] | None, context: FiguringContext
) -> _Made:
    day = None if edit.day is None else begins + timedelta(days=edit.day)
    if edit.version is None or document is None:
        return _Made(day)
    forward = EDIT_LIST.validate_python(job.private["versions"][edit.slot]["edits"])
    after, inverse = apply_edits(document, forward)
    # A movement that was swapped in gets its definition inside, as the others have.
    after = inside(after, context)
    return _Made(day, after, summarise(after, context), EDIT_LIST.dump_python(inverse, mode="json"))


def undo(actor: Actor, change_id: int, number: int) -> Change:
    """Undo one edit of a change; the others stay. Raises DocumentError where a later edit lies over it."""
    change, entry, made = _undone(actor, change_id, number)
    with transaction.atomic():
        change, now, made_now = _undone(actor, change_id, number, before=(entry, made))
        if made_now.day is not None:
            now.day = made_now.day
        if made_now.document is not None and made_now.summarised is not None:
            now.document = made_now.document
            made_now.summarised.put(now)
            source = now.revision.document if now.revision is not None else None
            now.changed = source is None or source["blocks"] != now.document["blocks"]
        now.save()
        change.items[number]["undone"] = True
        change.save()
        record(actor, change.squad_id, Act.UNDONE, change.items[number]["title"])
    return change


def _undone(
    actor: Actor, change_id: int, number: int, before: tuple[Entry, _Made] | None = None
) -> tuple[Change, Entry, _Made]:
    """A change, its entry, what undoing one edit makes of that; `before`: used where nothing changed since."""
    change = get_object_or_404(Change, pk=change_id, squad_id__in=actor.squads())
    actor.require(change.squad_id, Right.PLAN)
    if not 0 <= number < len(change.items) or change.items[number]["undone"]:
        raise wrong("item", str(number), "an edit of this change that is not undone yet")
    item = change.items[number]
    entry = get_object_or_404(Entry, pk=UUID(item["entry"]), squad_id=change.squad_id)
    day = None
    if "day" in item:
        if entry.day.isoformat() != item["day"]:
            raise wrong("item", f"now on {entry.day}", f"the day it was moved to, {item['day']}")
        day = date.fromisoformat(item["day_before"])
    if "inverse" not in item or entry.document is None:
        return change, entry, _Made(day)
    if before is not None and before[0].sequence == entry.sequence:
        return change, entry, before[1]
    try:
        document, _ = apply_edits(entry.document, EDIT_LIST.validate_python(item["inverse"]))
    except EditError as error:
        raise wrong("item", str(error), "an entry that nobody has changed since") from None
    return change, entry, _Made(day, document, summarise(document, context_of(change.squad)))


def latest_changes(actor: Actor, squad_id: int, entries: Sequence[str]) -> list[Change]:
    """The last few changes that touched some entries."""
    wanted = set(entries)
    found = Change.objects.filter(squad_id=squad_id)[:20]
    return [one for one in found if any(item["entry"] in wanted for item in one.items)][:5]
