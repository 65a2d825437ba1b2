"""A block made over into another format, or with other parameters, keeping its movements and the coach's words."""

from __future__ import annotations

import copy
from collections.abc import Iterator
from typing import Any

from finetally.core.formats.shape import OWN_WORDS, Entry, Format, Params, Steps
from finetally.core.formats.table import BY_KEY, make
from finetally.core.movements.library import Library
from finetally.core.session.entries import blocks_in

DOSES = ("reps", "seconds", "metres", "grow", "fill", "chain")
USUAL_REPS, USUAL_SECONDS, USUAL_METRES = 10, 30, 20
KEPT = (*sorted(OWN_WORDS), "rest_after_s")


def steps_of(entry: Entry) -> Steps:
    """The steps of a block, of its stations or of a section's blocks, one after the other."""
    if "section" in entry:
        return [step for block in entry["blocks"] for step in steps_of(block)]
    clock = entry.get("clock", {})
    if clock.get("kind") == "rotation":
        return [step for station in clock.get("stations", []) for step in station["steps"]]
    return list(entry.get("steps") or [])


def usual_dose(key: str, library: Library) -> dict[str, Any]:
    """What a movement gets where a dose is needed and none is known: reps; metres or seconds without a pace."""
    movement = library.get(key)
    if movement is None or movement.pace_s:
        return {"reps": USUAL_REPS}
    return {"metres": USUAL_METRES} if movement.speed_mps else {"seconds": USUAL_SECONDS}


REST_BEFORE_NEW_S = 60
"""Rest that goes before a new block where none stands: sessions are not written without."""


def usual_step(key: str, library: Library, *, dosed: bool) -> dict[str, Any]:
    """A step as it is added: its usual dose if the clock asks for one, and how a one-sided movement counts."""
    movement = library.get(key)
    one_sided = movement is not None and movement.sides not in (None, "both")
    sides = {"sides": movement.sides} if movement is not None and one_sided else {}
    return {"movement": key, **(usual_dose(key, library) if dosed else {}), **sides}


def remade(entry: Entry, key: str, params: Params, *, library: Library) -> list[Entry]:
    """The entries of format `key` with this entry's movements. Its ids, title, part, effort and rests stay.

    Doses stay where the new format takes doses; where it sets windows or doses itself they go. Raises
    CannotMakeError if the format cannot hold the movements, KeyError for a format that there is not.
    """
    chosen = BY_KEY[key]
    steps = [_fitted(step, chosen, library) for step in copy.deepcopy(steps_of(entry))]
    made = make(key, steps, params)
    first = next(_blocks(made))
    for word in KEPT:
        if word in entry and word != "id":
            first[word] = copy.deepcopy(entry[word])
    if "id" in entry:
        made[0]["id"] = entry["id"]
    return without_twins(made)


def _fitted(step: dict[str, Any], chosen: Format, library: Library) -> dict[str, Any]:
    bare = {name: value for name, value in step.items() if name not in DOSES}
    if chosen.dose in ("window", "made"):
        return bare
    dose = {name: step[name] for name in ("reps", "seconds", "metres") if _plain(step.get(name))}
    return {**bare, **(dose or usual_dose(step["movement"], library))}


def _plain(value: Any) -> bool:
    return value is not None and not isinstance(value, list)


def _blocks(entries: list[Entry]) -> Iterator[Entry]:
    for entry in entries:
        yield from blocks_in(entry)


def without_twins(entries: list[Entry]) -> list[Entry]:
    """The entries with each id once: a step that stands in them several times keeps its id the first time."""
    seen: set[str] = set()
    for entry in entries:
        carriers = [entry, *_blocks([entry])] if "section" in entry else [entry]
        for carrier in [*carriers, *(step for block in _blocks([entry]) for step in steps_of(block))]:
            if carrier.get("id") in seen and carrier.get("id") is not None:
                del carrier["id"]
            elif "id" in carrier:
                seen.add(carrier["id"])
    return entries
