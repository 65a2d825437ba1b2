"""The words of everyday writing, each with what it says. One table: the scanner reads by it, docs list it."""

from __future__ import annotations

import re
from types import MappingProxyType

NUMBER_WORDS = MappingProxyType(
    {
        "one": 1, "two": 2, "three": 3, "four": 4, "five": 5, "six": 6, "seven": 7, "eight": 8, "nine": 9,
        "ten": 10, "eleven": 11, "twelve": 12, "fifteen": 15, "sixteen": 16, "eighteen": 18, "twenty": 20, "thirty": 30,
        "forty": 40, "forty-five": 45, "fifty": 50, "sixty": 60, "seventy-five": 75, "ninety": 90, "half": 0.5,
    }
)  # fmt: skip
"""Numbers in words, where a unit, `rounds` or the like follows."""

FRACTIONS = MappingProxyType({"½": 0.5, "¼": 0.25, "¾": 0.75, "⅓": 1 / 3})

SECONDS_OF = MappingProxyType(
    {
        **dict.fromkeys(("s", "sec", "secs", "second", "seconds", '"', "''", "″"), 1),
        **dict.fromkeys(("min", "mins", "minute", "minutes", "'", "′", "mn"), 60),
        **dict.fromkeys(("h", "hr", "hrs", "hour", "hours"), 3600),
    }
)
METRES_OF = MappingProxyType(
    {
        **dict.fromkeys(("m", "metre", "metres", "meter", "meters", "mtr", "mtrs"), 1.0),
        **dict.fromkeys(("km", "k", "kilometre", "kilometres", "kilometer", "kilometers"), 1000.0),
        **dict.fromkeys(("ft", "foot", "feet"), 0.3048),
        **dict.fromkeys(("yd", "yds", "yard", "yards"), 0.9144),
        **dict.fromkeys(("mile", "miles", "mi"), 1609.344),
    }
)
"""Metres of a unit of length (international foot, yard and mile of 1959)."""

KILOGRAMS = frozenset({"kg", "kgs", "kilo", "kilos", "kilogram", "kilograms"})
POUNDS = frozenset({"lb", "lbs", "pound", "pounds", "#"})

WORD_TOKENS: tuple[tuple[str, str], ...] = (
    ("HARD", r"all[-\s]out|flat[-\s]out|max(?:imum)?\s+effort|full\s+(?:gas|speed)|as\s+far\s+as\s+(?:you\s+can|possible)"
             r"|(?:maximal|maximum)\s+efforts?|max(?:imum)?\s+(?:distance|cal(?:orie)?s?|metres|meters)(?:\s+(?:of|on))?"),
    ("AMRAP", r"amraps?|how\s+many\s+rounds(?:\s+can\s+you\s+(?:do|get))?|as\s+many\s+(?:(?:full|good)\s+)?(?:rounds|reps)(?:\s*(?:and|/|or|\+|&)\s*reps)?\s+as\s+(?:possible|poss|you\s+can|fit|will\s+fit)"
              r"|max(?:imum)?\s+rounds"),
    ("ASMANY", r"as\s+many(?=\s+(?:\S+\s+){1,5}as\s+(?:you|possible))|as\s+many\s+as\s+(?:you\s+can|possible)(?:\s+of)?|max(?:imum)?\s+(?:reps?|sets?)(?:\s+of)?"),
    ("REPEAT", r"repeat(?:ed)?(?:\s+(?:all|this|that|the\s+lot))?(?:\s+for)?|do\s+(?:this|that|it\s+all)"),
    ("AGAIN", r"(?:go|do\s+it|and)\s+again|once\s+more"),
    ("DEATHBY", r"death\s+by"),
    ("ASYOUCAN", r"as\s+(?:you\s+can|possible)(?:\s+of)?"),
    ("NOTFORTIME", r"not\s+for\s+time|nft|no\s+clock"),
    ("FORTIME", r"for\s+time|against\s+(?:the\s+)?clock|as\s+fast\s+as\s+(?:possible|you\s+can)|rft|afap"),
    ("MINUTES", r"(?:at\s+the\s+top\s+of|on|at|start(?:ing)?)\s+(?:the|each|every)\s+minute|every\s+min(?:ute)?(?:\s+on\s+the\s+min(?:ute)?)?"
                r"(?!\s*\d*\s*s\b)|each\s+minute|minute\s+starts"),
    ("WORKREST", r"w(?:or)?k\s*/\s*rest"),
    ("ONTHE", r"on\s+the(?=\s*:?\d)"),
    ("TABATA", r"tabatas?|strict\s+20\s*/\s*10"),
    ("HALFSIDE", r"half\s+(?:each|per|a|on\s+each|the\s+time\s+each)\s+(?:side|leg|arm)|half\s*/\s*half|halves"),
    ("SIDES", r"(?:(?:all|both)\s+)?(?:each|ea\.?|per|every)\s+(?:side|sides|leg|legs|arm|arms|hand|hands|foot|way)\b|\ba\s+(?:side|leg|arm)\b"
              r"|/\s*(?:side|sides|leg|arm|hand|s)\b|\be\s*/\s*(?:s|l|side|leg|arm|hand)\b|\bes\b(?=\s*(?:$|[,.;)]))|\bboth\s+(?:sides|legs|arms)\b|\bp/s\b|\bp\s*/\s*(?:side|leg|arm)\b|\bl\s*[/+&]\s*r\b|\bper\s+s\b|\bright\s+and\s+left\b|\bleft\s+and\s+right\b"),
    ("DIRECTION", r"(?:each|ea|per)\s+(?:direction)"),
    ("WITH", r"\bw/|\bw(?=\s+\d)"),
    ("SET", r"(?:warm|build|ramp|work)(?:ing|up)?[-\s]?(?:up)?[-\s]+sets?"),
    ("AFTERLABEL", r"after\s+[a-h]\s?\d?"),
    ("TOWARM", r"to\s+(?:warm|cool)\s+(?:up|down|off)"),
    ("FINISH", r"to\s+(?:finish|end|close)(?:\s+off)?"),
    ("PEOPLE", r"(?:in\s+)?(?:teams?|pairs|groups?)\s+of\s+(?:\d|two|three|four)"),
    ("TURNS", r"(?:one|a\s+line|1)\s+(?:line\s+)?(?:a|per|each)\s+(?:minute|start)|tak(?:e|ing)\s+turns|lines?\s+take\s+turns|(?:in\s+)?rotation\s+order"),
    ("FAILURE", r"(?:to|till|'?til|until)\s+(?:you\s+)?(?:failure|fail(?:ure)?|drop)|amap|to\s+the\s+limit"),
    ("TANK", r"(?:left\s+)?in\s+(?:the\s+tank|reserve)"),
    ("PYRAMID", r"(?:movement|building)\s+pyramid"),
    ("BETWEEN", r"entre(?:\s+les)?|zwischen(?:\s+den)?|tussen|b/w|b/t|(?:in\s+)?between|betw|btwn|btw|inbetween"),
    ("AFTEREACH", r"after\s+(?:each|every)|at\s+the\s+end\s+of\s+(?:each|every)"),
    ("THROUGH", r"(?:times?\s+)?(?:through|thru)|times\s+over"),
    ("SUPERSET", r"(?:tri|giant|super|compound)[-\s]?sets?"),
    ("ASNEEDED", r"as\s+(?:needed|required|long\s+as\s+you\s+need|you\s+need|necessary)|when\s+needed"),
    ("NOREST", r"(?:no|without|zero)\s+(?:rests?|breaks?|pauses?)|non[- ]?stop|continuous(?:ly)?|unbroken|straight\s+through"),
    ("BUYIN", r"buy[- ]?in"),
    ("CASHOUT", r"cash[- ]?out|buy[- ]?out"),
    ("REMAINING", r"(?:(?:in|for)\s+)?(?:the\s+)?(?:remaining|rest\s+of\s+the)\s+(?:time|min(?:ute)?)|(?:in\s+)?(?:the\s+)?time\s+(?:that\s+is\s+)?left"),
    ("ADD", r"add(?:ing)?"),
    ("THENS", r"straight\s+into|followed\s+by|and\s+then|directly\s+into|into\s+(?=\d|amrap|emom)"),
    ("ONELIMB", r"(?:1|one|single)[- ](?:arm|leg|side|hand)(?:ed)?\b"),
    ("ORLESS", r"or\s+(?:less|under|faster|quicker)"),
    ("TIMECAP", r"(?:time\s*)?cap(?:ped)?(?:\s+(?:at|of))?|tc(?=\s*:?\s*\d)"),
    ("ONE", r"one\s+at\s+a\s+time|straight\s+sets?"),
    ("INTURN", r"in\s+turn|as\s+a\s+circuit"),
    ("BACKDOWN", r"(?:and\s+)?(?:then\s+)?back\s+(?:down|up)"),
    ("DOWNTO", r"(?<=\d)\s*(?:down\s+to|>|->)\s*(?=\d)"),
    ("BWLOAD", r"body\s*-?\s*weight|bodyweight|bw\b"),
)  # fmt: skip
"""Sayings of several words: kind and pattern, tried in this order, before single words."""


def _words(kind: str, words: str) -> dict[str, str]:
    return dict.fromkeys(words.split(), kind)


KIND_OF = MappingProxyType(
    {
        **_words("ON", "on"),
        **_words("OFF", "off"),
        **_words("WORK", "work working"),
        **_words(
            "REST", "rest rests resting recovery recover pause break breather repos pausa descanso riposo rust"
        ),
        **_words("R", "r"),
        **_words("ROUND", "round rounds rnd rnds rd rds runde runden ronde rondes tours vueltas giri"),
        **_words("SET", "set sets"),
        **_words("TIMES", "times"),
        **_words("LAP", "lap laps"),
        **_words("STATION", "station stations"),
        **_words("EVERY", "every"),
        **_words("EACH", "each ea apiece"),
        **_words("PER", "per"),
        **_words("REPS", "reps rep"),
        **_words("CAL", "cal cals calories calorie"),
        **_words("OF", "of accumulate accumulating"),
        **_words("FOR", "for"),
        **_words("TO", "to"),
        **_words("OR", "or"),
        **_words("AND", "and & plus und"),
        **_words("THEN", "then afterwards next"),
        **_words("NO", "no"),
        **_words("MAX", "max maximum"),
        **_words("HARD", "hard fast quick"),
        **_words("SOFT", "easy ez slow light steady gentle"),
        **_words("PAIRS", "pairs pair"),
        **_words("ALT", "alternate alternating alternated alt"),
        **_words("SUPERSET", "superset supersets triset giant-set"),
        **_words("LADDER", "ladder pyramid ladders"),
        **_words("CIRCUIT", "circuit chipper complex couplet triplet grind grinder burner timer flow"),
        **_words("MOVE", "switch change move transition changeover rotate"),
        **_words("TOTAL", "total altogether"),
        **_words("ODD", "odd odds"),
        **_words("EVEN", "even evens"),
        **_words("MINUTE", "minute min m"),
        **_words("WITH", "with using"),
        **_words("LEFT", "left l"),
        **_words("RIGHT", "right"),
        **_words("START", "start starts starting"),
        **_words("PEOPLE", "people persons person athletes partners"),
        **_words("LENGTH", "length lengths"),
        **_words("STAY", "in"),
    }
)
"""Single words that say something besides naming a movement."""

PART_WORDS: tuple[tuple[str, str], ...] = (
    (
        "warm-up",
        r"(?:general\s+|dynamic\s+)?(?:warm(?:ing)?|wrm|wam)[- ]?ups?|wu|w/u|get\s+warm|(?:movement\s+)?prep(?:aration)?(?=\s*(?:$|[:\-,\d(]))"
        r"|aufwärmen|opwarming|échauffement|calentamiento|riscaldamento|activation|mobility|ramp(?:[- ]up)?|primer|raise",
    ),
    (
        "cool-down",
        r"(?:cool(?:ing)?|cooldown)[- ]?(?:downs?|off)?(?=\s*(?:$|[^\w\s]|\s))|cd|c/d|warm[- ]?down|wind[- ]?down|stret?ching|stretch(?:\s+(?:it\s+)?out)?(?=\s*(?:$|:|\d|\())"
        r"|stretch\s+it\s+out|down(?=\s*(?:$|:))|last\s+bit"
        r"|abwärmen|retour\s+au\s+calme|vuelta\s+a\s+la\s+calma|defaticamento|afkoelen",
    ),
    (
        "finisher",
        r"finish\s+(?:with|w/|off\s+with|by)|finish(?=\s*:|\s+\d)|fin(?=\s*:)|(?:core\s+)?finishers?|burn[- ]?outs?|cash[- ]?outs?",
    ),
    (
        "main",
        r"main(?:\s+(?:part|set|block|course))?(?:\s+\d)?|(?:strength|conditioning)(?:\s+work)?(?=\s*(?:$|[:,(\d-]))|metcon|conditioning|workout|wod"
        r"|recovery(?=\s*:\s*\d+\s*(?:min|mins|minutes|')\s+[a-z])|(?:kraft|force|fuerza|forza|kracht)(?=\s*(?:$|:))|(?:skills?|accessor(?:y|ies)|assistance|gymnastics|power|plyos?|plyometrics|speed|endurance|cardio|hypertrophy|lifting)"
        r"(?:\s+(?:work|block|part))?(?=\s*(?:$|:\s*$|[:(-]\s*\d+\s*(?:min|mins|minutes|')?\s*[):]?\s*$))",
    ),
)
"""Words that begin a part of the session, at the start of a line."""

DAY_WORDS = (
    "monday", "tuesday", "wednesday", "thursday", "friday", "saturday", "sunday",
    "mon", "tue", "tues", "wed", "thu", "thur", "thurs", "fri",
)  # fmt: skip
"""Days in front of what is done on them; `sun` begins the name of a movement."""

FILLER = frozenset(
    [
        "the",
        "a",
        "an",
        "about",
        "roughly",
        "around",
        "of",
        "some",
        "our",
        "your",
        "we",
        "you",
        "it",
        "its",
        "it's",
        "this",
        "that",
        "these",
        "those",
        "do",
        "does",
        "did",
        "doing",
        "start",
        "with",
        "begin",
        "second",
        "third",
        "finally",
        "lastly",
        "last",
        "now",
        "here",
        "then",
        "and",
        "plus",
        "take",
        "have",
        "get",
        "go",
        "again",
        "more",
        "also",
        "just",
        "please",
        "at",
        "in",
        "on",
        "for",
        "to",
        "into",
        "heavy",
        "strict",
        "light",
        "controlled",
        "smooth",
        "nice",
        "big",
        "slowly",
        "quickly",
        "each",
        "ea",
        "every",
        "per",
        "full",
        "start",
        "exercise",
        "exercises",
        "movement",
        "movements",
        "moves",
        "effort",
        "efforts",
        "interval",
        "intervals",
        "starting",
        "by",
        "from",
        "finish",
        "rest",
        "as",
        "is",
        "are",
        "be",
        "will",
        "so",
        "them",
        "they",
        "afterwards",
        "everyone",
        "all",
        "easy",
        "quality",
        "let's",
        "lets",
        "us",
        "bit",
        "bits",
        "time",
        "times",
        "number",
        "total",
        "when",
        "that's",
        "done",
        "i",
        "x",
        "max",
        "when's",
        *DAY_WORDS,
    ]
)
"""Words around a movement's name that do not belong to it; at either end of the name they are let go."""

EASY_WORDS = frozenset({"easy", "gentle", "relaxed", "light", "recovery", "slow"})
KIT_WORDS = MappingProxyType(
    {
        **dict.fromkeys(("kb", "kbs", "kettlebell", "kettlebells", "bell", "bells", "kettle"), "kettlebell"),
        **dict.fromkeys(("db", "dbs", "dumbbell", "dumbbells", "dumbell", "dumbells"), "dumbbell"),
        **dict.fromkeys(("bb", "barbell", "bar", "barbells"), "barbell"),
        **dict.fromkeys(("band", "bands"), "band"),
        **dict.fromkeys(("sandbag", "bag", "sandbags"), "sandbag"),
        **dict.fromkeys(("pack", "rucksack", "backpack", "ruck"), "loaded pack"),
        **dict.fromkeys(("ball", "medball", "mb"), "medicine ball"),
        **dict.fromkeys(("box", "bench"), "box"),
        **dict.fromkeys(("suspension", "straps"), "suspension"),
    }
)
"""Kit as it is told before or after a movement's name."""

DAY = re.compile(
    r"\b(?:mon|tue|tues|wed|weds|thu|thur|thurs|fri|sat|sun)(?:day)?\b|\b(?:tues|wednes|thurs|satur)day\b|\b(?:montag|dienstag|mittwoch|donnerstag|freitag|samstag"
    r"|sonntag|lundi|mardi|mercredi|jeudi|vendredi|samedi|dimanche|lunedì|martedì|mercoledì|giovedì|venerdì|sabato|domenica|lunes|martes|miércoles"
    r"|jueves|viernes|sábado|domingo|maandag|dinsdag|woensdag|donderdag|vrijdag|zaterdag|zondag)\b", re.IGNORECASE)  # fmt: skip
"""Days of the week, in the languages that walls were seen in."""
TALK = re.compile(
    r"\b(?:you|your|yourself|we|we'll|i|i'm|please|bring|drink|remember|don't|dont|do not|let's|lets|everyone|guys|team|folks|hi|hello|hey|morning|thanks|see|sorry"
    r"|enjoy|pay|watch|make sure|take your|have fun|keep|should|figures|focus|talking|partner|partners)\b", re.IGNORECASE)  # fmt: skip
"""Words that speak to people."""
COUNTED_UNITS = r"(?:min|mins|minutes?|sec|secs|seconds?|m|km|s|x|rounds?|rds?|sets?|reps?|k|ft|yd|h|cals?|hours?|people|lengths?)\b"
"""What a number in front counts, so that it is no number of a list."""
