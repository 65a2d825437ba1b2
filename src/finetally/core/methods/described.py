"""Every constant that a squad may set, as it is shown: what it is, its unit, sensible bounds, where it is from."""

from __future__ import annotations

from collections.abc import Iterator, Mapping
from dataclasses import dataclass
from typing import Literal

from finetally.core.methods.paragraphs import ParagraphKey
from finetally.core.session.json_value import JsonValue
from finetally.core.session.problems import Problem

SettingShape = Literal["number", "efforts", "parts", "scale"]
"""One number; one for each effort word; several named ones; points of the effort scale."""


@dataclass(frozen=True, slots=True)
class SettingCell:
    """A number of a setting: its key within it ('' where the setting is the number), and its words."""

    key: str
    label: str
    low: float
    high: float


@dataclass(frozen=True, slots=True)
class SettingTold:
    """A constant. `unit`: as it stands behind the number; `empty`: it may be left out, and what that means."""

    key: str
    label: str
    paragraph: ParagraphKey
    shape: SettingShape
    unit: str
    cells: tuple[SettingCell, ...]
    source: str
    step: float = 1
    empty: str = ""


HOUSE = "an assumption of the house"


def _one(
    key: str,
    label: str,
    paragraph: ParagraphKey,
    unit: str,
    bounds: tuple[float, float],
    source: str,
    *,
    step: float = 1,
    empty: str = "",
) -> SettingTold:
    cells = (SettingCell("", label, *bounds),)
    return SettingTold(key, label, paragraph, "number", unit, cells, source, step, empty)


def _efforts(
    key: str, label: str, paragraph: ParagraphKey, unit: str, bounds: tuple[float, float], source: str, step: float
) -> SettingTold:
    cells = tuple(SettingCell(word, word, *bounds) for word in ("easy", "steady", "hard", "all-out"))
    return SettingTold(key, label, paragraph, "efforts", unit, cells, source, step)


SETTINGS_TOLD: tuple[SettingTold, ...] = (
    _one("pace_factor", "The squad’s factor on every pace", "pace", "× time", (0.3, 3), HOUSE, step=0.05),
    _one("fatigue", "How much longer reps become at most", "pace", "of their time", (0, 2), HOUSE, step=0.05),
    _one("fatigue_time_s", "How quickly reps become longer", "pace", "s of work", (30, 3600), HOUSE, step=10),
    SettingTold(
        "change", "Going over to another movement", "pace", "parts", "s",
        (
            SettingCell("step", "another movement", 0, 60), SettingCell("kit", "kit not at hand", 0, 60),
            SettingCell("down", "down to the floor", 0, 60), SettingCell("up", "up from the floor", 0, 60),
        ),
        HOUSE, 0.5,
    ),
    _efforts("breathers", "Breathers, as a share of each bout", "pace", "of the bout", (0, 2), HOUSE, 0.05),
    SettingTold(
        "unknown", "What is taken of a movement that nobody knows", "pace", "parts", "",
        (
            SettingCell("pace_s", "seconds a rep", 0.2, 60), SettingCell("speed_mps", "metres a second", 0.1, 12),
            SettingCell("met", "MET", 1, 20),
        ),
        HOUSE, 0.5,
    ),
    _one("capacity_met", "Capacity of whom nothing is known", "effort", "MET", (3, 30), HOUSE, step=0.5),
    _one("rest_met", "MET at rest", "effort", "MET", (0.5, 3), "Ainsworth 2011: standing, talking", step=0.1),
    _one(
        "tau_on_s", "Time constant of breathing as it rises", "effort", "s",
        (5, 300), "Whipp and Wasserman 1972",
    ),
    _one(
        "tau_off_s", "Time constant of breathing as it falls", "effort", "s",
        (5, 300), "Barstow and Molé 1991",
    ),
    _efforts(
        "effort_factor", "What an effort word does to a movement’s MET", "effort", "× MET",
        (0.1, 4), HOUSE, 0.05,
    ),
    _efforts("effort_floor", "What a typed word comes to be felt as", "effort", "of 10", (0, 10), HOUSE, 0.5),
    _one("floor_on_s", "How quickly a typed word is felt over work", "effort", "s", (1, 600), HOUSE),
    _one("floor_off_s", "How quickly a typed word fades in rest", "effort", "s", (1, 600), HOUSE),
    SettingTold(
        "effort_scale", "From the share of capacity to effort", "effort", "scale", "of 10",
        (SettingCell("", "effort at", 0, 10),),
        "drawn through Emberts and Porcari 2013; between the points it is linear", 0.1,
    ),
    _one("hard_day_effort", "A day is hard from an effort of", "load", "of 10", (0, 10), HOUSE, step=0.5),
    _one(
        "hard_day_load", "A day is hard also from a load of", "load", "effort × min",
        (1, 100_000), HOUSE, empty="effort alone counts",
    ),
    _one("clash_hours", "Days clash that are closer than", "load", "h", (0, 168), HOUSE),
    _one(
        "learn_prior", "Weight of what was assumed before anything was logged", "learning", "sessions",
        (0.1, 50), HOUSE,
    ),
    _one("learn_half_life_d", "A logged session counts half after", "learning", "days", (1, 1_000), HOUSE),
    _one(
        "landings_limit", "Medium and hard landings of a session", "checks", "landings",
        (0, 2_000), "NSCA: 80, 100 or 120 by level", step=5,
    ),
)  # fmt: skip
"""In the order in which they are shown; schools stand in core/schools.py."""

SAID_ELSEWHERE = {"muted_checks": "Checks that are told no more", "week_targets": "Targets of the week"}
"""Settings with a screen of their own, on the Bench and in the week: what they are called."""
SET_ELSEWHERE = frozenset(SAID_ELSEWHERE)


def out_of_bounds(changes: Mapping[str, JsonValue]) -> list[Problem]:
    """What of changed settings lies beyond sensible bounds, each with its place; another shape is not told."""
    return [one for told in SETTINGS_TOLD if told.key in changes for one in _beyond(told, changes[told.key])]


def _beyond(told: SettingTold, value: JsonValue) -> Iterator[Problem]:
    for place, cell, number in _numbers(told, value):
        if not cell.low <= number <= cell.high:
            yield Problem(
                f"methods.{place}", f"{number:g}", f"{cell.low:g} to {cell.high:g} {told.unit}".strip(), "bounds"
            )


def _numbers(told: SettingTold, value: JsonValue) -> Iterator[tuple[str, SettingCell, float]]:
    """The numbers of a setting, each with its place and cell."""
    first = told.cells[0]
    if told.shape == "scale" and isinstance(value, list):
        for index, point in enumerate(value):
            if isinstance(point, list | tuple) and len(point) == 2 and isinstance(point[1], int | float):
                yield f"{told.key}.{index}", first, float(point[1])
    elif told.shape == "number" and isinstance(value, int | float) and not isinstance(value, bool):
        yield told.key, first, float(value)
    elif isinstance(value, dict):
        for cell in told.cells:
            number = value.get(cell.key)
            if isinstance(number, int | float) and not isinstance(number, bool):
                yield f"{told.key}.{cell.key}", cell, float(number)
