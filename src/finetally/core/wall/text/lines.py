"""From a text to its lines as they are meant: bullets, numbers and parts taken off, sentences apart."""

from __future__ import annotations

import re
import unicodedata
from collections.abc import Iterator
from dataclasses import dataclass, field
from itertools import pairwise

from finetally.core.wall.tokens.tokens import plain
from finetally.core.wall.tokens.words import COUNTED_UNITS, PART_WORDS

LONGEST_LINE = 400
"""Characters of a line that is still read; what is longer is a note."""

MOST_LINES = 400
"""Lines of one text that are read: a year's longest wall has two hundred; what stands below is a note."""

MOST_CHARACTERS = 6_000
"""Characters of one text that are read: six times the longest text of a coach that is known; the rest is notes."""

MOST_ROWS = 2_000
"""Lines that are kept as notes, each by itself; what stands below is told as so many lines."""

_BULLET = re.compile(
    r"\s*(?:(?:[-*•‣▪●○◦·»>~–—]|\*\*|--)\s+|[-–—~](?=[^\W\d_])|\*{1,3}\s*(?=\w)|[•‣▪●○◦·]\s*|\[[ x]?\]\s*)"
)
_TURN = re.compile(
    r"\s*(?:(?:min(?:ute)?|m|start)\s?(\d{1,2})(?:\s?[:.)\-]|\s(?=\S))|(odd|even)s?(?:\s+min(?:ute)?s?)?\s*[:\-]?\s+)\s*"
)
_LABEL = re.compile(
    r"\s*(?:(?P<group>[a-z])(?P<number>\d{1,2})\s*(?:[.),]|:(?!\d)|(?=\s))\s*|(?P<turned>[1-9][a-d])\s?[.):]\s+|(?P<letter>[a-z])\s*(?:[.):]|\s*>+)\s*|(?P<bare>[a-h])\s+(?=\S)"
    r"|(?P<sub>\d{1,2}\.\d{1,2})\s*[.):]?\s+|(?P<count>\d{1,2})(?:\s?[.)]\s*(?!\d|\s*[x/])|(?<!\d\d):\s+(?=(?:\d+\s+)?[^\W\d_]))|(?P<station>stations?\s+\d{1,2})\s*[:.)\-]\s*|(?P<block>(?:block|part|section|round|set|piece)\s+(?:\d{1,2}|[a-h])(?=\s*[:.\-,(]|\s|$))\s*[:.\-]?\s*"
    r"|(?P<nth>(?:first|second|third|fourth|last|next)\s+(?:block|part|bit|thing|piece)(?:\s+is)?(?:\s+an?)?)\b\s*[:.\-]?\s*)"
)
_PARTS = [
    (part, re.compile(rf"\s*(?:the\s+)?(?:{pattern})(?![\w'])\s*", re.IGNORECASE)) for part, pattern in PART_WORDS
]
_SENTENCE = re.compile(
    r"\s+(?=[1-9][A-Da-d]\)\s)|(?<=[Rr]est \d)\.\s+(?=\d)|"
    r"\s*[/,;|]\s*(?=[A-Ha-h][1-9]\b[\s.):])|(?<=[^\W\d_])[.!?]+\s+(?=\S)|(?<=\))[.!?]\s+|(?<=[sg'\d])\.\s+(?=[A-Z])|;\s+"
    r"|\s*[,;/|:]\s*(?=min(?:ute)?\s?\d{1,2}\b\s?[:\s])"
    r"|(?<=\S)\s*[,;]?\s+(?:and\s+)?(?:then\s+)(?=(?:\d+|two|three|four|five)\s*(?:(?:rounds?|rds?|rnds?|sets?|x)\b|x\d+\s+of\b))"
    r"|\s*[,;]\s*(?:and\s+|then\s+)?(?=finish(?:ing)?\s+(?:with|w/|by|on)\s)"
    r"|\s*[+,;]\s*(?=\d+\s*(?:[x×]|rounds?|rds|sets)\s*(?:of\s*)?\([^)]*\d[^)]*[,+/]\s*\d)|(?<=\))\s*[,;]\s*(?=\d+\s*(?:min|mins|minutes)\s+(?:easy|cool))|\s*/\s*(?=(?i:main|fin|cool|wod|strength|warm)[\w\s-]*:)"
    r"|\s+then\s+(?=[a-z][a-z\s-]{2,30}\d+\s*(?:sets?\b|x\s*\d))|(?<=\))\s*(?:\+|[,;]\s*then\b)\s*(?=\d+\s*(?:min|mins|km|k|m|s)\b)"
    r"|(?<=x\s\d)\s*[,;]\s*(?:and\s+)?then\s+(?=\d)|(?<=x\d)\s*[,;]\s*(?:and\s+)?then\s+(?=\d)"
    r"|\s*[→➡,–-]*\s+(?=(?i:every|each|any|per)\s+(?i:break|drop|stop|rest|time\s+you)\b[^=]{0,30}=)"
)
_NO_STOP = re.compile(
    r"(?:\b(?:min|mins|sec|secs|approx|no|ca|vs|nr|ea|rd|rds|reps|alt|incl|st|ex|e\.g|i\.e))$", re.IGNORECASE
)
_UNIT_STOP = re.compile(r"\b(?:reps|ea|rds|secs?|mins?)\.\s+\d$", re.IGNORECASE)
"""A unit with a stop before a number ends a sentence: `10 reps. 3 rounds`."""
_DOTTED = re.compile(r"\b(?:e\.m\.o\.m|a\.m\.r\.a\.p)\.?(?=\s|:|$)", re.IGNORECASE)
_INLINE_LIST = re.compile(r"[:\s]1\.\s+\w.*\s2\.\s+\w")
_INLINE_NUMBER = re.compile(r"([:\s])([1-9])\.(\s)")
"""`EMOM: 1. rows x 12 2. burpees x 8`: numbers of a list on one line."""
_KEYCAP = re.compile("([0-9])\ufe0f?\u20e3")
_DATE = re.compile(r"\b\d{1,2}[./]\d{1,2}(?:[./]\d{2,4})?\b|\b\d{4}-\d{2}-\d{2}\b")


@dataclass(slots=True)
class Line:
    """A line as it is read: where it stands, its words, what was in front of them."""

    number: int
    column: int
    text: str
    raw: str
    indent: int = 0
    gap: bool = False
    label: str = ""
    style: str = ""
    part: str | None = None
    part_words: str = ""
    turn: int | None = None
    parity: int | None = None
    sentence: int = 0
    colon: bool = False
    cells: list[str] = field(default_factory=list)

    @property
    def low(self) -> str:
        """The words in plain form."""
        return plain(self.text)


def without_pictures(text: str) -> str:
    """Text with every pictograph as a blank (`1️⃣` as `1.`), as long as before."""
    text = _KEYCAP.sub(lambda m: f"{m[1]}." + " " * (len(m[0]) - 2), text)
    return "".join(" " if _is_picture(c) else c for c in text) if not text.isascii() else text


def _is_picture(c: str) -> bool:
    return (
        ord(c) > 0x2000 and (unicodedata.category(c) in ("So", "Cn", "Sk", "Cf", "Cs") and c not in "→➡⇒➔″′″")
    ) or c in "\ufe0f\u200d"


_SLOT = re.compile(
    r"\s*(?:[-*•]\s*)?(\d{1,3})(?::00)?\s?[-–]\s?(\d{1,3})(?::00)?\s?(?:min(?:ute)?s?|')?\s?[:.\-–]\s+(?=\S)",
    re.IGNORECASE,
)


def time_slots(text: str) -> str:
    """`0-10 min: row`, `10-20 min: EMOM`: from when to when becomes how long, if each begins as one ends."""
    lines = text.split("\n")
    found = {n: m for n, line in enumerate(lines) if (m := _SLOT.match(line))}
    times = [(int(m[1]), int(m[2])) for m in found.values()]
    if len(times) < 2 or times[0][0] != 0 or any(a[1] != b[0] for a, b in pairwise(times)):
        return text
    for (n, m), (begin, end) in zip(found.items(), times, strict=True):
        lines[n] = f"{end - begin} min {lines[n][m.end() :]}" if end > begin else lines[n]
    return "\n".join(lines)


_MARK = re.compile(r"\s*(?:[-*•]\s*)?(?:at\s+)?(\d{1,2}):([0-5]\d)\s?[-–:.]?\s+(?=\S)", re.IGNORECASE)
_OVER = re.compile(r"(?:finish|end|done|stop|rest|off)\W*", re.IGNORECASE)
FEWEST_MARKS = 3


def clock_marks(text: str) -> str:
    """`0:00 10 burpees`, `2:00 20 squats`, `4:00 30 rows`: marks at even distances are starts, one line at each."""
    lines = text.split("\n")
    found = {n: m for n, line in enumerate(lines) if (m := _MARK.match(line))}
    marks = [int(m[1]) * 60 + int(m[2]) for m in found.values()]
    steps = {b - a for a, b in pairwise(marks)}
    if len(marks) < FEWEST_MARKS or marks[0] != 0 or len(steps) != 1 or min(steps) <= 0:
        return text
    count = len(marks)
    for at, (n, m) in enumerate(found.items()):
        lines[n] = lines[n][m.end() :]
        if at == len(marks) - 1 and _OVER.fullmatch(lines[n]):
            lines[n], count = "", count - 1
    first = next(iter(found))
    lines[first] = f"every {steps.pop()} s x {count}, one a start: {lines[first]}"
    return "\n".join(lines)


def lines_of(text: str) -> Iterator[Line]:
    """The lines that hold words, with how far they stand in and whether a blank line is before them."""
    gap, count, read = False, 0, 0
    for number, raw in enumerate(text.split("\n"), start=1):
        if len(raw) > LONGEST_LINE:
            count += 1
            yield Line(number, 0, raw.strip(), raw, gap=gap, style="note")
            gap = False
            continue
        clean = _DOTTED.sub(lambda m: m[0].replace(".", "").rjust(len(m[0])), without_pictures(raw))
        if raw.strip() in ("-", "–", ".", "+", "*"):
            continue
        if not clean.strip(" \t\r*_=~#-–—>|.,"):
            gap = gap or not raw.strip()
            if raw.strip() and gap is False:
                gap = True
            continue
        read += len(clean)
        if read <= MOST_CHARACTERS and _INLINE_LIST.search(clean):
            clean = _INLINE_NUMBER.sub(r"\1\2)\3", clean)
        indent = len(clean) - len(clean.lstrip())
        line = Line(number, 0, clean.rstrip(), raw, indent=indent, gap=gap)
        gap = False
        count += 1
        if count > MOST_LINES or read > MOST_CHARACTERS:
            line.style = "note"
            yield line
            continue
        yield from _sentences(line)


def _sentences(line: Line) -> Iterator[Line]:
    """Sentences of a line one by one."""
    begin, count = 0, 0
    for m in _breaks(line.text):
        if (
            (
                "." in m[0]
                and _NO_STOP.search(line.text[: m.start()])
                and not _UNIT_STOP.search(line.text[: m.end() + 1])
                and not line.text[m.end() : m.end() + 1].isupper()
            )
            or m.start() < begin + 2
            or _only_label(line.text[begin : m.start()])
        ):
            continue
        yield _cut(line, begin, m.end(), count)
        begin, count = m.end(), count + 1
    yield _cut(line, begin, len(line.text), count)


_OWN_CLOCK = r"(?:then\s+)?(?:an?\s+)?\d+[\s-]*(?:min|mins|minutes?|')\s+(?:amrap|emom)\b"
_NEXT_AMRAP = re.compile(
    rf"\s*[,;]\s*(?:then\s+)?(?=\d+\s*\w+\s+(?:off|rest|break)\s*[,;]\s*{_OWN_CLOCK})|\s*[,;]\s*then\s+(?={_OWN_CLOCK})|"
    r"\s*[,;]\s*(?:then\s+)?(?=(?:rest\s+\d+\s*\w*|\d+\s*\w+\s+rest)\s*[,;]\s*(?:then\s+)?\d+\s*(?:min|mins|minutes|')\s+amrap\b)"
    r"|\s*[,;]\s*(?:then\s+)?(?=\d+\s*(?:min|mins|minutes|')\s+amrap\b)",
    re.IGNORECASE,
)
_NEXT_TABATA = re.compile(
    r"\s*[,;]\s*(?:then\s+)?(?=(?:\d+\s*\w+\s+rest|rest\s+\d+\s*\w+)\s*[,;]\s*(?:then\s+)?tabata\b)|\s*[,;]\s*(?:then\s+)?(?=tabata\b)",
    re.IGNORECASE,
)
_NEXT_CLOCK = re.compile(
    r"\s*[,;]\s*(?:and\s+)?(?:then\s+)?(?=(?:rest\s+\d+[^,;]*[,;]\s*(?:then\s+)?)?(?:e\d*mom|amrap)\s+\d)",
    re.IGNORECASE,
)
_CLOCK_WITH_WORK = re.compile(r"(?:mom|amrap)\s*\d+[^,;]*?[:\-–]\s*(?:\d|max)", re.IGNORECASE)


_GOING_UP_AND_DOWN = re.compile(
    r"(?<=warm up)\s*[,;]\s*(?=\d)|(?<=warm-up)\s*[,;]\s*(?=\d)|(?<=warm up (?:jog|run|row))\s*[,;]\s*(?=\d)"
    r"|\s*[,;]\s*(?:then\s+)?(?=\d+\s*(?:min|mins|minutes|')?\s*(?:easy\s+)?(?:cool|warm)[\s-]?down\b)",
    re.IGNORECASE,
)


def _breaks(text: str) -> list[re.Match[str]]:
    """Where sentences of a line end: at stops, and before a second clock where the first has its work."""
    found = [*_SENTENCE.finditer(text), *_GOING_UP_AND_DOWN.finditer(text)]
    if _CLOCK_WITH_WORK.search(text):
        found.extend(m for m in _NEXT_CLOCK.finditer(text) if _CLOCK_WITH_WORK.search(text[: m.start()]))
    found.extend(m for m in _NEXT_TABATA.finditer(text) if "tabata" in text[: m.start()].lower())
    before = re.compile(r"amrap|emom|\d\s*min", re.IGNORECASE)
    found.extend(m for m in _NEXT_AMRAP.finditer(text) if before.search(text[: m.start()]))
    return sorted(found, key=lambda m: m.start())


def _only_label(text: str) -> bool:
    return bool(re.fullmatch(r"\s*[\-*•]*\s*(?:\w|\d+[a-z]?|[a-z]\d)\s*", text, re.IGNORECASE))


def _cut(line: Line, begin: int, end: int, count: int) -> Line:
    text = line.text[begin:end]
    return Line(
        line.number, begin + len(text) - len(text.lstrip()), text.strip(), line.raw, indent=line.indent,
        gap=line.gap and count == 0, sentence=count,
    )  # fmt: skip


def _drop(line: Line, count: int) -> None:
    rest = line.text[count:]
    line.column += count + len(rest) - len(rest.lstrip())
    line.text = rest.strip()


def dress(line: Line, *, letters: bool, numbers: bool) -> Line:
    """Take off what stands in front of a line: bullets, a label, a part, whose minute it is.

    `letters`: single letters are labels in this text; `numbers`: bare numbers are.
    """
    if line.style == "note":
        return line
    framed = _FRAMED.fullmatch(line.text)
    if framed is not None:
        line.column += framed.start(1)
        line.text = framed[1]
    for _ in range(3):
        m = _BULLET.match(line.text)
        if m is None or not m[0]:
            break
        _drop(line, m.end())
    _turn(line)
    low = line.low
    m = _LABEL.match(low)
    if m is not None and m.end() < len(low) + 1:
        _label(line, m, letters=letters)
    elif numbers and (m := _COUNTING.match(low)):
        line.label, line.style = m[1], "count"
        _drop(line, m.end())
    _turn(line)
    _part(line)
    return line


_FRAMED = re.compile(r"\s*[-–—~*=_]+\s*([^\W_](?:.*[^\W_])?['\"”″′)]*)\s*[-–—~*=_]+\s*")
_BEFORE_PART = re.compile(
    r"(?:\d[\d.,:½]*+\s*+(?:min(?:ute)?s?|'|s(?:ec)?(?:onds)?|\"|x)?\s*+|(?:then|now|and|finally|lastly|x|each|ea|our|the|to|a|of)\s+|(?:we\s+)?(?:finish|end|close)\s+with\s+)+(?=[^\W\d_])"
)


def _part(line: Line) -> None:
    """Take off the words that begin a part: at the start, or behind a length (`5 min warm up: easy row`)."""
    low = line.low
    before = _BEFORE_PART.match(low)
    for at in [0] if before is None else [0, before.end()]:
        for part, pattern in _PARTS:
            m = pattern.match(low, at)
            if m is None or not _is_part(part, low, m, at):
                continue
            line.part, line.part_words = part, line.text[at : m.end()].strip(" :-,")
            rest = line.text[m.end() :]
            stripped = rest.lstrip(":-–—,. ")
            line.colon = ":" in rest[: len(rest) - len(stripped)] or at > 0
            front = line.text[:at].strip()
            line.column += m.end() + len(rest) - len(stripped)
            line.text = f"{front}: {stripped}" if at and any(c.isdigit() for c in front) else stripped.strip()
            return


def _is_part(part: str, low: str, m: re.Match[str], at: int) -> bool:
    """Whether words that begin a part do so here, and are no movement's name (`stretch`, `raise`)."""
    word = m[0].strip()
    rest = low[m.end() :].lstrip()
    if at and rest.startswith(("set", "round")):
        return False
    if word in (
        "raise",
        "down",
        "mobility",
        "activation",
        "strength",
        "conditioning",
        "ramp",
        "primer",
        "last bit",
    ):
        return not rest or rest[0] in ":-,(" or rest[0].isdigit()
    return True


def _turn(line: Line) -> None:
    m = _TURN.match(line.low)
    if m is None or line.turn is not None or line.parity is not None:
        return
    if m[1]:
        line.turn = int(m[1])
    else:
        line.parity = 1 if m[2] == "odd" else 0
    _drop(line, m.end())


def _label(line: Line, m: re.Match[str], *, letters: bool) -> None:
    if m["group"]:
        line.label, line.style = f"{m['group']}{m['number']}", "group"
    elif m["turned"]:
        line.label, line.style = m["turned"], "group"
    elif m["letter"]:
        line.label, line.style = m["letter"], "letter"
    elif m["bare"]:
        if not letters:
            return
        line.label, line.style = m["bare"], "letter"
    elif m["sub"]:
        line.label, line.style = m["sub"], "sub"
    elif m["count"]:
        line.label, line.style = m["count"], "count"
    elif m["station"]:
        line.label, line.style = m["station"], "station"
    elif m["block"] or m["nth"]:
        line.label, line.style = (m["block"] or m["nth"]).strip(), "block"
    _drop(line, m.end())


_COUNTING = re.compile(rf"\s*(\d{{1,2}})\s+(?!{COUNTED_UNITS})(?=[^\W\d_])")
_BARE = re.compile(r"\s*(?:[-*•]\s*)?([A-H])\s+(?=\S)")
_NUMBERED = re.compile(rf"\s*(?:[-*•]\s*)?(\d{{1,2}})\s+(?!{COUNTED_UNITS})(?=[^\W\d_])", re.IGNORECASE)


def has_letters(lines: list[Line]) -> bool:
    """Whether single capitals in front of lines are labels: at least A and B are there."""
    found = {m[1] for line in lines if (m := _BARE.match(line.text))}
    return {"A", "B"} <= found or (len(found) > 1 and any(re.match(r"\s*[A-H]\d\s", line.text) for line in lines))


def has_numbers(lines: list[Line]) -> bool:
    """Whether bare numbers in front of lines count them: 1, 2, 3 … in order, and there are three at least."""
    found = [int(m[1]) for line in lines if (m := _NUMBERED.match(line.text))]
    for line in lines:
        m = _NUMBERED.match(line.text)
        if m is not None and re.search(rf"[,+/&]\s*{m[1]}\s+[^\W\d_]", line.text):
            # `2 burpees, 2 squats`: the number is a dose.
            return False
    return len(found) > 2 and found == list(range(1, len(found) + 1))
