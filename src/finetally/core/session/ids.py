"""Ids of blocks, sections, steps and stations: assigned once, kept through every edit."""

from __future__ import annotations

import copy
from collections.abc import Iterator

from finetally.core.session.entries import blocks_in
from finetally.core.session.json_value import JsonObject, JsonValue, objects


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


def ids_of(document: JsonObject) -> set[str]:
    """The ids that a document's blocks, sections, steps and stations have."""
    return {str(carrier["id"]) for _, carrier in _carriers(document) if "id" in carrier}


def with_other_ids(document: JsonObject, taken: set[str]) -> JsonObject:
    """A copy none of whose ids is among `taken`; values taken from a renamed block's score go on with it."""
    made = copy.deepcopy(document)
    known = taken | ids_of(made)
    names: dict[str, str] = {}
    for letter, carrier in _carriers(made):
        own = carrier.get("id")
        if own not in taken:
            continue
        number = 1
        while f"{letter}{number}" in known:
            number += 1
        carrier["id"] = names[str(own)] = f"{letter}{number}"
        known.add(f"{letter}{number}")
    for source in _sources(made):
        source["block"] = names.get(str(source["block"]), source["block"])
    return made


def ids_with_scores(document: JsonObject) -> set[str]:
    """The ids of blocks whose score some value of the document goes on from."""
    return {str(source["block"]) for source in _sources(document)}


def _sources(document: JsonObject) -> Iterator[JsonObject]:
    """What values are taken from: each `{"block", "take"}` of the document."""
    stack: list[JsonValue] = [document]
    while stack:
        here = stack.pop()
        if isinstance(here, dict):
            source = here.get("from")
            if isinstance(source, dict) and "block" in source:
                yield source
            stack.extend(here.values())
        elif isinstance(here, list):
            stack.extend(here)
