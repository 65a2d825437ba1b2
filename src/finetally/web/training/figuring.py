"""Asking the core: documents in, figures and pictures out; summaries kept by hash."""

from __future__ import annotations

import hashlib
import json
import logging
from collections import OrderedDict
from collections.abc import Iterator, Mapping, Sequence
from typing import Any, NotRequired

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
from finetally.web.squads.figuring_context import FiguringContext
from finetally.web.training.models import Revision, Session, Summary

log = logging.getLogger(__name__)


class BenchFigures(TypedDict):
    """What the Bench shows of a document; `formats` says of each block of the file what it is by its numbers.

    `taken`: scores of earlier sessions that it goes on from, by block.
    """

    figures: Figures
    stave: Stave
    formats: list[BlockFormat]
    taken: NotRequired[dict[str, dict[str, int]]]


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


def bench_figures(document: dict[str, Any], context: FiguringContext, given: Given) -> BenchFigures:
    """Figures, stave and formats of a document. Raises DocumentError."""
    made, tally = figures_and_tally(
        parse_session(document), library=context.library, methods=context.methods, given=given
    )
    formats = [format_of(of.block) for of in tally.tape.blocks]
    return {"figures": printed(made), "stave": stave_of(tally), "formats": formats}


def _key(document_hash: str, context: FiguringContext) -> str:
    parts = [document_hash, context.methods.of_figures(), context.library_key, CORE_VERSION]
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


def _list_figures(document: dict[str, Any], context: FiguringContext) -> ListFigures:
    """Figures for a list; a session that cannot be figured, for whatever reason, is listed as such."""
    try:
        made, t = figures_and_tally(parse_session(document), library=context.library, methods=context.methods)
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


MOST_KEYS = 500
"""Names in one query: SQLite takes a thousand values at most in its oldest form."""
READ_AT_ONCE = 20
"""Documents that are read together: each may be large."""
MOST_HELD = 4_096
"""Summaries that a process holds beside the database: those of a large squad."""
_held: OrderedDict[str, ListFigures] = OrderedDict()


def _hold(key: str, made: ListFigures) -> None:
    _held[key] = made
    while len(_held) > MOST_HELD:
        _held.popitem(last=False)


def list_figures(sessions: Sequence[Session], contexts: Mapping[int, FiguringContext]) -> list[ListFigures]:
    """Figures for lists, from the kept summaries; reads and never writes. `contexts` by squad.

    One query, however many sessions, and one more for the documents of those whose figures are not kept. What goes
    over the request's budget of work is left for another look.
    """
    keys = [_key(session.document_hash, contexts[session.squad_id]) for session in sessions]
    unheld = [key for key in keys if key not in _held]
    kept: dict[str, ListFigures] = {}
    for first in range(0, len(unheld), MOST_KEYS):
        found = Summary.objects.filter(key__in=unheld[first : first + MOST_KEYS])
        kept.update(found.values_list("key", "figures"))
    missing = {key: one for key, one in zip(keys, sessions, strict=True) if key not in _held and key not in kept}
    for key, document, context in _documents(missing, contexts):
        try:
            kept[key] = _list_figures(document, context)
            _hold(key, kept[key])
        except OverBudgetError:
            break
    return [kept.get(key) or _held.get(key) or _unfigured(NOT_YET) for key in keys]


def _documents(
    missing: Mapping[str, Session], contexts: Mapping[int, FiguringContext]
) -> Iterator[tuple[str, dict[str, Any], FiguringContext]]:
    """The documents of sessions whose figures are not kept, a few at a time."""
    waiting = list(missing.items())
    for first in range(0, len(waiting), READ_AT_ONCE):
        some = waiting[first : first + READ_AT_ONCE]
        heads = [session.head_id for _, session in some]
        documents: dict[int | None, dict[str, Any]] = dict(
            Revision.objects.filter(pk__in=heads).values_list("pk", "document")
        )
        for key, session in some:
            yield key, documents.get(session.head_id, {}), contexts[session.squad_id]


def without_figures(sessions: Sequence[Session], contexts: Mapping[int, FiguringContext]) -> list[Session]:
    """Those of some sessions whose figures are not kept. One query for each few hundred."""
    keys = {_key(session.document_hash, contexts[session.squad_id]): session for session in sessions}
    names = list(keys)
    for first in range(0, len(names), MOST_KEYS):
        for key in Summary.objects.filter(key__in=names[first : first + MOST_KEYS]).values_list("key", flat=True):
            keys.pop(key, None)
    return list(keys.values())


def keep_figures(sessions: Sequence[Session], contexts: Mapping[int, FiguringContext]) -> int:
    """Keep the figures of sessions, so that lists need not make them. Returns how many were kept. Never fails.

    Written outside of a save's own transaction, and left out where something else is being written.
    """
    try:
        made = list_figures(sessions, contexts)
        rows = [
            Summary(key=_key(session.document_hash, contexts[session.squad_id]), figures=one)
            for session, one in zip(sessions, made, strict=True)
            if one["problem"] is None
        ]
        with transaction.atomic():
            Summary.objects.bulk_create(rows, ignore_conflicts=True)
    except (OperationalError, OverBudgetError):
        log.info("figures of a saved session are not kept: made again when they are asked for")
        return 0
    return len(rows)
