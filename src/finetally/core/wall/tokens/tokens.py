"""From a line of text to tokens: numbers with their units, words that say something, words that name."""

from __future__ import annotations

import re
from collections.abc import Callable
from typing import Any

from finetally.core.session.values import POUND_KG
from finetally.core.wall.parts import Amount, LoadPart, between
from finetally.core.wall.tokens.token import SaidLoad, Token
from finetally.core.wall.tokens.words import (
    FRACTIONS,
    KILOGRAMS,
    KIND_OF,
    METRES_OF,
    NUMBER_WORDS,
    POUNDS,
    SECONDS_OF,
    WORD_TOKENS,
)  # fmt: skip

LARGEST_NUMBER = 99_999
"""Numbers above are no count of anything in a session; they are words."""

_PLAIN = str.maketrans(
    {
        "’": "'", "‘": "'", "`": "'", "´": "'", "“": '"', "”": '"', "„": '"', "–": "-", "—": "-", "‒": "-", "−": "-", "×": "x",
        "\u00a0": " ", "\u2009": " ", "\u202f": " ", "→": ">", "➡": ">", "⇒": ">", "➔": ">", "；": ";", "：": ":", "，": ",",
        "＋": "+", "⁄": "/", "∕": "/", "\t": ",", "Ø": "o",
    }
)  # fmt: skip


def plain(text: str) -> str:
    """The same text, as long as before, in lower case and with one character for each of many dashes and quotes."""
    folded = text.translate(_PLAIN)
    lower = folded.lower()
    return lower if len(lower) == len(folded) else "".join(c.lower() if len(c.lower()) == 1 else c for c in folded)


_NUM = r"(?:\d{1,5}(?:\.\d{1,3}(?!\d))?|\d{1,4},\d{1,2}(?!\d|,\d)|\d{0,3}\s?[½¼¾⅓])"
_WORDNUM = "|".join(sorted(NUMBER_WORDS, key=len, reverse=True))
_SEC = "|".join(
    sorted((re.escape(u) for u, n in SECONDS_OF.items() if n == 1 and u.isalpha()), key=len, reverse=True)
)
_MIN = "|".join(
    sorted((re.escape(u) for u, n in SECONDS_OF.items() if n == 60 and u.isalpha()), key=len, reverse=True)
)
_HOUR = "|".join(sorted((re.escape(u) for u, n in SECONDS_OF.items() if n == 3600), key=len, reverse=True))
_TIMEUNIT = rf"(?:(?:{_SEC}|{_MIN}|{_HOUR})\b\.?|''|[\"″'′])"
_LENGTH = "|".join(sorted((re.escape(u) for u in METRES_OF), key=len, reverse=True))
_KG = "|".join(sorted(KILOGRAMS, key=len, reverse=True))
_LB = "|".join(sorted((re.escape(u) for u in POUNDS if u != "#"), key=len, reverse=True))
_COUNTED = r"(?:rounds?|rds?|sets?|times?|reps?|stations?|laps?|starts?|minutes?|mins?|seconds?|secs?|hours?|people|lines?|lengths?|circuits?)"
_DASH = r"\s*(?:-|to)\s*"

_EDGE = r"\b"
FRONT = {"AMRAP": r"(?:\b|(?<=\dx))"}
"""What may stand in front of a saying: `3xAMRAP`."""
_MASTER = re.compile(
    "|".join(
        f"(?P<{name}>{pattern})"
        for name, pattern in (
            ("PAUSE", r"\b\d\s?(?:s|secs?|seconds?)\s+(?:down|lower(?:ing)?|eccentrics?|negatives?|descents?)\b|\b\d\s?(?:s|sec|second)s?\s+pause(?:\s+at\s+the\s+\w+)?|\b\d\s?(?:s|sec|second)s?\s+(?:hold|squeeze)\s+(?:at|on|in)\s+(?:the\s+)?\w+|\bpaused?\s+\d\s?(?:s|sec|seconds)?\b(?:\s+at\s+the\s+\w+)?"),
            ("LASTSET", r"\b(?:last|final)\s+(?:set|round)\s+(?:is\s+)?(?:an\s+)?(?:amrap|max(?:\s+reps)?|to\s+failure|all[-\s]out|amap)\b|\b(?:last|final)\s+(?:\d\s+)?(?:sets?|rounds?)\s+drops?\s+(?:to\s+)?\d+\s*(?:kg|lb)?\b|\b\d{1,2}\s?rm\s+test\b"),
            ("BUILD", r"\b(?:build(?:ing)?|work(?:ing)?|ramp(?:ing)?)(?:\s+up)?\s+to\s+(?:(?:a|your|the|today's|heavy|hard|tough|max|daily|good)\s+)*(?:single|double|triple|\d{1,2}(?:\s?rm|\s+reps?)?|set\s+of\s+\d{1,2})\b"
                      r"|\b(?:to\s+)?(?:find|establish|hit)\s+(?:(?:a|your|the|today's|heavy|new|max)\s+)+(?:single|double|triple|\d{1,2}\s?rm|set\s+of\s+\d{1,2})\b"
                      r"|\b(?:to\s+)?(?:find|establish|hit|test)\s+(?:your\s+|today's\s+)?\d{1,2}\s?rm\b"),
            ("HRPCT", r"@?\s*\d{2,3}(?:\s?-\s?\d{2,3})?\s?%\s*(?:of\s+)?(?:max\s+)?(?:hr(?:max)?|heart\s+rate|effort|speed|pace)\b"),
            ("RATIO", r"\bequal\s+rest\b|\brest\s+(?:equal|as\s+long\s+as\s+(?:it\s+takes|the\s+work|you\s+work(?:ed)?))\b|\b(?P<uw>\d)\s?:\s?(?P<ur>\d)\s+rest\b|\brest\s+(?P<qw>\d)\s?:\s?(?P<qr>\d)(?!\d)|\b(?:work\s*[:/]\s*rest|w\s*:\s*r)(?:\s+ratio)?(?:\s+of)?\s*:?\s*(?P<rw>\d)\s*[:/]\s*(?P<rr>\d)\b"),
            ("EASE", r"@?\s*\b(?:at\s+)?(?:an?\s+)?(?:easy|moderate|steady|hard|fast|slow|conversational|comfortable|threshold|tempo|race|goal|\d{1,2}\s?k|500\s?m|mile)\s+(?:pace|effort)\b"),
            ("ZONE", r"\b(?:zone|z)\s?[1-5]\b(?!\s*:)"),
            ("LRTIME", r"(?P<lrt>\d{1,3})\s?(?:s|sec|secs|\")\s?l(?:eft)?\s?[/+,&]\s?\d{1,3}\s?(?:s|sec|secs|\")\s?r(?:ight)?\b"),
            ("NAMED", r"\bwalk\s+it\s+off\b|\bfigure[\s-]?[48]\b|\bt2b\b|\bc2b\b|\b[sg]2oh\b|\bk2e\b|\bc\s?&\s?j\b|\bl[\s-]sits?\b|\bhill\s+reps?\b|(?<=\s)2[\s-]hand(?:ed)?\b"),
            ("NINETY", r"90\s?/\s?90s?(?=\s+(?:hip|switch|stretch|each|[a-z])|\s*$|\s+\d|,)(?!\s*x)"),
            ("CLOCKWORDS", r"half\s+an\s+hour|(?:an|one)\s+hour(?!\s+and)|a\s+minute\s+and\s+a\s+half|\bminute(?:'?s)?(?=\s+(?:rests?|off|break|between)\b)(?<!\d\sminute)(?<!\dminute)(?<!\d\sminutes)(?<!\d-minute)|half\s+a\s+min(?:ute)?|an?\s+min(?:ute)?\b(?!\s*\d)"),
            ("DAYTIME", r"\b(?:at\s+)?\d{1,2}(?:[:.]\d\d)?\s?(?:am|pm)\b"),
            ("WATTS", r"@?\s*(?:\d{2,4}\s?-\s?)?\d{2,4}\s?(?:watts?\b|w\b(?!\s*/|\s*\d))"),
            ("EVERYCLOCK", r"\be(?P<ec>\d{1,2}:[0-5]\d)(?!\d)"),
            ("EVERYN", r"\be(?:very)?\s?(?P<en>\d{1,3})\s?(?P<eu>mom|min(?:ute)?s?\s+on\s+the\s+min(?:ute)?|sec?|s|m|min|mins)\b"),
            ("EVERYNTH", r"\bevery\s+(?P<ent>\d(?=(?:nd|rd|th))|other|second|third|fourth|fifth)(?:nd|rd|th)?\s+min(?:ute)?\b"),
            ("EMOM", r"\b(?:emoms?|otm)\b"),
            ("DISTANCEWORDS", r"(?:half|quarter|three\s+quarters?)\s+(?:of\s+)?(?:a\s+)?mile|(?:a|one)\s+mile"),
            ("TEMPO", r"@?\s*(?P<tempo3>\d(?:[-.]\d){3})\s*tempo\b|tempo\s*:?\s*(?P<tempo>\d[\dx][\dx][\dx]|\d[\dx.-]*[\dx])|@\s*(?P<tempo2>\d{1,2}(?:[-.]\d{1,2}){3}|(?:\d{2}x\d|\d{4}|\d{2}[1-46-9])\b(?![.,]|\s*(?:kg|lb|m\b|%)))|(?<![\w.])[2-6]\dx[01](?![\w/])"),
            ("RPE", r"@?\s*\brpe\s*:?\s*(?P<rpe>\d{1,2}(?:[.,]5)?)(?:\s*-\s*\d{1,2})?"),
            ("RIR", r"(?:@\s*)?(?:(?P<rir>\d)(?:\s*-\s*\d)?\s*rir\b|rir\s*:?\s*(?P<rir2>\d))|(?<=amrap)\s?-\s?(?P<rir3>\d)\b|(?P<rir4>\d)\s+(?:reps?\s+)?(?:short\s+of|from|before|off)\s+failure\b"),
            ("PACE", r"@?\s*\b(?P<pm>\d{1,2}):(?P<ps>[0-5]\d)\s*(?:min\s*)?(?:/|per)\s*(?P<pu>km|k|miles?|mi|500\s?m?|100\s?m)\b"),
            ("HOURMIN", r"(?P<hh>\d)\s?h(?:rs?|ours?)?\s?(?P<hm>\d{1,2})(?:\s?min)?\b"),
            ("MINSEC", r"(?P<mm>\d{1,3})\s?(?:['′]\s?(?P<ms>[0-5]\d)(?!\d)(?:\s?(?:\"|″|''|s(?:ec)?(?:onds?)?\b))?|(?:min(?:ute)?s?|m)\s?(?:and\s+)?(?P<mt>[0-5]?\d)\s?s(?:ec)?(?:onds?|s)?\b)"),
            ("HEIGHT", r"\d{1,3}\s?(?:cm|inch(?:es)?|in)\b(?!\s*(?:\d|the|a\b))"),
            ("CLOCK", r"(?<![\d.])(?:\d{1,3}(?::[0-5]\d){1,2}|:[0-5]\d)(?!\d)(?:\s*(?:min|mins|minutes)\b)?"),
            ("RESTM", r"(?<=rest\s)(?P<rm>\d{1,2})\s?m\b|(?<=rest:\s)(?P<rm2>\d{1,2})\s?m\b|(?P<rm3>\d{1,2})\s?m(?=\s+(?:rest|off|break)\b)"),
            ("LISTUNIT", rf"\d{{1,5}}(?:\s?[-/]\s?\d{{1,5}}){{2,}}\s?(?:{_TIMEUNIT}|(?:{_LENGTH})\b|(?:{_KG}|{_LB})\b|%)|(?<![\d,])\d{{1,3}}(?:,\d{{1,3}}){{2,}}\s?(?:(?:{_KG}|{_LB})\b|%)|@\s*\d{{1,3}}(?:\s?,\s?\d{{1,3}})+\s?(?:(?:{_KG}|{_LB})\b|%)"),
            ("COUNTING", r"\d{1,3}(?:\s?[-,]\s?\d{1,3})+\s?[-,]?\s?(?:\.\.\.?|…)\s?[-,]?\s?(?P<cl>\d{1,3})(?![\d:])"),
            ("GROWING", r"\d{1,4}(?:\s?[-,/]\s?\d{1,4}){1,}\s*[-,]?\s*(?:\.\.\.?|…|,?\s*etc\b\.?)"),
            ("LIST", r"(?<![\d.:])\d{1,4}(?:\s?(?P<ls>[-/])\s?\d{1,4})(?:\s?(?P=ls)\s?\d{1,4})+(?!\d|:\d|\s?(?:kg|lb))|(?<![\d.:])\d{1,2}(?:\.\d{1,2}){3,}(?![\d.])|(?<![\d.:])\d{1,4}(?:,\s?\d{1,4}){2,}(?!\d|:\d|\.)(?!\s*(?:kg|lb|min|s\b|sec))"),
            ("LOADS", rf"(?:(?P<lc>\d)\s?x\s?)?(?P<la>{_NUM})(?:\s?/\s?(?P<lb>{_NUM}))?\s?(?:(?P<lu>{_KG}|{_LB})\b|(?P<lh>#))(?:\s?/\s?(?P<l2>{_NUM})\s?(?:{_KG}|{_LB})\b)?"),
            ("LOADRANGE", rf"(?P<lr1>{_NUM})(?:-|\s+to\s+)(?P<lr2>{_NUM})\s?(?P<lru>{_KG}|{_LB})\b"),
            ("PCT", rf"(?P<pa>{_NUM})(?:{_DASH}(?P<pb>{_NUM}))?\s?(?:%|percent\b|per\s+cent\b)(?:\s*(?:of\s+)?(?:(?:your|the)\s+)?(?:1\s*rm|max|best)\b)?"),
            ("SUM", r"(?<![\d.])\d(?:\.\d){2,}(?=\s?x\s?\d)|(?<![\d+])\d{1,2}(?:\s?\+\s?\d{1,2}){2,}(?!\s?[\d+x])|(?<=x\s)\(\d{1,2}(?:\s?\+\s?\d{1,2})+\)|(?<=x)\(\d{1,2}(?:\s?\+\s?\d{1,2})+\)|(?<![\d+])\d{1,2}(?:\s?\+\s?\d{1,2}){2,}(?=\s?x\s?\d)"),
            ("LRPAIR", r"(?P<lrn>\d{1,3})\s?l(?:eft)?\s?[/+,&]\s?(?P<lrm>\d{1,3})\s?r(?:ight)?\b"),
            ("TIMERANGE", rf"(?P<ta>{_NUM})(?:-|(?<!x\s\d)(?<!x\s\d\d)(?<!x\d)(?<!x\d\d)\s-\s|\s*to\s+)(?P<tb>{_NUM})\s?(?P<tu>{_TIMEUNIT})(?![a-z])"),
            ("DISTRANGE", rf"(?P<da>{_NUM}){_DASH}(?P<db>{_NUM})\s?(?P<du>{_LENGTH})\b"),
            ("TIME", rf"(?:(?P<tn>{_NUM})|\b(?P<tw>{_WORDNUM})(?![\"'″′]))[\s-]?(?P<tt>{_TIMEUNIT})(?![a-z])"),
            ("DIST", rf"(?:(?P<dn>{_NUM})|\b(?P<dw>{_WORDNUM}))\s?-?(?P<dd>{_LENGTH})\b(?!['-]|\s+(?:elevated|raised|up)\b)"),
            ("PAIR", rf"(?<![\d.:])(?P<p1>{_NUM})\s?/\s?(?P<p2>{_NUM})(?!\d|:\d)"),
            ("RANGE", rf"(?!\d{{1,5}}\s+-\s+\d\)\s)(?!(?<=[a-z]\s)\d{{1,5}}\s+-\s+\d+\s*(?:times|rounds?|rds|sets)\b)(?<![\d.:])(?P<ra>\d{{1,5}})(?:-|\.{{2,3}}(?=\d)|(?<!x\s\d)(?<!x\d)(?<!x\s\d\d)(?<!x\d\d)(?<!mom\s\d)(?<!mom\s\d\d)(?<!amrap\s\d)(?<!amrap\s\d\d)\s?-\s?|\s?to\s?)(?P<rb>\d{{1,5}})(?!\d|:\d)|(?P<rc>\d{{1,2}}|two|three|one|four)\s+or\s+(?P<rd>\d{{1,2}}|two|three|four|five)(?=\s+{_COUNTED})"),
            ("ORDINAL", r"\b\d{1,2}(?:st|nd|rd|th)\b"),
            ("TWICE", r"\b(?:twice|thrice)(?=\s+(?:through|thru|round|over|all)\b|\s*[:,.]|\s*$)"),
            ("ADJECTIVE", r"(?<=\d\s)(?:quality|good|solid|hard|tough|total|full|big|heavy|fast|easy|steady)\s+(?=(?:rounds?|rds|sets?)\b)"),
            ("NUMWORD", rf"\b(?P<nw>{_WORDNUM})(?=[\s-]+(?:more\s+|full\s+|easy\s+|big\s+|quick\s+)?(?:{_COUNTED}|on|off)\b)"),
            ("BIGWORD", r"\b(?P<bw>ten|twelve|fifteen|twenty|thirty|forty|fifty|sixty|(?:a\s+|one\s+)?hundred)(?=\s+[a-z][a-z]{2})(?!\s+(?:out|percent|per|and|four|five|six|eight)\b)"),
            ("INLINELABEL", r"(?<=[\s:,;])[a-h1-9]\)(?=\s)"),
            ("ADJECTIVE2", r"(?<=\d)\s?rm\b(?=\s+[a-z])"),
            ("STEPS", r"(?<=\d)\s?(?:steps|paces)\b(?!\s+(?:ups?|overs?|downs?))"),
            ("RFT", r"(?<=\d)\s?rft\b"),
            ("X", r"(?<![^\s\d)])[x*](?=\s?[\d:])|(?<=\d)\s?x\b|(?<=\d)x(?=max|amrap)|\bx(?=\d)|(?<=\s)x(?=\s)"),
            ("NUM", rf"(?<![\w.]){_NUM}(?!\d)|(?<=[a-z]){_NUM}(?![\d.])"),
            *((kind, pattern if kind in ("SIDES", "DOWNTO", "WITH") else rf"{FRONT.get(kind, _EDGE)}(?:{pattern})(?![^\W\d_])") for kind, pattern in WORD_TOKENS),
            ("AND", r"&"), ("W", r"[^\W\d_]+(?:[-'.][^\W\d_]+)*'?(?![^\W\d_])"),
            ("LPAR", r"[(\[]"), ("RPAR", r"[)\]]"), ("SLASH", r"/"), ("PLUS", r"\+"), ("ARROW", r"-*>+"), ("COLON", r":"),
            ("SEP", r"[,;]|\.(?=\s|$)|(?<!\d)[!?]+|(?<=\s)-+(?=\s)|(?<=\w)-(?=\s)|(?<=[a-z])-(?=\d+\s+[a-z])|\|"), ("DASH", r"-"), ("AT", r"@"), ("SKIP", r"\s+|."),
        )
    ),
    re.DOTALL,
)  # fmt: skip


def amount(text: str) -> float | int:
    """A number as it is typed: `12`, `2.5`, `17,5`, `1½`, `ten`."""
    word = NUMBER_WORDS.get(text)
    if word is not None:
        return word
    half = FRACTIONS.get(text[-1:])
    if half is not None:
        whole = text[:-1].strip()
        return (int(whole) if whole else 0) + half
    value = float(text.replace(",", "."))
    return int(value) if value.is_integer() else value


def _tidy(value: float) -> float | int:
    value = round(value, 4)
    return int(value) if float(value).is_integer() else value


def clock(text: str) -> int:
    """Seconds of `1:30`, `:45` or `1:05:00`."""
    seconds = 0
    for part in text.split(":"):
        seconds = seconds * 60 + int(part or 0)
    return seconds


def _unit(text: str) -> int:
    return SECONDS_OF.get(text.rstrip("."), 1)


def _load(m: re.Match[str]) -> SaidLoad:
    unit = (m["lu"] or "").rstrip("s") or "#"
    factor = 1.0 if unit in ("kg", "kilo", "kilogram") else POUND_KG
    heavy = m["lu"] if m["lu"] in KILOGRAMS else None

    def one(text: str) -> LoadPart:
        made: LoadPart = {"kg": _tidy(amount(text) * factor)}
        if m["lc"]:
            made["count"] = int(m["lc"])
        if heavy is None:
            made["unit"] = "lb"
        return made

    second = m["lb"] or m["l2"]
    return {"load": one(m["la"]), "other": one(second) if second else None, "range": False}


def _counted(numbers: list[int]) -> list[int]:
    """`10-9-8…1` spelt out; numbers that do not come out even stay as they are."""
    first, second, last = numbers[0], numbers[1], numbers[-1]
    step = second - first
    if step == 0 or (last - first) % step or not 0 < (last - first) // step < LONGEST_COUNT:
        return numbers
    return list(range(first, last + (1 if step > 0 else -1), step))


LONGEST_COUNT = 100
"""Rounds that a list with dots goes to."""
MILE_PARTS = {"half": 0.5, "quarter": 0.25, "three": 0.75}
MILE_M = METRES_OF["mile"]
NTH = {"other": 2, "second": 2, "third": 3, "fourth": 4, "fifth": 5}
PACE_M = {"km": 1000, "k": 1000, "m": 1609.344, "500": 500, "100": 100}
"""Metres that a told pace is per."""
TIMES = frozenset({"TIME", "CLOCK", "RESTM", "MINSEC", "HOURMIN", "CLOCKWORDS", "TIMERANGE"})
"""Kinds of matches that say how long."""
_UNIT_TAIL = re.compile(r"[\d./\s,@-]*")


def _list_with_unit(text: str) -> tuple[str, list[int] | list[float] | list[LoadPart]]:
    numbers = [int(one) for one in re.findall(r"\d+", text)]
    unit = _UNIT_TAIL.sub("", text, count=1).strip()
    if unit in METRES_OF:
        return "DISTLIST", [_tidy(one * METRES_OF[unit]) for one in numbers]
    loads: list[LoadPart] | None = None
    if unit in KILOGRAMS:
        loads = [{"kg": one} for one in numbers]
    elif unit == "%":
        loads = [{"pct_1rm": one} for one in numbers]
    elif unit in POUNDS:
        loads = [{"kg": _tidy(one * POUND_KG), "unit": "lb"} for one in numbers]
    if loads is not None:
        return "LOADLIST", loads
    return "TIMELIST", [one * _unit(unit) for one in numbers]


def _clockwords(text: str) -> int:
    joined = " ".join(text.split())
    if joined.startswith("half an"):
        return 1800
    if joined.endswith("hour"):
        return 3600
    return 90 if "and a half" in joined else 30 if joined.startswith("half") else 60


def _time(kind: str, m: re.Match[str]) -> Amount:
    """Seconds, or a range of them, of a match that is a time."""
    text = m[0]
    match kind:
        case "TIME":
            return _tidy(amount(m["tn"] or m["tw"]) * _unit(m["tt"]))
        case "CLOCK":
            return clock(re.sub(r"[^\d:]", "", text))
        case "RESTM":
            return int(m["rm"] or m["rm2"] or m["rm3"]) * 60
        case "MINSEC":
            return int(m["mm"]) * 60 + int(m["ms"] or m["mt"])
        case "HOURMIN":
            return int(m["hh"]) * 3600 + int(m["hm"]) * 60
        case "TIMERANGE":
            unit = _unit(m["tu"])
            return between(_tidy(amount(m["ta"]) * unit), _tidy(amount(m["tb"]) * unit))
        case _:
            return _clockwords(text)


def _integers(m: re.Match[str]) -> list[int]:
    return [int(one) for one in re.findall(r"\d+", m[0])]


def _distance_range(m: re.Match[str]) -> Amount:
    unit_m = METRES_OF[m["du"]]
    return between(_tidy(amount(m["da"]) * unit_m), _tidy(amount(m["db"]) * unit_m))


def _percent(m: re.Match[str]) -> SaidLoad:
    low = amount(m["pa"])
    value = low if m["pb"] is None else _tidy((low + amount(m["pb"])) / 2)
    return {"load": {"pct_1rm": value}, "other": None, "range": m["pb"] is not None}


def _middle_load(m: re.Match[str]) -> SaidLoad:
    middle = (amount(m["lr1"]) + amount(m["lr2"])) / 2
    return {"load": {"kg": _tidy(middle)}, "other": None, "range": False}


def _rep_range(m: re.Match[str]) -> tuple[int, int]:
    if m["ra"]:
        return int(m["ra"]), int(m["rb"])
    return int(amount(m["rc"])), int(amount(m["rd"]))


def _pace(m: re.Match[str]) -> float:
    unit = m["pu"].rstrip("ms ") if m["pu"][0].isdigit() else m["pu"][:2].rstrip("i")
    return (int(m["pm"]) * 60 + int(m["ps"])) / PACE_M[unit]


def _rest_ratio(m: re.Match[str]) -> float:
    return int(m["rr"] or m["qr"] or m["ur"] or 1) / max(1, int(m["rw"] or m["qw"] or m["uw"] or 1))


def _nth_minute(m: re.Match[str]) -> int:
    return 60 * (int(m["ent"]) if m["ent"].isdigit() else NTH[m["ent"]])


MADE: dict[str, tuple[str, Callable[[re.Match[str]], Any]]] = {
    "NUM": ("NUM", lambda m: amount(m[0])),
    "NAMED": ("W", lambda m: m[0]),
    "NINETY": ("W", lambda m: "90/90"),
    "INLINELABEL": ("SEP", lambda m: m[0]),
    "NUMWORD": ("NUM", lambda m: NUMBER_WORDS[m["nw"]]),
    "BIGWORD": ("NUM", lambda m: NUMBER_WORDS.get(m["bw"], 100)),
    "SUM": ("SUM", lambda m: sum(_integers(m))),
    "RFT": ("FORTIME", lambda m: m[0]),
    "STEPS": ("REPS", lambda m: m[0]),
    "TWICE": ("NUM", lambda m: 2 if m[0] == "twice" else 3),
    "DIST": ("DIST", lambda m: _tidy(amount(m["dn"] or m["dw"]) * METRES_OF[m["dd"]])),
    "DISTANCEWORDS": ("DIST", lambda m: MILE_M * MILE_PARTS.get(m[0].split()[0], 1)),
    "DISTRANGE": ("DIST", _distance_range),
    "LOADS": ("LOAD", lambda m: _load(m)),
    "LOADRANGE": ("LOAD", _middle_load),
    "PCT": ("LOAD", _percent),
    "PAIR": ("PAIR", lambda m: (amount(m["p1"]), amount(m["p2"]))),
    "LRTIME": ("LRTIME", lambda m: int(m["lrt"])),
    "LRPAIR": ("LRPAIR", lambda m: (int(m["lrn"]), int(m["lrm"]))),
    "RANGE": ("RANGE", _rep_range),
    "LIST": ("LIST", _integers),
    "GROWING": ("GROWING", _integers),
    "COUNTING": ("LIST", lambda m: _counted(_integers(m))),
    "EVERYCLOCK": ("EVERYT", lambda m: clock(m["ec"])),
    "EVERYN": ("EVERYT", lambda m: int(m["en"]) * (1 if m["eu"].startswith("s") else 60)),
    "EVERYNTH": ("EVERYT", _nth_minute),
    "EMOM": ("EVERYT", lambda m: 60),
    "MINUTES": ("EVERYT", lambda m: 60),
    "RPE": ("RPE", lambda m: amount(m["rpe"])),
    "PACE": ("PACE", _pace),
    "RIR": ("RIR", lambda m: int(m["rir"] or m["rir2"] or m["rir3"] or m["rir4"])),
    "RATIO": ("RATIO", _rest_ratio),
    **dict.fromkeys(("EASE", "LASTSET", "HRPCT", "BUILD", "WATTS", "DAYTIME"), ("ZONE", lambda m: m[0])),
    "TEMPO": ("TEMPO", lambda m: m["tempo3"] or m["tempo"] or m["tempo2"] or m[0]),
    "ONELIMB": ("W", lambda m: "one-" + m[0][-3:].replace("ed", "")),
}
"""By the group of the pattern that matched: the kind of token it is, and how its value is read."""


def _made(kind: str, m: re.Match[str]) -> tuple[str, Any]:
    """The kind of token that a match makes, and its value."""
    if kind in TIMES:
        return "TIME", _time(kind, m)
    if kind == "W":
        return KIND_OF.get(m[0], "W"), m[0]
    if kind == "LISTUNIT":
        return _list_with_unit(m[0])
    made, value = MADE.get(kind, (kind, None))
    return made, m[0] if value is None else value(m)


_ONE_LIMB = re.compile(r"arm|leg|side|hand")


_BEGINNINGS = frozenset(run[:3] for run in re.findall(r"[a-z]{3,}", re.sub(r"\\[a-zA-Z]", " ", _MASTER.pattern)))
"""How every word begins that a pattern above may begin with."""
_WORD = re.compile(r"\s*([^\W\d_]{4,})(?=[\s,]|$)")


def _bare_word(text: str, at: int) -> re.Match[str] | None:
    """A word that no pattern can begin with: most of a long text, told without trying all of them."""
    m = _WORD.match(text, at)
    if m is None or m[1][:3] in _BEGINNINGS or text[m.start(1) - 1 : m.start(1)].isdigit():
        return None
    return m


def tokens_of(text: str) -> list[Token]:
    """The tokens of a plain line (`plain`), blanks left out."""
    made = []
    at = 0
    while at < len(text):
        bare = _bare_word(text, at)
        if bare is not None:
            word = bare[1]
            made.append(Token(KIND_OF.get(word, "W"), word, word, bare.start(1), bare.end()))
            at = bare.end()
            continue
        m = _MASTER.match(text, at)
        if m is None:
            break
        at = m.end()
        kind = m.lastgroup or "SKIP"
        # `lastgroup` is the last group closed, so the outer one of the pattern that matched.
        if kind in LEFT_OUT:
            continue
        if kind == "ONELIMB":
            limb = _ONE_LIMB.search(m[0])
            made.append(Token("W", m[0], f"one-{limb[0] if limb else 'side'}", m.start(), m.end()))
            continue
        kind, value = _made(kind, m)
        made.append(Token(kind, m[0], value, m.start(), m.end()))
    return made


LEFT_OUT = frozenset({"SKIP", "ADJECTIVE", "ADJECTIVE2"})
"""Kinds of matches that are no token: blanks, and words like `good` in `5 good sets`."""
