"""Lines with movements: which block they belong to."""

from __future__ import annotations

import re

from finetally.core.wall.blocks.draft import Draft
from finetally.core.wall.items.item import Item
from finetally.core.wall.items.names import trimmed
from finetally.core.wall.items.qualities import joined
from finetally.core.wall.items.read import ReadLine, name_text, tool_of
from finetally.core.wall.page.heads import draft_work, is_talk_item
from finetally.core.wall.page.page import Page, continues, leave_part, new_draft
from finetally.core.wall.page.rests import item_rest
from finetally.core.wall.page.sets import names_sets
from finetally.core.wall.tokens.words import KIT_WORDS
from finetally.core.wall.unread import Unread


def movement_line(page: Page, one: ReadLine) -> None:
    """A line with movements: it belongs to the block above, or begins one."""
    draft = page.draft
    if draft is not None and draft.kind == "written":
        draft = None
    elif draft is not None and draft.kind == "sets" and names_sets(page, draft, one):
        return
    if draft is not None and begins_anew(page, draft, one):
        leave_part(page, one)
        draft = None
    if draft is not None and _beside_the_rounds(draft, one):
        return
    if draft is None:
        draft = new_draft(page, one)
    tool = tool_of(one.items[0]) if one.items else ""
    if tool:
        draft = new_draft(page, one) if draft.items else draft
        draft.tool, draft.tool_load = tool, one.items.pop(0).load
    draft.items.extend(plain_items(page, one, draft))
    draft.take([f for f in one.scanned.facts if f.kind != "rest"])
    _rests_of_line(page, draft, one)
    if draft.tool:
        tool_load(page, draft)
    if any(i.finish for i in one.items):
        page.draft = None


def _rests_of_line(page: Page, draft: Draft, one: ReadLine) -> None:
    """Rests said beside movements: between the doses of a list, else behind the last movement."""
    for fact in one.rests:
        if fact.value["where"] == "plain" and (listed_doses(one.items) or one.scanned.has("repeat")):
            draft.rest_between = fact.value["s"]
        else:
            item_rest(page, draft, fact.value)


def _beside_the_rounds(draft: Draft, one: ReadLine) -> bool:
    """What is done once before an amrap, and what is done in a second half; then the line is taken."""
    if any(t.kind == "BUYIN" for t in one.scanned.tokens) and draft.amraps:
        draft.buy_in.extend(i for i in one.items if i.dosed)
        return True
    if SECOND.match(one.line.low) and draft.items:
        draft.again = [i for i in one.items if i.dosed]
        return True
    return False


def begins_anew(page: Page, draft: Draft, one: ReadLine) -> bool:
    """Whether a line of movements is no more of the block above it."""
    if draft.kind == "sets" and not draft.letter:
        return True
    if not draft.items:
        return False
    # A list of reps, `then 400 m run`: once, when the list is through.
    once = draft.ladder and one.line.low.startswith("then ")
    once = once and all(i.dosed and not isinstance(i.reps, list) for i in one.items)
    apart = one.line.gap and not continues(page, one)
    over = draft.rest_after is not None or draft.closed
    # `3 rounds: 20 push-ups. Then run 2 km.`: a sentence of its own behind a head that has its lines.
    inline = one.line.sentence > 0 and draft.rounds is not None and all(i.row == draft.line for i in draft.items)
    over = over or (inline and one.line.low.startswith("then "))
    # `3 x 2 min / 1 min rest: bag; 100 sit-ups`: reps are no window.
    over = over or (inline and bool(draft.windows) and all(i.reps is not None for i in one.items))
    # `Squat @ 70 %: 5, 5, 5`, below it `Squat @ 80 %: 3, 3, 3`: sets of their own.
    last = draft.items[-1]
    same = len(one.items) == 1 and isinstance(one.items[0].reps, list) and isinstance(last.reps, list)
    same = same and not draft.clocked and name_text(one.items[0]) == name_text(last)
    return bool(same or once or apart or over or any(i.finish for i in one.items) or own_list(page, one, draft))


SECOND = re.compile(r"(?:2nd|second)(?:\s+(?:time|go|one|amrap|part)|\s*[:\-])")


def tool_load(page: Page, draft: Draft) -> None:
    """`sandbag: 10 squats, 10 presses, bag 30 kg`: what is told of the tool holds for all."""
    told = next(
        (
            i
            for i in draft.items
            if not i.dosed and i.load is not None and all(t.text in KIT_WORDS for t in i.words)
        ),
        None,
    )
    load = (
        told.load if told is not None else next((i.load for i in draft.items if i.load is not None and i.kit), None)
    )
    if told is not None:
        draft.items.remove(told)
    for item in draft.items:
        item.load = item.load or load


def own_list(page: Page, one: ReadLine, draft: Draft) -> bool:
    """Whether a line with its own list of reps is a block of its own: the lines above have none."""
    mine = any(isinstance(i.reps, list) for i in one.items if i.words)
    if mine and one.rests and draft.rest_between is not None and listed_reps(draft.items):
        return True
    theirs = any(isinstance(i.reps, list) for i in draft.items)
    return mine != theirs and not draft.ladder and not draft.clocked


def plain_items(page: Page, one: ReadLine, draft: Draft) -> list[Item]:
    """The movements of a line that a block is given; rests, asides and notes among them go where they belong."""
    made: list[Item] = []
    for item in one.items:
        if draft_work(draft, item, []):
            continue
        _mark_turn(one, item)
        if _is_rest(page, one, draft, item, made) or _is_beside(page, draft, item, made):
            continue
        if item.words and not trimmed([t.text for t in item.words]):
            # Words that name nothing: softer work of the one before, or what nobody can read.
            soft = item.seconds is not None and made and any(t.kind == "SOFT" for t in item.words)
            if not soft and item.dosed and made:
                page.unread.append(Unread(item.row, joined(item.words)))
                continue
            if not soft and not item.dosed:
                continue
        made.append(item)
    return made


def _mark_turn(one: ReadLine, item: Item) -> None:
    """Give an item its line's turn, parity and letter."""
    item.turn = one.line.turn if one.line.turn is not None else item.turn
    if one.line.parity is not None:
        item.turn = 2 - one.line.parity
    if one.line.style in ("letter", "count", "group"):
        item.letter = one.line.label


def _is_rest(page: Page, one: ReadLine, draft: Draft, item: Item, made: list[Item]) -> bool:
    """Whether an item is a rest (or only a load of the one before); then it is taken."""
    if not item.words and item.seconds is not None and item.sets is None and made and item is one.items[-1]:
        # `1-1-1 clean, 2 min`: what stands last without a name is a rest.
        page.assumed.pick("bare-time", one.line.number, one.line.text, ["a rest"])
        item_rest(page, draft, {"s": item.seconds, "where": "rounds" if listed_reps(made) else "plain"}, made)
        return True
    if not item.words and not item.dosed:
        if item.load is not None and made:
            made[-1].load = made[-1].load or item.load
        return True
    if not item.words or not all(t.kind == "REST" for t in item.words):
        return False
    if item.dosed:
        item_rest(page, draft, {"s": item.seconds, "where": "plain"}, made)
    else:
        made.append(Item(rest_turn=True, turn=item.turn, row=one.line.number))
    return True


def _is_beside(page: Page, draft: Draft, item: Item, made: list[Item]) -> bool:
    """Whether an item without a dose only says something: of the movement before it, or as talk; it is kept."""
    if item.dosed:
        return False
    listing = bool(draft.windows or draft.each or draft.ladder or draft.pyramid or draft.reps_each or draft.total)
    listing = listing or (item.joined and any(isinstance(i.reps, list) or i.ranged is not None for i in made))
    if not listing and made and not page.names.known(name_text(item)):
        aside(page, made[-1], item)
        return True
    if listing and item.words and is_talk_item(page, item) and page.names.known(name_text(item)) is None:
        draft.notes.append(joined(item.words))
        return True
    return False


def listed_doses(items: list[Item]) -> bool:
    """Whether doses go by a list."""
    return any(isinstance(v, list) for i in items for v in (i.reps, i.seconds, i.metres))


def listed_reps(items: list[Item]) -> bool:
    """Whether reps go by a list."""
    return any(isinstance(i.reps, list) for i in items)


def aside(page: Page, item: Item, words: Item) -> None:
    """Words behind a movement that are no movement: kit, or a note."""
    texts = [t.text for t in words.words]
    item.kit.extend(one for one in texts if one in KIT_WORDS)
    item.notes.append(" ".join(texts))
    item.load = item.load or words.load


def rest_turn(page: Page, one: ReadLine) -> bool:
    """A line that only says `rest` where lines take turns or have windows."""
    draft = page.draft
    return (
        draft is not None
        and bool(draft.every or draft.windows or draft.each)
        and [t.kind for t in one.scanned.tokens] == ["REST"]
    )
