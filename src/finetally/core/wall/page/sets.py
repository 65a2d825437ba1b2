"""Straight sets: `3 x 10`, A1 and A2, and what is said of them on the lines below."""

from __future__ import annotations

from itertools import pairwise

from finetally.core.movements.by_dose import is_heavy
from finetally.core.wall.blocks.draft import Draft
from finetally.core.wall.items.item import Item
from finetally.core.wall.items.names import trimmed
from finetally.core.wall.items.qualities import joined, take_dose
from finetally.core.wall.items.read import ReadLine
from finetally.core.wall.page.page import Page, is_known, leave_part, new_draft, next_run
from finetally.core.wall.page.rests import set_rest, take_rest
from finetally.core.wall.parts import single
from finetally.core.wall.tokens.words import KIT_WORDS
from finetally.core.wall.unread import Unread


def set_line(page: Page, one: ReadLine) -> None:
    """A line of sets: a block of its own, or one of a group that takes turns."""
    rest_before(page, one)
    leave_part(page, one)
    draft = page.draft
    letter = one.line.label if one.line.style == "group" else ""
    if (
        draft is not None
        and draft.superset
        and draft.rounds is None
        and not letter
        and not one.line.gap
        and not one.block_label
    ):
        letter = "s1"
        if not draft.items:
            draft.kind, draft.letter, draft.run = "sets", letter, next_run(page)
            fill_sets(page, draft, one)
            return
    if (
        draft is not None
        and letter
        and draft.letter[:1] == letter[:1]
        and draft.kind == "sets"
        and not one.line.gap
    ):
        fill_sets(page, draft, one)
        return
    run = (
        draft.run
        if draft is not None and draft.kind == "sets" and not one.line.gap and not letter and not one.block_label
        else next_run(page)
    )
    made = new_draft(page, one)
    made.kind, made.letter, made.run = "sets", letter or made.letter, run
    fill_sets(page, made, one)


def rest_before(page: Page, one: ReadLine) -> None:
    """`… rest two minutes and do 3 sets …`: a rest told before the work is taken before it."""
    plain = [f for f in one.rests if f.value["where"] == "plain"]
    first = next((i.first for i in one.items if i.dosed), 0)
    draft = page.draft
    if len(plain) > 1 and draft is not None and draft.items and one.scanned.tokens[plain[0].first].start < first:
        draft.rest_after = plain[0].value["s"]
        one.scanned.facts.remove(plain[0])


def fill_sets(page: Page, draft: Draft, one: ReadLine) -> None:
    """Take what a line of sets says, and its movements."""
    facts = [f for f in one.scanned.facts if f.kind not in ("rounds",) or not one.named]
    rests = [f for f in facts if f.kind == "rest"]
    items = set_items(page, draft, one)
    draft.take([f for f in facts if f.kind != "rest"])
    draft.items.extend(items)
    for fact in rests:
        set_rest(draft, fact.value)
    for item in items:
        if item.loose_time is not None and draft.rest_between is None:
            draft.rest_between = item.loose_time
    if not draft.letter or draft.letter[1:] == "":
        split_sets(page, draft, one)


def set_items(page: Page, draft: Draft, one: ReadLine) -> list[Item]:
    """The movements of a line of sets; headings, notes, loads and times among them go where they belong."""
    items: list[Item] = []
    named: Item | None = None
    for item in one.items:
        if item.label == "heading" and not items and (not item.dosed or item.seconds is not None):
            if _is_name_of_sets(page, draft, one, item):
                named = item
        elif _is_before_sets(page, draft, one, item, items, named):
            continue
        elif not _is_behind_sets(page, one, item, items):
            items.append(item)
    _name_the_nameless(page, one, items, named)
    return items


def _is_name_of_sets(page: Page, draft: Draft, one: ReadLine, item: Item) -> bool:
    """Take a heading as the title, with its time as the length; whether it also names the movement."""
    draft.title = draft.title or joined(item.words)
    draft.total = single(item.seconds)
    bare = all(not i.words for i in one.items if i is not item)
    return is_known(page, draft.title) or (bare and bool(item.words))


def _is_before_sets(
    page: Page, draft: Draft, one: ReadLine, item: Item, items: list[Item], named: Item | None
) -> bool:
    """Whether words in front of the first sets are a note or a title, or name nothing; they are kept."""
    if not item.words or item.dosed:
        return False
    if item.sets is None and not items and named is not None:
        # `Squat: warm-up sets, then 3x5`
        draft.notes.append(joined(item.words))
        return True
    later = one.items[one.items.index(item) + 1 :]
    if item.sets is None and not items and any(i.sets for i in later) and not is_known(page, joined(item.words)):
        # `Strength - deadlift 4x8`: what the sets are called.
        draft.title = draft.title or joined(item.words)
        return True
    return trimmed([t.text for t in item.words]) == []


def _is_behind_sets(page: Page, one: ReadLine, item: Item, items: list[Item]) -> bool:
    """Whether an item only says something of the sets in front of it: words, a load, how many, a time."""
    if not items:
        return False
    last = items[-1]
    if item.words:
        if item.dosed or item.sets is not None:
            return False
        kit = [t.text for t in item.words if t.text in KIT_WORDS]
        last.kit.extend(kit)
        last.notes.append(joined(item.words))
        if not kit and is_known(page, joined(item.words)):
            page.unread.append(Unread(one.line.number, joined(item.words)))
        if last.load is None:
            last.load = item.load
    elif not item.dosed and item.load is not None:
        last.load = last.load or item.load
    elif not item.dosed and item.sets is not None:
        for other in items:
            other.sets = other.sets or item.sets
    elif item.sets is None and item.seconds is not None:
        last.loose_time = item.seconds
    else:
        return False
    return True


def _name_the_nameless(page: Page, one: ReadLine, items: list[Item], named: Item | None) -> None:
    """Give sets without a name that of the heading, of the ones behind or before them, or of the line above."""
    for index, item in enumerate(items):
        if item.words and item.sets is not None and not trimmed([t.text for t in item.words]):
            item.words = []
        if item.words:
            continue
        others = [i for i in (*items[index + 1 :], *items) if i.words] if named is None else [named]
        others = others or named_above(page, one)
        if others:
            item.words, item.kit = others[0].words, others[0].kit
            if item.load is None and is_heavy(others[0].load):
                # Lighter sets of what has a bar's load below.
                item.kit = [*item.kit, "barbell"]


def named_above(page: Page, one: ReadLine) -> list[Item]:
    """What sets without a name are sets of, below sets of it: `Bench, 2x8 @ 40`, below it `5x5 @ 60`."""
    above = page.drafts[-2] if len(page.drafts) > 1 else None
    last = above.items[-1] if above is not None and above.items else None
    if above is None or last is None or one.line.gap or one.block_label or not last.words:
        return []
    return [last] if len(above.items) == 1 or last.sets is not None or isinstance(last.reps, list) else []


def split_sets(page: Page, draft: Draft, one: ReadLine) -> None:
    """Set lines of one line each are blocks of their own; what is said of rests holds for all of them."""
    with_sets = [i for i in draft.items if i.sets is not None]
    if len(draft.items) < 2 or len(with_sets) < 2:
        if with_sets:
            draft.kind = draft.kind or "sets"
            draft.run = draft.run or next_run(page)
            set_head_rest(page, draft)
        return
    items, draft.items = draft.items, draft.items[:1]
    draft.kind, draft.run = "sets", draft.run or next_run(page)
    set_head_rest(page, draft)
    # `bench 4x6 (2'), rows 3x10 (90 s)`: each with its own.
    own = any(i.loose_time is not None for i in items[:-1])
    told = draft.rest_between if one.rests else None
    if own:
        draft.rest_between = items[0].loose_time
        items[-1].loose_time = told if items[-1].loose_time is None else items[-1].loose_time
    for before, item in pairwise(items):
        if before.words is item.words and draft.rest_between is not None:
            # Lighter sets first, then the real ones: the rest stands between them too.
            page.drafts[-1].rest_after = draft.rest_between
        made = Draft(one.line.number, one.line.text, part=draft.part, kind="sets", items=[item], run=draft.run)
        made.rest_between, made.no_rest = item.loose_time if own else draft.rest_between, draft.no_rest
        page.drafts.append(made)
        page.draft = made


def set_head_rest(page: Page, draft: Draft) -> None:
    """A rest told in the head of sets is one between them."""
    if draft.rest is not None and draft.rest_between is None:
        draft.rest_between, draft.rest = draft.rest, None


def names_sets(page: Page, draft: Draft, one: ReadLine) -> bool:
    """A line with a name alone below sets of nothing in particular: `10 x 30 s efforts`, then `bike`."""
    bare = next((i for i in draft.items if not trimmed([t.text for t in i.words])), None)
    if bare is None or len(one.named) != 1 or any(i.dosed for i in one.items):
        return False
    bare.words = one.named[0].words
    return True


def load_only(page: Page, one: ReadLine) -> bool:
    """A line that only says what is lifted above: `@ 40 kg`, `60-70-80 kg`."""
    draft = page.draft
    if draft is None or draft.ready is not None or one.line.gap or one.heads or one.rests or len(one.items) != 1:
        return False
    item = one.items[0]
    if item.words or item.dosed or item.load is None or not draft.items or draft.items[-1].load is not None:
        return False
    draft.items[-1].load, draft.items[-1].other_load = item.load, item.other_load
    return True


def sets_and_rest(page: Page, one: ReadLine) -> bool:
    """`3 sets 60s` below the lines of a circuit: how often, and the rest between."""
    draft = page.draft
    if draft is None or draft.rounds is not None or draft.windows or draft.each or draft.every or draft.amraps:
        return False
    if len(one.items) != 1 or len(draft.items) < 2 or any(i.sets or not i.dosed for i in draft.items):
        return False
    item = one.items[0]
    if item.words or item.sets is None or item.seconds is None or one.line.gap or draft.kind == "written":
        return False
    page.assumed.pick("bare-time", one.line.number, one.line.text, ["a rest"])
    draft.rounds, draft.clocked, draft.rest_between = item.sets, True, item.seconds
    return True


def dose_only(page: Page, one: ReadLine) -> bool:
    """A line that only says how much of the movement above: `5 x 5 @ 100 kg` under `Back squat`."""
    draft = page.draft
    if load_only(page, one) or sets_and_rest(page, one):
        return True
    if draft is None or draft.kind == "written" or not _is_only_doses(one):
        return False
    if draft.items and len(one.items) == 1 and _is_only_time(draft, one.items[0]):
        if draft.every is not None and "total" not in draft.every and "n" not in draft.every:
            draft.every["total"] = single(one.items[0].seconds)
            return True
        page.assumed.pick("bare-time", one.line.number, one.line.text, ["a rest"])
        take_rest(page, draft, {"s": one.items[0].seconds, "where": "plain"}, one)
        return True
    if draft.items and len(one.items) == 1 and one_more_set(draft, one.items[0]):
        for fact in one.rests:
            set_rest(draft, fact.value)
        return True
    item = draft.items[-1] if draft.items and not draft.items[-1].dosed and not draft.items[-1].rest_turn else None
    if item is None and draft.pending is not None and not draft.items:
        item = draft.pending
        draft.items.append(item)
    if item is None or draft.windows or draft.each or draft.ladder:
        return False
    _dose_the_one_above(page, draft, item, one)
    return True


def _is_only_doses(one: ReadLine) -> bool:
    """Whether a line has doses and nothing else: no name, no head, no label of a block, no gap above it."""
    labelled = one.line.style == "block" and not one.line.label.startswith("set")
    return not (labelled or one.named or one.starts or one.line.gap) and any(i.dosed for i in one.items)


def _is_only_time(draft: Draft, item: Item) -> bool:
    """Whether a line is one time under movements that all have their doses."""
    return item.seconds is not None and item.sets is None and all(i.dosed for i in draft.items)


def _dose_the_one_above(page: Page, draft: Draft, item: Item, one: ReadLine) -> None:
    """Give the movement above the doses of a line; sets of one of several begin a block of their own."""
    for dose in one.items:
        take_dose(item, dose)
    if item.sets is not None and len(draft.items) > 1:
        draft.items.remove(item)
        draft = new_draft(page, one)
        draft.items.append(item)
    if item.sets is not None or isinstance(item.reps, list):
        draft.kind = "sets" if item.sets is not None else draft.kind
        draft.run = draft.run or next_run(page)
    if item.loose_time is not None and draft.rest_between is None:
        draft.rest_between = item.loose_time
    for fact in one.rests:
        set_rest(draft, fact.value)


def one_more_set(draft: Draft, dose: Item) -> bool:
    """`5 @ 60 kg`, below it `3 @ 70 kg`: the sets of the movement above, one by one."""
    item = draft.items[-1]
    if draft.windows or draft.each or draft.every or draft.amraps or not item.words:
        return False
    if not isinstance(dose.reps, int) or not isinstance(item.reps, int | list):
        return False
    if dose.load is None or item.load is None or isinstance(dose.load, list):
        return False
    reps = item.reps if isinstance(item.reps, list) else [item.reps] * (item.sets or 1)
    loads = item.load if isinstance(item.load, list) else [item.load] * len(reps)
    more = dose.sets or 1
    item.reps, item.load = [*reps, *[dose.reps] * more], [*loads, *[dose.load] * more]
    item.sets = None
    item.notes.extend(dose.notes)
    return True
