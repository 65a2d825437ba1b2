"""Asking the core: documents in, figures and pictures out; summaries kept by hash."""

from __future__ import annotations

import hashlib
import json
from typing import Any

from typing_extensions import TypedDict

from finetally.core import CORE_VERSION
from finetally.core.figures import Figures, figures_and_tally, printed
from finetally.core.formats.names import BlockFormat, format_of
from finetally.core.methods.given import Given
from finetally.core.session.problems import DocumentError
from finetally.core.session.reading import parse_session
from finetally.core.tally.stave import Stave, Thumbnail, stave_of, thumbnail_of
from finetally.web.squads.house import House
from finetally.web.training.models import Summary


class Figured(TypedDict):
    """What the Bench shows of a document; `formats` says of each block of the file what it is by its numbers."""

    figures: Figures
    stave: Stave
    formats: list[BlockFormat]


class ListFigures(TypedDict):
    """What a list shows of a session; `problem` instead of figures where it cannot be figured."""

    total_s: float | None
    work_s: float | None
    density: float | None
    rpe: float | None
    load: float | None
    patterns: dict[str, float]
    thumbnail: Thumbnail | None
    problem: str | None


def figured(document: dict[str, Any], house: House, given: Given) -> Figured:
    """Figures, stave and formats of a document. Raises DocumentError."""
    made, tally = figures_and_tally(
        parse_session(document), library=house.library, methods=house.methods, given=given
    )
    formats = [format_of(of.block) for of in tally.tape.blocks]
    return {"figures": printed(made), "stave": stave_of(tally), "formats": formats}


def _key(document: dict[str, Any], house: House) -> str:
    parts = [document, house.methods.model_dump(mode="json", by_alias=True), house.library_key, CORE_VERSION]
    return hashlib.sha256(json.dumps(parts, sort_keys=True).encode()).hexdigest()


def _list_figures(document: dict[str, Any], house: House) -> ListFigures:
    try:
        made, t = figures_and_tally(parse_session(document), library=house.library, methods=house.methods)
    except DocumentError as error:
        return {
            "total_s": None,
            "work_s": None,
            "density": None,
            "rpe": None,
            "load": None,
            "patterns": {},
            "thumbnail": None,
            "problem": error.problems[0].text,
        }
    rows = made["balance"]["rows"]
    shown: ListFigures = {
        "total_s": made["total_s"],
        "work_s": made["headline"]["work_s"],
        "density": made["headline"]["density"],
        "rpe": made["effort"]["rpe"],
        "load": made["effort"]["load"],
        "patterns": {name: row["share"] for name, row in rows.items() if row["share"] > 0},
        "thumbnail": thumbnail_of(t),
        "problem": None,
    }
    rounded: ListFigures = printed(shown)
    return rounded


def list_figures(documents: list[dict[str, Any]], houses: list[House]) -> list[ListFigures]:
    """Figures for lists, from the kept summaries where there are any. Two queries, however many documents."""
    keys = [_key(document, own) for document, own in zip(documents, houses, strict=True)]
    kept = dict(Summary.objects.filter(key__in=keys).values_list("key", "figures"))
    fresh: dict[str, Summary] = {}
    for key, document, own in zip(keys, documents, houses, strict=True):
        if key not in kept:
            kept[key] = _list_figures(document, own)
            fresh[key] = Summary(key=key, figures=kept[key])
    if fresh:
        Summary.objects.bulk_create(fresh.values(), ignore_conflicts=True)
    return [kept[key] for key in keys]
