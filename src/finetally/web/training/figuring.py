"""Asking the core: documents in, figures and pictures out; summaries kept by hash."""

from __future__ import annotations

import hashlib
import json
import logging
from collections import OrderedDict
from typing import Any

from django.db import OperationalError, transaction
from typing_extensions import TypedDict

from finetally.core import CORE_VERSION
from finetally.core.figures import Figures, figures_and_tally, printed
from finetally.core.formats.names import BlockFormat, format_of
from finetally.core.methods.given import Given
from finetally.core.session.budget import OverBudgetError
from finetally.core.session.problems import DocumentError
from finetally.core.session.reading import parse_session
from finetally.core.tally.stave import Stave, Thumbnail, stave_of, thumbnail_of
from finetally.web.squads.house import House
from finetally.web.training.models import Summary

log = logging.getLogger(__name__)


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


def _unfigured(problem: str) -> ListFigures:
    return {
        "total_s": None,
        "work_s": None,
        "density": None,
        "rpe": None,
        "load": None,
        "patterns": {},
        "thumbnail": None,
        "problem": problem,
    }


NOT_YET = "Too much to figure at once: open it, or look again."


def _list_figures(document: dict[str, Any], house: House) -> ListFigures:
    """Figures for a list; a session that cannot be figured, for whatever reason, is listed as such."""
    try:
        made, t = figures_and_tally(parse_session(document), library=house.library, methods=house.methods)
    except OverBudgetError:
        raise
    except DocumentError as error:
        return _unfigured(error.problems[0].text)
    except Exception:
        log.exception("a kept session cannot be figured")
        return _unfigured("This session cannot be figured. That is a fault of ours; it can be opened and exported.")
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


MOST_HELD = 4_096
"""Summaries that a process holds beside the database: those of a large squad."""
_held: OrderedDict[str, ListFigures] = OrderedDict()


def _hold(key: str, made: ListFigures) -> None:
    _held[key] = made
    while len(_held) > MOST_HELD:
        _held.popitem(last=False)


def list_figures(documents: list[dict[str, Any]], houses: list[House]) -> list[ListFigures]:
    """Figures for lists, from the kept summaries where there are any; reads and never writes.

    One query, however many documents. What goes over the request's budget of work is left for another look.
    """
    keys = [_key(document, own) for document, own in zip(documents, houses, strict=True)]
    unheld = [key for key in keys if key not in _held]
    kept = dict(Summary.objects.filter(key__in=unheld).values_list("key", "figures")) if unheld else {}
    spent = False
    for key, document, own in zip(keys, documents, houses, strict=True):
        if key in _held or key in kept or spent:
            continue
        try:
            kept[key] = _list_figures(document, own)
            _hold(key, kept[key])
        except OverBudgetError:
            spent = True
    return [kept.get(key) or _held.get(key) or _unfigured(NOT_YET) for key in keys]


def keep_figures(documents: list[dict[str, Any]], houses: list[House]) -> None:
    """Keep the figures of documents that were just saved, so that lists need not make them. Never fails.

    Written outside of the save's own transaction, and left out where something else is being written.
    """
    try:
        made = list_figures(documents, houses)
        keys = [_key(document, own) for document, own in zip(documents, houses, strict=True)]
        with transaction.atomic():
            Summary.objects.bulk_create(
                [
                    Summary(key=key, figures=one)
                    for key, one in zip(keys, made, strict=True)
                    if one["problem"] is None
                ],
                ignore_conflicts=True,
            )
    except (OperationalError, OverBudgetError):
        log.info("figures of a saved session are not kept: made again when they are asked for")
