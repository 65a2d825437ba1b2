"""Rests on lines of their own: between rounds, between sets, before what follows."""

from __future__ import annotations

import re

from finetally.core.session.json_value import JsonObject
from finetally.core.wall.blocks.draft import Draft
from finetally.core.wall.items.item import SOFT_WORDS, Item
from finetally.core.wall.items.read import ReadLine, head_list
from finetally.core.wall.page.page import Page, ends_at, keep_note, new_draft, next_line
from finetally.core.wall.page.talk import is_talk
from finetally.core.wall.parts import Dose, dose_json
from finetally.core.wall.tokens.rules import FactValue
from finetally.core.wall.unread import Unread

REST_BELOW = ("before what follows", "between the rounds")


def rest_line(page: Page, one: ReadLine) -> None:
    """A line that only says rests: each goes where it belongs."""
    draft = page.draft
    if draft is None and any(f.value["where"] in ("rounds", "each") for f in one.rests) and not one.named:
        # `rest 1 min between exercises` in front of what it is said of.
        draft = new_draft(page, one)
    elif draft is None or (not draft.items and not draft.clocked):
        keep_note(page, one)
        return
    if draft.ready is not None:
        _below_written(page, draft.ready, one)
        return
    again = one.scanned.has("repeat") and bool(draft.items)
    for fact in one.rests:
        # `repeat x 4, 90 s rest`: between the times.
        take_rest(page, draft, {**fact.value, "where": "rounds"} if again else fact.value, one)
    if again:
        draft.take([f for f in one.scanned.facts if f.kind == "repeat"])
    words = [t for i in one.items for t in i.words]
    if words:
        draft.notes.append(one.line.text)


def _below_written(page: Page, block: JsonObject, one: ReadLine) -> None:
    """A rest below a block in the written form: behind it, or between its rounds where nothing follows."""
    seconds, clock = dose_json(one.rests[0].value["s"]), block.get("clock")
    rounds = isinstance(clock, dict) and clock.get("kind") == "task" and block.get("rounds", 1) != 1
    if isinstance(clock, dict) and rounds and "round_rest_s" not in clock and "after" not in one.line.low:
        first = 1 if next_line(page) is None else 0
        if page.assumed.pick("rest-below", one.line.number, one.line.text, REST_BELOW, first=first) == 1:
            clock["round_rest_s"] = seconds
            return
    block["rest_after_s"] = seconds


def take_rest(page: Page, draft: Draft, value: FactValue, one: ReadLine) -> None:
    """Put a rest where it belongs: at a place that it names, else by what stands above it."""
    where, seconds = value["where"], value["s"]
    if value.get("open"):
        page.assumed.pick("open-rest", one.line.number, one.line.text, ["1:00, ended when you are ready"])
    if not draft.items:
        draft.put_rest(value)
    elif where == "none":
        draft.no_rest = True
    elif where == "rounds":
        _rest_of_rounds(page, draft, value, one)
    elif where == "groups":
        draft.rest_groups = seconds
    elif where == "each" and draft.kind == "sets":
        run = [d for d in page.drafts if d.kind == "sets" and d.run == draft.run]
        for above in run[:-1]:
            above.rest_after = seconds if above.rest_after is None else above.rest_after
    elif where == "each":
        draft.rest, draft.rest_each = seconds, True
    else:
        _plain_rest(page, draft, seconds, one)


def _rest_of_rounds(page: Page, draft: Draft, value: FactValue, one: ReadLine) -> None:
    """A rest between rounds: of all sets above, of windows, or of this block, which is closed by it."""
    seconds = value["s"]
    if draft.kind == "sets" and OF_ALL.search(one.line.low):
        rest_of_all(page, seconds)
    elif draft.between_each(value) or (draft.each and draft.rest_between is not None):
        draft.put_rest(value)
    else:
        if draft.rest_after is not None and draft.kind != "sets":
            # `0:30 rest`, below it `1:00 rest between rounds`: the first belongs to the round.
            draft.items[-1].rest_after, draft.rest_after = draft.rest_after, None
        rest_between(page, draft, seconds)
        draft.closed = draft.kind != "sets"


def _plain_rest(page: Page, draft: Draft, seconds: Dose | None, one: ReadLine) -> None:
    """A rest that names no place: of sets, between what goes on below it, or behind the block."""
    of_sets = (draft.kind == "sets" or draft.superset) and draft.rest_between is None
    if draft.kind == "sets" and OF_ALL.search(one.line.low):
        rest_of_all(page, seconds)
    elif of_sets and not one.line.gap and not walks_between(draft):
        rest_between(page, draft, seconds)
    elif len(draft.items) == 1 and draft.rest_between is None and isinstance(draft.items[0].load, list):
        # Sets with a load each, on lines below their name.
        draft.rest_between = seconds
    elif goes_on(page):
        draft.items[-1].rest_after = seconds
    else:
        rest_after(page, draft, seconds, one)


OF_ALL = re.compile(r"\b(?:all|each|every|everything|throughout)\b")


def rest_of_all(page: Page, seconds: Dose | None) -> None:
    """`90 s after every set`: the rest of all sets above that have none of their own."""
    for above in page.drafts:
        if above.kind == "sets" and above.rest_between is None:
            above.rest_between = seconds


def walks_between(draft: Draft) -> bool:
    """Whether what is done between the sets is told already: `8 x 20 s, walk back 60 s`."""
    last = draft.items[-1]
    return len(draft.items) > 1 and last.sets is None and last.seconds is not None and easy(last)


def easy(item: Item) -> bool:
    """Whether an item is done easily: a walk, a jog, a spin."""
    return any(t.kind == "SOFT" or t.text in SOFT_WORDS for t in item.words)


def rest_between(page: Page, draft: Draft, seconds: Dose | None) -> None:
    """A rest between the sets of a run, or between the rounds of a block."""
    run = [d for d in page.drafts if d.kind == "sets" and d.run == draft.run] if draft.kind == "sets" else [draft]
    for one in run:
        if one.rest_between is None:
            one.rest_between = seconds


def goes_on(page: Page) -> bool:
    """Whether the line after a rest still belongs to the block above."""
    following = next_line(page)
    if (
        following is None
        or following.scanned.has("repeat")
        or following.line.gap
        or following.line.part is not None
        or following.starts
        or following.block_label
    ):
        return False
    if following.rests and not following.named:
        return False
    mine = page.draft is not None and any(isinstance(i.reps, list) for i in page.draft.items)
    if not mine and any(isinstance(i.reps, list) for i in following.items):
        return False
    if following.items and following.items[0].label == "heading":
        return False
    if head_list(following) is not None or any(i.sets for i in following.items) or following.line.style == "group":
        return False
    draft = page.draft
    return (
        bool(following.named)
        and draft is not None
        and (draft.clocked or following.line.indent > 0 or page.at > 0)
        and not is_talk(page, following)
    )


def rest_after(page: Page, draft: Draft, seconds: Dose | None, one: ReadLine) -> None:
    """A rest behind what stands above: between its rounds where that is meant, else before what follows."""
    following = next_line(page)
    if (
        following is not None
        and not following.named
        and {f.kind for f in following.heads} == {"rounds"}
        and not following.line.gap
        and ends_at(page, following)
    ):
        draft.rest_between = seconds
        return
    amraps_again = any("repeat" in one or draft.rounds for one in draft.amraps)
    again = amraps_again or bool(draft.every and draft.every.get("repeat"))
    if again and draft.rest_between is None and draft.rest is None:
        draft.rest_between = seconds
        return
    rounds = (
        draft.rounds is not None
        and draft.rest_between is None
        and draft.kind != "sets"
        and not draft.windows
        and not draft.each
        and not draft.amraps
        and not draft.every
    )
    if rounds:
        inside = following is not None and following.line.indent < one.line.indent
        first = 1 if following is None or inside else 0
        picked = page.assumed.pick("rest-below", one.line.number, one.line.text, REST_BELOW, first=first)
        if picked == 1:
            draft.rest_between = seconds
            return
    if draft.rest_after is not None:
        page.unread.append(Unread(one.line.number, one.line.text))
        return
    draft.rest_after = seconds


def item_rest(page: Page, draft: Draft, value: FactValue, made: list[Item] | None = None) -> None:
    """A rest said beside movements: the head's where it says so, else behind the last movement."""
    where = value["where"]
    items = made or draft.items
    if where in ("rounds", "groups", "none"):
        draft.put_rest(value)
    elif items:
        items[-1].rest_after = value["s"]


def set_rest(draft: Draft, value: FactValue) -> None:
    """A rest said beside sets."""
    if value["where"] == "none":
        draft.no_rest = True
    elif value["where"] == "groups":
        draft.rest_groups = value["s"]
    elif draft.rest_between is None:
        draft.rest_between = value["s"]
