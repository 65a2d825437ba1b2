"""Ids of blocks, sections, steps and stations: assigned once, kept through every edit."""

from __future__ import annotations

import copy
from collections.abc import Iterator

from finetally.core.session.entries import blocks_in
from finetally.core.session.json_value import JsonObject, objects


def _carriers(document: JsonObject) -> Iterator[tuple[str, JsonObject]]:
    for entry in objects(document.get("blocks")):
        if "section" in entry:
            yield "c", entry
        for block in blocks_in(entry):
            yield "b", block
            yield from (("s", step) for step in objects(block.get("steps")))
            clock = block.get("clock")
            for station in objects(clock.get("stations")) if isinstance(clock, dict) else ():
                yield "t", station
                yield from (("s", step) for step in objects(station.get("steps")))


def with_ids(document: JsonObject) -> JsonObject:
    """A copy in which every block (b1), section (c1), step (s1) and station (t1) has an id; given ids stay.

    Deterministic: the same document gets the same ids. Returns the document itself when nothing is missing.
    """
    carriers = list(_carriers(document))
    if all("id" in carrier for _, carrier in carriers):
        return document
    made = copy.deepcopy(document)
    taken = {str(carrier["id"]) for _, carrier in carriers if "id" in carrier}
    counters: dict[str, int] = {}
    for letter, carrier in _carriers(made):
        if "id" in carrier:
            continue
        while True:
            counters[letter] = counters.get(letter, 0) + 1
            identity = f"{letter}{counters[letter]}"
            if identity not in taken:
                break
        carrier["id"] = identity
        taken.add(identity)
    return made


def without_ids(document: JsonObject) -> JsonObject:
    """A copy without ids: what equality of two documents means."""
    made = copy.deepcopy(document)
    for _, carrier in _carriers(made):
        carrier.pop("id", None)
    return made
