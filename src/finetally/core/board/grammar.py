"""The grammar of a line of board text (Lark, LALR). Head phrases come from the table in phrases.py.

LALR merges states, so after an amount the lexer knows the words of all sorts of lines: what reads alike must be
one terminal (rounds, times) or stand higher (a rep before each).
"""

from __future__ import annotations

from functools import cache

from lark import Lark

from finetally.core.board.phrases import AT_EACH_PATTERN, HEAD_PHRASES, PRESETS

GRAMMAR_STARTS = ("head", "step", "option", "station", "together", "rest", "meta", "name")

_FIXED = r"""
head: opening [phrase (","? phrase)*]
opening: PART [QUOTED] MAY? ":"
pulse: time ON ["/" time OFF]

// How much, how long, how far. A range may say what is planned; a score says what it is planned at.
count: NUMBER -> number | RANGE -> ranged | FROM_TO -> ranged | RANGE "(" PLAN NUMBER ")" -> planned
     | LIST -> listed | NUMBER "(" TAKE OF (WORD | QUOTED) ["," AT_MOST NUMBER] ")" -> score
time: CLOCKTIME -> clocktime | CLOCKRANGE -> clockrange | count S -> seconds | count MIN -> minutes
distance: count M

step: piece ("+" piece)*
piece: [dose] name (","? quality)*
dose: count X? -> reps | time -> timed | distance -> far | count WITHIN time -> within
name: WORD+ -> words | QUOTED -> quoted
quality: EACH_SIDE -> each | TURNS -> turns | SWAP -> swap | BOTH_SIDES -> both | LEFT -> left | RIGHT -> right
     | SHARED -> shared | FILL -> fill | GROW -> grow | TEMPO -> tempo | EFFORT -> effort | load
     | TO_FAILURE ["(" PLAN NUMBER ")"] -> failure
     | NUMBER IN_RESERVE -> reserve | time A_REP -> pace | REST time -> own_rest | NOTE QUOTED -> note
     | count REPS -> reps | X count -> reps | FOR time -> timed | FOR distance -> far | NUMBER OF_THE_DOSE -> factor
load: [NUMBER X] count KG -> kilograms | [NUMBER X] count LB -> pounds
     | [NUMBER X] count PERCENT -> percent | [NUMBER X] count BODY -> body

option: OR QUOTED (","? (LEVEL | KIT QUOTED ("," QUOTED)*))* [":" option_body]
option_body: [dose] [name] (","? quality)*

station: AT (WORD+ | QUOTED) (","? (count P_ROUNDS | ROOM_FOR NUMBER | KIT QUOTED ("," QUOTED)*))* ":"
together: TOGETHER [QUOTED] (","? (count P_REPEAT | time BETWEEN))* ":"
rest: REST time AFTERWARDS?
meta: NOTE ":" [FREE] -> note | CAUTION ":" FREE -> caution | TAGS ":" FREE -> tags | PEOPLE ":" NUMBER -> people
     | SPACE ":" FREE -> space | SLACK ":" time -> slack | PLANNED ":" NUMBER OF_TEN -> planned_effort
     | ALONE -> alone

PART.9: /(warm[- ]?up|main(\s+part)?|finisher|cool[- ]?down|block)\b/i
MAY.9: /\(\s*(optional|may be left out|or stop here|may stop here)\s*\)/i
QUOTED.9: /"[^"\n]*"|“[^”\n]*”/
CLOCKRANGE.8: /\d{1,9}(:[0-5]\d){1,2}\s*(-|–|to)\s*\d{1,9}(:[0-5]\d){1,2}/
CLOCKTIME.7: /\d{1,9}(:[0-5]\d){1,2}/
LIST.6: /\d{1,9}(\.\d{1,20})?(?!\d)((\s*\/\s*\d{1,9}(\.\d{1,20})?(?!\d))+(?!\s*(on|off)\b)|\s+then\s+\d{1,9}(\.\d{1,20})?(?!\d))/
FROM_TO.6: /between\s+\d{1,9}(\.\d{1,20})?(?!\d)\s+and\s+\d{1,9}(\.\d{1,20})?(?!\d)/i
RANGE.5: /\d{1,9}(\.\d{1,20})?(?!\d)\s*(-|–|to)\s*\d{1,9}(\.\d{1,20})?(?!\d)/
NUMBER.4: /\d{1,9}(\.\d{1,20})?(?!\d)/
S.3: /s(ec(ond)?s?)?\b(?!\s*-)/i
MIN.3: /min(ute)?s?\b|'/i
M.3: /m(et(re|er)s?)?\b/i
KG.3: /(kg|kilos?|kilograms?)\b/i
LB.3: /(lbs?|pounds?)\b/i
X.3: /(x\b|×)/i
PERCENT.3: /(%|percent)(\s*(of\s+)?(the\s+)?1\s*rm)?/i
BODY.3: /(x\s+|×\s*|of\s+|times\s+)?body\s*-?weight/i
PLAN.3: /plan(ned)?( at)?/i
TAKE.3: /(rounds|reps|rung)\b/i
OF.3: /of\b/i
AT_MOST.3: /at most/i
WITHIN.3: /(with)?in( at most)?\b/i
ON.3: /on\b/i
OFF.3: /off\b/i
EACH_SIDE.3: /(each|per|every|a)\s+(side|arm|leg)s?\b/i
TURNS.3: /(with\s+)?sides\s+tak(e|ing)\s+turns|taking\s+turns|alternat(e|ing)(\s+sides)?\b/i
SWAP.3: /sides\s+swap(ping)?|swap(ping)?\s+sides/i
BOTH_SIDES.3: /both\s+sides/i
LEFT.3: /on\s+the\s+left|left\s+side/i
RIGHT.3: /on\s+the\s+right|right\s+side/i
FILL.3: /to\s+fill\b/i
SHARED.3: /sides\s+share(\s+the\s+(window|time))?\b/i
AFTERWARDS.3: /after(wards|\s+it|\s+all)\b/i
TO_FAILURE.3: /(to|until)\s+failure\b/i
GROW.8: /[+-]\s*\d{1,9}\s+(each|every|a|per)\s+round/i
TEMPO.8: /tempo\s+\d{1,9}(\.\d{1,20})?(?!\d)(\s*-\s*\d{1,9}(\.\d{1,20})?(?!\d)){3}/i
EFFORT.8: /effort\s+(easy|steady|hard|all[- ]?out)/i
IN_RESERVE.3: /(left\s+)?in\s+(reserve|the\s+tank)/i
A_REP.6: /(a|per|each)\s+rep\b/i
REPS.3: /reps?\b/i
FOR.3: /for\b(?=\s*\d)/i
OF_THE_DOSE.3: /of\s+the\s+dose/i
NOTE.3: /notes?(?=\s*[:"“])/i
OR.9: /or\b/i
LEVEL.3: /easier|harder/i
KIT.3: /(with\s+)?kit\b/i
AT.9: /at\b/i
ROOM_FOR.3: /room\s+for/i
TOGETHER.9: /together\b/i
BETWEEN.3: /between\b/i
REST.3: /rest\b/i
CAUTION.3: /cautions?(?=\s*:)/i
TAGS.3: /tags?(?=\s*:)/i
PEOPLE.3: /people(?=\s*:)/i
SPACE.3: /space(?=\s*:)/i
SLACK.3: /slack(?=\s*:)/i
PLANNED.3: /effort(?=\s*:)/i
OF_TEN.3: /of\s+(10|ten)/i
ALONE.3: /stands\s+alone/i
CALL.3: /call(?=\s*["“])/i
HALF.3: /half-?\s*way/i
AT_S.3: /at\b/i
BEFORE_END.3: /before\s+the\s+end/i
RESTING.3: /resting\s+with/i
SCORED_AS.3: /scored\s+as\b/i
RPE.3: /effort(?=\s*\d)/i
WORD.1: /[^\W\d_][\w'’]*(-[\w'’]+)*/
FREE.-5: /[^\s].*/
%ignore /[ \t\u00a0]+/
"""


def _terminal(pattern: str) -> str:
    return pattern.replace("/", r"\/")


def grammar_text() -> str:
    """The whole grammar: what is fixed, and a rule and a terminal for each phrase and preset of the table."""
    rules = ["pulse", "CALL QUOTED HALF -> call_half", "CALL QUOTED AT_S time -> call_at",
             "CALL QUOTED time BEFORE_END -> call_before", "RESTING name -> resting", "SCORED_AS QUOTED -> scored_as", "RPE NUMBER OF_TEN -> rpe",
             "EACH_STATION -> at_each"]  # fmt: skip
    terminals = [f"EACH_STATION.6: /({_terminal(AT_EACH_PATTERN)})/i"]
    for phrase in HEAD_PHRASES:
        terminal = f"P_{phrase.name.upper()}"
        amount = {"time": "time", "count": "count", "word": ""}[phrase.kind]
        parts = (terminal, amount) if phrase.leads else (amount, terminal)
        rules.append(f"{' '.join(filter(None, parts))} -> p_{phrase.name}")
        terminals.append(f"{terminal}.5: /({_terminal(phrase.pattern)})(?![\\w-])/i")
    for preset in PRESETS:
        rules.append(f"Q_{preset.name.upper()} -> q_{preset.name}")
        terminals.append(f"Q_{preset.name.upper()}.9: /({_terminal(preset.pattern)})/i")
    return "\n".join([_FIXED, "phrase: " + "\n    | ".join(rules), *terminals])


@cache
def line_parser() -> Lark:
    """The parser of single lines; one start rule for each sort of line."""
    return Lark(
        grammar_text(), parser="lalr", lexer="contextual", start=list(GRAMMAR_STARTS), maybe_placeholders=False
    )
