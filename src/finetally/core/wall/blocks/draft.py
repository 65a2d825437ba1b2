"""A block as it is gathered from lines, before it is decided what they come to."""

from __future__ import annotations

from dataclasses import dataclass, field

from finetally.core.session.json_value import JsonObject
from finetally.core.wall.items.item import Item
from finetally.core.wall.parts import Amount, Dose, LoadsPart, whole
from finetally.core.wall.tokens.rules import Fact, FactValue, merged


@dataclass(slots=True)
class Draft:
    """What lines say of one block. Times in seconds; None where nothing is said."""

    line: int
    said: str
    part: str | None = None
    title: str = ""
    letter: str = ""
    kind: str = ""
    items: list[Item] = field(default_factory=list)
    notes: list[str] = field(default_factory=list)
    windows: FactValue | None = None
    each: FactValue | None = None
    every: FactValue | None = None
    amraps: list[FactValue] = field(default_factory=list)
    rounds: Amount | None = None
    ladder: list[int] | None = None
    growing: bool = False
    own_reps: bool = False
    """Whether rounds are told beside the list, so that its numbers are one for each movement."""
    grow: int | None = None
    first: int | None = None
    stretching: bool = False
    """Whether its head says that body parts are stretched: `hold 30 s each: quads, calves`."""
    ratio: float | None = None
    """Rest as a multiple of the work."""
    reps_each: Amount | None = None
    pyramid: bool = False
    superset: bool = False
    turns: bool = False
    alternate: bool = False
    cap: Amount | None = None
    fortime: bool = False
    total: Amount | None = None
    told_total: bool = False
    rest: Dose | None = None
    rest_between: Dose | None = None
    rest_groups: Dose | None = None
    rest_after: Dose | None = None
    rest_each: bool = False
    """Whether the rest is said to be between the movements."""
    no_rest: bool = False
    rest_as: str = ""
    sides_each: bool = False
    rounds_a_side: bool = False
    """Whether every round is done with each side: `5 rounds each arm`."""
    tool_load: LoadsPart | None = None
    """What the tool weighs that a heading names: `kettlebell 16 kg: …`."""
    inline: bool = False
    lengths: int | None = None
    start_work: Dose | None = None
    """Seconds of work of every start, where the lines dose nothing: `EMOM 16, 40 s work`."""
    buy_in: list[Item] = field(default_factory=list)
    again: list[Item] = field(default_factory=list)
    cash_out: list[Item] = field(default_factory=list)
    tool: str = ""
    clocked: bool = False
    run: int = 0
    heading: bool = False
    closed: bool = False
    pending: Item | None = None
    repeat: Amount | None = None
    ready: JsonObject | None = None
    words: str = ""

    def take(self, facts: list[Fact]) -> None:
        """Take what a head says."""
        for fact in facts:
            getattr(self, f"_{fact.kind}", self._other)(fact.value)

    def _other(self, value: FactValue) -> None:
        return

    def _windows(self, value: FactValue) -> None:
        self.clocked = True
        if self.windows is not None and self.windows.get("straight"):
            return
        self.windows = value
        self.total = value.get("total", self.total)
        self.repeat = value.get("again", self.repeat)
        self.rounds = value.get("n") or self.rounds

    def _each(self, value: FactValue) -> None:
        self.clocked = True
        self.each = value
        self.rounds = value.get("n") or self.rounds
        self.sides_each = self.sides_each or bool(value.get("sides"))

    def _every(self, value: FactValue) -> None:
        self.clocked = True
        self.every = merged(self.every or {}, value)

    def _amrap(self, value: FactValue) -> None:
        self.clocked = True
        if value["window"] is None and self.amraps and not self.items:
            return
        self.amraps.append(value)
        self.rest_between = value.get("rest", self.rest_between)

    def _repeat(self, value: FactValue) -> None:
        if self.rest_after is not None and self.rest_between is None:
            self.rest_between, self.rest_after = self.rest_after, None
        if self.amraps:
            self.amraps[0]["repeat"] = value["n"]
        elif self.every is not None:
            self.every["repeat"] = value["n"]
        else:
            self.rounds = self.rounds or value["n"]

    def _deathby(self, value: FactValue) -> None:
        self.clocked = True
        self.every = {"period": 60}
        self.grow, self.growing = 1, True

    def _forlong(self, value: FactValue) -> None:
        self.total = value["total"]

    def _ratio(self, value: FactValue) -> None:
        self.ratio = value["r"]

    def _first(self, value: FactValue) -> None:
        self.first = whole(value["n"])

    def _growlist(self, value: FactValue) -> None:
        self.clocked = True
        self.amraps.append({"window": value["window"]})
        self.ladder, self.growing = list(value["list"]), True

    def _rounds(self, value: FactValue) -> None:
        self.clocked = True
        if self.windows is not None and self.windows.get("straight"):
            self.repeat = value["n"]
            return
        self.rounds = value["n"]
        self.rounds_a_side = self.rounds_a_side or bool(value.get("sides"))
        self.reps_each = value.get("reps", self.reps_each)

    _laps = _rounds

    def _stations(self, value: FactValue) -> None:
        self.clocked = True

    def _lengths(self, value: FactValue) -> None:
        self.lengths = whole(value["n"])

    def _cap(self, value: FactValue) -> None:
        self.cap = value["cap"]
        self.fortime = True

    def _fortime(self, value: FactValue) -> None:
        self.fortime = True

    def _pyramid(self, value: FactValue) -> None:
        self.clocked = self.pyramid = True

    def _superset(self, value: FactValue) -> None:
        self.clocked = self.superset = True
        self.rounds = value["n"] or self.rounds

    def _turns(self, value: FactValue) -> None:
        self.turns = True

    def _total(self, value: FactValue) -> None:
        self.total = value["total"]
        self.told_total = True

    def _grow(self, value: FactValue) -> None:
        self.grow = whole(value["n"])

    def _rest(self, value: FactValue) -> None:
        self.put_rest(value)

    def between_each(self, value: FactValue) -> bool:
        """Whether `15 s between` is between movements that have a window each: none is told for them yet."""
        return bool(value.get("bare")) and self.each is not None and not self.no_rest and self.rest is None

    def put_rest(self, value: FactValue) -> None:
        """Take a rest said in the head."""
        where, seconds = value["where"], value["s"]
        if where == "none":
            self.no_rest = True
        elif where == "groups":
            self.rest_groups = seconds
        elif self.between_each(value):
            self.rest = seconds
        elif where == "rounds" and isinstance(self.rest_between, int) and isinstance(seconds, int):
            # `45 s each, 15 s between, 1 min after each round`: the shorter one is between movements.
            self.rest = min(self.rest_between, seconds)
            self.rest_between = max(self.rest_between, seconds)
        elif where == "rounds":
            self.rest_between = seconds
        elif where == "each":
            self.rest, self.rest_each = seconds, True
        else:
            self.rest = seconds
