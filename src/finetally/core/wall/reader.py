"""Line by line: what belongs to which block. It always returns a session."""

from __future__ import annotations

from collections.abc import Callable, Mapping
from dataclasses import dataclass, field

from finetally.core.board.reader import META
from finetally.core.movements.library import Library
from finetally.core.movements.names import EverydayNames
from finetally.core.session.entries import blocks_in
from finetally.core.session.json_value import JsonObject, objects
from finetally.core.wall.assumptions import Assumptions
from finetally.core.wall.blocks.build import Builder
from finetally.core.wall.blocks.draft import Draft
from finetally.core.wall.items.names import EASY_BLOCKS, Names
from finetally.core.wall.items.read import ReadLine, head_list, name_text, tool_of
from finetally.core.wall.items.scanning import LineScanner
from finetally.core.wall.page.heads import head_line, is_heading, labelled, modifies, part_line, written_block
from finetally.core.wall.page.movements import SECOND, movement_line, rest_turn
from finetally.core.wall.page.page import Page, is_known, keep_note
from finetally.core.wall.page.rests import rest_line
from finetally.core.wall.page.sets import dose_only
from finetally.core.wall.page.talk import is_talk, margin_line, says_title, title_like
from finetally.core.wall.parts import DOSES, dose_json
from finetally.core.wall.text.lines import (
    LONGEST_LINE,
    clock_marks,
    dress,
    has_letters,
    has_numbers,
    lines_of,
    time_slots,
)
from finetally.core.wall.text.settings import without_settings
from finetally.core.wall.text.tables import without_tables
from finetally.core.wall.text.written import Written
from finetally.core.wall.tokens import rules_clock, rules_count, rules_rest  # noqa: F401  (they register the rules)
from finetally.core.wall.tokens.words import DAY
from finetally.core.wall.unread import Unread

MOSTLY = 0.7
"""Share of lines with a blank one before them from which blank lines part nothing."""


@dataclass(slots=True)
class Reading:
    """What a text comes to: the session document, what was assumed, what was not read, which names are new."""

    document: JsonObject
    assumed: Assumptions
    unread: list[Unread] = field(default_factory=list)
    unknown: list[str] = field(default_factory=list)
    lines: dict[str, tuple[int, int]] = field(default_factory=dict)
    said: dict[int, str] = field(default_factory=dict)
    step_rows: list[tuple[str, int]] = field(default_factory=list)
    """Movement and line of every step that was read from words."""
    places: list[tuple[str, str, int]] = field(default_factory=list)
    rows: list[str] = field(default_factory=list)
    note_lines: list[int] = field(default_factory=list)
    written: bool = False


class TextReader:
    """Reads one text."""

    def __init__(self, library: Library, everyday: EverydayNames, assumed: Assumptions) -> None:
        self._library, self._everyday, self._assumed = library, everyday, assumed

    def read(self, text: str, ready: Mapping[int, Written] | None = None) -> Reading:
        """Read a cleaned text; `ready` holds its blocks in the written form, by their first line from 0."""
        page = Page(self._library, Names(self._library, self._everyday), self._assumed)
        reading = self._read(page, text, ready)
        first = page.reads[0] if page.reads else None
        if not reading.document["blocks"] and first is not None and page.title and works(page, first):
            page = Page(self._library, Names(self._library, self._everyday), self._assumed, titled=False)
            reading = self._read(page, text, ready)
        if undosed(reading.document) and any(one.line.style == "count" for one in page.reads):
            # `1 burpee`, `2 squats`, `3 rows`: what looked like numbers of lines are their doses.
            page = Page(self._library, Names(self._library, self._everyday), self._assumed, numbered=False)
            reading = self._read(page, text, ready)
        return reading

    def _read(self, page: Page, text: str, ready: Mapping[int, Written] | None) -> Reading:
        page.ready = dict(ready or {})
        skipped = {number for one in page.ready.values() for number in range(one.first + 1, one.last)}
        lines = [one for one in lines_of(_told_anew(text)) if one.number - 1 not in skipped]
        letters, numbers = has_letters(lines), page.numbered and has_numbers(lines)
        scanner = LineScanner(page.names, page.assumed)
        page.reads = [scanner.scan(dress(one, letters=letters, numbers=numbers)) for one in lines]
        page.all_apart = sum(r.line.gap for r in page.reads) > MOSTLY * len(page.reads) and len(page.reads) > 3
        mark_labels(page)
        for number, one in enumerate(page.reads):
            page.at = number
            read_line(page, one)
        return finished(page)


def _told_anew(text: str) -> str:
    """The text with tables, settings, slots and marks told on one line each; not of lines too long to read."""
    rows = text.split("\n")
    long = {number: row for number, row in enumerate(rows) if len(row) > LONGEST_LINE}
    short = "\n".join("" if number in long else row for number, row in enumerate(rows))
    told = clock_marks(time_slots(without_settings(without_tables(short)))).split("\n")
    return "\n".join(long.get(number, row) for number, row in enumerate(told))


def undosed(document: JsonObject) -> bool:
    """Whether there is nothing to do, or something in rounds that nobody said how much of."""
    entries = [*objects(document.get("blocks"))]
    return not entries or any(_undosed(block) for entry in entries for block in blocks_in(entry))


def _undosed(block: JsonObject) -> bool:
    clock = block.get("clock")
    in_rounds = isinstance(clock, dict) and clock.get("kind") in ("task", "amrap")
    return in_rounds and any(not step.keys() & set(DOSES) for step in objects(block.get("steps")))


def works(page: Page, one: ReadLine) -> bool:
    """Whether a line that was taken as the title names a known movement and how much of it."""
    names = [name_text(i) for i in one.items]
    if len(page.reads) == 1 and not DAY.search(one.line.text) and not says_title(one.line.text):
        # `Yoga flow 30 min` and no more
        return any(i.dosed and i.words for i in one.items)
    return any(i.dosed for i in one.items) and any(is_known(page, n) or n in EASY_BLOCKS for n in names)


def mark_labels(page: Page) -> None:
    """Which labels count blocks and which count movements: those of blocks have a head or sets among them."""
    heads: dict[tuple[str, int, int], bool] = {}
    places: list[tuple[str, int, int]] = []
    above: list[tuple[int, int]] = []
    for number, one in enumerate(page.reads):
        style, indent = one.line.style, one.line.indent
        while above and above[-1][1] >= indent:
            above.pop()
        place = (style, indent, above[-1][0] if above else -1)
        above.append((number, indent))
        places.append(place)
        if style in ("letter", "count"):
            headish = (
                bool(one.line.part) or one.starts or any(i.sets for i in one.items) or one.line.text.endswith(":")
            )
            headish = headish or (not one.items and not one.rests) or head_list(one) is not None
            heads[place] = heads.get(place, False) or headish
    for one, place in zip(page.reads, places, strict=True):
        one.block_label = place[0] == "block" or heads.get(place, False)


def read_line(page: Page, one: ReadLine) -> None:
    """Put a line where it belongs: the first of the readers below that takes it has it."""
    line = one.line
    if _rest_of_all_blocks(page, one):
        return
    many_of_one(page, one)
    if joins_sets(page, one):
        return
    if line.number - 1 in page.ready:
        if line.sentence == 0:
            written_block(page, one, page.ready[line.number - 1])
    elif line.style == "note":
        keep_note(page, one)
    elif not any(takes(page, one) for takes in TAKERS):
        movement_line(page, one)


def _rest_of_all_blocks(page: Page, one: ReadLine) -> bool:
    """`2 min between blocks`: wherever it stands, it holds for all. Whether that is all that the line says."""
    blocks = next((f for f in one.rests if f.value["where"] == "blocks"), None)
    if blocks is None or one.line.number - 1 in page.ready:
        return False
    page.between = blocks.value["s"]
    one.scanned.facts.remove(blocks)
    return not one.items and not one.heads and not one.rests


def _of_the_session(page: Page, one: ReadLine) -> bool:
    return bool(META.match(one.line.raw) and margin_line(page, one)) or title_like(page, one)


def _of_a_part(page: Page, one: ReadLine) -> bool:
    if one.line.part is None:
        return False
    part_line(page, one)
    return True


def _of_a_turn(page: Page, one: ReadLine) -> bool:
    turn = one.line.turn is not None or one.line.parity is not None
    if not (names_of_a_round(page, one) or turn or rest_turn(page, one)):
        return False
    movement_line(page, one)
    return True


def _of_a_rest(page: Page, one: ReadLine) -> bool:
    if not one.rests or one.starts or any(i.dosed or is_known(page, name_text(i)) for i in one.items):
        return False
    rest_line(page, one)
    return True


def _of_talk(page: Page, one: ReadLine) -> bool:
    if not is_talk(page, one):
        return False
    keep_note(page, one)
    return True


def _of_the_block_above(page: Page, one: ReadLine) -> bool:
    if not modifies(page, one) or page.draft is None:
        return False
    page.draft.take(one.scanned.facts)
    if one.scanned.has("rounds") and page.draft.kind != "sets":
        rest_above(page.draft)
    return True


def _of_a_head(page: Page, one: ReadLine) -> bool:
    if not (one.starts or head_list(one) is not None or _heads_a_list(page, one)):
        return False
    head_line(page, one)
    return True


def _heads_a_list(page: Page, one: ReadLine) -> bool:
    """Whether the first of several movements is a heading, and no tool, no buy-in, no second half, no sets."""
    if len(one.items) < 2 or one.items[0].label != "heading" or any(i.sets for i in one.items):
        return False
    second = SECOND.match(one.line.low) and page.draft is not None and page.draft.items
    buys = any(t.kind == "BUYIN" for t in one.scanned.tokens)
    return not buys and not tool_of(one.items[0]) and not second


def _of_a_label(page: Page, one: ReadLine) -> bool:
    sets = any(i.sets for i in one.items)
    if not (one.block_label or one.line.style == "group" or sets or is_heading(page, one)):
        return False
    labelled(page, one)
    return True


TAKERS: tuple[Callable[[Page, ReadLine], bool], ...] = (
    _of_the_session,
    _of_a_part,
    dose_only,
    _of_a_turn,
    _of_a_rest,
    _of_talk,
    _of_the_block_above,
    _of_a_head,
    _of_a_label,
)
"""Who may take a line, in order: what says more of the line stands first."""


def rest_above(draft: Draft) -> None:
    """`… 1 min rest. 5 rounds.`: the rest that stands above is between the rounds."""
    last = draft.items[-1] if draft.items else None
    if draft.rest_between is not None:
        return
    if draft.rest_after is not None:
        draft.rest_between, draft.rest_after = draft.rest_after, None
    elif last is not None and last.rest_after is not None:
        draft.rest_between, last.rest_after = last.rest_after, None


def names_of_a_round(page: Page, one: ReadLine) -> bool:
    """`Round 1: squats, rows` under windows: what they are of, round after round."""
    draft = page.draft
    under = draft is not None and bool(draft.windows or draft.each) and not one.line.gap
    names = bool(one.named) and not any(i.dosed for i in one.items) and not one.heads and not one.rests
    return under and names and one.line.style == "block" and one.line.label.startswith("round")


def joins_sets(page: Page, one: ReadLine) -> bool:
    """`superset with` on a line of its own: the sets above and below it take turns."""
    draft = page.draft
    kinds = {t.kind for t in one.scanned.tokens}
    if draft is None or draft.kind != "sets" or draft.letter or not kinds <= {"SUPERSET", "WITH", "COLON", "SEP"}:
        return False
    if "SUPERSET" in kinds:
        draft.superset, draft.letter = True, "s1"
    return "SUPERSET" in kinds


def many_of_one(page: Page, one: ReadLine) -> None:
    """`AMRAP push-ups` among the lines of windows or rounds: that movement's own dose, no block."""
    draft = page.draft
    if draft is None or not (draft.windows or draft.rounds) or not draft.items or one.line.gap:
        return
    open_ones = [f for f in one.heads if f.kind == "amrap" and f.value["window"] is None]
    if len(one.heads) == 1 and open_ones and len(one.items) == 1 and one.items[0].words and not one.items[0].dosed:
        one.items[0].failure = True
        one.scanned.facts.remove(open_ones[0])


def finished(page: Page) -> Reading:
    """The session of all drafts."""
    builder = Builder(page.library, page.names, page.assumed)
    document: JsonObject = {"fine_tally": 1, "title": page.title or "Session"}
    if page.told is not None:
        document["announced_s"] = dose_json(page.told)
    document.update(page.meta)
    if page.cautions:
        document["cautions"] = page.cautions
    blocks = builder.blocks(page.drafts)
    if page.between is not None:
        for block in blocks[:-1]:
            block.setdefault("rest_after_s", dose_json(page.between))
    notes = [*page.notes, *builder.loose_notes]
    if notes:
        document["notes"] = "\n".join(notes)[:20_000]
    document["blocks"] = [*blocks]
    return Reading(
        document,
        page.assumed,
        list(dict.fromkeys([*page.unread, *builder.unread])),
        [*dict.fromkeys([*page.unknown_written, *builder.unknown])],
        builder.lines,
        {d.line: d.said for d in page.drafts},
        places=[*page.places_written, *builder.places],
        note_lines=page.note_lines,
        step_rows=builder.step_rows,
    )
