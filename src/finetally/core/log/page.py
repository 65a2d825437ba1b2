"""Planned against done: the figures of both, one picture of both, and what differed, block by block."""

from __future__ import annotations

from typing import Literal

from typing_extensions import TypedDict

from finetally.core.floor.beats import BeatKind
from finetally.core.floor.replay import Played
from finetally.core.floor.timer import PlayedBeat
from finetally.core.log.as_done import DoneSession
from finetally.core.tally.measure import Tally, timetable_s
from finetally.core.tally.stave import ink_of, ribbon_of
from finetally.core.unfold.pace import TIME_EPS_S
from finetally.core.unfold.tape import LocatedBlock

LEAST_TOLD_S = 1.0
"""Differences of a block under a second are not told."""


class LoggedFigures(TypedDict):
    """What a session came to, seconds and counts. `counted`: reps in windows whose score was told; never estimates.

    Work, pause and density are those of the parts that count; `told_s`: how long it was said to be.
    """

    total_s: float
    timetable_s: float
    told_s: float | None
    work_s: float
    pause_s: float
    density: float | None
    reps: dict[str, int]
    effort: float
    load: float


class LoggedPicture(TypedDict):
    """The ink of a session: the names of its rows, marks as (row, start, seconds, level 0 to 4).

    `uptake`: the breathing trace at even steps of time, as share of capacity.
    """

    total_s: float
    rows: list[str]
    marks: list[tuple[int, float, float, int]]
    uptake: list[float]


DoneDifferenceKind = Literal["added", "skipped", "longer", "shorter", "waited", "paused"]


class DoneDifference(TypedDict):
    """What a block took more or less than planned, of which kind of beats; seconds, negative where it was less."""

    kind: DoneDifferenceKind
    of: BeatKind | Literal[""]
    block: int
    title: str
    seconds: float
    count: int


def figures_of(t: Tally, played: Played | None = None) -> LoggedFigures:
    """The figures of a planned session, or (`played`) of a done one, with the reps that were counted apart."""
    headline = t.headline
    density = headline.figures(t.methods)["density"]
    counted = _counted_blocks(t, played) if played is not None else frozenset()
    reps = {"called": 0, "paced": 0, "estimated": 0, "counted": 0}
    for visit in t.tape.visits:
        if visit.block in counted:
            kind = "counted"
        else:
            kind = "called" if visit.called else "paced" if visit.paced else "estimated"
        reps[kind] += visit.reps
    return {
        "total_s": t.tape.total_s,
        "timetable_s": timetable_s(t),
        "told_s": t.resolver.dose(t.session.announced_s) if t.session.announced_s is not None else None,
        "work_s": headline.work,
        "pause_s": headline.total - headline.work - headline.talk,
        "density": density,
        "reps": reps,
        "effort": t.rpe,
        "load": t.load,
    }


def _counted_blocks(t: Tally, played: Played) -> frozenset[int]:
    """The numbers of blocks, as the tape has them, whose every self-paced window has a score that was told.

    A change may have given a block another number while it ran: it is known by its id.
    """
    told: set[_Identity] = set()
    untold: set[_Identity] = set()
    for index, one in enumerate(played.played):
        if one.item.beat.self_paced and one.item.beat.kind == "work":
            (told if index in played.scores else untold).add(_identity(_block_of(played, one)))
    counted = told - untold
    return frozenset(number for number, of in enumerate(t.tape.blocks) if _identity(of) in counted)


_Identity = tuple[object, object]


def _identity(of: LocatedBlock) -> _Identity:
    return of.section, of.ident


def _block_of(played: Played, one: PlayedBeat) -> LocatedBlock:
    """The block of a beat, as it stood on the sheet that the beat is of."""
    return played.sheets[one.item.sheet].tape.blocks[one.item.beat.block]


def picture_of(t: Tally) -> LoggedPicture:
    """The ink of a tally."""
    rows, marks = ink_of(t)
    return {"total_s": round(t.tape.total_s, 3), "rows": rows, "marks": marks, "uptake": ribbon_of(t)}


def differences_of(done: DoneSession) -> list[DoneDifference]:
    """What was done otherwise than planned, by block in order; none without a run."""
    played = done.played
    if played is None:
        return []
    found = _Differences(played)
    before: PlayedBeat | None = None
    for one in played.played:
        if before is not None:
            found.add("waited", "", one, one.start - before.end)
        found.add("paused", "", one, one.paused_s)
        found.beat(one)
        before = one
    if played.over:
        found.skipped()
    return found.told()


class _Differences:
    def __init__(self, played: Played) -> None:
        self._played = played
        self._sums: dict[tuple[_Identity, DoneDifferenceKind, BeatKind | Literal[""]], DoneDifference] = {}

    def beat(self, one: PlayedBeat) -> None:
        """A played beat against what was planned of it."""
        beat = one.item.beat
        if one.added:
            self.add("added", beat.kind, one, one.seconds)
            return
        if beat.ends == "cap" and one.by_clock:
            return
        more = one.seconds - (beat.expected_s if beat.expected_s is not None else beat.s)
        self.add("longer" if more > 0 else "shorter", beat.kind, one, more)

    def skipped(self) -> None:
        """Beats that were never played."""
        seen = {(one.item.sheet, one.item.number) for one in self._played.played}
        for at, number in self._played.timer.queue.in_force:
            if (at, number) not in seen:
                laid = self._played.sheets[at]
                beat = laid.beats[number]
                self._put("skipped", beat.kind, beat.block, laid.tape.blocks[beat.block], -beat.s)

    def add(self, kind: DoneDifferenceKind, of: BeatKind | Literal[""], one: PlayedBeat, seconds: float) -> None:
        """So many seconds of a kind, in the block of a beat."""
        if abs(seconds) > TIME_EPS_S:
            self._put(kind, of, one.item.beat.block, _block_of(self._played, one), seconds)

    def _put(
        self,
        kind: DoneDifferenceKind,
        of: BeatKind | Literal[""],
        number: int,
        block: LocatedBlock,
        seconds: float,
    ) -> None:
        title = block.block.title or block.part
        fresh: DoneDifference = {
            "kind": kind, "of": of, "block": number, "title": title, "seconds": 0.0, "count": 0,
        }  # fmt: skip
        known = self._sums.setdefault((_identity(block), kind, of), fresh)
        known["seconds"] += seconds
        known["count"] += 1

    def told(self) -> list[DoneDifference]:
        """By block, what is worth telling."""
        worth = [one for one in self._sums.values() if abs(one["seconds"]) >= LEAST_TOLD_S]
        return sorted(worth, key=lambda one: one["block"])
