"""A second reading of docs/session-file.md: sessions laid out unit by unit, rep by rep, and cut by clipping.

Written from the document's text, not from core/unfold, and slow on purpose: each rep is a unit of time of its own, a
cap or a window is a pair of scissors. What both readings agree on is hardly the same mistake made twice.
"""

from __future__ import annotations

import itertools
import math
from collections.abc import Iterator
from dataclasses import replace
from typing import Any

from finetally.core.methods.value import Methods
from finetally.core.movements.library import Library
from tests.core.second_units import CLOSE, Line, Unit, clipped

FLOOR = ("kneeling", "seated", "plank", "prone", "supine")


def pace_of(step: dict[str, Any], movement: Any) -> float | None:
    """Seconds of a rep: the tempo's, the step's own, the movement's; none of a hold."""
    return sum(step["tempo"]) if "tempo" in step else step.get("pace_s", movement.pace_s)


def lengths_of_lists(clock: dict[str, Any], steps: list[dict[str, Any]]) -> list[int]:
    """How many values each list has that has one for each round: of the clock's rests, of doses, loads and rests."""
    values = [clock.get(key) for key in ("rest_s", "round_rest_s")]
    values += [step.get(key) for step in steps for key in ("reps", "seconds", "metres", "load", "rest_s")]
    return [len(value) for value in values if isinstance(value, list)]


class Reader:
    """Reads one document without ranges."""

    def __init__(self, document: dict[str, Any], library: Library, methods: Methods) -> None:
        self.document, self.library, self.methods = document, library, methods
        self.line = Line()
        self.visit = 0
        self.worked = 0.0

    def read(self) -> Line:
        """Lay the whole session out."""
        passes = []
        for entry in self.document["blocks"]:
            times = entry.get("times", 1)
            for turn in range(times):
                inside = entry["blocks"] if "section" in entry else [entry]
                for place, block in enumerate(inside):
                    ends = "section" in entry and place == len(inside) - 1
                    key = "rest_between_s" if turn < times - 1 else "rest_after_s"
                    between = entry.get(key, 0) if ends else 0
                    passes.append((block, ends, between))
        for number, (block, ends, between) in enumerate(passes):
            self.block(block)
            if number < len(passes) - 1:
                after = 0 if ends else block.get("rest_after_s", 0)
                self.line.write(Unit("rest", after))
                self.line.write(Unit("rest", between))
        self.line.guess()
        return self.line

    def block(self, block: dict[str, Any]) -> None:
        self.line.write(Unit("talk", 0 if block.get("talk_over") else block.get("talk_s", 0)))
        repeats = block.get("repeat", 1)
        for repeat in range(repeats):
            clock = block["clock"]
            if clock["kind"] == "rotation":
                self.rotation(block, clock)
            else:
                mirrored = bool(block.get("mirror")) and repeat % 2 == 1
                self.run(block, clock, block["steps"], block.get("rounds"), mirrored)
            if repeat < repeats - 1:
                self.line.write(Unit("rest", block.get("rest_between_repeats_s", 0)))

    def rotation(self, block: dict[str, Any], clock: dict[str, Any]) -> None:
        stations = clock["stations"]
        lengths = []
        for station in stations:
            alone = Reader(self.document, self.library, self.methods)
            alone.run(block, clock["inner"], station["steps"], station.get("rounds", block.get("rounds")), False)
            lengths.append(alone.line.now)
        turns = list(itertools.chain.from_iterable(stations for _ in range(clock.get("laps", 1))))
        for number, station in enumerate(turns):
            begun = self.line.now
            self.run(block, clock["inner"], station["steps"], station.get("rounds", block.get("rounds")), False)
            self.line.write(Unit("rest", max(0.0, max(lengths) - (self.line.now - begun))))
            if number < len(turns) - 1:
                self.line.write(Unit("rest", clock.get("rotate_s", 0)))

    def run(self, block: dict[str, Any], clock: dict[str, Any], steps: Any, rounds: Any, mirrored: bool) -> None:
        self.worked = 0.0
        kind = clock["kind"]
        if kind == "intervals":
            self.intervals(block, clock, steps, rounds, mirrored)
        elif kind == "every":
            self.every(block, clock, steps, rounds)
        elif kind == "amrap":
            self.amrap(block, clock, steps)
        else:
            room = clock.get("cap_s", math.inf)
            for unit in clipped(self.task(block, clock, steps, rounds, mirrored), room):
                self.line.write(unit)

    # In which order
    def order(self, block: dict[str, Any], count: int, rounds: Any) -> list[dict[str, Any]]:
        size = block.get("group", "all")
        size = count if size == "all" else size
        made = []
        for first in range(0, count, size):
            group = list(range(first, min(count, first + size)))
            sets = self.sets(group, block.get("visit", "rounds"), block.get("strip_from", "front"))
            walk = [(round_, one) for round_ in range(rounds or 1) for one in sets]
            for number, (round_, one) in enumerate(walk):
                for place, item in enumerate(one):
                    ends = place == len(one) - 1
                    made.append(
                        {"item": item, "round": round_, "ends": ends, "leaves": ends and number == len(walk) - 1}
                    )
        return made

    @staticmethod
    def sets(group: list[int], visit: str, strip_from: str) -> list[list[int]]:
        up = [group[: n + 1] for n in range(len(group))]
        down = [group[n:] if strip_from == "front" else group[: len(group) - n] for n in range(len(group))]
        return {"rounds": [group], "build": up, "strip": down, "build-strip": [*up, *down[1:]]}[visit]

    @staticmethod
    def at(value: Any, round_: int) -> Any:
        return value[round_] if isinstance(value, list) else value

    def pause(self, clock: dict[str, Any], steps: Any, visit: dict[str, Any], of: dict[str, Any]) -> float:
        """The rest after a visit; what is the step's, and its round, is that of the visit `of`."""
        own = steps[of["item"]].get("rest_s", clock.get("rest_s", 0))
        if visit["leaves"]:
            own = clock.get("group_rest_s", own)
        elif visit["ends"]:
            own = clock.get("round_rest_s", own)
        return float(self.at(own, of["round"]))

    # How long
    def tired(self, worked: float) -> float:
        methods = self.methods
        return 1 + methods.fatigue * (1 - math.exp(-worked / methods.fatigue_time_s))

    def sides_of(self, step: dict[str, Any]) -> str:
        return step.get("sides") or self.library.get(step["movement"]).sides or "both"  # type: ignore[union-attr]

    def effort_of(self, block: dict[str, Any], step: dict[str, Any]) -> str:
        usual = "easy" if block.get("part") in ("warm-up", "cool-down") else "hard"
        word: str = step.get("effort") or block.get("effort") or usual
        return word

    def dose(self, step: dict[str, Any], round_: int, counted: str, worked: float) -> Iterator[Unit]:
        """The units of one visit at pace, one side after the other where the dose is for each."""
        movement = self.library.get(step["movement"])
        assert movement is not None
        visit, self.visit = self.visit, self.visit + 1
        at_start = worked
        for side in (0, 1) if self.sides_of(step) == "each" else (-1,):
            for unit in self.once(step, movement, round_, counted, worked, at_start):
                worked += unit.seconds
                yield replace(unit, visit=visit, side=side)

    def once(
        self, step: dict[str, Any], movement: Any, round_: int, counted: str, worked: float, at_start: float
    ) -> Iterator[Unit]:
        name, limit = step["movement"], self.at(step.get("seconds"), round_)
        reps = self.at(step.get("reps"), round_)
        if reps is not None:
            pace = pace_of(step, movement) or 3
            if isinstance(reps, dict):
                reps = reps.get("plan", 15)
            amount = [pace] * max(0, reps + step.get("grow", 0) * round_)
            yield from clipped(self.series(name, amount, counted, worked), math.inf if limit is None else limit)
        elif "metres" in step:
            metres, speed = self.at(step["metres"], round_), movement.speed_mps or 2
            whole = [1 / speed] * int(metres)
            part = [(metres - int(metres)) / speed] if metres > int(metres) else []
            yield from clipped(self.series(name, [*whole, *part], "", worked), math.inf if limit is None else limit)
        else:
            pace = pace_of(step, movement)
            yield Unit("work", limit, movement=name, pace=pace * self.tired(at_start) if pace else None)

    def series(self, name: str, amounts: list[float], counted: str, worked: float) -> Iterator[Unit]:
        for fresh in amounts:
            seconds = fresh * self.tired(worked)
            worked += seconds
            yield Unit(
                "work", seconds, movement=name, called=int(counted == "called"), paced=int(counted == "paced")
            )

    def window(self, step: dict[str, Any], round_: int, seconds: float) -> Unit:
        """A window of the clock's: all of it is work; a reps dose is called, else reps are guessed."""
        movement = self.library.get(step["movement"])
        assert movement is not None
        visit, self.visit = self.visit, self.visit + 1
        each = self.sides_of(step) == "each"
        called = self.at(step.get("reps"), round_)
        if isinstance(called, dict):
            called = called.get("plan", 15)
        pace = pace_of(step, movement) if called is None else None
        return Unit(
            "work", seconds, visit, step["movement"], called=(called or 0) * (2 if each else 1),
            pace=pace * self.tired(self.worked) if pace else None, halves=each,
        )  # fmt: skip

    def change(self, before: dict[str, Any] | None, step: dict[str, Any]) -> float:
        if before is None or before["movement"] == step["movement"]:
            return 0.0
        one, other = self.library.get(before["movement"]), self.library.get(step["movement"])
        assert one is not None
        assert other is not None
        change, was_down, is_down = self.methods.change, one.position in FLOOR, other.position in FLOOR
        made = change.step + (change.kit if set(other.kit or ()) - set(one.kit or ()) else 0)
        return (
            made + (change.down if is_down and not was_down else 0) + (change.up if was_down and not is_down else 0)
        )

    # The clocks
    def intervals(
        self, block: dict[str, Any], clock: dict[str, Any], steps: Any, rounds: Any, mirrored: bool
    ) -> None:
        order = self.order(block, len(steps), rounds)
        first = clock.get("rest_first", False)
        gaps = [self.pause(clock, steps, a, b if first else a) for a, b in itertools.pairwise(order)]
        own = [
            self.at(steps[v["item"]].get("rest_s", clock.get("rest_s", 0)), v["round"])
            for v in (order[0], order[-1])
        ]
        closing = clock.get("closing_rest", self.methods.closing_rest) and not first
        last = own[0] if mirrored else own[1]
        if mirrored:
            order, gaps = order[::-1], gaps[::-1]
        self.line.write(Unit("rest", own[0] if first else 0))
        for visit, gap in itertools.zip_longest(order, gaps, fillvalue=0.0):
            step = steps[visit["item"]]  # type: ignore[index]
            seconds = self.at(step.get("seconds", clock.get("work_s")), visit["round"])  # type: ignore[index]
            if "seconds" in step and self.sides_of(step) == "each":  # type: ignore[operator,arg-type]
                seconds *= 2
            self.line.write(self.window(step, visit["round"], seconds))  # type: ignore[index]
            self.worked += seconds
            self.line.write(Unit("rest", gap))  # type: ignore[arg-type]
        self.line.write(Unit("rest", last if closing else 0))

    def every(self, block: dict[str, Any], clock: dict[str, Any], steps: Any, rounds: Any) -> None:
        slots: list[list[dict[str, Any]]] = [[]]
        for step in steps:
            slots[-1].append(step)
            if not step.get("chain"):
                slots.append([])
        slots = [slot for slot in slots if slot]
        if "periods" in clock:
            order = [{"item": n % len(slots), "round": n // len(slots)} for n in range(clock["periods"])]
        else:
            order = self.order(block, len(slots), rounds)
        for visit in order:
            begun = self.line.now
            for unit in clipped(self.slot(slots[visit["item"]], visit["round"], clock), clock["period_s"]):
                self.line.write(unit)
            self.line.write(Unit("rest", clock["period_s"] - (self.line.now - begun)))
            self.line.now = begun + clock["period_s"]

    def slot(self, slot: list[dict[str, Any]], round_: int, clock: dict[str, Any]) -> Iterator[Unit]:
        gone, before = 0.0, None
        for step in slot:
            change = self.change(before, step)
            if step.get("fill"):
                left = clock.get("work_until_s", clock["period_s"]) - gone - change
                if left <= CLOSE:
                    return
                yield Unit("change", change)
                yield self.window(step, round_, left)
                self.worked += left
                return
            yield Unit("change", change)
            gone += change
            for unit in self.dose(step, round_, "called", self.worked):
                cut = min(unit.seconds, max(0.0, clock["period_s"] - gone))
                gone += unit.seconds
                self.worked += cut
                yield unit
            before = step

    def amrap(self, block: dict[str, Any], clock: dict[str, Any], steps: Any) -> None:
        lists = lengths_of_lists(clock, steps)
        fill = next((step for step in steps if step.get("fill")), None)
        steps = [step for step in steps if not step.get("fill")]
        begun = self.line.now
        for unit in clipped(self.rounds(block, clock, steps, lists[0] if lists else None, fill), clock["window_s"]):
            self.line.write(unit)
        left = clock["window_s"] - (self.line.now - begun)
        self.line.write(Unit("rest", left))

    def rounds(
        self, block: dict[str, Any], clock: dict[str, Any], steps: Any, most: int | None, fill: Any
    ) -> Iterator[Unit]:
        order = self.order({**block, "group": "all"}, len(steps), 1)
        before, gone = None, 0.0
        for round_ in itertools.count() if most is None else range(most):
            for number, visit in enumerate(order):
                step = steps[visit["item"]]
                now = {**visit, "round": round_, "leaves": False}
                last = most is not None and round_ == most - 1 and number == len(order) - 1
                units = [Unit("change", self.change(before, step))]
                units += self.dose(step, round_, "paced", self.worked)
                work = sum(unit.seconds for unit in units if unit.kind == "work")
                self.worked += work
                pause = 0.0 if last else self.pause(clock, steps, now, now)
                breather = work * self.methods.breathers.of(self.effort_of(block, step))
                if last and fill is None:
                    breather = 0.0
                units.append(Unit("rest", pause if pause > 0 else breather))
                before = None if pause > 0 else step
                yield from units
                gone += sum(unit.seconds for unit in units)
        if fill is not None:
            change = self.change(before, fill)
            left = clock["window_s"] - gone - change
            if left > 0:
                yield Unit("change", change)
                yield self.window(fill, 0, left)

    def task(
        self, block: dict[str, Any], clock: dict[str, Any], steps: Any, rounds: Any, mirrored: bool
    ) -> Iterator[Unit]:
        order = self.order(block, len(steps), rounds)
        gaps = [self.pause(clock, steps, visit, visit) for visit in order[:-1]]
        if mirrored:
            order, gaps = order[::-1], gaps[::-1]
        then = clock.get("then", "stop")
        if then == "reverse":
            order, gaps = order + order[-2::-1], gaps + gaps[::-1]
        closing = {**order[-1], "leaves": False}
        around = [*gaps, self.pause(clock, steps, closing, closing)] if then == "restart" else gaps
        walks = itertools.repeat((order, around)) if then == "restart" else [(order, around)]
        pulse, since, before = clock.get("pulse"), 0.0, None
        for visits, rests in walks:
            for visit, rest in itertools.zip_longest(visits, rests, fillvalue=None):
                step = steps[visit["item"]]
                yield Unit("change", self.change(before, step))
                work = 0.0
                for unit in self.dose(step, visit["round"], "called", self.worked):
                    work += unit.seconds
                    yield from self.under(pulse, unit, since)
                    since = self.after(pulse, unit, since)
                self.worked += work
                if rest is None:
                    return
                if pulse and since >= pulse["work_s"] - CLOSE:
                    rest, since = max(rest, float(pulse["rest_s"])), 0.0
                before = None if rest > 0 else step
                breather = 0.0 if pulse else work * self.methods.breathers.of(self.effort_of(block, step))
                yield Unit("rest", rest if rest > 0 else breather)

    @staticmethod
    def under(pulse: Any, unit: Unit, since: float) -> Iterator[Unit]:
        """A unit of work with the rests of the pulse that fall into it. A rest falls due when work is to go on."""
        left = unit.seconds
        while pulse and left > pulse["work_s"] - since + CLOSE:
            piece = pulse["work_s"] - since
            if piece > 0:
                yield replace(unit, seconds=piece, called=0, paced=0)
            yield Unit("rest", pulse["rest_s"])
            left, since = left - piece, 0.0
        yield replace(unit, seconds=left)

    @staticmethod
    def after(pulse: Any, unit: Unit, since: float) -> float:
        if not pulse:
            return 0.0
        since += unit.seconds
        while since > pulse["work_s"] + CLOSE:
            since -= pulse["work_s"]
        return since


def second_reading(document: dict[str, Any], library: Library, methods: Methods) -> Line:
    """The line that a document without ranges makes."""
    return Reader(document, library, methods).read()
