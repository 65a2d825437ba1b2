"""A block as it is put together from its head line and the lines below it."""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import dataclass, field

from finetally.core.board.lines import Statement
from finetally.core.board.phrases import PhraseKey
from finetally.core.session.json_value import JsonObject, JsonValue

TextPosition = tuple[int, int]


@dataclass(slots=True)
class StepDraft:
    """What a line says of a step, and the options below it."""

    said: JsonObject
    options: list[JsonValue] = field(default_factory=list)

    def made(self) -> JsonObject:
        """The step as the document writes it."""
        return {**self.said, "options": self.options} if self.options else self.said


@dataclass(slots=True)
class StationDraft:
    """What a line says of a station, and the steps below it."""

    said: JsonObject
    steps: list[StepDraft] = field(default_factory=list)

    def made(self) -> JsonObject:
        """The station as the document writes it."""
        return {**self.said, "steps": [step.made() for step in self.steps]}


class BlockDraft:
    """Collects what is said of a block; `made` gives it as the document writes it."""

    def __init__(self, said: Sequence[Statement], place: TextPosition) -> None:
        self.place = place
        self.tried = False
        self._block: JsonObject = {}
        self._notes: list[str] = []
        self._calls: list[JsonValue] = []
        self._clock: JsonObject = {}
        self._inner: JsonObject | None = None
        self._on_off: JsonObject = {}
        self._steps: list[StepDraft] = []
        self._places: list[TextPosition] = []
        self._stations: list[StationDraft] = []
        self.explicit: set[str] = set()
        """What is said only so that it cannot be meant otherwise: `turns`; `shared` with the number of a step."""
        for key, value in said:
            self.set(key, value)

    @property
    def has_steps(self) -> bool:
        """Whether anything is done in it, or a line was there that says so and could not be read (`tried`)."""
        return self.tried or bool(self._steps) or any(station.steps for station in self._stations)

    def set(self, key: PhraseKey, value: JsonValue) -> None:
        """Take what a phrase says."""
        if key == ("at_each",):
            self._inner = {}
        elif key[0] == "on_off":
            self._on_off[key[1]] = value
        elif key[0] == "clock":
            # After `at each station` the clock is the one inside; laps and moving on stay the rotation's.
            into = self._clock if self._inner is None or key[1] in ("laps", "rotate_s") else self._inner
            into[key[1]] = value
        elif key == ("turns",):
            self.explicit.add("turns")
        elif key == ("calls",):
            self._calls.append(value)
        else:
            self._block[key[0]] = value

    def note(self, text: str) -> None:
        """A line of the block's notes."""
        self._notes.append(text)

    def station(self, said: JsonObject) -> None:
        """The steps that follow are done at this station."""
        self._stations.append(StationDraft(said))

    @property
    def _open(self) -> list[StepDraft]:
        """The list that steps go into now."""
        return self._stations[-1].steps if self._stations else self._steps

    def steps(self, steps: Sequence[JsonObject], place: TextPosition) -> None:
        """Take a line of steps."""
        into = self._open
        for step in steps:
            if step.pop("shared", False):
                self.explicit.add(f"shared {len(into)}")
            into.append(StepDraft(step))
        self._places.extend([place] * len(steps))

    def option(self, option: JsonObject) -> bool:
        """Take an option of the last step; False if there is none."""
        if not self._open:
            return False
        self._open[-1].options.append(option)
        return True

    def _whole_clock(self, clock: JsonObject, steps: Sequence[StepDraft]) -> JsonObject:
        """The clock, with its kind where no phrase said so, and with what on and off mean in it."""
        kind = clock.get("kind")
        if kind is None:
            timed = "work_s" in clock or "work_s" in self._on_off
            dosed = any("reps" in step.said or "metres" in step.said for step in steps)
            self_paced = "cap_s" in clock or "then" in clock or (dosed and not timed)
            kind = "task" if self_paced else "intervals"
        made: JsonObject = {"kind": kind, **{key: value for key, value in clock.items() if key != "kind"}}
        if self._on_off:
            if kind == "task":
                made["pulse"] = dict(self._on_off)
            else:
                made.update(self._on_off)
        return made

    def made(self, path: str, places: dict[str, TextPosition]) -> JsonObject:
        """The block; `places` gets the line of each of its parts by path."""
        places[path] = self.place
        made = dict(self._block)
        if self._notes:
            made["notes"] = "\n".join(self._notes)
        if self._calls:
            made["calls"] = self._calls
        if self._stations or self._clock.get("kind") == "rotation":
            steps = [step for station in self._stations for step in station.steps]
            inner = self._whole_clock(self._inner if self._inner is not None else {}, steps)
            clock = {key: value for key, value in self._clock.items() if key != "kind"}
            stations: list[JsonValue] = [station.made() for station in self._stations]
            made["clock"] = {"kind": "rotation", **clock, "inner": inner, "stations": stations}
            if self._steps:
                made["steps"] = [step.made() for step in self._steps]
            left = list(self._places)
            for index, station in enumerate(self._stations):
                for number in range(len(station.steps)):
                    places[f"{path}.clock.stations[{index}].steps[{number}]"] = left.pop(0)
            return made
        made["clock"] = self._whole_clock(self._clock, self._steps)
        made["steps"] = [step.made() for step in self._steps]
        for number, place in enumerate(self._places):
            places[f"{path}.steps[{number}]"] = place
        return made
