"""Heads of blocks: parts, formats, labels, and the movements on the same line."""

from __future__ import annotations

import re

from finetally.core.wall.draft import Draft
from finetally.core.wall.item import Item
from finetally.core.wall.page import Page, is_known, leave_part, more_below, new_draft
from finetally.core.wall.read import Read, head_list, name_text
from finetally.core.wall.rules import Fact
from finetally.core.wall.sets import set_line, split_sets
from finetally.core.wall.talk import LONGEST_TALK, speaks
from finetally.core.wall.tokens import Token
from finetally.core.wall.words import KIT_WORDS
from finetally.core.wall.written import Written


def part_line(page: Page, one: Read) -> None:
    page.part = one.line.part
    draft = new_draft(page, one, one.line.part)
    draft.title = one.line.part_words
    draft.words = one.line.part_words
    draft.part = one.line.part
    fill(page, draft, one)
    if draft.total is None and not one.items and not draft.clocked:
        draft.total = next((t.value for t in one.scanned.tokens if t.kind == "TIME"), None)
    draft.inline = bool(one.named)


def head_line(page: Page, one: Read) -> None:
    draft = page.draft
    leave_part(page, one)
    merge = (
        draft is not None
        and not draft.items
        and not (
            draft.clocked
            and any(f.kind in ("amrap", "every", "windows") for f in one.heads)
            and (draft.every or draft.windows)
        )
    )
    if merge and draft is not None and stands_alone(draft, one):
        page.part, page.draft, merge = None, None, False
    if draft is not None and draft.amraps and not draft.items and one.scanned.has("amrap"):
        merge = True
    if not merge or draft is None:
        draft = new_draft(page, one)
    if one.block_label and one.line.style == "block":
        draft.title = draft.title or one.line.label.capitalize()
    fill(page, draft, one)


def stands_alone(draft: Draft, one: Read) -> bool:
    """Whether a part with a length and nothing under it is over: what follows has a clock of its own length."""
    if draft.part in (None, "main") or draft.total is None or draft.clocked or one.line.indent > 0:
        return False
    if one.line.raw.lstrip()[:1] in "-*•–>":
        return False
    if any(f.kind == "windows" and f.value.get("n") for f in one.heads):
        return True
    own = [
        f.value.get("window") or f.value.get("total") for f in one.heads if f.kind in ("amrap", "every", "windows")
    ]
    return any(length is not None and length != draft.total for length in own)


def labelled(page: Page, one: Read) -> None:
    if any(i.sets for i in one.items) or one.line.style == "group":
        set_line(page, one)
        return
    leave_part(page, one)
    if not one.block_label and not one.items:
        return
    if one.block_label or (page.draft is not None and page.draft.items) or page.draft is None:
        draft = new_draft(page, one)
    else:
        draft = page.draft
    if not any(i.dosed for i in one.items):
        name_block(page, draft, one)
        one.items = [i for i in one.items if i.label != "heading" and not one.line.text.endswith(":")]
        known = [i for i in one.items if page.names.known(name_text(i))]
        if one.block_label and len(one.items) == len(known) and known and one.line.style not in ("letter", "block"):
            draft.items.extend(known)
        return
    fill(page, draft, one)


def name_block(page: Page, draft: Draft, one: Read) -> None:
    title = one.line.text.strip(" :-")
    draft.title = draft.title or title[:120]
    if len(one.named) == 1 and is_known(page, name_text(one.named[0])):
        draft.pending = one.named[0]
    words = [t.text for i in one.items[:1] for t in i.words]
    if len(words) == 1 and words[0] in KIT_WORDS:
        draft.tool = words[0]
    draft.heading = True


STRETCHING = re.compile(r"(?:static\s+)?(?:stretch(?:es|ing)?|holds?)\b[^:]*:")


def fill(page: Page, draft: Draft, one: Read) -> None:
    """Take what a head line says and the movements on it."""
    draft.said = one.line.text
    draft.stretching = draft.stretching or STRETCHING.match(one.line.low) is not None
    facts = list(one.scanned.facts)
    items = head_items(page, draft, one, facts)
    draft.take(facts)
    if (
        (draft.each or draft.windows)
        and any(t.text == "pyramid" for t in one.scanned.tokens)
        and not any(isinstance(i.reps, list) for i in items)
    ):
        draft.pyramid = True
        draft.notes = [n for n in draft.notes if n != "pyramid"]
    listed = head_list(one)
    if listed is not None and not draft.ladder:
        draft.ladder, draft.growing = listed
    draft.items.extend(items)
    loose = next((i.loose_time for i in items if i.loose_time is not None), None)
    if loose is not None and draft.rest_between is None and (draft.rounds is not None or draft.superset):
        page.assumed.pick("bare-time", one.line.number, one.line.text, ["a rest"])
        draft.rest_between = loose
    if items and any(i.sets for i in items) and not draft.clocked:
        split_sets(page, draft, one)


def head_items(page: Page, draft: Draft, one: Read, facts: list[Fact]) -> list[Item]:
    """The movements on a head line: what has a dose, is known, or stands behind a colon or a dash."""
    kept: list[Item] = []
    opened = False
    for item in one.items:
        if draft_work(draft, item, facts):
            opened = opened or item.label == "heading"
            continue
        if item.label == "heading" and (not item.dosed or item.seconds is not None):
            head_words(page, draft, item)
            draft.total = draft.total if item.seconds is None else item.seconds
            opened = True
            continue
        if item.words and all(t.kind == "REST" for t in item.words) and not item.dosed:
            kept.append(Item(rest_turn=True, row=one.line.number))
            continue
        closing = item is one.items[-1] and bool(kept) and item.seconds is not None and item.sets is None
        if not item.words and closing and (draft.rounds or any(f.kind in ("rounds", "superset") for f in facts)):
            page.assumed.pick("bare-time", one.line.number, one.line.text, ["a rest"])
            draft.rest_between = item.seconds if draft.rest_between is None else draft.rest_between
            continue
        if item.cash and item.dosed and item.words:
            draft.cash_out.append(item)
            continue
        if item.words and not item.dosed and all(t.kind == "ALT" for t in item.words):
            draft.alternate = True
            continue
        if not item.words:
            head_dose(page, draft, item, one)
            continue
        if name_text(item).strip() == "":
            if item.seconds is not None and kept and any(t.kind == "SOFT" for t in item.words):
                kept.append(item)
            elif item.seconds is not None:
                head_dose(page, draft, item, one)
            continue
        if any(t.kind == "BUYIN" for t in item.words) and not item.dosed:
            continue
        known = page.names.known(name_text(item)) is not None
        behind = opened or one.line.colon or stands_behind(page, one, item)
        behind = behind or (bool(kept) and item.joined and isinstance(kept[-1].reps, list))
        if item.dosed or known or (behind and not is_talk_item(page, item)):
            if page.names.known(draft.words) and item.words and all(t.kind == "HARD" for t in item.words):
                # `Bike: 10 s all out`
                item.words = [Token("W", draft.words, draft.words, item.first, item.first)]
            kept.append(item)
        else:
            head_words(page, draft, item)
    return kept


def draft_work(draft: Draft, item: Item, facts: list[Fact]) -> bool:
    """`40 s work` beside starts: what every start takes."""
    starts = draft.every is not None or any(f.kind == "every" for f in facts)
    if not starts or not item.words or item.seconds is None or any(t.kind != "WORK" for t in item.words):
        return False
    draft.start_work = item.seconds
    return True


def is_talk_item(page: Page, item: Item) -> bool:
    words = " ".join(t.text for t in item.words)
    return len(item.words) > LONGEST_TALK or speaks(words)


def stands_behind(page: Page, one: Read, item: Item) -> bool:
    """Whether an item stands behind a colon, a dash, `of` or an arrow that follows the head's facts."""
    before = [t for t in one.scanned.tokens if t.end <= item.words[0].start]
    cut = next(
        (
            i
            for i in range(len(before) - 1, -1, -1)
            if before[i].kind in ("COLON", "ARROW") or before[i].text.strip() in ("-", "–")
        ),
        None,
    )
    if cut is not None:
        return True
    return bool(before) and before[-1].kind in ("OF",)


def head_words(page: Page, draft: Draft, item: Item) -> None:
    words = " ".join(t.text for t in item.words)
    if any(t.kind == "ALT" for t in item.words):
        draft.alternate = True
    if not draft.words:
        draft.words = words
    if len(item.words) == 1 and words in KIT_WORDS:
        draft.tool = words
    elif len(words) > 2:
        draft.notes.append(words)


def head_dose(page: Page, draft: Draft, item: Item, one: Read) -> None:
    """A dose without words on a head line: a total, a number of rounds, or nothing."""
    if item.seconds is not None and item.sets is None:
        if item.sides == "each":
            draft.each, draft.clocked, draft.sides_each = {"work": item.seconds}, True, True
        elif draft.total is None:
            draft.total = item.seconds
    elif item.metres is not None:
        draft.items.append(item)
    elif item.sets is not None and item.reps is not None and isinstance(item.reps, int):
        draft.rounds, draft.clocked, draft.reps_each = item.sets, True, item.reps
    elif item.sets is not None and not item.dosed:
        draft.rounds, draft.clocked = item.sets, True
    elif isinstance(item.reps, int) and item.label == "times":
        draft.rounds, draft.clocked = item.reps, True


def is_heading(page: Page, one: Read) -> bool:
    """A line of words that ends in a colon, or has one behind its first words."""
    return (bool(one.items) and one.items[0].label == "heading" and len(one.items) <= 1) or one.line.text.endswith(
        ":"
    )


def modifies(page: Page, one: Read) -> bool:
    """A line that only says more of the block above: `x2`, `cap 10 min`, `3 rounds`."""
    draft = page.draft
    if (
        draft is None
        or one.named
        or one.line.gap
        or one.block_label
        or not one.heads
        or one.line.colon
        or one.line.text.endswith(":")
    ):
        return False
    kinds = {f.kind for f in one.heads}
    if draft.items:
        return (
            kinds <= {"rounds", "cap", "fortime", "turns", "laps", "repeat"}
            and (draft.rounds is None or "rounds" not in kinds)
            and not more_below(page)
        )
    return False


def written_block(page: Page, one: Read, written: Written) -> None:
    """A block that stands in the written form."""
    page.part = None
    for entry in written.entries:
        draft = Draft(one.line.number, one.line.text, ready=entry)
        draft.items, draft.kind = [Item()], "written"
        page.draft = draft
        page.drafts.append(draft)
    page.unknown_written.extend(stub.key for stub in written.board.stubs)
    page.places_written.extend((s.key, s.words, s.line + written.first) for s in written.board.stubs)
