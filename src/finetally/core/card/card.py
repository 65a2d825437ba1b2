"""What stands on a session's card: enough to run it from paper alone."""

from __future__ import annotations

from collections.abc import Container, Iterator, Sequence

from typing_extensions import TypedDict

from finetally.core.board.names import NameBook
from finetally.core.board.writer import WallWriter
from finetally.core.card.cautions import cautions_of
from finetally.core.formats.names import format_of
from finetally.core.measures import Units
from finetally.core.session.clocks import Rotation
from finetally.core.tally.kit import kit_needed
from finetally.core.tally.measure import Tally, timetable_s
from finetally.core.unfold.calls import calls_of
from finetally.core.unfold.tape import Address, BlockRun, Identity, LocatedBlock

MAX_MARKS = 12
"""Times listed of one block: more do not fit beside its steps."""

CALL_WORDS = {
    "count-in": "count in 3 s before work",
    "half": "half-way in windows from 20 s",
    "ten-left": "ten left in windows from 30 s",
    "switch": "the switch of sides",
    "next": "the next movement when a rest begins",
    "kit": "kit to fetch when a rest begins",
}


class Mark(TypedDict):
    """A moment on the running clock, in seconds from the start, and what begins.

    `about`: under a self-paced clock it is only expected then.
    """

    at_s: float
    what: str
    about: bool


class CardBlock(TypedDict):
    """A block on the card. `lines` are the steps as on the wall; `marks` when it and its rounds begin."""

    title: str
    part: str
    says: str
    notes: list[str]
    lines: list[str]
    marks: list[Mark]
    calls: list[str]
    rest_after_s: float
    score: bool
    optional: str | None


class KitLine(TypedDict):
    """Kit to put out: how many, of what weight; `there`: how many of it the hall has, where that is known."""

    kit: str
    kg: float | None
    count: int
    there: int | None


class CardOption(TypedDict):
    """A step that some do otherwise: its movement, the option that they take, their names on the wall."""

    movement: str
    option: str
    names: list[str]


class Card(TypedDict):
    """The whole card. Times in seconds; `units`: what its lines tell masses and distances in."""

    title: str
    announced_s: float | None
    timetable_s: float
    total_s: float
    people: int | None
    notes: list[str]
    blocks: list[CardBlock]
    kit: list[KitLine]
    others: list[CardOption]
    cautions: list[str]
    units: Units


def card_of(
    t: Tally, others: Sequence[CardOption] = (), units: Units = "metric", *, people: int | None = None
) -> Card:
    """Lay out a session's card from its tally.

    `others`: who does which step differently; `units`: the reader's; `people`: how many are expected, where that is
    known better than from the session.
    """
    wall = WallWriter(NameBook(t.library), quoting=False, units=units)
    announced = t.session.announced_s
    return {
        "title": t.session.title,
        "announced_s": t.resolver.dose(announced) if announced is not None else None,
        "timetable_s": timetable_s(t),
        "total_s": t.tape.total_s,
        "people": t.session.people,
        "notes": (t.session.notes or "").splitlines(),
        "blocks": _blocks(t, wall),
        "kit": [
            {"kit": one.kit, "kg": one.kg, "count": one.pieces, "there": t.given.kit.get(one.kit)}
            for one in kit_needed(t, people)
        ],
        "others": list(others),
        "cautions": cautions_of(t.session),
        "units": units,
    }


def _blocks(t: Tally, wall: WallWriter) -> list[CardBlock]:
    runs: dict[int, list[BlockRun]] = {}
    for run in t.tape.runs:
        runs.setdefault(run.block, []).append(run)
    kinds: dict[int, set[str]] = {}
    for call in calls_of(t.tape):
        kinds.setdefault(t.tape.segments[call.segment].block, set()).add(call.kind)
    return [_block(t, wall, number, runs[number], kinds.get(number, set())) for number in sorted(runs)]


def _block(t: Tally, wall: WallWriter, number: int, runs: list[BlockRun], kinds: Container[str]) -> CardBlock:
    of = t.tape.blocks[number]
    block = of.block
    after = runs[-1].end - runs[-1].clock_end
    return {
        "title": block.title or format_of(block)["name"],
        "part": of.part,
        "says": ", ".join(wall.phrases(block)),
        "notes": (block.notes or "").splitlines(),
        "lines": list(wall.steps(block)),
        "marks": _marks(t, runs),
        "calls": _calls(of, kinds),
        "rest_after_s": after,
        "score": any(run.scores for run in runs),
        "optional": block.optional,
    }


def _marks(t: Tally, runs: list[BlockRun]) -> list[Mark]:
    marks = [mark for run in runs for mark in _of_run(t, run, len(runs) > 1)]
    return marks if len(marks) <= MAX_MARKS else [*marks[: MAX_MARKS - 1], marks[-1]]


def _of_run(t: Tally, run: BlockRun, several: bool) -> Iterator[Mark]:
    of = t.tape.blocks[run.block]
    section_pass = f"pass {run.section_pass + 1}, " if several and run.section_pass is not None else ""
    about = of.work_clock.self_paced
    if run.clock_start > run.start:
        yield {"at_s": run.start, "what": f"{section_pass}talk", "about": False}
    elif of.block.talk_over and of.block.talk_s:
        yield {"at_s": run.start, "what": f"{section_pass}talk, people move", "about": False}
    yield {"at_s": run.clock_start, "what": f"{section_pass}start", "about": False}
    for start, what in _turns(t, run):
        if start > run.clock_start:
            yield {"at_s": start, "what": f"{section_pass}{what}", "about": about}


def _turns(t: Tally, run: BlockRun) -> Iterator[tuple[float, str]]:
    """When the rounds, sets, groups, stations and repeats of a run begin, read off the order of its steps."""
    of = t.tape.blocks[run.block]
    block = of.block
    size = block.group if isinstance(block.group, int) else 0
    word = "round" if (block.visit or "rounds") == "rounds" else "set"
    last: tuple[int | None, Identity | None] | None = None
    last_step, number = -1, 1
    visit: int | None = None
    for index in range(run.first_segment, run.last_segment):
        segment = t.tape.segments[index]
        if segment.visit is None:
            continue
        step, at = t.tape.visits[segment.visit].step, segment.owner
        place = int(step.path[-1])
        here = (at.repeat, at.station)
        if last is not None and here != last:
            number = 1
            yield segment.start, _where(of, at)
        elif size and last is not None and place // size != last_step // size:
            yield segment.start, step.movement.name or step.key
        elif not size and visit != segment.visit and place <= last_step and not (block.mirror and at.repeat):
            # A step that stands no later than the one before: the list has begun again.
            number += 1
            yield segment.start, f"{word} {number}"
        last, last_step, visit = here, place, segment.visit


def _where(of: LocatedBlock, at: Address) -> str:
    clock = of.block.clock
    if at.station is not None and isinstance(clock, Rotation):
        names = {s.id if s.id is not None else i: s.name for i, s in enumerate(clock.stations)}
        return names.get(at.station, str(at.station))
    return f"time {(at.repeat or 0) + 1}"


def _calls(of: LocatedBlock, kinds: Container[str]) -> list[str]:
    own = of.block.calls
    if own is not None:
        return [call.say for call in own]
    return [words for kind, words in CALL_WORDS.items() if kind in kinds]
