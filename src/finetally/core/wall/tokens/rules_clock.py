"""What heads say of clocks: windows of rounds, starts, windows. Order matters: the first that fits takes."""

from __future__ import annotations

from finetally.core.wall.tokens.rules import FactValue, TokenMatch, rule

SHORTEST_WINDOW_S = 10
"""`20/10` is work and rest; with less it is two numbers of something else."""
LONGEST_BARE_S = 180
"""A bare number above is no work and no rest: `500 hard, 200 easy` are metres."""


# Windows of rounds --------------------------------------------------------------------------------------------------
@rule("amrap", "n=NUM ROUND|SET|X|TIMES|OF* X? COLON? OF? AMRAP FOR|STAY|OF|SEP|COLON? window=TIME|NUM",
      "n=NUM ROUND|SET OF? COLON? window=TIME AMRAP COLON?",
      "n=NUM X window=TIME AMRAP COLON?", "AMRAP window=NUM|TIME X n=NUM",
      examples=("3 x AMRAP 3 min", "2 rounds of: amrap 4 min"))  # fmt: skip
def several_amraps(said: TokenMatch) -> FactValue | None:
    """The window again and again."""
    return {"window": said.minutes("window"), "repeat": said.count("n")}


@rule("amrap", "AMRAP window=TIME|NUM SLASH|SEP|PLUS? REST rest=TIME|NUM X n=NUM", "AMRAP window=TIME|NUM SLASH|SEP|PLUS? rest=TIME REST|OFF X n=NUM",
      examples=("AMRAP 3 / rest 1 x 4",))  # fmt: skip
def amraps_with_rests(said: TokenMatch) -> FactValue | None:
    """The window again and again, with a rest between."""
    return {"window": said.minutes("window"), "repeat": said.count("n"), "rest": said.seconds("rest")}


@rule("manyreps", "n=NUM X|SET OF? AMRAP|ASMANY", examples=("4x AMRAP",))
def sets_of_many(said: TokenMatch) -> FactValue | None:
    """So many sets of as many reps as there are."""
    return {"sets": said.count("n")}


@rule("amrap", "window=TIME SEP|COLON? ASMANY !W", examples=("12 minutes, as many as possible: 10 squats",))
def as_many(said: TokenMatch) -> FactValue | None:
    """As many as there are in a time, in other words."""
    return {"window": said.minutes("window")}


@rule("amrap", "window=TIME|NUM AMRAP", "AMRAP LPAR window=TIME|NUM RPAR", "AMRAP STAY|OF|FOR|SEP|COLON|AT? window=TIME !W", "AMRAP STAY|OF|FOR|AT? window=NUM !W|CAL|X|SOFT|HARD|ALT",
      examples=("AMRAP 12", "12 min AMRAP", "AMRAP: 10 minutes", "as many rounds as possible in 20 mins", "AMRAP in 9 mins"))  # fmt: skip
def amrap(said: TokenMatch) -> FactValue | None:
    """As many rounds as the window holds; a bare number is minutes."""
    return {"window": said.minutes("window")}


@rule("amrap", "AMRAP FOR|STAY? REMAINING", "AMRAP !W", examples=("AMRAP in the remaining time",))
def open_amrap(said: TokenMatch) -> FactValue | None:
    """As many rounds as fit; how long is said elsewhere."""
    return {"window": None}


@rule("amrap", "AMRAP", undosed=True, examples=("AMRAP burpees",))
def amrap_in_front(said: TokenMatch) -> FactValue | None:
    """In front of all doses; behind one (`10 swings, AMRAP burpees`) it is that movement's own dose."""
    return {"window": None}


@rule(
    "growlist",
    "list=GROWING STAY|FOR window=TIME",
    "window=TIME OF|SEP|COLON list=GROWING",
    examples=("2-4-6-8... in 8 min",),
)
def growing_list(said: TokenMatch) -> FactValue | None:
    """Reps that go on growing for so long."""
    return {"list": said.found["list"].listed, "window": said.amount("window")}


# Starts -------------------------------------------------------------------------------------------------------------
@rule("grow", "ADD n=NUM REPS? EVERYT|AFTEREACH|EACH|PER MINUTE|ROUND?", "PLUS n=NUM REPS? EACH|PER|EVERY ROUND|MINUTE", "PLUS n=NUM REPS? EVERYT",
      examples=("add 1 every minute", "+2 each round"))  # fmt: skip
def growing(said: TokenMatch) -> FactValue | None:
    """Reps added every round or start."""
    return {"n": int(said.number("n"))}


@rule("every", "n=NUM ROUND|SET|X OF? COLON? p=EVERYT SEP|COLON|FOR? total=TIME|NUM", "total=TIME p=EVERYT X n=NUM",
      examples=("2 sets: EMOM 5",))  # fmt: skip
def several_everys(said: TokenMatch) -> FactValue | None:
    """Starts every minute, and the whole again."""
    return {"period": said.number("p"), "total": said.minutes("total"), "repeat": said.count("n")}


@rule(
    "every",
    "p=EVERYT FOR|STAY|COLON? total=NUM ALT COLON|SEP",
    examples=("EMOM 16 alternating: 12 swings / 10 burpees",),
)
def alternating_starts(said: TokenMatch) -> FactValue | None:
    """Starts for so many minutes, the lines taking turns."""
    return {"period": said.number("p"), "total": said.minutes("total")}


@rule("every", "p=EVERYT X n=NUM ROUND|SET?", "p=EVERYT LPAR n=NUM SET|ROUND|TIMES RPAR", "p=EVERYT SEP|FOR? n=NUM|RANGE ROUND|SET|START|TIMES", "n=NUM X p=EVERYT",
      "n=NUM ROUND|SET SEP? p=EVERYT",
      examples=("E2MOM x 5", "every 4 mins for 5 rounds", "on the minute, 5 rounds", "every min x 16", "E90S x 8"))  # fmt: skip
def starts_by_number(said: TokenMatch) -> FactValue | None:
    """So many starts, or rounds of starts."""
    return {"period": said.number("p"), "n": said.count("n")}


@rule("every", "total=TIME COLON|SEP? ALT? p=EVERYT", "ALT? p=EVERYT FOR|STAY|COLON|SEP|OF? total=TIME !W",
      "ALT? p=EVERYT FOR|STAY|OF|COLON? total=NUM !W|CAL|X|SOFT|HARD|ALT|ROUND|SET|TIMES", "FOR total=TIME|NUM SEP? p=EVERYT", "p=EVERYT LPAR total=TIME RPAR", "p=EVERYT",
      examples=("EMOM 12", "EMOM for 14 mins", "10 min EMOM", "12 min: every minute", "alternating EMOM 12min"))  # fmt: skip
def starts_for(said: TokenMatch) -> FactValue | None:
    """Starts for so long; a bare number is minutes."""
    return {"period": said.number("p"), "total": said.minutes("total")}


@rule("every", "EVERY|ONTHE period=TIME X n=NUM ROUND|SET?", "EVERY|ONTHE period=TIME LPAR n=NUM SET|ROUND|TIMES RPAR", "EVERY|ONTHE period=TIME SEP? FOR? n=NUM|RANGE ROUND|SET|START|TIMES",
      examples=("every 2 min x 4", "on the 45s, 10 sets", "every 2 minutes for 5 rounds"))  # fmt: skip
def longer_starts(said: TokenMatch) -> FactValue | None:
    """A start every so long, so often."""
    return {"period": said.amount("period"), "n": said.count("n")}


@rule("every", "EVERY|ONTHE period=TIME FOR|SEP* total=TIME", "total=TIME COLON|SEP? EVERY|ONTHE period=TIME",
      "n=NUM ROUND|SET|X SEP? EVERY|ONTHE|ON period=TIME",
      "EVERY|ONTHE period=TIME",
      examples=("every 3 min for 15 min", "every 90 s"))  # fmt: skip
def starts_over(said: TokenMatch) -> FactValue | None:
    """A start every so long, for so long."""
    n = said.count("n")
    # `1 round every 3 min` says nothing of how often.
    return {"period": said.amount("period"), "total": said.minutes("total"), "n": None if n == 1 else n}


@rule("amrap", "FOR window=TIME COLON", examples=("for 12 min:",))
def for_so_long(said: TokenMatch) -> FactValue | None:
    """For so long, and what is done in it."""
    return {"window": said.amount("window"), "loose": True}


# Windows ------------------------------------------------------------------------------------------------------------
@rule(
    "windows",
    "TABATA LPAR? PAIR? RPAR? SEP|COLON? X? n=NUM ROUND EACH",
    examples=("Tabata (20/10) x 4 rounds each",),
)
def short_tabatas(said: TokenMatch) -> FactValue | None:
    """Fewer windows than eight of each."""
    return {"work": 20, "rest": 10, "n": said.count("n"), "straight": True}


@rule("windows", "n=NUM SET|ROUND|X OF? TABATA", examples=("3 blocks of tabata",))
def tabatas(said: TokenMatch) -> FactValue | None:
    """Several of them: one for each movement, or the whole again."""
    return {"work": 20, "rest": 10, "n": 8, "straight": True, "again": said.count("n")}


@rule("windows", "TABATA", examples=("tabata",))
def tabata(said: TokenMatch) -> FactValue | None:
    """Eight windows of 20 s with 10 s between, one movement after the other."""
    return {"work": 20, "rest": 10, "n": 8, "straight": True}


@rule("windows", "work=TIME|NUM SLASH|PLUS|SEP? rest=TIME PAIRS X? n=NUM? ROUND? EACH? PAIRS?",
      "pair=PAIR PAIRS X? n=NUM? ROUND? EACH? PAIRS?",
      examples=("20s/10s pairs x 4 rounds each pair", "20/10 pairs"))  # fmt: skip
def pairs(said: TokenMatch) -> FactValue | None:
    """Two movements taking turns, pair after pair; four rounds of a pair where nothing is said."""
    work, rest = said.found["pair"].pair if "pair" in said else (said.seconds("work"), said.amount("rest"))
    return {"work": work, "rest": rest, "n": said.count("n") or 4, "group": 2}


@rule("windows", "work=TIME HARD SEP|SLASH|PLUS|AND? rest=TIME SOFT|OFF FOR|SEP|X? total=TIME !REST|OFF|BETWEEN|SOFT|HARD|AFTEREACH",
      "work=TIME ON SEP|SLASH|PLUS|AND? rest=TIME OFF FOR total=TIME",
      "work=TIME ON SEP|SLASH|PLUS|AND? rest=TIME OFF FOR|SEP|X? total=TIME !REST|OFF|BETWEEN|SOFT|HARD|AFTEREACH|ON",
      examples=("30 s hard 30 s easy 10 mins",))  # fmt: skip
def on_off_for(said: TokenMatch) -> FactValue | None:
    """Work and rest in turn, for so long."""
    total, work, rest = said.amount("total"), said.amount("work"), said.amount("rest")
    if isinstance(total, dict) or isinstance(work, dict) or isinstance(rest, dict) or total < 2 * (work + rest):
        return None
    return {"work": work, "rest": rest, "total": total}


@rule("windows", "n=NUM X work=TIME|NUM ON|WORK|HARD SEP|SLASH|PLUS|AND|DASH? rest=TIME|NUM OFF|REST|SOFT",
      "work=TIME|NUM ON|WORK|HARD SEP|SLASH|PLUS|AND|DASH? rest=TIME|NUM TO|FOR? OFF|REST|SOFT|MOVE",
      "WORK|ON COLON|FOR? work=TIME|NUM SEP|SLASH|PLUS|AND|THEN|THENS? REST|OFF|SOFT COLON|FOR? rest=TIME|NUM",
      "SOFT|HARD? work=TIME ON SEP|SLASH? rest=TIME OFF", "n=NUM X work=TIME LOAD|ZONE SLASH|SEP|PLUS rest=TIME SOFT|REST|OFF", "work=TIME LOAD|ZONE SLASH|SEP|PLUS rest=TIME SOFT|REST|OFF",
      examples=("40 on 20 off", "20s on / 10s off", "45s work 15s change", "work 50s, rest 10s", ":45 work :15 rest", "20s hard 10s easy"))  # fmt: skip
def on_off(said: TokenMatch) -> FactValue | None:
    """Work and rest in turn; bare numbers are seconds from 10 on."""
    if any(said.found[one].kind == "NUM" and said.number(one) > LONGEST_BARE_S for one in ("work", "rest")):
        return None
    work, rest = said.seconds("work"), said.seconds("rest")
    return {"work": work, "rest": rest, "n": said.count("n"), "front": "n" in said}


@rule("windows", "t=TIME X n=NUM ROUND?", examples=("20:40 x 8",))
def colon_windows(said: TokenMatch) -> FactValue | None:
    """`20:40 x 8` is work and rest, where the first would be more than a dose of minutes."""
    text = said.found["t"].text
    work, _, rest = text.partition(":")
    if not (work.isdigit() and rest.isdigit()) or int(work) < SHORTEST_WINDOW_S or int(work) % 5 or int(rest) % 5:
        return None
    return {"work": int(work), "rest": int(rest), "n": said.count("n")}


@rule("windows", "n=NUM X work=TIME SLASH rest=TIME REST|OFF?", "work=TIME SLASH rest=TIME X? n=NUM?", "pair=PAIR X n=NUM ROUND?", "pair=PAIR SEP? n=NUM ROUND", "n=NUM ROUND OF? pair=PAIR !W|CAL|X|SIDES|LOAD|REPS", "WORKREST OF|COLON? pair=PAIR",
      examples=("10 x 1 min / 30 s", "35s/15s", "20/10 x 8"))  # fmt: skip
def slashed(said: TokenMatch) -> FactValue | None:
    """`35s/15s`, `20/10 x 8`."""
    if "pair" not in said:
        return {"work": said.amount("work"), "rest": said.amount("rest"), "n": said.count("n")}
    work, rest = said.found["pair"].pair
    if work < SHORTEST_WINDOW_S or rest < 5 or work % 5 or rest % 5:
        return None
    return {"work": work, "rest": rest, "n": said.count("n")}


@rule("windows", "total=TIME COLON t=TIME !SIDES|EACH", examples=("8 mins: 30:30 shuttle runs",))
def windows_for_so_long(said: TokenMatch) -> FactValue | None:
    """`8 mins: 30:30`: work and rest, for so long."""
    work, _, rest = said.found["t"].text.partition(":")
    if not (work.isdigit() and rest.isdigit()) or int(work) < SHORTEST_WINDOW_S or int(work) % 5 or int(rest) % 5:
        return None
    return {"work": int(work), "rest": int(rest), "total": said.amount("total")}


@rule("repseach", "n=NUM REPS? EACH OF? COLON", "n=NUM OF EACH COLON", examples=("12 each: split squats, rows",))
def reps_of_each(said: TokenMatch) -> FactValue | None:
    """The same reps of every movement on the line."""
    return {"n": int(said.number("n"))}


@rule("grow", "DASH n=NUM EACH|PER|EVERY ROUND|MINUTE", examples=("20 burpees -2 each round",))
def shrinking(said: TokenMatch) -> FactValue | None:
    """Reps taken away every round."""
    return {"n": -int(said.number("n"))}
