"""Words that are no work: titles, lengths told, greetings, cues."""

from __future__ import annotations

import re
from collections.abc import Sequence

from finetally.core.board.problems import BoardError
from finetally.core.board.reader import TITLE_WORD, read_lines
from finetally.core.session.limits import MAX_DURATION_S
from finetally.core.wall.blocks.steps import bounded
from finetally.core.wall.items.read import ReadLine, head_list, longest, name_text, tool_of
from finetally.core.wall.page.page import Page, dose_follows, is_known, keep_note, next_line
from finetally.core.wall.parts import Amount, amount_of
from finetally.core.wall.text.lines import without_pictures
from finetally.core.wall.tokens.rules import Fact
from finetally.core.wall.tokens.token import Token
from finetally.core.wall.tokens.tokens import plain, tokens_of
from finetally.core.wall.tokens.words import DAY, TALK

LONGEST_TALK = 5
"""Words from which a line without a dose is talk."""
LONGEST_NAME_WORDS = 2
"""Words up to which a first line with sets of nothing below it is what they are of."""
LONGEST_FIRST_S = 1200
"""A time alone on the first line is that of the block below it; from here on it is the session's."""
TITLE_MOST = 200
SHORTEST_TOLD_S = 300
TITLE_LENGTH_FROM = 900
"""Seconds from which a length on the first line is the session's, not a movement's."""

GREETING = re.compile(r"(?:see|meet|be|arrive|call|text|doors|bring|thanks|hi|hello|hey|good)\b.*(?:\d|!)")
"""How a line to people begins that holds a number: `see you at 6!`."""
_TOLD_BRACKET = re.compile(
    r"[(\[]\s*(?:about|ca\.?|~)?\s*\d+\s*(?:min|mins|minutes|'|h)\s*[)\]]|\d{2,3}\s*(?:min|mins|minutes|')\s*$"
)


def title_like(page: Page, one: ReadLine) -> bool:
    """The first line where it names the session, and lines before the first block that tell its length."""
    begun = page.drafts or page.draft is not None
    if not page.titled or begun or one.line.part is not None or one.line.turn is not None:
        return False
    if one.line.style == "block" and one.items and not one.named:
        return False
    if len(one.items) == 1 and tool_of(one.items[0]):
        return False
    first = page.at == 0
    if first and told_of_block(page, one):
        return False
    if first and TITLE_WORD.match(one.line.raw.strip()):
        return as_title(page, one)
    work = _says_work(one)
    if first and not work and len(page.reads) > 1 and _names_day_or_length(one):
        return as_title(page, one)
    if work or (one.block_label and not first) or work_on_it(page, one) or (one.rests and not first):
        return False
    long = [t for t in one.scanned.tokens if t.kind == "TIME" and longest(t.amount) >= 600]
    if first and (len(page.reads) > 1 or _is_bare_title(page, one, bool(long))):
        return as_title(page, one)
    return _is_aside(page, one, long)


def _says_work(one: ReadLine) -> bool:
    """Whether a line says how something is done: a clock, a cap, a list of doses, sets."""
    dosed_sets = any(i.sets and i.dosed for i in one.items)
    return bool(one.starts) or one.scanned.has("cap") or head_list(one) is not None or dosed_sets


def _names_day_or_length(one: ReadLine) -> bool:
    named = DAY.search(one.line.text) is not None or says_title(one.line.text)
    return named or _TOLD_BRACKET.search(one.line.low) is not None


def _is_bare_title(page: Page, one: ReadLine, long: bool) -> bool:
    """Whether the only line there is names a session: no movement, no rest, at most a length."""
    if one.rests or any(is_known(page, name_text(i)) for i in one.items):
        return False
    return long or not any(i.dosed for i in one.items)


def _is_aside(page: Page, one: ReadLine, long: Sequence[Token]) -> bool:
    """Whether a line before the first block tells the length, or only talks; it is kept as a note."""
    beside = one.line.sentence > 0 and bool(page.title) and one.line.number == page.reads[0].line.number
    if long and (beside or not any(i.words and page.names.known(name_text(i)) for i in one.items)):
        page.told = page.told or _within(long[0].amount)
        keep_note(page, one)
        return True
    if one.heads or one.line.text.endswith(":") or any(page.names.known(name_text(i)) for i in one.items):
        return False
    if is_talk(page, one) or not any(i.dosed for i in one.items):
        keep_note(page, one)
        return True
    return False


def work_on_it(page: Page, one: ReadLine) -> bool:
    """Whether a line names work: a dose of something, or a known movement whose dose follows."""
    for item in one.items:
        if item.cal and item.reps is not None:
            return True
        listed = isinstance(item.reps, list) or one.lengths
        if not item.words or (item.after_dose and not listed and not page.names.known(name_text(item))):
            continue
        short = item.seconds is not None and longest(item.seconds) < TITLE_LENGTH_FROM
        if item.reps is not None or item.metres is not None or short:
            return True
    if any(page.names.known(name_text(i)) for i in one.items if i.dosed):
        return True
    return names_what_follows(page, one)


def told_of_block(page: Page, one: ReadLine) -> bool:
    """`8 mins` or `rest 1 min between exercises` on the first line: said of the block that begins below it."""
    following = next_line(page)
    if following is None or following.line.gap or one.line.gap:
        return False
    if one.rests and not one.named and not one.heads:
        return any(f.value["where"] in ("rounds", "each") for f in one.rests)
    kinds = [t.kind for t in one.scanned.tokens if t.kind not in ("COLON", "SEP")]
    doses = [i for i in following.items if i.words and (i.reps is not None or i.metres is not None)]
    if kinds != ["TIME"] or not doses or following.starts or any(i.sets for i in doses):
        return False
    if not isinstance(one.items[0].seconds, int) or one.items[0].seconds >= LONGEST_FIRST_S:
        return False
    one.scanned.facts.append(Fact("forlong", {"total": one.items.pop().seconds}, 0, 0))
    return True


def names_what_follows(page: Page, one: ReadLine) -> bool:
    """Whether a line is the name of what has its dose on the line below."""
    if not len(one.named) == len(one.items) == 1 or one.line.text.rstrip().endswith((":", "!", "?")):
        return False
    short = is_known(page, name_text(one.items[0])) or len(one.items[0].words) <= LONGEST_NAME_WORDS
    return short and not one.items[0].dosed and dose_follows(page)


def as_title(page: Page, one: ReadLine) -> bool:
    """Take a line as the title, with the length that is told in it."""
    alone = sum(r.line.number == one.line.number for r in page.reads) == 1
    raw = one.line.raw if alone else one.line.text
    try:
        strict = read_lines([raw.strip()], library=page.library).document
    except BoardError:
        strict = {}
    if "announced_s" in strict:
        page.title, page.told = str(strict["title"])[:TITLE_MOST], _within(amount_of(strict["announced_s"]))
        return True
    text = re.sub(r"^\s*title\s*:\s*", "", raw.strip(" \t*#_=~"), flags=re.IGNORECASE)
    times = [
        t
        for t in tokens_of(plain(without_pictures(text)))
        if t.kind == "TIME" and longest(t.amount) >= SHORTEST_TOLD_S
    ]
    if times:
        page.told = _within(times[-1].amount)
        front = re.sub(r"[\s,;(\-–—/|~]*(?:about|ca\.?|approx\.?)?\s*$", "", text[: times[-1].start])
        back = re.sub(r"^[\s)]*(?:total)?", "", text[times[-1].end :])
        text = f"{front} {back}".strip(" ,;-–—/|.!") or text
    page.title = re.sub(r"\s+([,;.!?])", r"\1", " ".join(text.split()))[:TITLE_MOST]
    return True


def is_talk(page: Page, one: ReadLine) -> bool:
    """Whether a line without a dose speaks to people."""
    if len(one.items) == 1 and (tool_of(one.items[0]) or names_what_follows(page, one)):
        return False
    if one.items and not one.starts and not one.rests and not one.heads and GREETING.match(one.line.low):
        return not any(page.names.known(name_text(i)) for i in one.named)
    if one.starts or one.rests or one.heads or any(i.dosed for i in one.items):
        return bool(one.items) and not one.starts and not one.rests and not one.heads and no_dose(page, one)
    text = one.line.text
    if not one.named:
        return not one.items and not one.block_label
    if all(page.names.known(name_text(i)) for i in one.named):
        return False
    words = sum(len(i.words) for i in one.named)
    if text.endswith(("!", "?")) or "!" in text or TALK.search(text):
        return True
    lists = page.draft is not None and (
        page.draft.windows or page.draft.each or page.draft.ladder or page.draft.pyramid or page.draft.reps_each
    )
    if words > LONGEST_TALK and len(one.named) < 3:
        return True
    if lists or one.block_label or text.endswith(":"):
        return False
    return page.draft is None or bool(page.draft.items)


IN_CASE = re.compile(r"(?:every|each|any|per|if|no|for|time|when)\b")
"""How a line begins that says what is done in some case: `every break = 3 burpees`."""


def no_dose(page: Page, one: ReadLine) -> bool:
    """A dose that is none: `every break = 3 burpees`, `no figures for 2`."""
    return "=" in one.line.text and IN_CASE.match(one.line.low) is not None


def _within(told: Amount | None) -> Amount | None:
    """A length told, as long as a session can be."""
    return None if told is None else bounded(told, MAX_DURATION_S)


def margin_line(page: Page, one: ReadLine) -> bool:
    """A line about the session as the written form has it: `tags: hill, cold`."""
    if one.line.sentence:
        return True
    try:
        said = read_lines(["x", one.line.raw.strip()], library=page.library).document
    except BoardError:
        return False
    for key, value in said.items():
        if key == "notes":
            page.notes.append(str(value))
        elif key == "cautions" and isinstance(value, list):
            page.cautions.extend(value)
        elif key not in ("fine_tally", "title", "blocks"):
            page.meta[key] = value
    return True


def says_title(text: str) -> bool:
    """Whether a line begins with a word for a title: `Session`, `Group B`, `Week 3`."""
    return bool(re.match(r"\s*(?:title|session|group|grp|squad|team|day|week|wk)\b", text, re.IGNORECASE))


def speaks(text: str) -> bool:
    """Whether words speak to people."""
    return TALK.search(text) is not None
