"""What is known while a text is read, and where its next block begins."""

from __future__ import annotations

from dataclasses import dataclass, field

from finetally.core.movements.library import Library
from finetally.core.session.json_value import JsonObject, JsonValue
from finetally.core.wall.assumptions import Assumptions
from finetally.core.wall.blocks.draft import Draft
from finetally.core.wall.items.names import Names
from finetally.core.wall.items.read import ReadLine, seconds_only
from finetally.core.wall.parts import Amount, Dose
from finetally.core.wall.text.written import Written
from finetally.core.wall.unread import Unread


@dataclass(slots=True)
class Page:
    """All that is known while a text is read: its lines, the drafts so far, and where reading stands."""

    library: Library
    names: Names
    assumed: Assumptions
    reads: list[ReadLine] = field(default_factory=list)
    at: int = 0
    drafts: list[Draft] = field(default_factory=list)
    draft: Draft | None = None
    part: str | None = None
    run: int = 0
    all_apart: bool = False
    title: str = ""
    told: Amount | None = None
    notes: list[str] = field(default_factory=list)
    unread: list[Unread] = field(default_factory=list)
    note_lines: list[int] = field(default_factory=list)
    unknown_written: list[str] = field(default_factory=list)
    places_written: list[tuple[str, str, int]] = field(default_factory=list)
    between: Dose | None = None
    cautions: list[JsonValue] = field(default_factory=list)
    meta: JsonObject = field(default_factory=dict)
    ready: dict[int, Written] = field(default_factory=dict)
    numbered: bool = True
    """Whether bare numbers in front of lines may count them."""
    titled: bool = True
    """Whether the first line may be the title; not where nothing would be left."""


def is_known(page: Page, words: str) -> bool:
    """Whether words name a known movement."""
    return page.names.known(words) is not None


def dose_follows(page: Page) -> bool:
    """Whether the next line only says how much of what this one names."""
    following = next_line(page)
    return (
        following is not None
        and bool(following.items)
        and not following.named
        and any(i.dosed for i in following.items)
    )


def ends_at(page: Page, one: ReadLine) -> bool:
    """Whether nothing more of a block stands under a line."""
    at = page.reads.index(one)
    below = page.reads[at + 1] if at + 1 < len(page.reads) else None
    return not one.line.text.endswith(":") and (
        below is None or below.line.gap or not below.named or below.starts or below.block_label
    )


def more_below(page: Page) -> bool:
    """Whether the next line still belongs to a block that would begin here."""
    following = next_line(page)
    return (
        following is not None
        and not following.line.gap
        and bool(following.named)
        and following.line.part is None
        and not following.starts
        and not following.block_label
    )


def next_line(page: Page) -> ReadLine | None:
    """The next line that is no note."""
    for one in page.reads[page.at + 1 :]:
        if one.line.style != "note":
            return one
    return None


def new_draft(page: Page, one: ReadLine, part: str | None = None) -> Draft:
    """Begin a block at a line; a heading above it that has nothing yet becomes its title."""
    draft = Draft(one.line.number, one.line.text, part=part or page.part)
    before = page.draft
    own = (
        before is not None
        and before.total is not None
        and before.part not in (None, "main")
        and (any(i.sets for i in one.items) or one.block_label or one.line.part is not None)
    )
    if before is not None and not before.items and not before.clocked and not before.buy_in and not own:
        # A heading with nothing under it yet gives its name to what begins here.
        draft.title, draft.letter, draft.tool = before.title, before.letter, before.tool
        draft.part = part or before.part
        draft.notes, draft.total, draft.rest = before.notes, before.total, before.rest
        draft.line = before.line
        page.drafts.pop()
    page.draft = draft
    page.drafts.append(draft)
    return draft


def leave_part(page: Page, one: ReadLine) -> None:
    """Whether the part that was begun above is over: something new begins after its own lines."""
    draft = page.draft
    if page.part in (None, "main") or draft is None:
        return
    if draft.total is not None and not draft.items and draft.part == page.part:
        page.part = None
        return
    strength = page.part == "warm-up" and any(
        (i.sets and (i.load is not None or one.rests)) or isinstance(i.reps, list) for i in one.items
    )
    if draft.items and (
        strength
        or draft.rest_after is not None
        or one.block_label
        or one.line.gap
        or draft.inline
        or (one.line.style == "group" and draft.letter[:1] != one.line.label[:1])
    ):
        page.part = None


def next_run(page: Page) -> int:
    """A number for a row of set lines whose rests hold for each other."""
    page.run += 1
    return page.run


def keep_note(page: Page, one: ReadLine) -> None:
    """Keep a line as a note of the block above, or of the session; one with doses is told as not read."""
    text = one.line.text.strip()
    if page.draft is not None:
        page.draft.notes.append(text)
    elif text:
        page.notes.append(text)
    if one.line.style == "note" or (any(i.dosed for i in one.items) and not seconds_only(one)):
        page.unread.append(Unread(one.line.number, text))
    elif one.line.sentence == 0 and page.reads and one is not page.reads[0]:
        page.note_lines.append(one.line.number)


def continues(page: Page, one: ReadLine) -> bool:
    """Whether a plain line after a blank one still belongs to the block above: all lines stand apart."""
    return page.all_apart
