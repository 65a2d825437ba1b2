"""What heads say of rounds: how many, of what, ladders, totals. Order matters: the first that fits takes."""

from __future__ import annotations

from finetally.core.wall.tokens.rules import FactValue, TokenMatch, rule
from finetally.core.wall.tokens.rules_clock import slashed

SHORTEST_STRAIGHT_S = 240
"""A shorter time without a rest is a dose, not the length of a block."""


# Rounds -------------------------------------------------------------------------------------------------------------
@rule("repeat", "AGAIN", examples=("go again",))
def again(said: TokenMatch) -> FactValue | None:
    """All of it a second time."""
    return {"n": 2}


@rule("repeat", "REPEAT X? n=NUM TIMES|ROUND|X?", examples=("repeat x 3", "repeat 3 times"))
def repeat(said: TokenMatch) -> FactValue | None:
    """All of it so often."""
    return {"n": said.count("n")}


@rule(
    "rounds",
    "n=NUM|RANGE ROUND|LAP|CIRCUIT OF reps=NUM EACH",
    "n=NUM|RANGE ROUND|LAP|CIRCUIT OF reps=NUM|RANGE REPS EACH?",
    examples=("3 rounds of 20 reps each",),
)
def rounds_of_reps(said: TokenMatch) -> FactValue | None:
    """So many rounds, the same reps of everything."""
    return {"n": said.count("n"), "reps": said.count("reps")}


@rule(
    "rounds",
    "ROUND|SET COLON n=NUM|RANGE !W|ALT|SOFT|HARD|CAL|REPS|X|MAX",
    "n=NUM|RANGE SET OF|EACH? COLON",
    examples=("Rounds: 3", "4 sets of:"),
)
def rounds_named(said: TokenMatch) -> FactValue | None:
    """`Rounds: 3`, `4 sets:`."""
    return {"n": said.count("n")}


@rule("rounds", "ROUND n=RANGE COLON", examples=("Rounds 1-3:",))
def rounds_counted(said: TokenMatch) -> FactValue | None:
    """`Rounds 1-3`: as many as the last number says."""
    return {"n": max(said.found["n"].pair)}


@rule("rounds", "n=NUM|RANGE ROUND SIDES", "n=NUM|RANGE SET SIDES COLON", examples=("5 rounds each arm",))
def rounds_a_side(said: TokenMatch) -> FactValue | None:
    """So many rounds with each side."""
    return {"n": said.count("n"), "sides": True}


@rule("rounds", "X n=NUM FORTIME|NOTFORTIME", examples=("x5 for time",))
def times_for_time(said: TokenMatch) -> FactValue | None:
    """So often, against the clock."""
    return {"n": said.count("n")}


@rule("rounds", "X n=NUM ROUND|TIMES", "n=NUM|RANGE ROUND|CIRCUIT OF? NOTFORTIME|FORTIME?", "n=NUM|RANGE FORTIME", "X n=NUM ROUND|TIMES NOTFORTIME|FORTIME?",
      "n=NUM|RANGE X? TIMES? THROUGH", "n=NUM TIMES ROUND", "n=NUM SET SEP? EACH FORTIME",
      examples=("3 rounds", "5 rds FT", "2-3 rounds", "4 rounds of", "x 4 rounds", "2 times through", "5 RFT"))  # fmt: skip
def rounds(said: TokenMatch) -> FactValue | None:
    """So many rounds."""
    return {"n": said.count("n")}


@rule(
    "rounds",
    "n=NUM X COLON",
    "FACT SEP? X n=NUM",
    "FACT SEP? n=NUM TIMES",
    "n=NUM TIMES COLON",
    "RPAR X n=NUM !W|TIME|DIST|NUM",
    "SEP X n=NUM !W|TIME|DIST|NUM|LOAD",
    "SEP n=NUM TIMES !W|TIME|DIST|NUM|LOAD",
    examples=("2x: 10 squats", "3 times: jog"),
)
def times(said: TokenMatch) -> FactValue | None:
    """`2x:` in front, `x 3` behind a window."""
    return {"n": said.count("n")}


@rule("laps", "n=NUM|RANGE LAP", examples=("2 laps",))
def laps(said: TokenMatch) -> FactValue | None:
    """So many times past all stations."""
    return {"n": said.count("n")}


@rule(
    "each",
    "work=TIME X n=NUM STATION",
    "n=NUM STATION X|SEP|COLON|AT|FOR? work=TIME EACH|PER?",
    "work=TIME STATION|AT? EACH|PER STATION",
    "work=TIME W EACH STATION",
    examples=("60 s x 5 stations", "45 s per station"),
)
def each_station(said: TokenMatch) -> FactValue | None:
    """A window at each station."""
    return {"work": said.amount("work")}


@rule("stations", "n=NUM STATION", examples=("4 stations",))
def stations(said: TokenMatch) -> FactValue | None:
    """So many stations."""
    return {"n": said.number("n")}


@rule("lengths", "n=NUM LENGTH OF?", examples=("3 lengths",))
def lengths(said: TokenMatch) -> FactValue | None:
    """So many lengths of what is told behind."""
    return {"n": said.count("n")}


@rule("rounds", "CIRCUIT SEP? X n=NUM", "CIRCUIT SEP? n=NUM X !NUM", examples=("Complex x 5",))
def circuit_times(said: TokenMatch) -> FactValue | None:
    """A circuit or complex, so often."""
    return {"n": said.count("n")}


@rule("first", "START AT n=NUM", "START W n=NUM", "FROM n=NUM", examples=("start @ 2",))
def first_reps(said: TokenMatch) -> FactValue | None:
    """Reps of the first start or round, where they grow."""
    return {"n": int(said.number("n"))}


@rule("deathby", "DEATHBY", examples=("death by burpees",))
def one_more_each_minute(said: TokenMatch) -> FactValue | None:
    """One rep in the first minute, two in the second, and so on."""
    return {}


@rule(
    "cap",
    "cap=TIME TIMECAP",
    "STAY cap=TIME ORLESS",
    "TIMECAP COLON|SEP? cap=TIME",
    "TIMECAP COLON|SEP? cap=NUM !W|CAL|X",
    examples=("cap 10 min", "10 min time cap", "TC: 12"),
)
def cap(said: TokenMatch) -> FactValue | None:
    """The time after which it ends."""
    return {"cap": said.minutes("cap")}


@rule("fortime", "NOTFORTIME", "FORTIME", examples=("for time", "not for time"))
def for_time(said: TokenMatch) -> FactValue | None:
    """Until all is done."""
    return {}


@rule("pyramid", "PYRAMID", examples=("movement pyramid",))
def movement_pyramid(said: TokenMatch) -> FactValue | None:
    """A, A B, A B C and back."""
    return {}


# Each ---------------------------------------------------------------------------------------------------------------
@rule("each", "ASMANY STAY|FOR work=TIME COLON", examples=("max reps in 30 s: rows, squats",))
def as_many_in(said: TokenMatch) -> FactValue | None:
    """A window for each, as many as it holds."""
    return {"work": said.amount("work")}


@rule("each", "<W n=NUM X work=TIME EACH", "<W work=TIME EACH X n=NUM", examples=("2 x 30s each", "30s ea x2"))
def times_each(said: TokenMatch) -> FactValue | None:
    """A window of each movement, so often."""
    return {"work": said.amount("work"), "n": said.count("n")}


@rule(
    "each",
    "work=TIME SIDES COLON",
    "LPAR work=TIME SIDES RPAR COLON?",
    examples=("30 s e/s:",),
)
def each_side(said: TokenMatch) -> FactValue | None:
    """A window of each movement for each side."""
    return {"work": said.amount("work"), "sides": True}


@rule("each", "<REST work=TIME OF? EACH STATION?", "EACH work=TIME COLON", unnamed=True, examples=("30 s each",))
def each(said: TokenMatch) -> FactValue | None:
    """A window of each movement."""
    return {"work": said.amount("work")}


@rule("turns", "TURNS", examples=("one a minute", "taking turns"))
def turns(said: TokenMatch) -> FactValue | None:
    """The lines take turns, whatever else is said."""
    return {}


@rule("superset", "SUPERSET NUM X n=NUM", "SUPERSET NUM COLON|SEP n=NUM ROUND|SET|X", "SUPERSET SEP? X n=NUM", "n=NUM X? SUPERSET", "SUPERSET COLON|SEP? n=NUM ROUND|SET|X", "SUPERSET COLON|SEP? n=NUM !W|CAL|X|REPS|ALT|SOFT|HARD", "SUPERSET",
      examples=("Superset 1 x3", "Superset x3", "3 supersets"))  # fmt: skip
def superset(said: TokenMatch) -> FactValue | None:
    """Movements alternated, so often."""
    return {"n": said.count("n")}


@rule("forlong", "total=TIME NOREST", "total=TIME OF !W|ALT|SOFT|HARD|TIME|EACH|MAX|FAILURE|AMRAP|ASMANY|REPS|ROUND", undosed=True,
      examples=("20 min non-stop",))  # fmt: skip
def without_a_break(said: TokenMatch) -> FactValue | None:
    """Done again and again for so long."""
    total = said.amount("total")
    return {"total": total} if isinstance(total, int) and total >= SHORTEST_STRAIGHT_S else None


@rule("total", "total=TIME TOTAL", "TOTAL COLON? total=TIME", examples=("5 min total",))
def total(said: TokenMatch) -> FactValue | None:
    """How long all of it is."""
    return {"total": said.amount("total")}


@rule("windows", "pair=PAIR !W|CAL|X|SIDES|LOAD|REPS|LPAR|NUM|RANGE|ALT", undosed=True, examples=("20/10",))
def bare_pair(said: TokenMatch) -> FactValue | None:
    """`40/20` alone, before any dose: behind a movement and its dose it would be two loads."""
    return slashed(said)
