"""Heads of blocks: parts, formats, labels, and the movements on the same line."""

from __future__ import annotations

import re

from finetally.core.wall.blocks.draft import Draft
from finetally.core.wall.items.item import GOING, Item
from finetally.core.wall.items.names import MACHINE_KEYS
from finetally.core.wall.items.read import ReadLine, head_list, name_text
from finetally.core.wall.page.page import Page, ends_at, is_known, leave_part, more_below, new_draft
from finetally.core.wall.page.sets import set_line, split_sets
from finetally.core.wall.page.talk import LONGEST_TALK, speaks
from finetally.core.wall.parts import single
from finetally.core.wall.text.written import Written
from finetally.core.wall.tokens.rules import Fact
from finetally.core.wall.tokens.token import Token
from finetally.core.wall.tokens.words import KIT_WORDS
from finetally.core.wall.unread import Unread


def part_line(page: Page, one: ReadLine) -> None:
    """A line that names a part: it begins a draft of it."""
    if lighter_sets(page, one):
        return
    page.part = one.line.part
    draft = new_draft(page, one, one.line.part)
    draft.title = one.line.part_words
    draft.words = one.line.part_words
    draft.part = one.line.part
    fill(page, draft, one)
    if draft.total is None and not one.items and not draft.clocked:
        draft.total = next((t.value for t in one.scanned.tokens if t.kind == "TIME"), None)
    bare = [t for t in one.scanned.tokens if t.kind not in ("SEP", "COLON")]
    if draft.total is None and not draft.clocked and [t.kind for t in bare] == ["NUM"]:
        # `stretch 10`
        page.assumed.pick("bare-minutes", one.line.number, one.line.text, [f"{bare[0].text} minutes"])
        draft.total = int(bare[0].value * 60)
    draft.inline = bool(one.named)


def lighter_sets(page: Page, one: ReadLine) -> bool:
    """`Back squat`, below it `warm up: 5 @ 40, 3 @ 60`: lighter sets of what is named above, no part of its own."""
    draft = page.draft
    if draft is None or one.line.gap or one.line.part != "warm-up" or not one.items:
        return False
    above = draft.pending if not draft.items else draft.items[0] if len(draft.items) == 1 else None
    if above is None or above.dosed or not all(i.dosed and not i.words and i.load is not None for i in one.items):
        return False
    for item in one.items:
        item.words, item.kit = above.words, [*above.kit, "barbell"]
    draft.items, draft.pending, draft.kind = [], None, "sets"
    draft.title = draft.title or one.line.part_words
    fill(page, draft, one)
    return True


def head_line(page: Page, one: ReadLine) -> None:
    """A line that says a clock: it begins a draft, or says more of the one above that has nothing yet."""
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


def stands_alone(draft: Draft, one: ReadLine) -> bool:
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


def labelled(page: Page, one: ReadLine) -> None:
    """A line behind a label (`A)`, `Block 2:`): a block, its sets, or its name."""
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
    if one.line.style == "block":
        draft.title = draft.title or one.line.label.capitalize()
    fill(page, draft, one)


def name_block(page: Page, draft: Draft, one: ReadLine) -> None:
    """Take a line as the title of a block; a movement or a tool that it names is kept for what stands below."""
    title = one.line.text.strip(" :-")
    draft.title = draft.title or title[:120]
    if len(one.named) == 1 and is_known(page, name_text(one.named[0])):
        draft.pending = one.named[0]
    words = [t.text for i in one.items[:1] for t in i.words]
    if len(words) == 1 and words[0] in KIT_WORDS:
        draft.tool = words[0]
    draft.heading = True


STRETCHING = re.compile(r"(?:static\s+)?(?:stretch(?:es|ing)?|holds?)\b[^:]*:")


def fill(page: Page, draft: Draft, one: ReadLine) -> None:
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
        times = next((i.sets for i in one.items if isinstance(i.reps, list) and not i.words), None)
        if isinstance(times, int):
            draft.rounds, draft.own_reps = times, True
    draft.items.extend(items)
    closed = any(t.kind == "CLOSED" for t in one.scanned.tokens)
    if closed and not items and draft.windows:
        items = going_on(page, one)
        draft.items.extend(items)
    draft.closed = draft.closed or (bool(items) and closed)
    loose = next((i.loose_time for i in items if i.loose_time is not None), None)
    if loose is not None and draft.rest_between is None and (draft.rounds is not None or draft.superset):
        page.assumed.pick("bare-time", one.line.number, one.line.text, ["a rest"])
        draft.rest_between = loose
    if items and any(i.sets for i in items) and not draft.clocked:
        split_sets(page, draft, one)


def going_on(page: Page, one: ReadLine) -> list[Item]:
    """`run 10 min easy, 10 x (30 s fast / 30 s slow)`: the windows of the way of going that was named before."""
    above = page.drafts[-2].items[-1:] if len(page.drafts) > 1 else []
    return [Item(words=i.words, row=one.line.number) for i in above if GOING & {t.text for t in i.words}]


def head_items(page: Page, draft: Draft, one: ReadLine, facts: list[Fact]) -> list[Item]:
    """The movements on a head line: what has a dose, is known, or stands behind a colon or a dash."""
    kept: list[Item] = []
    opened = False
    for item in one.items:
        if draft_work(draft, item, facts):
            opened = opened or item.label == "heading"
            continue
        if item.label == "heading" and (not item.dosed or item.seconds is not None):
            head_words(page, draft, item)
            draft.total = draft.total if item.seconds is None else single(item.seconds)
            opened = True
            continue
        if of_the_block(page, draft, one, item, kept, facts):
            continue
        known = page.names.known(name_text(item)) is not None
        behind = opened or one.line.colon or (bool(item.words) and stands_behind(page, one, item))
        behind = behind or (bool(kept) and item.joined and isinstance(kept[-1].reps, list))
        # `2 min AMRAP zibble`, with nothing below: what is done in it.
        alone = len(one.items) == 1 and any(f.kind in ("amrap", "windows") for f in facts) and ends_at(page, one)
        behind = behind or alone or listed(one, item, facts)
        if item.dosed or known or (behind and not is_talk_item(page, item)):
            on_machine(page, draft, item, kept)
            kept.append(item)
        else:
            head_words(page, draft, item)
    return kept


def listed(one: ReadLine, item: Item, facts: list[Fact]) -> bool:
    """Whether an item is one of several names behind windows: `40/20 x 4 rows, squats`."""
    first = min((f.last for f in facts if f.kind in ("windows", "each")), default=None)
    if first is None or len(one.named) < 2 or any(i.dosed for i in one.items):
        return False
    return bool(item.words) and one.scanned.tokens[first].end <= item.words[0].start


def of_the_block(page: Page, draft: Draft, one: ReadLine, item: Item, kept: list[Item], facts: list[Fact]) -> bool:
    """Whether an item on a head says something of the block, or of what is kept; it is taken as that."""
    kinds = {t.kind for t in item.words}
    if not item.words:
        return nameless(page, draft, one, item, kept, facts)
    if kinds == {"REST"} and not item.dosed:
        kept.append(Item(rest_turn=True, row=one.line.number))
    elif item.cash and item.dosed:
        draft.cash_out.append(item)
    elif kinds == {"ALT"} and not item.dosed:
        draft.alternate = True
    elif circuit(item):
        head_words(page, draft, item)
        draft.total = single(item.seconds)
    elif name_text(item).strip() == "":
        if item.seconds is not None and kept and "SOFT" in kinds:
            kept.append(item)
        elif item.seconds is not None:
            head_dose(page, draft, item, one)
    else:
        return "BUYIN" in kinds and not item.dosed
    return True


def nameless(page: Page, draft: Draft, one: ReadLine, item: Item, kept: list[Item], facts: list[Fact]) -> bool:
    """Take a dose without a name on a head: a rest behind the movements, or the block's own."""
    closing = item is one.items[-1] and bool(kept) and item.seconds is not None and item.sets is None
    if closing and (draft.rounds or any(f.kind in ("rounds", "superset") for f in facts)):
        page.assumed.pick("bare-time", one.line.number, one.line.text, ["a rest"])
        draft.rest_between = item.seconds if draft.rest_between is None else draft.rest_between
    elif item.cal and item.dosed and item.sets is None:
        return False
    else:
        head_dose(page, draft, item, one)
    return True


def on_machine(page: Page, draft: Draft, item: Item, kept: list[Item]) -> None:
    """`Bike: 10 s all out`, `bike 10 x (15 s sprint, 45 s easy)`: what is named before is done hard."""
    if not item.words or not all(t.kind == "HARD" or t.text in ("sprint", "sprints") for t in item.words):
        return
    if kept and not kept[-1].dosed and page.names.known(name_text(kept[-1])) in MACHINE_KEYS:
        item.words = kept.pop().words
    elif page.names.known(draft.words):
        item.words = [Token("W", draft.words, draft.words, item.first, item.first)]


def draft_work(draft: Draft, item: Item, facts: list[Fact]) -> bool:
    """`40 s work` beside starts: what every start takes."""
    starts = draft.every is not None or any(f.kind == "every" for f in facts)
    if not starts or not item.words or item.seconds is None or any(t.kind != "WORK" for t in item.words):
        return False
    draft.start_work = item.seconds
    return True


def is_talk_item(page: Page, item: Item) -> bool:
    """Whether the words of an item speak to people, or are too many for a name."""
    words = " ".join(t.text for t in item.words)
    return len(item.words) > LONGEST_TALK or speaks(words)


def stands_behind(page: Page, one: ReadLine, item: Item) -> bool:
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
    """Words on a head that are no movement: an order, a tool, else a note."""
    words = " ".join(t.text for t in item.words)
    if any(t.kind == "ALT" for t in item.words):
        draft.alternate = True
    if not draft.words:
        draft.words = words
    plain = [t.text for t in item.words if t.kind != "CIRCUIT"]
    if len(plain) == 1 and plain[0] in KIT_WORDS:
        draft.tool, draft.tool_load = plain[0], item.load
    elif len(words) > 2:
        draft.notes.append(words)


def head_dose(page: Page, draft: Draft, item: Item, one: ReadLine) -> None:
    """A dose without words on a head line: a total, a number of rounds, or nothing."""
    if item.seconds is not None and item.sets is None:
        if item.sides == "each":
            draft.each, draft.clocked, draft.sides_each = {"work": single(item.seconds)}, True, True
        elif draft.total is None:
            draft.total = single(item.seconds)
    elif item.metres is not None:
        draft.items.append(item)
    elif item.sets is not None and item.reps is not None and isinstance(item.reps, int):
        draft.rounds, draft.clocked, draft.reps_each = item.sets, True, item.reps
    elif item.sets is not None and not item.dosed:
        draft.rounds, draft.clocked = item.sets, True
    elif isinstance(item.reps, int) and item.label == "times":
        draft.rounds, draft.clocked = item.reps, True
    elif isinstance(item.reps, int) and one.items[0] is not item:
        page.unread.append(Unread(one.line.number, one.line.text))


def circuit(item: Item) -> bool:
    """`circuit 15 min`: what a block is, no movement."""
    timed = item.seconds is not None and item.reps is None and item.metres is None and item.sets is None
    return bool(item.words) and timed and all(t.kind == "CIRCUIT" for t in item.words)


def is_heading(page: Page, one: ReadLine) -> bool:
    """A line of words that ends in a colon, or has one behind its first words."""
    if one.items and circuit(one.items[0]):
        return True
    return (bool(one.items) and one.items[0].label == "heading" and len(one.items) <= 1) or one.line.text.endswith(
        ":"
    )


def modifies(page: Page, one: ReadLine) -> bool:
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
    if not draft.items or not kinds <= {"rounds", "cap", "fortime", "turns", "laps", "repeat"} or more_below(page):
        return False
    # `40/20 x 5: …` of five movements, below it `2 rounds`: the first number was that of the windows.
    anew = draft.windows is not None and draft.rounds == len(draft.items) > 1
    return draft.rounds is None or "rounds" not in kinds or anew


def written_block(page: Page, one: ReadLine, written: Written) -> None:
    """A block that stands in the written form."""
    page.part = None
    for entry in written.entries:
        draft = Draft(one.line.number, one.line.text, ready=entry)
        draft.items, draft.kind = [Item()], "written"
        page.draft = draft
        page.drafts.append(draft)
    page.unknown_written.extend(stub.key for stub in written.board.stubs)
    page.places_written.extend((s.key, s.words, s.line + written.first) for s in written.board.stubs)
