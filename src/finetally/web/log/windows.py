"""The windows of a session in which scores are made, and what was made before in windows of the same shape."""

from __future__ import annotations

from collections.abc import Collection, Iterator, Mapping
from dataclasses import dataclass
from datetime import date
from typing import Any, NamedTuple

from finetally.core.formats.names import format_of
from finetally.core.formats.shape import shape_of
from finetally.core.learn.pace import better
from finetally.core.log.movements import mainly_of
from finetally.core.session.document import Block
from finetally.core.session.problems import DocumentError
from finetally.core.session.reading import parse_session
from finetally.core.tally.measure import Tally
from finetally.core.unfold.unfold import blocks_of
from finetally.web.log.models import Result
from finetally.web.versions import version_of

MOST_LOOKED_BACK = 2000
"""Earlier results that are looked through for the last and the best of each person, the newest first."""

SCORE_NAMES = ("rounds", "reps", "rung", "time_s")
"""What a score is told in."""


def block_numbers(document: Any) -> dict[str, int]:
    """The number of each block of a document that has an id; none of a document that cannot be read."""
    try:
        blocks = blocks_of(parse_session(document))
    except DocumentError:
        return {}
    return {of.block.id: number for number, of in enumerate(blocks) if of.block.id is not None}


def block_shape(block: Block) -> str:
    """The name of a block's shape: alike for blocks that are the same but for the coach's own words."""
    return version_of([one.model_dump(mode="json", exclude_none=True) for one in shape_of([block])])


class BlockKind(NamedTuple):
    """What a block is: the name of its shape, the key of its format, and of what most of its work is, if any."""

    shape: str = ""
    format: str = ""
    movement: str = ""


def block_kinds(t: Tally) -> list[BlockKind]:
    """What each block of a session is, in order of the file."""
    found = []
    for of, mainly in zip(t.tape.blocks, mainly_of(t), strict=True):
        fits = format_of(of.block)["fits"]
        found.append(BlockKind(block_shape(of.block), fits[0]["key"] if fits else "", mainly))
    return found


class ScoredWindow(NamedTuple):
    """A self-paced window: its block by number, its pass, its place; what it is called; rounds or a time."""

    block: int
    section_pass: int
    place: int
    title: str
    kind: str
    shape: str


def windows_of(t: Tally) -> Iterator[ScoredWindow]:
    """The self-paced windows of a session in order of the file, each pass by itself."""
    passes: dict[int, int] = {}
    for run in t.tape.runs:
        number = run.block
        section_pass = passes[number] = passes.get(number, -1) + 1
        of = t.tape.blocks[number]
        for index, score in enumerate(run.scores):
            kind = "time" if "time_s" in score else "rounds"
            title = of.block.title or of.part
            yield ScoredWindow(number, section_pass, index, title, kind, block_shape(of.block))


@dataclass(frozen=True, slots=True)
class EarlierHere:
    """What somebody made in a window of this shape before: last, when, and at best."""

    last: Mapping[str, Any]
    on: date
    best: Mapping[str, Any]


def earlier_by_shape(
    people: Collection[int], shapes: Collection[str], before: date
) -> dict[tuple[int, str], EarlierHere]:
    """The last and the best score of each person (by key) in windows of some shapes before a day. One query."""
    found: dict[tuple[int, str], EarlierHere] = {}
    made = Result.objects.filter(
        person__in=people, shape__in=shapes, used=True, unfinished="", entry__day__lt=before,
        entry__removed_at=None,
    )  # fmt: skip
    rows = made.order_by("-entry__day", "-id").values_list("person", "shape", "score", "entry__day")
    for person, shape, score, day in reversed(rows[:MOST_LOOKED_BACK]):
        if not score or person is None:
            continue
        known = found.get((person, shape))
        best = score if known is None else better(known.best, score)
        found[person, shape] = EarlierHere(score, day, best)
    return found


def last_results(people: Collection[int], shapes: Collection[str], before: date) -> dict[tuple[int, str], Result]:
    """The last used result of each person (by key) in windows of some shapes before a day. One query."""
    made = Result.objects.filter(
        person__in=people, shape__in=shapes, used=True, unfinished="", entry__day__lt=before,
        entry__removed_at=None,
    ).order_by("-entry__day", "-id")  # fmt: skip
    found: dict[tuple[int, str], Result] = {}
    for one in made.only("person", "shape", "options")[:MOST_LOOKED_BACK]:
        if one.person_id is not None:
            found.setdefault((one.person_id, one.shape), one)
    return found
