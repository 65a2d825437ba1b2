"""A block as it is put together from its head line and the lines below it."""

from __future__ import annotations

from collections.abc import Sequence
from typing import Any

from finetally.core.board.lines import Statement
from finetally.core.board.phrases import PhraseKey

TextPosition = tuple[int, int]


class BlockDraft:
    """Collects what is said of a block; `made` gives it as the document writes it."""

    def __init__(self, said: Sequence[Statement], place: TextPosition) -> None:
        self.place = place
        self.tried = False
        self._block: dict[str, Any] = {}
        self._clock: dict[str, Any] = {}
        self._inner: dict[str, Any] | None = None
        self._on_off: dict[str, Any] = {}
        self._steps: list[dict[str, Any]] = []
        self._places: list[TextPosition] = []
        self._stations: list[dict[str, Any]] = []
        self.explicit: set[str] = set()
        """What is said only so that it cannot be meant otherwise: `turns`; `shared` with the number of a step."""
        for key, value in said:
            self.set(key, value)

    @property
    def has_steps(self) -> bool:
        """Whether anything is done in it, or a line was there that says so and could not be read (`tried`)."""
        return self.tried or bool(self._steps) or any(station["steps"] for station in self._stations)

    def set(self, key: PhraseKey, value: Any) -> None:
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
            self._block.setdefault("calls", []).append(value)
        else:
            self._block[key[0]] = value

    def note(self, text: str) -> None:
        """A line of the block's notes."""
        before = self._block.get("notes")
        self._block["notes"] = text if before is None else f"{before}\n{text}"

    def station(self, station: dict[str, Any]) -> None:
        """The steps that follow are done at this station."""
        self._stations.append({**station, "steps": []})

    def steps(self, steps: Sequence[dict[str, Any]], place: TextPosition) -> None:
        """Take a line of steps."""
        into = self._stations[-1]["steps"] if self._stations else self._steps
        for step in steps:
            if step.pop("shared", False):
                self.explicit.add(f"shared {len(into)}")
            into.append(step)
        self._places.extend([place] * len(steps))

    def option(self, option: dict[str, Any]) -> bool:
        """Take an option of the last step; False if there is none."""
        into = self._stations[-1]["steps"] if self._stations else self._steps
        if not into:
            return False
        into[-1].setdefault("options", []).append(option)
        return True

    def _settle(self, clock: dict[str, Any], steps: Sequence[dict[str, Any]]) -> dict[str, Any]:
        """Decide what the clock is where no phrase said so, and what on and off mean in it."""
        kind = clock.get("kind")
        if kind is None:
            timed = "work_s" in clock or "work_s" in self._on_off
            dosed = any("reps" in step or "metres" in step for step in steps)
            self_paced = "cap_s" in clock or "then" in clock or (dosed and not timed)
            kind = "task" if self_paced else "intervals"
        made = {"kind": kind, **{key: value for key, value in clock.items() if key != "kind"}}
        if self._on_off:
            if kind == "task":
                made["pulse"] = dict(self._on_off)
            else:
                made.update(self._on_off)
        return made

    def made(self, path: str, places: dict[str, TextPosition]) -> dict[str, Any]:
        """The block; `places` gets the line of each of its parts by path."""
        places[path] = self.place
        made = dict(self._block)
        if self._stations or self._clock.get("kind") == "rotation":
            steps = [step for station in self._stations for step in station["steps"]]
            inner = self._settle(self._inner if self._inner is not None else {}, steps)
            clock = {key: value for key, value in self._clock.items() if key != "kind"}
            made["clock"] = {"kind": "rotation", **clock, "inner": inner, "stations": self._stations}
            made.update({"steps": self._steps} if self._steps else {})
            left = list(self._places)
            for index, station in enumerate(self._stations):
                for number in range(len(station["steps"])):
                    places[f"{path}.clock.stations[{index}].steps[{number}]"] = left.pop(0)
            return made
        made["clock"] = self._settle(self._clock, self._steps)
        made["steps"] = self._steps
        for number, place in enumerate(self._places):
            places[f"{path}.steps[{number}]"] = place
        return made
