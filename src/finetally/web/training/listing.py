"""The list of sessions: searched, sorted, a page at a time. Reads no document whose figures are kept."""

from __future__ import annotations

from dataclasses import dataclass
from typing import Literal, get_args

from finetally.core.session.problems import DocumentError, Problem
from finetally.web.squads.actor import Actor
from finetally.web.squads.figuring_context import contexts_of
from finetally.web.training.figuring import ListFigures, list_figures
from finetally.web.training.models import Session

PAGE = 100
"""Sessions on a page."""

FigureName = Literal["total_s", "work_s", "density", "rpe", "load"]
SHARE = "share:"


@dataclass(frozen=True, slots=True)
class ListAsked:
    """Which sessions: put away or not, every word in title or tags, a tag, the order, the page from 1.

    `by`: changed, title, a figure, or share: with a row of the stave. `down`: largest, latest, last first.
    """

    archived: bool = False
    words: str = ""
    tag: str = ""
    by: str = "changed"
    down: bool = True
    page: int = 1


@dataclass(frozen=True, slots=True)
class ListPage:
    """One page of the sessions found, `total` in all. To choose from: `tags` (of all) and `rows` (of these)."""

    items: list[tuple[Session, ListFigures]]
    total: int
    tags: list[str]
    rows: list[str]


def named_sessions(actor: Actor) -> list[tuple[Session, ListFigures]]:
    """All sessions that are not put away, by title: to choose one from."""
    mine = Session.objects.filter(squad_id__in=actor.squads(), archived_at=None).select_related("squad")
    sessions = list(mine.order_by("title"))
    return list(zip(sessions, list_figures(sessions, contexts_of({one.squad for one in sessions})), strict=True))


def list_sessions(actor: Actor, asked: ListAsked) -> ListPage:
    """A page of the sessions that the actor sees, with their figures. Raises DocumentError for an unknown order."""
    known = ("changed", "title", *get_args(FigureName))
    if asked.by not in known and not asked.by.startswith(SHARE):
        raise DocumentError([Problem("by", repr(asked.by), ", ".join((*known, f"{SHARE}…")), "order")])
    mine = Session.objects.filter(squad_id__in=actor.squads(), archived_at__isnull=not asked.archived)
    sessions = list(mine.select_related("squad"))
    tags = sorted({tag for session in sessions for tag in session.tags})
    found = [session for session in sessions if _is_asked_for(session, asked)]
    contexts = contexts_of({session.squad for session in sessions})
    first = (asked.page - 1) * PAGE
    if asked.by in ("changed", "title"):
        ordered = sorted(found, key=lambda one: _plain_key(one, asked.by), reverse=asked.down)
        some = ordered[first : first + PAGE]
        items = list(zip(some, list_figures(some, contexts), strict=True))
    else:
        every = list(zip(found, list_figures(found, contexts), strict=True))
        every.sort(key=lambda pair: _figure_key(pair[1], asked.by), reverse=asked.down)
        items = every[first : first + PAGE]
    rows = sorted({row for _, figures in items for row in figures["patterns"]})
    return ListPage(items, len(found), tags, rows)


def _is_asked_for(session: Session, asked: ListAsked) -> bool:
    text = " ".join([session.title, *session.tags]).lower()
    return (not asked.tag or asked.tag in session.tags) and all(
        word in text for word in asked.words.lower().split()
    )


def _plain_key(session: Session, by: str) -> tuple[str, str]:
    return (session.title.lower() if by == "title" else session.updated_at.isoformat(), str(session.pk))


def _figure_key(figures: ListFigures, by: str) -> float:
    if by.startswith(SHARE):
        return figures["patterns"].get(by.removeprefix(SHARE), 0.0)
    values: dict[str, float | None] = {
        "total_s": figures["total_s"], "work_s": figures["work_s"], "density": figures["density"],
        "rpe": figures["rpe"], "load": figures["load"],
    }  # fmt: skip
    value = values[by]
    # What cannot be figured stands below all that can be.
    return -1.0 if value is None else value
