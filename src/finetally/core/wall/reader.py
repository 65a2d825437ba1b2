"""Line by line: what belongs to which block, where a rest is taken, what is a note. It always returns a session."""

from __future__ import annotations

import re
from collections.abc import Mapping
from dataclasses import dataclass, field
from typing import Any

from finetally.core.movements.library import Library
from finetally.core.movements.names import EverydayNames
from finetally.core.board.problems import BoardError
from finetally.core.board.reader import META, TITLE_WORD, read_lines
from finetally.core.wall import rules_clock, rules_rest  # noqa: F401  (they register the rules)
from finetally.core.session.limits import MAX_DURATION_S
from finetally.core.wall.assumptions import Assumptions
from finetally.core.wall.build import Builder
from finetally.core.wall.draft import Draft
from finetally.core.wall.items import Item, ItemReader, take_dose
from finetally.core.wall.lines import Line, dress, has_letters, has_numbers, lines_of, without_pictures
from finetally.core.wall.names import Names, trimmed
from finetally.core.wall.rules import Fact, Scanned, scan
from finetally.core.wall.steps import bounded
from finetally.core.wall.tables import without_tables
from finetally.core.wall.tokens import Token, plain, tokens_of
from finetally.core.wall.unread import Unread
from finetally.core.wall.words import KIT_WORDS
from finetally.core.wall.written import Written

HEADS = frozenset(
    {"amrap", "every", "windows", "each", "rounds", "pyramid", "superset", "stations", "laps", "total", "turns", "cap", "fortime", "grow", "growlist", "deathby", "repeat"}
)
"""Facts that are said of a block as a whole."""
STARTING = frozenset({"amrap", "every", "windows", "each", "rounds", "pyramid", "superset", "stations", "growlist", "deathby"})
"""Facts that begin a block."""
LONGEST_TALK = 5
"""Words from which a line without a dose is talk."""
MOSTLY = 0.7
TITLE_MOST = 200
SHORTEST_TOLD_S = 300
TITLE_LENGTH_FROM = 900
"""Seconds from which a length on the first line is the session's, not a movement's."""

_DAY = re.compile(
    r"\b(?:mon|tue|tues|wed|weds|thu|thur|thurs|fri|sat|sun)(?:day)?\b|\b(?:tues|wednes|thurs|satur)day\b|\b(?:montag|dienstag|mittwoch|donnerstag|freitag|samstag"
    r"|sonntag|lundi|mardi|mercredi|jeudi|vendredi|samedi|dimanche|lunedì|martedì|mercoledì|giovedì|venerdì|sabato|domenica|lunes|martes|miércoles"
    r"|jueves|viernes|sábado|domingo|maandag|dinsdag|woensdag|donderdag|vrijdag|zaterdag|zondag)\b", re.IGNORECASE)  # fmt: skip
_TOLD_BRACKET = re.compile(r"[(\[]\s*(?:about|ca\.?|~)?\s*\d+\s*(?:min|mins|minutes|'|h)\s*[)\]]|\d{2,3}\s*(?:min|mins|minutes|')\s*$")
_TALK = re.compile(
    r"\b(?:you|your|yourself|we|we'll|i|i'm|please|bring|drink|remember|don't|dont|do not|let's|lets|everyone|guys|team|folks|hi|hello|hey|morning|thanks|see|sorry"
    r"|enjoy|pay|watch|make sure|take your|have fun|keep|should|figures|focus|talking|partner|partners)\b", re.IGNORECASE)  # fmt: skip


@dataclass(slots=True)
class Read:
    """A line with its facts and items."""

    line: Line
    scanned: Scanned
    items: list[Item]
    block_label: bool = False

    @property
    def heads(self) -> list[Fact]:
        return [f for f in self.scanned.facts if f.kind in HEADS]

    @property
    def rests(self) -> list[Fact]:
        return [f for f in self.scanned.facts if f.kind == "rest"]

    @property
    def starts(self) -> bool:
        """Whether the line begins a block by what it says."""
        return self.scanned.has(*STARTING)

    @property
    def named(self) -> list[Item]:
        """The items that have words."""
        return [one for one in self.items if one.words]


@dataclass(slots=True)
class Reading:
    """What a text comes to: the session document, what was assumed, what was not read, which names are new."""

    document: dict[str, Any]
    assumed: Assumptions
    unread: list[Unread] = field(default_factory=list)
    unknown: list[str] = field(default_factory=list)
    lines: dict[str, tuple[int, int]] = field(default_factory=dict)
    said: dict[int, str] = field(default_factory=dict)
    places: dict[str, tuple[int, int, int]] = field(default_factory=dict)


class TextReader:
    """Reads one text."""

    def __init__(self, library: Library, everyday: EverydayNames, assumed: Assumptions) -> None:
        self._library = library
        self._names = Names(library, everyday)
        self._assumed = assumed
        self._drafts: list[Draft] = []
        self._draft: Draft | None = None
        self._part: str | None = None
        self._notes: list[str] = []
        self._title = ""
        self._told: Any = None
        self._unread: list[Unread] = []
        self._reads: list[Read] = []
        self._at = 0
        self._run = 0
        self._length: Any = None
        self._all_apart = False
        self._unknown_written: list[str] = []
        self._meta: dict[str, Any] = {}
        self._ready: dict[int, Written] = {}

    def read(self, text: str, ready: Mapping[int, Written] | None = None) -> Reading:
        """Read a cleaned text; `ready` holds its blocks in the written form, by their first line from 0."""
        self._ready = dict(ready or {})
        skipped = {number for one in self._ready.values() for number in range(one.first + 1, one.last)}
        lines = [one for one in lines_of(without_tables(text)) if one.number - 1 not in skipped]
        letters, numbers = has_letters(lines), has_numbers(lines)
        self._reads = [self._scanned(dress(one, letters=letters, numbers=numbers)) for one in lines]
        self._reads = [piece for one in self._reads for piece in _pieces(one)]
        self._all_apart = sum(r.line.gap for r in self._reads) > MOSTLY * len(self._reads) and len(self._reads) > 3
        self._mark_labels()
        for self._at, one in enumerate(self._reads):
            self._line(one)
        return self._finish()

    def _scanned(self, line: Line) -> Read:
        if line.style == "note":
            return Read(line, Scanned([]), [])
        tokens = _waves(_bracketed_rounds(tokens_of(line.low)))
        scanned = scan(tokens)
        if [t.kind for t in scanned.tokens] == ["X", "NUM"]:
            scanned.facts.append(Fact("rounds", {"n": int(scanned.tokens[1].value)}, 0, 1))
            scanned.taken = [True, True]
        if [t.kind for t in scanned.tokens if t.kind not in ("SEP", "OF")] == ["NUM", "SET"]:
            number = next(t for t in scanned.tokens if t.kind == "NUM")
            scanned.facts.append(Fact("rounds", {"n": max(1, int(number.value))}, 0, 1))
            scanned.taken = [True] * len(scanned.tokens)
        items = ItemReader(scanned, self._is_known).read()
        for item in items:
            _ladder_words(item)
            self._bare_metres(item, line)
        self._line_lengths(scanned, items)
        _repeated_window(scanned, items)
        _shared_doses(items)
        for item in items:
            item.row = line.number
        return Read(line, scanned, items)

    def _bare_metres(self, item: Item, line: Line) -> None:
        """Metres of nothing in particular are run."""
        if item.metres is None or trimmed([t.text for t in item.words if t.kind not in ("HARD", "SOFT")]):
            return
        how = [t.text for t in item.words]
        item.notes.extend(how)
        item.words = [Token("W", "run", "run", item.first, item.first)]
        self._assumed.pick("bare-metres", line.number, line.text, ["run"])

    def _is_known(self, words: str) -> bool:
        return self._names.known(words) is not None

    def _mark_labels(self) -> None:
        """Which labels count blocks and which count movements: those of blocks have a head or sets among them."""
        heads: dict[tuple[str, int, int], bool] = {}
        places: list[tuple[str, int, int]] = []
        above: list[tuple[int, int]] = []
        for number, one in enumerate(self._reads):
            style, indent = one.line.style, one.line.indent
            while above and above[-1][1] >= indent:
                above.pop()
            place = (style, indent, above[-1][0] if above else -1)
            above.append((number, indent))
            places.append(place)
            if style in ("letter", "count"):
                headish = bool(one.line.part) or one.starts or any(i.sets for i in one.items) or one.line.text.endswith(":")
                headish = headish or (not one.items and not one.rests) or _head_list(one) is not None
                heads[place] = heads.get(place, False) or headish
        for one, place in zip(self._reads, places, strict=True):
            one.block_label = place[0] == "block" or heads.get(place, False)

    # What a line is
    def _line(self, one: Read) -> None:
        line = one.line
        if line.number - 1 in self._ready:
            if line.sentence == 0:
                self._written(one, self._ready[line.number - 1])
        elif line.style == "note":
            self._note(one)
        elif META.match(line.raw) and self._margin(one):
            return
        elif self._title_like(one):
            return
        elif line.part is not None:
            self._part_line(one)
        elif self._dose_only(one):
            return
        elif line.turn is not None or line.parity is not None or self._rest_turn(one):
            self._plain(one)
        elif one.rests and not one.starts and not any(i.dosed or self._is_known(_text(i)) for i in one.items):
            self._rest_line(one)
        elif self._is_talk(one):
            self._note(one)
        elif self._modifies(one):
            assert self._draft is not None
            self._draft.take(one.scanned.facts)
        elif one.starts or _head_list(one) is not None:
            self._head(one)
        elif len(one.items) > 1 and one.items[0].label == "heading" and not any(t.kind == "BUYIN" for t in one.scanned.tokens) and not (len(one.items[0].words) == 1 and one.items[0].words[0].text in KIT_WORDS) and not any(i.sets for i in one.items):
            self._head(one)
        elif one.block_label or line.style == "group" or any(i.sets for i in one.items) or self._heading(one):
            self._labelled(one)
        else:
            self._plain(one)

    def _margin(self, one: Read) -> bool:
        """A line about the session as the written form has it: `tags: hill, cold`."""
        if one.line.sentence:
            return True
        try:
            said = read_lines(["x", one.line.raw.strip()], library=self._library).document
        except BoardError:
            return False
        for key, value in said.items():
            if key == "notes":
                self._notes.append(value)
            elif key == "cautions":
                self._meta.setdefault(key, []).extend(value)
            elif key not in ("fine_tally", "title", "blocks"):
                self._meta[key] = value
        return True

    def _written(self, one: Read, written: Written) -> None:
        """A block that stands in the written form."""
        self._part = None
        for entry in written.entries:
            draft = Draft(one.line.number, one.line.text, ready=entry)
            draft.items, draft.kind = [Item()], "written"
            self._draft = draft
            self._drafts.append(draft)
        self._unknown_written.extend(stub.key for stub in written.board.stubs)

    def _rest_turn(self, one: Read) -> bool:
        """A line that only says `rest` where lines take turns or have windows."""
        draft = self._draft
        return draft is not None and bool(draft.every or draft.windows or draft.each) and [t.kind for t in one.scanned.tokens] == ["REST"]

    def _dose_follows(self) -> bool:
        following = self._next()
        return following is not None and bool(following.items) and not following.named and any(i.dosed for i in following.items)

    def _dose_only(self, one: Read) -> bool:
        """A line that only says how much of the movement above: `5 x 5 @ 100 kg` under `Back squat`."""
        draft = self._draft
        if draft is None or draft.kind == "written" or one.named or one.starts or not any(i.dosed for i in one.items) or one.line.gap:
            return False
        if draft.items and len(one.items) == 1 and one.items[0].seconds is not None and one.items[0].sets is None and all(i.dosed for i in draft.items):
            if draft.every is not None and "total" not in draft.every and "n" not in draft.every:
                draft.every["total"] = one.items[0].seconds
                return True
            self._assumed.pick("bare-time", one.line.number, one.line.text, ["a rest"])
            self._rest(draft, {"s": one.items[0].seconds, "where": "plain"}, one)
            return True
        item = draft.items[-1] if draft.items and not draft.items[-1].dosed and not draft.items[-1].rest_turn else None
        if item is None and draft.pending is not None and not draft.items:
            item = draft.pending
            draft.items.append(item)
        if item is None or draft.windows or draft.each or draft.ladder:
            return False
        for dose in one.items:
            take_dose(item, dose)
        if item.sets is not None and len(draft.items) > 1:
            draft.items.remove(item)
            draft = self._new(one)
            draft.items.append(item)
        if item.sets is not None or isinstance(item.reps, list):
            draft.kind = "sets" if item.sets is not None else draft.kind
            draft.run = draft.run or self._next_run()
        if item.loose_time is not None and draft.rest_between is None:
            draft.rest_between = item.loose_time
        for fact in one.rests:
            _set_rest(draft, fact.value)
        return True

    def _heading(self, one: Read) -> bool:
        """A line of words that ends in a colon, or has one behind its first words."""
        return bool(one.items) and one.items[0].label == "heading" and len(one.items) <= 1 or one.line.text.endswith(":")

    def _title_like(self, one: Read) -> bool:
        """The first line where it names the session, and lines before the first block that tell its length."""
        if self._drafts or self._draft is not None or one.line.part is not None or one.line.turn is not None:
            return False
        first = self._at == 0
        if first and TITLE_WORD.match(one.line.raw.strip()):
            return self._as_title(one)
        day = _DAY.search(one.line.text) is not None
        work = one.starts or _head_list(one) is not None or any(i.sets and i.dosed for i in one.items)
        if first and (day or _says_title(one.line.text) or _TOLD_BRACKET.search(one.line.low)) and not work and len(self._reads) > 1:
            return self._as_title(one)
        if work or one.block_label and not first:
            return False
        long = [t for t in one.scanned.tokens if t.kind == "TIME" and _seconds(t.value) >= 600]
        doses = [i for i in one.items if i.words and (not i.after_dose or self._names.known(_text(i))) and (i.reps is not None or i.metres is not None or (i.seconds is not None and _seconds(i.seconds) < TITLE_LENGTH_FROM))]
        known = any(self._names.known(_text(i)) for i in one.items if i.dosed)
        known = known or (len(one.named) == 1 and len(one.items) == 1 and self._is_known(_text(one.items[0])) and one.line.text.strip(" .:").islower() is False and self._dose_follows())
        if doses or known or (one.rests and not first):
            return False
        if first and (len(self._reads) > 1 or not any(self._is_known(_text(i)) for i in one.items) and (not any(i.dosed for i in one.items) or bool(long)) and not one.rests):
            return self._as_title(one)
        if long and not any(i.words and self._names.known(_text(i)) for i in one.items):
            self._told = self._told or bounded(long[0].value, MAX_DURATION_S)
            self._note(one)
            return True
        if not one.heads and not one.line.text.endswith(":") and not any(self._names.known(_text(i)) for i in one.items) and not self._windows_ahead():
            if self._is_talk(one) or not one.items or not any(i.dosed for i in one.items):
                self._note(one)
                return True
        return False

    def _windows_ahead(self) -> bool:
        return False

    def _as_title(self, one: Read) -> bool:
        """Take a line as the title, with the length that is told in it."""
        alone = sum(r.line.number == one.line.number for r in self._reads) == 1
        raw = one.line.raw if alone else one.line.text
        try:
            strict = read_lines([raw.strip()], library=self._library).document
        except BoardError:
            strict = {}
        if "announced_s" in strict:
            self._title, self._told = strict["title"][:TITLE_MOST], strict["announced_s"]
            return True
        text = re.sub(r"^\s*title\s*:\s*", "", raw.strip(" \t*#_=~"), flags=re.IGNORECASE)
        times = [t for t in tokens_of(plain(without_pictures(text))) if t.kind == "TIME" and _seconds(t.value) >= SHORTEST_TOLD_S]
        if times:
            self._told = bounded(times[-1].value, MAX_DURATION_S)
            front = re.sub(r"[\s,;(\-–—/|~]*(?:about|ca\.?|approx\.?)?\s*$", "", text[: times[-1].start])
            back = re.sub(r"^[\s)]*(?:total)?", "", text[times[-1].end :])
            text = f"{front} {back}".strip(" ,;-–—/|.!") or text
        self._title = " ".join(text.split())[:TITLE_MOST]
        return True

    def _is_talk(self, one: Read) -> bool:
        """Whether a line without a dose speaks to people."""
        if one.starts or one.rests or one.heads or any(i.dosed for i in one.items):
            return bool(one.items) and not one.starts and not one.rests and not one.heads and self._silly(one)
        text = one.line.text
        if not one.named:
            return not one.items and not one.block_label
        if all(self._names.known(_text(i)) for i in one.named):
            return False
        words = sum(len(i.words) for i in one.named)
        if text.endswith(("!", "?")) or "!" in text or _TALK.search(text):
            return True
        lists = self._draft is not None and (self._draft.windows or self._draft.each or self._draft.ladder or self._draft.pyramid or self._draft.reps_each)
        if words > LONGEST_TALK and len(one.named) < 3:
            return True
        if lists or one.block_label or text.endswith(":"):
            return False
        return self._draft is None or bool(self._draft.items)

    def _silly(self, one: Read) -> bool:
        """A dose that is none: `every break = 3 burpees`, `no figures for 2`."""
        return "=" in one.line.text

    def _modifies(self, one: Read) -> bool:
        """A line that only says more of the block above: `x2`, `cap 10 min`, `3 rounds`."""
        draft = self._draft
        if draft is None or one.named or one.line.gap or one.block_label or not one.heads or one.line.colon or one.line.text.endswith(":"):
            return False
        kinds = {f.kind for f in one.heads}
        if draft.items:
            return kinds <= {"rounds", "cap", "fortime", "turns", "laps", "repeat"} and (draft.rounds is None or "rounds" not in kinds) and not self._more_below()
        return False

    def _ends_at(self, one: Read) -> bool:
        """Whether nothing more of a block stands under a line."""
        at = self._reads.index(one)
        below = self._reads[at + 1] if at + 1 < len(self._reads) else None
        return not one.line.text.endswith(":") and (below is None or below.line.gap or not below.named or below.starts or below.block_label)

    def _more_below(self) -> bool:
        """Whether the next line still belongs to a block that would begin here."""
        following = self._next()
        return following is not None and not following.line.gap and bool(following.named) and following.line.part is None and not following.starts and not following.block_label

    def _next(self) -> Read | None:
        for one in self._reads[self._at + 1 :]:
            if one.line.style != "note":
                return one
        return None

    # Blocks
    def _new(self, one: Read, part: str | None = None) -> Draft:
        draft = Draft(one.line.number, one.line.text, part=part or self._part)
        before = self._draft
        own = before is not None and before.total is not None and before.part not in (None, "main") and (any(i.sets for i in one.items) or one.block_label or one.line.part is not None)
        if before is not None and not before.items and not before.clocked and not before.buy_in and not own:
            # A heading with nothing under it yet gives its name to what begins here.
            draft.title, draft.letter, draft.tool = before.title, before.letter, before.tool
            draft.part = part or before.part
            draft.notes, draft.total, draft.rest = before.notes, before.total, before.rest
            draft.line = before.line
            self._drafts.pop()
        self._draft = draft
        self._drafts.append(draft)
        return draft

    def _part_line(self, one: Read) -> None:
        self._part = one.line.part
        draft = self._new(one, one.line.part)
        draft.title = one.line.part_words
        draft.words = one.line.part_words
        draft.part = one.line.part
        self._fill(draft, one)
        if draft.total is None and not one.items and not draft.clocked:
            draft.total = next((t.value for t in one.scanned.tokens if t.kind == "TIME"), None)
        draft.inline = bool(one.named)

    def _leave_part(self, one: Read) -> None:
        """Whether the part that was begun above is over: something new begins after its own lines."""
        draft = self._draft
        if self._part in (None, "main") or draft is None:
            return
        if draft.total is not None and not draft.items and draft.part == self._part:
            self._part = None
            return
        strength = self._part == "warm-up" and any(i.sets and (i.load is not None or one.rests) or isinstance(i.reps, list) for i in one.items)
        if draft.items and (strength or draft.rest_after is not None or one.block_label or one.line.gap or draft.inline or one.line.style == "group" and draft.letter[:1] != one.line.label[:1]):
            self._part = None

    def _head(self, one: Read) -> None:
        draft = self._draft
        self._leave_part(one)
        merge = draft is not None and not draft.items and not (draft.clocked and any(f.kind in ("amrap", "every", "windows") for f in one.heads) and (draft.every or draft.windows))
        if draft is not None and draft.amraps and not draft.items and one.scanned.has("amrap"):
            merge = True
        if not merge or draft is None:
            draft = self._new(one)
        if one.block_label:
            draft.title = draft.title or one.line.label
        self._fill(draft, one)

    def _labelled(self, one: Read) -> None:
        if any(i.sets for i in one.items) or one.line.style == "group":
            self._sets(one)
            return
        self._leave_part(one)
        if not one.block_label and not one.items:
            return
        if one.block_label or (self._draft is not None and self._draft.items) or self._draft is None:
            draft = self._new(one)
        else:
            draft = self._draft
        if not any(i.dosed for i in one.items):
            self._name_block(draft, one)
            one.items = [i for i in one.items if i.label != "heading" and not one.line.text.endswith(":")]
            known = [i for i in one.items if self._names.known(_text(i))]
            if one.block_label and len(one.items) == len(known) and known and one.line.style not in ("letter", "block"):
                draft.items.extend(known)
            return
        self._fill(draft, one)

    def _name_block(self, draft: Draft, one: Read) -> None:
        title = one.line.text.strip(" :-")
        draft.title = draft.title or title[:120]
        if len(one.named) == 1 and self._is_known(_text(one.named[0])):
            draft.pending = one.named[0]
        words = [t.text for i in one.items[:1] for t in i.words]
        if len(words) == 1 and words[0] in KIT_WORDS:
            draft.tool = words[0]
        draft.heading = True

    def _fill(self, draft: Draft, one: Read) -> None:
        """Take what a head line says and the movements on it."""
        draft.said = one.line.text
        facts = list(one.scanned.facts)
        items = self._head_items(draft, one, facts)
        draft.take(facts)
        if (draft.each or draft.windows) and any(t.text == "pyramid" for t in one.scanned.tokens) and not any(isinstance(i.reps, list) for i in items):
            draft.pyramid = True
            draft.notes = [n for n in draft.notes if n != "pyramid"]
        listed = _head_list(one)
        if listed is not None and not draft.ladder:
            draft.ladder, draft.growing = listed
        draft.items.extend(items)
        if items and any(i.sets for i in items) and not draft.clocked:
            self._split_sets(draft, one)

    def _head_items(self, draft: Draft, one: Read, facts: list[Fact]) -> list[Item]:
        """The movements on a head line: what has a dose, is known, or stands behind a colon or a dash."""
        kept: list[Item] = []
        opened = False
        for item in one.items:
            if item.label == "heading" and (not item.dosed or item.seconds is not None):
                self._head_words(draft, item)
                draft.total = draft.total if item.seconds is None else item.seconds
                opened = True
                continue
            if not item.words:
                self._head_dose(draft, item, one)
                continue
            if _text(item).strip() == "":
                if item.seconds is not None:
                    self._head_dose(draft, item, one)
                continue
            if any(t.kind == "BUYIN" for t in item.words) and not item.dosed:
                continue
            known = self._names.known(_text(item)) is not None
            behind = opened or one.line.colon or self._behind(one, item)
            behind = behind or bool(kept) and item.joined and isinstance(kept[-1].reps, list)
            if item.dosed or known or (behind and not self._talks(item)):
                kept.append(item)
            else:
                self._head_words(draft, item)
        return kept

    def _talks(self, item: Item) -> bool:
        words = " ".join(t.text for t in item.words)
        return len(item.words) > LONGEST_TALK or _TALK.search(words) is not None

    def _behind(self, one: Read, item: Item) -> bool:
        """Whether an item stands behind a colon, a dash, `of` or an arrow that follows the head's facts."""
        before = [t for t in one.scanned.tokens if t.end <= item.words[0].start]
        cut = next((i for i in range(len(before) - 1, -1, -1) if before[i].kind in ("COLON", "ARROW") or before[i].text.strip() in ("-", "–")), None)
        if cut is not None:
            return True
        return bool(before) and before[-1].kind in ("OF",)

    def _head_words(self, draft: Draft, item: Item) -> None:
        words = " ".join(t.text for t in item.words)
        if any(t.kind == "ALT" for t in item.words):
            draft.alternate = True
        if not draft.words:
            draft.words = words
        if len(item.words) == 1 and words in KIT_WORDS:
            draft.tool = words
        elif len(words) > 2:
            draft.notes.append(words)

    def _head_dose(self, draft: Draft, item: Item, one: Read) -> None:
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

    # Sets
    def _sets(self, one: Read) -> None:
        self._rest_before(one)
        self._leave_part(one)
        draft = self._draft
        letter = one.line.label if one.line.style == "group" else ""
        if draft is not None and draft.superset and draft.rounds is None and not letter and not one.line.gap and not one.block_label:
            letter = "s1"
            if not draft.items:
                draft.kind, draft.letter, draft.run = "sets", letter, self._next_run()
                self._fill_sets(draft, one)
                return
        if draft is not None and letter and draft.letter[:1] == letter[:1] and draft.kind == "sets" and not one.line.gap:
            self._fill_sets(draft, one)
            return
        run = draft.run if draft is not None and draft.kind == "sets" and not one.line.gap and not letter and not one.block_label else self._next_run()
        made = self._new(one)
        made.kind, made.letter, made.run = "sets", letter or made.letter, run
        self._fill_sets(made, one)

    def _rest_before(self, one: Read) -> None:
        """`… rest two minutes and do 3 sets …`: a rest told before the work is taken before it."""
        plain = [f for f in one.rests if f.value["where"] == "plain"]
        first = next((i.first for i in one.items if i.dosed), 0)
        draft = self._draft
        if len(plain) > 1 and draft is not None and draft.items and one.scanned.tokens[plain[0].first].start < first:
            draft.rest_after = plain[0].value["s"]
            one.scanned.facts.remove(plain[0])

    def _next_run(self) -> int:
        self._run += 1
        return self._run

    def _fill_sets(self, draft: Draft, one: Read) -> None:
        facts = [f for f in one.scanned.facts if f.kind not in ("rounds",) or not one.named]
        rests = [f for f in facts if f.kind == "rest"]
        items = self._set_items(draft, one)
        draft.take([f for f in facts if f.kind != "rest"])
        draft.items.extend(items)
        for fact in rests:
            _set_rest(draft, fact.value)
        for item in items:
            if item.loose_time is not None and draft.rest_between is None:
                draft.rest_between = item.loose_time
        if not draft.letter or draft.letter[1:] == "":
            self._split_sets(draft, one)

    def _set_items(self, draft: Draft, one: Read) -> list[Item]:
        items: list[Item] = []
        for item in one.items:
            if item.label == "heading" and not items and (not item.dosed or item.seconds is not None):
                draft.title = draft.title or " ".join(t.text for t in item.words)
                draft.total = item.seconds
                continue
            if item.words and trimmed([t.text for t in item.words]) == [] and not item.dosed:
                continue
            if item.words and not item.dosed and item.sets is None and items:
                kit = [t.text for t in item.words if t.text in KIT_WORDS]
                items[-1].kit.extend(kit)
                items[-1].notes.append(" ".join(t.text for t in item.words))
                if items[-1].load is None:
                    items[-1].load = item.load
                continue
            if not item.words and not item.dosed and item.load is not None and items:
                items[-1].load = items[-1].load or item.load
                continue
            if not item.words and not item.dosed and item.sets is not None and items:
                for other in items:
                    other.sets = other.sets or item.sets
                continue
            if not item.words and item.sets is None and item.seconds is not None and items:
                items[-1].loose_time = item.seconds
                continue
            items.append(item)
        for index, item in enumerate(items):
            if not item.words:
                other = next((i for i in items[index + 1 :] if i.words), next((i for i in items if i.words), None))
                if other is not None:
                    item.words, item.kit = other.words, other.kit
                    item.load = item.load
        return items

    def _split_sets(self, draft: Draft, one: Read) -> None:
        """Set lines of one line each are blocks of their own; what is said of rests holds for all of them."""
        with_sets = [i for i in draft.items if i.sets is not None]
        if len(draft.items) < 2 or len(with_sets) < 2:
            if with_sets:
                draft.kind = draft.kind or "sets"
                draft.run = draft.run or self._next_run()
                self._set_head_rest(draft)
            return
        items, draft.items = draft.items, draft.items[:1]
        draft.kind, draft.run = "sets", draft.run or self._next_run()
        self._set_head_rest(draft)
        for before, item in zip(items, items[1:], strict=False):
            if before.words is item.words and draft.rest_between is not None:
                # Lighter sets first, then the real ones: the rest stands between them too.
                self._drafts[-1].rest_after = draft.rest_between
            made = Draft(one.line.number, one.line.text, part=draft.part, kind="sets", items=[item], run=draft.run)
            made.rest_between, made.no_rest = draft.rest_between, draft.no_rest
            self._drafts.append(made)
            self._draft = made

    def _set_head_rest(self, draft: Draft) -> None:
        if draft.rest is not None and draft.rest_between is None:
            draft.rest_between, draft.rest = draft.rest, None

    # Plain lines
    def _plain(self, one: Read) -> None:
        draft = self._draft
        if draft is not None and draft.kind == "written":
            draft = None
        if draft is not None and draft.kind == "sets" and self._names_sets(draft, one):
            return
        if draft is not None and draft.kind == "sets" and not draft.letter:
            self._leave_part(one)
            draft = None
        if draft is not None and one.line.gap and draft.items and not self._continues(one):
            self._leave_part(one)
            draft = None
        if draft is not None and draft.items and (any(i.finish for i in one.items) or self._own_list(one, draft)):
            self._leave_part(one)
            draft = None
        if draft is not None and (draft.rest_after is not None or draft.closed) and draft.items:
            self._leave_part(one)
            draft = None
        if any(t.kind == "BUYIN" for t in one.scanned.tokens) and draft is not None and draft.amraps:
            draft.buy_in.extend(i for i in one.items if i.dosed)
            return
        if re.match(r"(?:2nd|second)\s+(?:time|go|one)", one.line.low) and draft is not None and draft.items:
            draft.again = [i for i in one.items if i.dosed]
            return
        if draft is None:
            draft = self._new(one)
        if one.items and one.items[0].label == "heading" and len(one.items[0].words) == 1 and one.items[0].words[0].text in KIT_WORDS:
            draft = self._new(one) if draft.items else draft
            draft.tool = one.items.pop(0).words[0].text
        for item in self._plain_items(one, draft):
            draft.items.append(item)
        facts = [f for f in one.scanned.facts if f.kind not in ("rest",)]
        draft.take(facts)
        for fact in one.rests:
            if fact.value["where"] == "plain" and any(isinstance(i.reps, list) for i in one.items):
                draft.rest_between = fact.value["s"]
            else:
                self._item_rest(draft, fact.value)
        if draft.tool:
            self._tool_load(draft)
        if any(i.finish for i in one.items):
            self._draft = None

    def _line_lengths(self, scanned: Scanned, items: list[Item]) -> None:
        """`3 lengths jog back`: as many lengths as are told, of the length that was told last."""
        count = next((f.value["n"] for f in scanned.facts if f.kind == "lengths"), None)
        if count is None:
            return
        scanned.facts = [f for f in scanned.facts if f.kind != "lengths"]
        for item in items:
            if item.metres is not None:
                self._length = item.metres
            if item.words and isinstance(self._length, int | float) and (item.metres is not None or not item.dosed):
                item.metres = count * self._length

    def _tool_load(self, draft: Draft) -> None:
        """`sandbag: 10 squats, 10 presses, bag 30 kg`: what is told of the tool holds for all."""
        told = next((i for i in draft.items if not i.dosed and i.load is not None and all(t.text in KIT_WORDS for t in i.words)), None)
        load = told.load if told is not None else next((i.load for i in draft.items if i.load is not None and i.kit), None)
        if told is not None:
            draft.items.remove(told)
        for item in draft.items:
            item.load = item.load or load

    def _names_sets(self, draft: Draft, one: Read) -> bool:
        """A line with a name alone below sets of nothing in particular: `10 x 30 s efforts`, then `bike`."""
        bare = next((i for i in draft.items if not trimmed([t.text for t in i.words])), None)
        if bare is None or len(one.named) != 1 or any(i.dosed for i in one.items):
            return False
        bare.words = one.named[0].words
        return True

    def _own_list(self, one: Read, draft: Draft) -> bool:
        """Whether a line with its own list of reps is a block of its own: the lines above have none."""
        mine = any(isinstance(i.reps, list) for i in one.items if i.words)
        theirs = any(isinstance(i.reps, list) for i in draft.items)
        return mine != theirs and not draft.ladder and not draft.clocked

    def _continues(self, one: Read) -> bool:
        """Whether a plain line after a blank one still belongs to the block above: all lines stand apart."""
        return self._all_apart

    def _plain_items(self, one: Read, draft: Draft) -> list[Item]:
        made: list[Item] = []
        for item in one.items:
            item.turn = one.line.turn if one.line.turn is not None else item.turn
            if one.line.parity is not None:
                item.turn = 2 - one.line.parity
            if one.line.style in ("letter", "count", "group"):
                item.letter = one.line.label
            if not item.words and not item.dosed:
                if item.load is not None and made:
                    made[-1].load = made[-1].load or item.load
                continue
            if item.words and all(t.kind == "REST" for t in item.words) and not item.dosed:
                made.append(Item(rest_turn=True, turn=item.turn, row=one.line.number))
                continue
            if item.words and all(t.kind == "REST" for t in item.words) and item.dosed:
                self._item_rest(draft, {"s": item.seconds, "where": "plain"}, made)
                continue
            listing = bool(draft.windows or draft.each or draft.ladder or draft.pyramid or draft.reps_each or draft.total)
            listing = listing or item.joined and any(isinstance(i.reps, list) or i.ranged is not None for i in made)
            if not item.dosed and made and not self._names.known(_text(item)) and not listing:
                self._aside(made[-1], item)
                continue
            if not item.dosed and item.words and listing and self._talks(item) and self._names.known(_text(item)) is None:
                draft.notes.append(" ".join(t.text for t in item.words))
                continue
            if item.words and not trimmed([t.text for t in item.words]):
                if item.dosed and made:
                    continue
                if not item.dosed:
                    continue
            made.append(item)
        return made

    def _aside(self, item: Item, words: Item) -> None:
        """Words behind a movement that are no movement: kit, or a note."""
        texts = [t.text for t in words.words]
        item.kit.extend(one for one in texts if one in KIT_WORDS)
        item.notes.append(" ".join(texts))
        item.load = item.load or words.load

    def _item_rest(self, draft: Draft, value: dict[str, Any], made: list[Item] | None = None) -> None:
        where = value["where"]
        items = made or draft.items
        if where in ("rounds", "groups", "none"):
            draft.put_rest(value)
        elif items:
            items[-1].rest_after = value["s"]

    # Rests
    def _rest_line(self, one: Read) -> None:
        draft = self._draft
        if draft is None or (not draft.items and not draft.clocked):
            self._note(one)
            return
        if draft.kind == "written":
            draft.rest_after = one.rests[0].value["s"]
            return
        for fact in one.rests:
            self._rest(draft, fact.value, one)
        words = [t for i in one.items for t in i.words]
        if words:
            draft.notes.append(one.line.text)

    def _rest(self, draft: Draft, value: dict[str, Any], one: Read) -> None:
        where, seconds = value["where"], value["s"]
        if value.get("open"):
            self._assumed.pick("open-rest", one.line.number, one.line.text, ["1:00, ended when you are ready"])
        if not draft.items:
            draft.put_rest(value)
            return
        if where == "none":
            draft.no_rest = True
        elif where == "rounds":
            self._between(draft, seconds)
            draft.closed = draft.kind != "sets"
        elif where == "groups":
            draft.rest_groups = seconds
        elif where == "each":
            draft.rest = seconds
        elif draft.kind == "sets" and draft.rest_between is None and not one.line.gap:
            self._between(draft, seconds)
        elif self._inside():
            draft.items[-1].rest_after = seconds
        else:
            self._after(draft, seconds, one)

    def _between(self, draft: Draft, seconds: Any) -> None:
        run = [d for d in self._drafts if d.kind == "sets" and d.run == draft.run] if draft.kind == "sets" else [draft]
        for one in run:
            if one.rest_between is None:
                one.rest_between = seconds

    def _inside(self) -> bool:
        """Whether the line after a rest still belongs to the block above."""
        following = self._next()
        if following is None or following.scanned.has("repeat") or following.line.gap or following.line.part is not None or following.starts or following.block_label:
            return False
        if following.rests and not following.named:
            return False
        if _head_list(following) is not None or any(i.sets for i in following.items) or following.line.style == "group":
            return False
        draft = self._draft
        return bool(following.named) and draft is not None and (draft.clocked or following.line.indent > 0 or self._at > 0) and not self._is_talk(following)

    def _after(self, draft: Draft, seconds: Any, one: Read) -> None:
        following = self._next()
        if following is not None and not following.named and {f.kind for f in following.heads} == {"rounds"} and not following.line.gap and self._ends_at(following):
            draft.rest_between = seconds
            return
        again = any("repeat" in one for one in draft.amraps) or bool(draft.every and draft.every.get("repeat"))
        if again and draft.rest_between is None and draft.rest is None:
            draft.rest_between = seconds
            return
        rounds = draft.rounds is not None and draft.rest_between is None and draft.kind != "sets" and not draft.windows and not draft.each and not draft.amraps and not draft.every
        if rounds:
            following = self._next() is not None
            readings = ["before what follows", "between the rounds"]
            picked = self._assumed.pick("rest-below", one.line.number, one.line.text, readings, first=0 if following else 1)
            if picked == 1:
                draft.rest_between = seconds
                return
        draft.rest_after = seconds if draft.rest_after is None else draft.rest_after

    # The rest of it
    def _note(self, one: Read) -> None:
        text = one.line.text.strip()
        if self._draft is not None:
            self._draft.notes.append(text)
        elif text:
            self._notes.append(text)
        if one.line.style == "note" or (any(i.dosed for i in one.items) and not _seconds_only(one)):
            self._unread.append(Unread(one.line.number, text))

    def _finish(self) -> Reading:
        builder = Builder(self._library, self._names, self._assumed)
        document: dict[str, Any] = {"fine_tally": 1, "title": self._title or "Session"}
        if self._told is not None:
            document["announced_s"] = self._told
        document.update(self._meta)
        blocks = builder.blocks(self._drafts)
        notes = [*self._notes, *builder.loose_notes]
        if notes:
            document["notes"] = "\n".join(notes)[:20_000]
        document["blocks"] = blocks
        return Reading(document, self._assumed, [*self._unread, *builder.unread], [*dict.fromkeys([*self._unknown_written, *builder.unknown])], builder.lines, {d.line: d.said for d in self._drafts})


def _pieces(one: Read) -> list[Read]:
    """A line with several clocks, one for each (`EMOM 8: 10 swings; AMRAP 6: 5 burpees`): cut before the later ones."""
    return [one]


def _bracketed_rounds(tokens: list[Token]) -> list[Token]:
    """`6 x (200 m run, 10 burpees)`: the bracket holds what is done six times."""
    for i in range(len(tokens) - 2):
        if [t.kind for t in tokens[i : i + 3]] == ["NUM", "X", "LPAR"]:
            tokens[i + 1].kind, tokens[i + 2].kind = "ROUND", "COLON"
            depth = next((k for k in range(i + 3, len(tokens)) if tokens[k].kind == "RPAR"), None)
            if depth is not None:
                tokens[depth].kind = "SEP"
            break
    return tokens


def _waves(tokens: list[Token]) -> list[Token]:
    """`60 kg x 5, 80 kg x 3` and `5 @ 60 kg, 3 @ 80 kg`: sets with a load each become two lists."""
    kinds = [t.kind for t in tokens]
    for shape in (("LOAD", "X", "NUM"), ("NUM", "AT", "LOAD"), ("LOAD", "FOR", "NUM")):
        found = [i for i in range(len(kinds) - 2) if tuple(kinds[i : i + 3]) == shape]
        if len(found) < 2 or any(b - a > 4 for a, b in zip(found, found[1:], strict=False)):
            continue
        number = shape.index("NUM")
        reps = [int(tokens[i + number].value) for i in found]
        loads = [tokens[i + shape.index("LOAD")].value["load"] for i in found]
        first, last = found[0], found[-1] + 3
        start, end = tokens[first].start, tokens[last - 1].end
        made = [Token("LIST", "", reps, start, end), Token("LOADLIST", "", loads, end, end)]
        return [*tokens[:first], *made, *tokens[last:]]
    return tokens


def _shared_doses(items: list[Item]) -> None:
    """`skips, high knees, heel kicks 20 m each`, `hamstrings and quads 30 s`: the last dose is of all of them."""
    for at, item in enumerate(items):
        before = []
        for one in reversed(items[:at]):
            if one.dosed or not one.words or one.label == "heading":
                break
            before.append(one)
        if not item.dosed or not item.after_dose or not before:
            if item.each_word and item.sides is None and item.reps is not None:
                item.sides = "each"
            continue
        if item.each_word or item.joined:
            for one in before if item.each_word else before[:1]:
                take_dose(one, item)
                one.sides = item.sides


def _repeated_window(scanned: Scanned, items: list[Item]) -> None:
    """`5 x 3 min: 10 pull-ups, 15 push-ups`: a window again and again, and what is done in it."""
    if len(items) < 2 or items[0].words or items[0].sets is None or items[0].seconds is None:
        return
    if all(i.words and i.dosed for i in items[1:]) and any(t.kind == "COLON" for t in scanned.tokens) and not scanned.has("windows", "every", "amrap"):
        first = items.pop(0)
        scanned.facts.insert(0, Fact("amrap", {"window": first.seconds, "repeat": first.sets}, 0, 0))


def _ladder_words(item: Item) -> None:
    """`burpee ladder 1-10`: the word says what the numbers are, and belongs to no name."""
    if (isinstance(item.reps, list) or item.ranged is not None) and any(t.kind == "LADDER" for t in item.words):
        item.ladder = True
        item.words = [t for t in item.words if t.kind != "LADDER"]


def _text(item: Item) -> str:
    return " ".join(trimmed([t.text for t in item.words]))


def _seconds(value: Any) -> float:
    if isinstance(value, dict):
        return float(value["high"])
    return float(value) if isinstance(value, int | float) else 0.0


def _seconds_only(one: Read) -> bool:
    return all(i.reps is None and i.metres is None for i in one.items)


def _says_title(text: str) -> bool:
    return bool(re.match(r"\s*(?:title|session|group|grp|squad|team|day|week|wk)\b", text, re.IGNORECASE))


def _head_list(one: Read) -> tuple[list[int], bool] | None:
    """A list of numbers that stands on a head by itself: `21-15-9`, `Squad ladder: 3, 6, 9`."""
    ladder = any(t.kind == "LADDER" for t in one.scanned.tokens)
    for item in one.items:
        if isinstance(item.reps, list) and (not item.words or (ladder and not item.sets and len(one.items) == 1 and item.label == "heading")):
            return list(item.reps), item.ladder
        if ladder and isinstance(item.reps, list) and item.words and all(t.kind == "LADDER" or t.kind in ("ALT",) for t in item.words):
            return list(item.reps), item.ladder
        if item.ranged is not None and not item.words and (item.ladder or item.ranged[0] == 1 or ladder):
            return _counting(*item.ranged), False
    return None


def _counting(a: int, b: int) -> list[int]:
    step = 1 if b >= a else -1
    return list(range(a, b + step, step))[:200]


def _set_rest(draft: Draft, value: dict[str, Any]) -> None:
    if value["where"] == "none":
        draft.no_rest = True
    elif draft.rest_between is None:
        draft.rest_between = value["s"]


__all__ = ["Reading", "TextReader", "Token"]
