"""What is said of rests, by where they are taken."""

from __future__ import annotations

from finetally.core.wall.tokens.rules import FactValue, TokenMatch, rule

BETWEEN_MOVEMENTS = frozenset(
    {"exercise", "exercises", "movement", "movements", "move", "moves", "lift", "lifts", "stations", "each", "them"}
)
WHOLE_BLOCKS = frozenset({"block", "blocks", "part", "parts", "section", "sections", "piece", "pieces"})
SHORTEST_R_S = 60
"""`30 s L, 30 s r` are sides; a rest told by its letter behind the time is longer."""
OPEN_REST_S = 60
"""What a rest of open length is planned at."""


@rule("rest", "REST time=TIME|NUM BETWEEN|AFTEREACH EACH|OF? what=ROUND|SET|TIMES|LAP|W|STATION|LADDER|SUPERSET?",
      "time=TIME REST|OFF BETWEEN|AFTEREACH EACH|OF? what=ROUND|SET|TIMES|LAP|W|STATION?",
      "time=TIME BETWEEN EACH? what=ROUND|SET|TIMES|LAP|STATION|W", "REST time=TIME|NUM AFTEREACH ROUND|SET?", "REST time=TIME PER|SLASH|EACH|EVERY ROUND|SET", "time=TIME REST PER|SLASH|EACH|EVERY ROUND|SET",
      "time=TIME|NUM REST BETWEEN|AFTEREACH ROUND|SET?", "time=TIME AFTEREACH ROUND|SET",
      examples=("1 min rest between rounds", "rest 2:00 between sets", "90s between rounds", "60 seconds rest between rounds", "1 min off after every round"))  # fmt: skip
def between_rounds(said: TokenMatch) -> FactValue | None:
    """Between rounds or sets, said so."""
    what = said.found.get("what")
    each = what is not None and (what.kind == "STATION" or what.text in BETWEEN_MOVEMENTS)
    if what is not None and what.kind == "LADDER":
        return {"s": said.seconds("time"), "where": "groups"}
    if what is not None and what.text in WHOLE_BLOCKS:
        return {"s": said.seconds("time"), "where": "blocks"}
    return {"s": said.seconds("time"), "where": "each" if each else "rounds"}


@rule("rest", "time=TIME BETWEEN PAIRS", "REST time=TIME BETWEEN PAIRS", examples=("1 min between pairs",))
def between_pairs(said: TokenMatch) -> FactValue | None:
    """When a pair is done."""
    return {"s": said.amount("time"), "where": "groups"}


@rule(
    "rest",
    "time=TIME SOFT|REST BETWEEN",
    "time=TIME BETWEEN",
    "time=TIME SOFT BETWEEN",
    examples=("3' between", "2 min easy between"),
)
def between(said: TokenMatch) -> FactValue | None:
    """Between, said without what: rounds, or movements that have a window each."""
    return {"s": said.amount("time"), "where": "rounds", "bare": True}


@rule(
    "rest", "time=TIME TO|FOR MOVE", "time=TIME MOVE", "MOVE time=TIME", examples=("30s to move", "10s to switch")
)
def to_move(said: TokenMatch) -> FactValue | None:
    """Between movements or stations."""
    return {"s": said.amount("time"), "where": "each"}


@rule("rest", "NOREST", examples=("no rest", "without rest"))
def none(said: TokenMatch) -> FactValue | None:
    """No rest at all."""
    return {"s": 0, "where": "none"}


@rule("rest", "word=REST ASNEEDED", "ASNEEDED word=REST", examples=("rest as needed",))
def open_rest(said: TokenMatch) -> FactValue | None:
    """A rest of open length; `break as needed` is how a long dose is cut up."""
    if said.found["word"].text == "break":
        return None
    return {"s": OPEN_REST_S, "where": "plain", "open": True}


@rule("rest", "SEP|RPAR time=TIME R", examples=("3x8, 2' r",))
def rest_behind(said: TokenMatch) -> FactValue | None:
    """`2' r` behind sets; a shorter one may be a right side."""
    time = said.amount("time")
    return {"s": time, "where": "plain"} if not isinstance(time, dict) and time >= SHORTEST_R_S else None


@rule("rest", "time=TIME OF? REST|OFF", "REST FOR|OF|COLON|SEP? time=TIME", "REST FOR|OF|COLON? time=NUM !W|CAL|X|SET|ROUND|ALT",
      "R COLON? time=TIME|NUM", "OFF time=TIME|NUM", "time=NUM OFF",
      examples=("rest 90s", "r75s", "30 s rest", "1 min off", "rest 2", "2 minutes rest"))  # fmt: skip
def rest(said: TokenMatch) -> FactValue | None:
    """A rest; where it is taken follows from where it stands."""
    return {"s": said.seconds("time"), "where": "plain"}


@rule("ratio", "r=RATIO", examples=("work:rest 1:2",))
def as_long_as_the_work(said: TokenMatch) -> FactValue | None:
    """A rest as long as the work, or so many times as long."""
    return {"r": said.number("r")}


@rule("rounds", "FACT SEP? X n=NUM", "FACT SEP? n=NUM TIMES|SET", examples=("30 s each, no rest, x3",))
def rounds_behind(said: TokenMatch) -> FactValue | None:
    """So many rounds, told behind the rests."""
    return {"n": said.count("n")}


@rule(
    "rounds",
    "<W n=NUM SET|ROUND WITH FACT",
    "<W n=NUM SET SEP? FACT",
    undosed=True,
    examples=("4 sets with 1 min rest", "4 sets, 1 min rest"),
)
def sets_before_rests(said: TokenMatch) -> FactValue | None:
    """So many sets of what stands above, told in front of their rest."""
    return {"n": said.count("n")}
