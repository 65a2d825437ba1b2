"""Ids of blocks, sections, steps and stations: assigned once, kept through every edit."""

from __future__ import annotations

import copy
from collections.abc import Iterator
from typing import Any


def _carriers(document: dict[str, Any]) -> Iterator[tuple[str, dict[str, Any]]]:
    for entry in document.get("blocks", []):
        if "section" in entry:
            yield "c", entry
            blocks = entry.get("blocks", [])
        else:
            blocks = [entry]
        for block in blocks:
            yield "b", block
            for step in block.get("steps") or []:
                yield "s", step
            for station in block.get("clock", {}).get("stations") or []:
                yield "t", station
                for step in station.get("steps") or []:
                    yield "s", step


def with_ids(document: dict[str, Any]) -> dict[str, Any]:
    """A copy in which every block (b1), section (c1), step (s1) and station (t1) has an id; given ids stay.

    Deterministic: the same document gets the same ids. Returns the document itself when nothing is missing.
    """
    carriers = list(_carriers(document))
    if all("id" in carrier for _, carrier in carriers):
        return document
    made = copy.deepcopy(document)
    taken = {carrier["id"] for _, carrier in carriers if "id" in carrier}
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


def without_ids(document: dict[str, Any]) -> dict[str, Any]:
    """A copy without ids: what equality of two documents means."""
    made = copy.deepcopy(document)
    for _, carrier in _carriers(made):
        carrier.pop("id", None)
    return made
