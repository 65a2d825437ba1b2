"""What is said of a block in its head line. One table: the grammar reads by it, the writer writes by it."""

from __future__ import annotations

from dataclasses import dataclass
from typing import Literal

from finetally.core.session.json_value import JsonValue

PhraseKey = tuple[str, ...]
"""Where a value goes in a block; `clock` stands for the inner clock once a rotation has said `at each station`."""

PhraseKind = Literal["time", "count", "word"]


@dataclass(frozen=True, slots=True)
class Phrase:
    """A phrase: where its value goes, the words the writer uses, and a pattern of all words that are understood.

    A `time` or `count` stands before the words, or after them (`leads`); a `word` phrase is a fixed value.
    `also` is set together with it (an `every` says which clock it is).
    """

    name: str
    key: PhraseKey
    kind: PhraseKind
    words: str
    pattern: str
    value: JsonValue = None
    leads: bool = False
    also: tuple[tuple[PhraseKey, JsonValue], ...] = ()


def _clock(kind: str) -> tuple[tuple[PhraseKey, JsonValue], ...]:
    return ((("clock", "kind"), kind),)


CLOCKS = (
    Phrase("intervals", ("clock", "kind"), "word", "intervals", r"intervals?", "intervals"),
    Phrase("for_time", ("clock", "kind"), "word", "for time", r"for\s+time|until\s+(all\s+is\s+)?done|at\s+own\s+pace", "task"),
    Phrase("stations", ("clock", "kind"), "word", "stations", r"stations", "rotation"),
    Phrase("every", ("clock", "period_s"), "time", "every", r"every", leads=True, also=_clock("every")),
    Phrase("window", ("clock", "window_s"), "time", "as many rounds as fit in",
           r"as\s+many\s+rounds\s+as\s+(fit|possible)(\s+in)?|amrap(\s+in)?", leads=True, also=_clock("amrap")),
)  # fmt: skip

LED_KINDS = frozenset(value for phrase in CLOCKS for _, value in phrase.also if isinstance(value, str))
"""Clocks that are said by what leads them: `every 1:30`."""

OF_CLOCK = (
    Phrase("work", ("clock", "work_s"), "time", "each", r"each|work"),
    Phrase("round_rest", ("clock", "round_rest_s"), "time", "between rounds", r"between\s+(rounds|sets)"),
    Phrase("group_rest", ("clock", "group_rest_s"), "time", "between groups", r"between\s+(groups|pairs|threes|steps|movements)"),
    Phrase("no_rest", ("clock", "rest_s"), "word", "no rest", r"(with)?(out|no)\s+rest(?!\s+first)", 0),
    Phrase("rest", ("clock", "rest_s"), "time", "rest", r"rest(\s+after\s+each(\s+(movement|window|one))?)?"),
    Phrase("rest_first", ("clock", "rest_first"), "word", "rest first", r"rest\s+first", True),
    Phrase("no_rest_first", ("clock", "rest_first"), "word", "no rest first", r"no\s+rest\s+first", False),
    Phrase("closing", ("clock", "closing_rest"), "word", "closing rest", r"(with\s+)?(a\s+)?closing\s+rest", True),
    Phrase("no_closing", ("clock", "closing_rest"), "word", "no closing rest", r"(with)?(out)?(\s*a)?\s*no\s+closing\s+rest", False),
    Phrase("until", ("clock", "work_until_s"), "time", "until", r"until", leads=True),
    Phrase("periods", ("clock", "periods"), "count", "starts", r"starts|periods"),
    Phrase("free", ("clock", "free"), "count", "free starts", r"free\s+starts?"),
    Phrase("cap", ("clock", "cap_s"), "time", "cap", r"cap(ped)?(\s+at)?|time\s+cap", leads=True),
    Phrase("then_stop", ("clock", "then"), "word", "then stop", r"then\s+stop", "stop"),
    Phrase("then_restart", ("clock", "then"), "word", "then start over", r"then\s+start\s+over", "restart"),
    Phrase("then_reverse", ("clock", "then"), "word", "then back down", r"then\s+back(\s+down)?", "reverse"),
)  # fmt: skip

OF_ROTATION = (
    Phrase("laps", ("clock", "laps"), "count", "laps", r"laps?"),
    Phrase("rotate", ("clock", "rotate_s"), "time", "to move on", r"to\s+(move\s+on|change(\s+over)?|rotate)"),
)

OF_BLOCK = (
    Phrase("rounds", ("rounds",), "count", "rounds", r"rounds?"),
    Phrase("one_at_a_time", ("group",), "word", "one at a time", r"one\s+at\s+a\s+time|straight", 1),
    Phrase("take_turns", ("turns",), "word", "lines take turns", r"lines\s+take\s+turns|one\s+a\s+start", True),
    Phrase("in_pairs", ("group",), "word", "in pairs", r"in\s+pairs", 2),
    Phrase("in_threes", ("group",), "word", "in threes", r"in\s+threes", 3),
    Phrase("all_together", ("group",), "word", "all together", r"all\s+together|(as\s+a\s+)?circuit|in\s+turn", "all"),
    Phrase("at_a_time", ("group",), "count", "at a time", r"at\s+a\s+time"),
    Phrase("build_strip", ("visit",), "word", "building up and stripping down",
           r"building(\s+up)?\s+(and|then)\s+stripping(\s+down)?", "build-strip"),
    Phrase("build", ("visit",), "word", "building up", r"building(\s+up)?", "build"),
    Phrase("strip", ("visit",), "word", "stripping down", r"stripping(\s+down)?", "strip"),
    Phrase("in_rounds", ("visit",), "word", "in rounds", r"in\s+rounds", "rounds"),
    Phrase("front", ("strip_from",), "word", "dropping from the front", r"(dropping\s+)?from\s+the\s+front", "front"),
    Phrase("back", ("strip_from",), "word", "dropping from the back", r"(dropping\s+)?from\s+the\s+back", "back"),
    Phrase("repeat", ("repeat",), "count", "times over", r"times?\s+over|times?"),
    Phrase("repeat_rest", ("rest_between_repeats_s",), "time", "between times", r"between\s+times|at\s+the\s+turn"),
    Phrase("mirrored", ("mirror",), "word", "mirrored", r"(then\s+)?mirrored", True),
    Phrase("not_mirrored", ("mirror",), "word", "not mirrored", r"not\s+mirrored", False),
    Phrase("told", ("announced_s",), "time", "told", r"told", leads=True),
    Phrase("talk", ("talk_s",), "time", "talk", r"talk", leads=True),
    Phrase("talk_over", ("talk_over",), "word", "people move meanwhile", r"(people\s+)?mov(e|ing)\s+meanwhile", True),
    Phrase("easy", ("effort",), "word", "easy", r"easy", "easy"),
    Phrase("steady", ("effort",), "word", "steady", r"steady", "steady"),
    Phrase("hard", ("effort",), "word", "hard", r"hard", "hard"),
    Phrase("all_out", ("effort",), "word", "all-out", r"all[- ]?out", "all-out"),
)  # fmt: skip

TAKE_TURNS = next(one for one in OF_BLOCK if one.name == "take_turns")
"""Said so that several lines under starts cannot be meant all at once; it sets nothing."""

HEAD_PHRASES = (*CLOCKS, *OF_CLOCK, *OF_ROTATION, *OF_BLOCK)

AT_EACH = "at each station"
AT_EACH_PATTERN = r"(at|in)\s+each(\s+station|\s+of\s+them)?|inside"


@dataclass(frozen=True, slots=True)
class Preset:
    """A format's own name in a head line: several values at once, each of which a later phrase may change."""

    name: str
    words: str
    pattern: str
    values: tuple[tuple[PhraseKey, JsonValue], ...]


PRESETS = (
    Preset("strict", "strict 20/10", r"strict\s+20\s*/\s*10|tabata(?!\s+pairs)",
           ((("clock", "kind"), "intervals"), (("clock", "work_s"), 20), (("clock", "rest_s"), 10), (("group",), 1), (("rounds",), 8))),
    Preset("pairs", "20/10 pairs", r"20\s*/\s*10\s+pairs|tabata\s+pairs",
           ((("clock", "kind"), "intervals"), (("clock", "work_s"), 20), (("clock", "rest_s"), 10), (("group",), 2), (("rounds",), 4))),
    Preset("own_pyramid", "movement pyramid at own pace", r"(movement\s+|building\s+)?pyramid\s+at\s+own\s+pace",
           ((("clock", "kind"), "task"), (("visit",), "build-strip"))),
    Preset("pyramid", "movement pyramid", r"(movement\s+|building\s+)?pyramid(?!\s+at)",
           ((("clock", "kind"), "intervals"), (("visit",), "build-strip"))),
    Preset("emom", "every 1:00", r"emom|minute\s+starts",
           ((("clock", "kind"), "every"), (("clock", "period_s"), 60))),
)  # fmt: skip
"""Names that stand for a shape. The trade's words are understood, ours are written."""
