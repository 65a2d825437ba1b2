"""Changes of the plan that a coach may make while it runs, each ready as edits for a `change`."""

from __future__ import annotations

import math
from collections.abc import Iterator, Sequence
from typing import Literal, NotRequired

from typing_extensions import TypedDict

from finetally.core.compare.changes import series_of, without
from finetally.core.edits.edit import InsertEdit, SetEdit, edit_json
from finetally.core.floor.document import Run
from finetally.core.floor.replan.to_come import to_come
from finetally.core.floor.replay import replay
from finetally.core.formats.names import format_of
from finetally.core.movements.library import Library
from finetally.core.session.clocks import Rotation
from finetally.core.session.ids import ids_of, with_other_ids
from finetally.core.session.json_value import JsonObject, objects
from finetally.core.session.problems import PathPart
from finetally.core.session.reading import parse_session
from finetally.core.session.step import Option, Step
from finetally.core.unfold.tape import LocatedBlock
from finetally.core.unfold.unfold import blocks_of

OfferKind = Literal["rounds-more", "rounds-fewer", "leave-out", "option", "movement"]
MOST_OTHERS = 2
"""Movements offered in place of one, of the easier ones and of the harder ones."""


class FloorOffer(TypedDict):
    """A change that may be made now: of which block, by its number and title, and its edits.

    `name`: the movement that is done otherwise; `to`: the option's label, or the other movement's name.
    """

    kind: OfferKind
    block: int
    title: str
    name: NotRequired[str]
    to: NotRequired[str]
    edits: list[JsonObject]


def changes_now(run: Run, *, library: Library) -> list[FloorOffer]:
    """What may be changed at the run's `until`, in the order of the session: of blocks that are not done yet.

    Rounds one more or fewer; left out, where it has not begun; each movement as one of its step's options, or the
    nearest easier or harder one, for all. Raises DocumentError as `replay`.
    """
    played = replay(run, library=library)
    coming = to_come(played)
    session = parse_session(played.session)
    # Movements that the session itself defines, too.
    own = library.with_definitions(session.movements)
    blocks = blocks_of(session)
    offers: list[FloorOffer] = []
    rounds = _rounds(played.session, blocks)
    for number in coming.blocks:
        of = blocks[number]
        offers.extend(rounds.get(number, []))
        if int(of.path[1]) >= coming.first and len(blocks) > 1:
            gone = [edit_json(edit) for edit in without(session, [of])]
            offers.append({"kind": "leave-out", "block": number, "title": _title(of), "edits": gone})
        for at, step in steps_of(of):
            offers.extend(_otherwise(of, number, at, step, own))
    return offers


def added_after(run: Run, added: JsonObject, *, library: Library) -> list[JsonObject]:
    """The edits that put another session's entries in before what has not begun, its movements too.

    Raises DocumentError as `replay`, or where the other cannot be read.
    """
    parse_session(added)
    played = replay(run, library=library)
    first = to_come(played).first
    added = with_other_ids(added, ids_of(played.session))
    entries = [*objects(added["blocks"])]
    edits = [InsertEdit(path=["blocks"], index=first + n, value=entry) for n, entry in enumerate(entries)]
    known = {one.get("key") for one in objects(played.session.get("movements"))}
    fresh = [one for one in objects(added.get("movements")) if one.get("key") not in known]
    made = [edit_json(edit) for edit in edits]
    if fresh:
        movements = [*objects(played.session.get("movements")), *fresh]
        made.append(edit_json(SetEdit(path=["movements"], value=list(movements))))
    return made


def _title(of: LocatedBlock) -> str:
    return of.block.title or format_of(of.block)["name"]


def _rounds(document: JsonObject, blocks: Sequence[LocatedBlock]) -> dict[int, list[FloorOffer]]:
    """One round more and one fewer, by the number of the block, where it has rounds."""
    numbers = {tuple(of.edit_path): number for number, of in enumerate(blocks)}
    found: dict[int, list[FloorOffer]] = {}
    kinds: tuple[tuple[OfferKind, bool], ...] = (("rounds-more", True), ("rounds-fewer", False))
    for kind, longer in kinds:
        for series in series_of(document, longer=longer):
            if not series or series[0].kind != "rounds":
                continue
            edits = [edit_json(edit) for edit in series[0].edits]
            path = series[0].edits[0].path
            number = next(n for at, n in numbers.items() if tuple(path[: len(at)]) == at)
            offer: FloorOffer = {"kind": kind, "block": number, "title": _title(blocks[number]), "edits": edits}
            found.setdefault(number, []).append(offer)
    return found


def steps_of(of: LocatedBlock) -> Iterator[tuple[list[PathPart], Step]]:
    """Each step of a block with its path; in a rotation those of all stations."""
    clock = of.block.clock
    if isinstance(clock, Rotation):
        for index, station in enumerate(clock.stations):
            for n, step in enumerate(station.steps):
                yield [*of.edit_path, "clock", "stations", index, "steps", n], step
        return
    for n, step in enumerate(of.block.steps or ()):
        yield [*of.edit_path, "steps", n], step


def _otherwise(
    of: LocatedBlock, number: int, at: Sequence[PathPart], step: Step, library: Library
) -> Iterator[FloorOffer]:
    movement = library.get(step.movement)
    name = (movement.name if movement is not None else None) or step.movement
    for option in step.options or ():
        edits = _as_option(at, step, option)
        if edits:
            made = [edit_json(edit) for edit in edits]
            yield {
                "kind": "option",
                "block": number,
                "title": _title(of),
                "name": name,
                "to": option.label,
                "edits": made,
            }
    easier, harder = ((movement.easier or []), (movement.harder or [])) if movement is not None else ([], [])
    for key in (*easier[:MOST_OTHERS], *harder[:MOST_OTHERS]):
        other = library.get(key)
        if other is not None:
            edit = edit_json(SetEdit(path=[*at, "movement"], value=key))
            to = other.name or key
            yield {
                "kind": "movement",
                "block": number,
                "title": _title(of),
                "name": name,
                "to": to,
                "edits": [edit],
            }


def _as_option(at: Sequence[PathPart], step: Step, option: Option) -> list[SetEdit]:
    """The edits that make a step what an option of it is; none where its dose cannot be told so."""
    edits = [
        SetEdit(path=[*at, key], value=value)
        for key in ("movement", "reps", "sides", "load")
        if (value := option.model_dump(mode="json", exclude_unset=True).get(key)) is not None
    ]
    if option.dose_factor is not None and option.reps is None:
        for key in ("reps", "seconds", "metres"):
            dose = getattr(step, key)
            if dose is None:
                continue
            if isinstance(dose, bool) or not isinstance(dose, int | float):
                return []
            scaled = dose * option.dose_factor
            value = max(1, math.floor(scaled + 1e-9)) if key == "reps" else scaled
            edits.append(SetEdit(path=[*at, key], value=value))
    return edits
