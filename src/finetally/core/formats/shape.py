"""What a named format is, and what the shape of a block is: everything but the coach's own words and places."""

from __future__ import annotations

import copy
from collections.abc import Callable, Iterator, Sequence
from dataclasses import dataclass, field
from typing import Any, Literal

Entry = dict[str, Any]
Params = dict[str, Any]
Steps = list[dict[str, Any]]
Lane = list[Params]
"""Values of a format's free numbers, in an order in which time, work, reps and load only grow."""
Tiers = list[list[Lane]]
"""Lanes to choose among; a later tier only where nothing of an earlier one holds the movements."""

OWN_WORDS = frozenset(
    {
        "id",
        "title",
        "notes",
        "part",
        "announced_s",
        "talk_s",
        "talk_over",
        "optional",
        "effort",
        "rpe",
        "calls",
        "on_purpose",
        "rest_as",
    }
)
"""Keys of a block that say nothing of its format; its rest_after_s neither, at the end of the shape."""

MAX_WINDOWS_MADE = 1_000
"""Rungs or windows in a list that a format makes of two numbers: a wish for millions is refused, not tried."""

STATION_WORDS = frozenset({"name", "capacity", "kit"})

BLOCK_DEFAULTS: Params = {
    "visit": "rounds",
    "group": "all",
    "rounds": 1,
    "strip_from": "front",
    "repeat": 1,
    "rest_between_repeats_s": 0,
    "mirror": False,
}
CLOCK_DEFAULTS: Params = {"rest_s": 0, "rest_first": False, "rotate_s": 0, "laps": 1, "then": "stop"}
STEP_DEFAULTS: Params = {"fill": False, "chain": False, "grow": 0}

Kind = Literal["seconds", "count", "reps", "choice", "flag", "seconds-list", "step"]


class CannotMakeError(ValueError):
    """The parameters or the steps do not fit the format; says why."""


@dataclass(frozen=True, slots=True)
class Param:
    """One thing a coach sets: its name, kind, default and bounds (for numbers), choices (for words).

    `open`: it may be left so (None): no cap, no rest of its own.
    """

    name: str
    kind: Kind
    default: Any
    low: float = 0
    high: float = 3600
    choices: tuple[str, ...] = ()
    open: bool = False


@dataclass(frozen=True, slots=True)
class Format:
    """A named format. `make` takes steps (with their doses) and parameters; `read` guesses both from entries.

    `steps` says how many steps it can hold: at least, at most (None: any), and a number they must divide by.
    `free`: what a recast of so many steps may turn to fill it; nothing, as a rule of the strict ones.
    """

    key: str
    name: str
    trade: tuple[str, ...]
    params: tuple[Param, ...]
    make: Callable[[Steps, Params], list[Entry]]
    read: Callable[[list[Entry]], tuple[Steps, Params] | None]
    steps: tuple[int, int | None, int] = (1, None, 1)
    dose: Literal["window", "reps", "any", "made"] = "any"
    claims: tuple[str, ...] = field(default=())
    free: Callable[[int], Tiers] = lambda steps: [[[{}]]]

    def defaults(self) -> Params:
        """Every parameter at its default."""
        return {param.name: copy.deepcopy(param.default) for param in self.params}

    def hold(self, steps: Sequence[Any]) -> str | None:
        """Why the format cannot hold so many steps; None if it can."""
        low, high, by = self.steps
        if len(steps) < low or (high is not None and len(steps) > high):
            wanted = str(low) if low == high else f"{low} or more" if high is None else f"{low} to {high}"
            noun = "movement" if high == 1 else "movements"
            return f"{self.name} takes {wanted} {noun}, not {len(steps)}"
        if len(steps) % by:
            return f"{self.name} takes movements by {by}, not {len(steps)}"
        return None


def plain(value: Any) -> Any:
    """A copy without ids."""
    if isinstance(value, dict):
        return {key: plain(child) for key, child in value.items() if key != "id"}
    return [plain(child) for child in value] if isinstance(value, list) else value


def _without_defaults(value: dict[str, Any], defaults: Params) -> dict[str, Any]:
    return {key: child for key, child in value.items() if not (key in defaults and defaults[key] == child)}


def _steps(steps: Steps) -> Steps:
    return [_without_defaults(step, STEP_DEFAULTS) for step in steps]


def _clock(clock: dict[str, Any]) -> dict[str, Any]:
    made = _without_defaults(clock, CLOCK_DEFAULTS)
    if "inner" in made:
        made["inner"] = _clock(made["inner"])
    if "stations" in made:
        made["stations"] = [
            {**{k: v for k, v in s.items() if k not in STATION_WORDS}, "steps": _steps(s["steps"])}
            for s in made["stations"]
        ]
    return made


def _block(block: Entry, *, last: bool) -> Entry:
    made = {key: child for key, child in plain(block).items() if key not in OWN_WORDS}
    if last:
        made.pop("rest_after_s", None)
    made = _without_defaults(made, BLOCK_DEFAULTS)
    made["clock"] = _clock(made["clock"])
    if "steps" in made:
        made["steps"] = _steps(made["steps"])
        lists = _per_round(made)
        if lists and made.get("rounds") == lists:
            del made["rounds"]
    return made


def _per_round(block: Entry) -> int | None:
    values = [*block["clock"].values(), *(v for step in block["steps"] for v in step.values())]
    lengths = {len(v) for v in values if isinstance(v, list) and v and isinstance(v[0], int | float)}
    return lengths.pop() if len(lengths) == 1 else None


def shape_of(entries: Sequence[Entry]) -> list[Entry]:
    """The shape of entries: defaults and the coach's own words left out."""
    return list(_shapes(entries))


def _shapes(entries: Sequence[Entry]) -> Iterator[Entry]:
    for index, entry in enumerate(entries):
        if "section" in entry:
            blocks = entry["blocks"]
            yield {
                "section": "",
                "times": entry.get("times", 1),
                "rest_between_s": entry.get("rest_between_s", 0),
                "blocks": [_block(b, last=i == len(blocks) - 1) for i, b in enumerate(blocks)],
            }
        else:
            yield _block(entry, last=index == len(entries) - 1)
