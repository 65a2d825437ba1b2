"""Short of time on the floor: ways to end what has not begun within the minutes that are left."""

from __future__ import annotations

from finetally.core.compare.fit import FitWay, fit_to_time
from finetally.core.floor.document import Run
from finetally.core.floor.replan.to_come import ToCome, to_come
from finetally.core.floor.replay import replay
from finetally.core.methods.given import Given
from finetally.core.movements.library import Library
from finetally.core.session.json_value import JsonObject, JsonValue


def ways_to_end(run: Run, left_s: float, *, library: Library) -> list[FitWay]:
    """Up to three ways to be done within `left_s` seconds from the run's `until`, the closest first.

    Only entries that have not begun are touched; `timetable_s` is from now on, with what still runs. The edits are
    of the session as it stands, for a `change`. None where what has begun takes longer. Raises DocumentError as
    `replay`.
    """
    played = replay(run, library=library)
    coming = to_come(played)
    room = left_s - coming.begun_s
    if room <= 0 or not coming.rest["blocks"]:
        return []
    given: Given = played.given.model_copy(update={"until": None})
    ways = fit_to_time(coming.rest, room, library=library, methods=run.methods, given=given)
    return [
        {**way, "edits": shifted(way["edits"], coming), "timetable_s": way["timetable_s"] + coming.begun_s}
        for way in ways
    ]


def shifted(edits: list[JsonObject], coming: ToCome) -> list[JsonObject]:
    """Edits that were made on what has not begun, as edits of the whole session."""
    return [_shifted(edit, coming.first) for edit in edits]


def _shifted(edit: JsonObject, by: int) -> JsonObject:
    made: JsonObject = dict(edit)
    for path_key, index_key in (("path", "index"), ("to_path", "to_index")):
        path: JsonValue = edit.get(path_key, edit["path"])
        if not isinstance(path, list) or path[:1] != ["blocks"]:
            continue
        index = edit.get(index_key)
        if len(path) == 1 and isinstance(index, int):
            made[index_key] = index + by
        elif len(path) > 1 and isinstance(path[1], int) and path_key in edit:
            made[path_key] = ["blocks", path[1] + by, *path[2:]]
    return made
