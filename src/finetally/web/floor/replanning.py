"""The plan of a run while it runs: fewer minutes, other movements, something added; stations for who is here."""

from __future__ import annotations

from uuid import UUID

from finetally.core.board.problems import BoardError
from finetally.core.compare.fit import FitWay
from finetally.core.floor.document import Run
from finetally.core.floor.replan.changes import FloorOffer, added_after, changes_now
from finetally.core.floor.replan.short_of_time import ways_to_end
from finetally.core.floor.replan.stations import StationsWay, stations_for
from finetally.core.methods.given import Given
from finetally.core.movements.library import Library
from finetally.core.session.json_value import JsonObject
from finetally.core.session.problems import DocumentError, Problem
from finetally.core.wall.reading import read_wall
from finetally.web.floor.runs import as_run, event_of, the_run
from finetally.web.plan.entries import the_entry, wrong
from finetally.web.squads.actor import Actor
from finetally.web.squads.figuring_context import context_of

MOST_PEOPLE = 200
"""People at one session's stations."""


def _at(actor: Actor, run_id: UUID, t: float) -> tuple[Run, Library]:
    """A run as it stands at `t`, with the movements that its squad knows."""
    run = the_run(actor, run_id)
    events = [event_of(one) for one in run.events.select_related("person")]
    return as_run(run, [one for one in events if one.t <= t], until=t), context_of(run.squad).library


def minutes_left(actor: Actor, run_id: UUID, t: float, left_s: float) -> list[FitWay]:
    """Ways to be done `left_s` seconds after `t`, for those who plan. Raises DocumentError."""
    run, library = _at(actor, run_id, t)
    return ways_to_end(run, left_s, library=library)


def offers(actor: Actor, run_id: UUID, t: float) -> list[FloorOffer]:
    """What may be changed of a run at `t`, for those who plan. Raises DocumentError."""
    run, library = _at(actor, run_id, t)
    return changes_now(run, library=library)


def added_text(actor: Actor, run_id: UUID, t: float, text: str) -> list[JsonObject]:
    """The edits that put what a wall says in before what has not begun at `t`. Raises DocumentError."""
    run, library = _at(actor, run_id, t)
    try:
        reading = read_wall(text, library=library)
    except BoardError as error:
        raise DocumentError(
            Problem(f"line {p.line}, column {p.column}", p.found, p.allowed, p.code) for p in error.problems
        ) from None
    if not reading.document.get("blocks"):
        raise wrong("text", "nothing that could be read", "a block and its movements")
    return added_after(run, reading.document, library=library)


def station_ways(actor: Actor, entry_id: UUID, people: int) -> list[StationsWay]:
    """Ways to lay an entry's stations out for so many people, for those who plan. Raises DocumentError."""
    entry = the_entry(actor, entry_id)
    if entry.document is None:
        raise wrong("entry", "other training", "an entry with a session")
    if not 1 <= people <= MOST_PEOPLE:
        raise wrong("people", str(people), f"1 to {MOST_PEOPLE}")
    context = context_of(entry.squad)
    return stations_for(
        entry.document, people, library=context.library, methods=context.methods, given=context.given(Given())
    )
