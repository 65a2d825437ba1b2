"""What a block comes down to before it is recast: movements with loads, sides and pace, and how hard."""

from __future__ import annotations

import copy
import math
from collections.abc import Mapping, Sequence
from dataclasses import dataclass, field
from typing import Any

from finetally.core.formats.names import claimed
from finetally.core.formats.remake import steps_of, usual_dose
from finetally.core.formats.shape import Entry
from finetally.core.movements.library import Library
from finetally.core.session.reading import parse_session
from finetally.core.tally.measure import Tally

KEPT_OF_STEP = ("id", "movement", "load", "sides", "pace_s", "tempo", "reserve", "effort", "options", "note")
KEPT_WORDS = ("part", "effort", "rest_as", "title", "notes", "talk_s", "optional", "calls")
"""Not among them: `rpe` and `on_purpose`, which were said of the old format."""
DOSES = ("reps", "seconds", "metres")
MAX_INGREDIENTS = 40
"""Movements that one comparison pours: more than any floor has stations for."""


class NoIngredientsError(ValueError):
    """There is nothing to pour, or too much; says what."""


@dataclass(frozen=True)
class Ingredients:
    """Steps without doses, each one's usual dose, the coach's own words of the block, reps called so far.

    `bent`: what could not be carried over as it stood, in words.
    """

    steps: tuple[dict[str, Any], ...]
    doses: tuple[dict[str, Any], ...]
    words: Mapping[str, Any]
    definitions: Sequence[Mapping[str, Any]] = ()
    called: Mapping[str, int] = field(default_factory=dict)
    bent: tuple[str, ...] = ()


def alone(entries: Sequence[Entry], definitions: Sequence[Mapping[str, Any]], title: str = "-") -> dict[str, Any]:
    """A session of these entries and nothing else: what every column of a comparison is figured as."""
    made: dict[str, Any] = {"fine_tally": 1, "title": title, "stands_alone": True, "blocks": list(entries)}
    if definitions:
        made["movements"] = list(definitions)
    return made


def of_entries(
    entries: Sequence[Entry], t: Tally, library: Library, definitions: Sequence[Mapping[str, Any]] = ()
) -> Ingredients:
    """The ingredients of blocks as they stand; `t` is the tally of them alone.

    A step that stands in them several times (the same but for its dose) is one ingredient. Raises
    NoIngredientsError where there are none.
    """
    steps: list[dict[str, Any]] = []
    doses: list[dict[str, Any]] = []
    bent: list[str] = []
    for step in (step for entry in entries for step in steps_of(entry)):
        bare = {name: copy.deepcopy(step[name]) for name in KEPT_OF_STEP if name in step}
        if isinstance(bare.get("load"), list):
            bare["load"] = bare["load"][0]
            bent.append(f"{step['movement']}: its load changes from round to round; the first is used")
        if any(_same(bare, known) for known in steps):
            continue
        steps.append(bare)
        doses.append(_dose(step, t, library))
    called = {key: one["called"] for key, one in t.reps.movements.items() if one["called"]}
    return _checked(Ingredients(tuple(steps), tuple(doses), _words(entries[0]), definitions, called, tuple(bent)))


def of_movements(keys: Sequence[str], library: Library, part: str = "main") -> Ingredients:
    """Ingredients chosen fresh, with the doses a movement usually gets."""
    steps = tuple({"movement": key} for key in keys)
    return _checked(Ingredients(steps, tuple(usual_dose(key, library) for key in keys), {"part": part}))


def _checked(made: Ingredients) -> Ingredients:
    if not made.steps:
        raise NoIngredientsError("there are no movements to pour")
    if len(made.steps) > MAX_INGREDIENTS:
        raise NoIngredientsError(f"{len(made.steps)} movements; at most {MAX_INGREDIENTS} can be poured")
    # Refuses what cannot be read with its place, before any format is tried.
    parse_session(
        alone([{"clock": {"kind": "intervals", "work_s": 20}, "steps": list(made.steps)}], made.definitions)
    )
    return made


def _same(one: Mapping[str, Any], other: Mapping[str, Any]) -> bool:
    return {k: v for k, v in one.items() if k != "id"} == {k: v for k, v in other.items() if k != "id"}


def _dose(step: Mapping[str, Any], t: Tally, library: Library) -> dict[str, Any]:
    """The dose of one visit: as written; for a list or a window what a visit held on the mean, in whole reps."""
    plain = {name: step[name] for name in DOSES if step.get(name) is not None and not isinstance(step[name], list)}
    if plain:
        return plain
    done = t.reps.movements.get(step["movement"])
    if done is None or not done["visits"]:
        return usual_dose(step["movement"], library)
    movement = t.library.get(step["movement"])
    per_side = (step.get("sides") or (movement.sides if movement else None)) == "each"
    reps = done["called"] + done["paced"] + done["estimated"]
    mean = reps / done["visits"] / (2 if per_side else 1)
    if mean >= 1:
        return {"reps": math.floor(mean + 1e-9)}
    if movement is not None and movement.pace_s:
        return {"reps": 1}
    return {"seconds": max(5, 5 * math.floor(done["work_s"] / done["visits"] / 5))}


def _words(entry: Entry) -> dict[str, Any]:
    """The coach's own words of a block that hold in any format; a title that names the old one does not."""
    source = entry["blocks"][0] if "section" in entry else entry
    words = {name: copy.deepcopy(source[name]) for name in KEPT_WORDS if name in source}
    if claimed(str(words.get("title") or "")):
        del words["title"]
    return words
