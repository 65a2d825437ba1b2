"""Session document → board text: the wall form that people read, and the full form that loses nothing."""

from __future__ import annotations

import json
import re
from collections.abc import Iterator, Sequence
from typing import TypeGuard

from finetally.core.board.head_text import Head, call_text, clock_phrases, said_phrases
from finetally.core.board.names import NameBook
from finetally.core.board.phrases import (
    AT_EACH,
    CLOCKS,
    LED_KINDS,
    OF_BLOCK,
    OF_ROTATION,
    PRESETS,
    TAKE_TURNS,
    PhraseKey,
)
from finetally.core.board.problems import BoardError
from finetally.core.board.reader import (
    TITLE_WORD,
    TOLD_LENGTH,
    TRAILER_BEGINS,
    TRAILER_ENDS,
    BoardReading,
    is_line,
    read_board,
)
from finetally.core.board.step_text import dose_text, quality_texts, step_of
from finetally.core.board.unsaid import Patch, unsaid
from finetally.core.board.values import count_text, number, quoted, time_text
from finetally.core.measures import Units
from finetally.core.movements.library import Library
from finetally.core.session.clocks import Rotation, Station
from finetally.core.session.document import Block, BlockOrSection, Section, Session
from finetally.core.session.ids import ids_with_scores
from finetally.core.session.json_value import JsonObject
from finetally.core.session.parts import as_written, blocks_of_entry, slot_count, without
from finetally.core.session.reading import parse_session
from finetally.core.session.step import Option, Step
from finetally.core.session.values import AmountRange, PerRoundValue, SecondsValue

LIKE_WORK = re.compile(r"\d\s*/\s*\d")
"""What a title has in common with work: `HIIT 40/20`."""

MAY = {"skip": "(optional)", "exit": "(or stop here)"}


def write_wall(document: JsonObject, *, library: Library, units: Units | None = None) -> str:
    """The wall form of a document: all that a person needs, no ids. Raises DocumentError.

    `units`: for somebody who only reads it; None is the document's own way, which is read again.
    """
    session = parse_session(document)
    return WallWriter(NameBook(library.with_definitions(session.movements)), units=units).write(session)


def what_the_wall_leaves_out(document: JsonObject, *, library: Library) -> Patch | None:
    """What of a document has no place on the wall: ids, unknown keys, definitions, values no phrase says."""
    wall = write_wall(document, library=library)
    session = parse_session(document)
    named = library.with_definitions(session.movements)
    return unsaid(read_board(wall, library=named).document, document)


SAME_IN_ANY_FORMAT = ("announced_s", "talk_s", "talk_over", "rest_as", "calls", "rpe", "rest_after_s")


def headings(entries: Sequence[BlockOrSection]) -> list[str]:
    """How each block and section goes by its numbers, as on the wall: no title, no steps, no talk."""
    wall = WallWriter(NameBook(Library(())))
    lines = []
    for entry in entries:
        if isinstance(entry, Section):
            lines.append(wall.together(entry, titled=False).removesuffix(":"))
        for block in blocks_of_entry(entry):
            lines.append(", ".join(wall.phrases(without(block, *SAME_IN_ANY_FORMAT))))
    return lines


def write_full(document: JsonObject, *, library: Library) -> str:
    """The full form: the wall form, and a short trailer for the rest. Reading it gives the same document."""
    wall = write_wall(document, library=library)
    patch = what_the_wall_leaves_out(document, library=library)
    if patch is None:
        return wall
    return f"{wall}\n{TRAILER_BEGINS}\n{json.dumps(patch, ensure_ascii=False)}\n{TRAILER_ENDS}\n"


def read_over(text: str, before: JsonObject, *, library: Library) -> BoardReading:
    """Read a wall text that was edited from `before`: ids and all that the wall leaves out stay with their parts.

    Raises BoardError.
    """
    if not before.get("blocks"):
        # A page that is still empty has nothing to leave out.
        return read_board(text, library=library)
    return read_board(text, library=library, unsaid=what_the_wall_leaves_out(before, library=library))


def _whole_minutes(value: PerRoundValue) -> TypeGuard[int]:
    """Whether a length is told in whole minutes."""
    return isinstance(value, int) and value > 0 and value % 60 == 0


def _told(value: SecondsValue) -> str | None:
    """A length told as it stands behind a title: in minutes where they are whole."""
    if _whole_minutes(value):
        return f"{value // 60} min"
    if isinstance(value, int | float):
        return time_text(value)
    if (
        isinstance(value, AmountRange)
        and value.plan is None
        and _whole_minutes(value.low)
        and _whole_minutes(value.high)
    ):
        return f"{value.low // 60}-{value.high // 60} min"
    return None


def _space(space: list[float] | float | str | None) -> Iterator[str]:
    """The line of a room's size: two sides, one number, or whatever words stand there."""
    if isinstance(space, list) and space:
        yield f"space: {' x '.join(number(one) for one in space)} m"
    elif isinstance(space, int | float):
        yield f"space: {number(space)} m"
    elif space:
        yield f"space: {' '.join(str(space).split())}"


def _kit_text(kit: list[str] | str | None) -> list[str]:
    """What is said of kit; nothing where a name of it cannot stand in quotes."""
    names = [quoted(one) for one in ([kit] if isinstance(kit, str) else kit or ())]
    return [f"kit {', '.join(name for name in names if name)}"] if names and all(names) else []


def _title_text(title: str, *, alone: bool) -> str:
    """A title so that it reads back: behind `title:` where it looks like work, in quotes where it ends in a length.

    `alone`: without blocks below, where any title could be something to do.
    """
    *_, last = title.rpartition(",")
    if "," in title and TOLD_LENGTH.fullmatch(last.strip()) and '"' not in title:
        return f'title: "{title}"'
    plain = not (alone or is_line(title) or TITLE_WORD.match(title) or LIKE_WORK.search(title))
    return title if plain else f"title: {title}"


class WallWriter:
    """Writes parts of a session as they stand on the wall; in `units` for paper, which nothing reads again."""

    def __init__(self, names: NameBook, *, quoting: bool = True, units: Units | None = None) -> None:
        self._names = names
        self._quoting = quoting
        self._units = units
        self._scored: set[str] = set()

    def write(self, session: Session) -> str:
        """The whole session."""
        self._scored = ids_with_scores({"blocks": [as_written(entry) for entry in session.blocks]})
        lines = [self._title(session), *self._session(session)]
        for entry in session.blocks:
            lines.append("")
            lines.extend(self._section(entry) if isinstance(entry, Section) else self._block(entry))
        if session.blocks and lines[-1].startswith("rest "):
            # With nothing behind it, a rest below would be one between the rounds.
            lines[-1] += " after it"
        return "\n".join(lines) + "\n"

    @staticmethod
    def _title(session: Session) -> str:
        title = _title_text(" ".join(session.title.split()) or "Session", alone=not session.blocks)
        told = None if session.announced_s is None else _told(session.announced_s)
        return f"{title}, {told}" if told else title

    @staticmethod
    def _session(session: Session) -> Iterator[str]:
        for line in (session.notes or "").splitlines():
            yield f"note: {line}".rstrip()
        cautions = session.cautions or []
        for line in cautions if isinstance(cautions, list) else cautions.splitlines():
            if line.strip():
                yield f"caution: {' '.join(line.split())}"
        if session.tags:
            yield f"tags: {', '.join(session.tags)}"
        if session.people:
            yield f"people: {session.people}"
        yield from _space(session.space_m)
        slack = time_text(session.slack_s)
        if slack:
            yield f"slack: {slack}"
        if session.rpe is not None:
            yield f"effort: {number(session.rpe)} of 10"
        if session.stands_alone:
            yield "stands alone"

    @staticmethod
    def together(section: Section, *, titled: bool = True) -> str:
        """The line that opens a section: its title, how often, the rest between."""
        label = quoted(section.section) if titled else None
        parts = [f"together {label}" if label else "together"]
        times, rest = count_text(section.times), time_text(section.rest_between_s)
        if times:
            parts.append(f"{times} times")
        if rest:
            parts.append(f"{rest} between")
        return f"{', '.join(parts)}:"

    def _section(self, section: Section) -> Iterator[str]:
        yield self.together(section)
        for block in section.blocks:
            yield from self._block(block)
        yield "end together"
        after = time_text(section.rest_after_s)
        if after:
            yield f"rest {after}"

    def _block(self, block: Block) -> Iterator[str]:
        yield self._head(block)
        for line in (block.notes or "").splitlines():
            yield f"  note: {line}".rstrip()
        yield from self.steps(block)
        rest = time_text(block.rest_after_s)
        if rest:
            yield f"rest {rest}"

    def steps(self, block: Block) -> Iterator[str]:
        """The lines of a block's steps, stations and options, indented."""
        clock = block.clock
        if isinstance(clock, Rotation):
            for station in clock.stations:
                yield self._station(station)
                yield from self._steps(station.steps, "    ")
        else:
            windows = block.part == "cool-down" and clock.windowed
            yield from self._steps(block.steps or (), "  ", windows=windows)

    def _head(self, block: Block) -> str:
        opening = [(block.part or "main").capitalize()]
        label = quoted(block.title) if block.title else None
        opening += [label] if label else []
        opening += [MAY[block.optional]] if block.optional else []
        return f"{' '.join(opening)}: {', '.join(self.phrases(block))}".rstrip()

    def phrases(self, block: Block) -> Iterator[str]:
        """What a block's head line says after the colon, phrase by phrase."""
        clock = block.clock
        head = Head(block, clock)
        said: set[PhraseKey] = set()
        preset = next((one for one in PRESETS if all(head.value(key) == v for key, v in one.values)), None)
        if preset is not None and clock.kind not in LED_KINDS:
            said.update(key for key, _ in preset.values)
            yield preset.words
        if isinstance(clock, Rotation):
            yield from said_phrases((CLOCKS[2], *OF_ROTATION), head, said)
            yield AT_EACH
            yield from clock_phrases(Head(block, clock.inner), set())
        else:
            yield from clock_phrases(head, said)
        if clock.slotted and block.group is None and slot_count(block.steps or ()) > 1:
            yield TAKE_TURNS.words
        yield from said_phrases(OF_BLOCK, head, said)
        if block.rpe is not None:
            yield f"effort {number(block.rpe)} of 10"
        if block.rest_as:
            yield f"resting with {self._names.words_of(block.rest_as)}"
        for call in block.calls or ():
            yield from call_text(call)
        name = quoted(block.id) if block.id in self._scored and block.id is not None else None
        if name:
            yield f"scored as {name}"

    def _station(self, station: Station) -> str:
        parts = [f'at "{station.name}"' if quoted(station.name) else "at"]
        rounds = count_text(station.rounds)
        if rounds:
            parts.append(f"{rounds} rounds")
        if station.capacity:
            parts.append(f"room for {station.capacity}")
        return f"  {', '.join([*parts, *_kit_text(station.kit)])}:"

    def _steps(self, steps: Sequence[Step], indent: str, *, windows: bool = False) -> Iterator[str]:
        pieces: list[str] = []
        for index, step in enumerate(steps):
            shares = windows and step.seconds is None and self._names.holds_a_side(step.movement)
            pieces.append(self.piece(step) + (", sides share the window" if shares else ""))
            joined = step.chain is True and index < len(steps) - 1 and not step.options
            if not joined:
                yield indent + " + ".join(pieces)
                pieces = []
                for option in step.options or ():
                    yield f"{indent}  {self._option(option)}"

    def piece(self, step: Step) -> str:
        """One movement with its dose and what goes with it; without quotes where nobody reads it back."""
        name = self._names.words_with(step)
        name = name if self._quoting else name.strip('"')
        return dose_text(step, self._units) + name + "".join(quality_texts(step, self._units))

    def _option(self, option: Option) -> str:
        body = self._of_option(option)
        label = quoted(option.label) or chr(34) * 2
        if not self._quoting:
            label = "" if option.label in (body, option.level) else option.label
        parts = [label] if label else []
        if option.level:
            parts.append(option.level)
        said = f"or {', '.join([*parts, *_kit_text(option.kit)])}"
        return f"{said}: {body}" if body else said

    def _of_option(self, option: Option) -> str:
        """What an option changes of its step."""
        step = step_of(option)
        name = self._names.words_with(step) if option.movement else ""
        body = f"{dose_text(step, self._units)}{name}{''.join(quality_texts(step, self._units))}".strip(" ,")
        if option.dose_factor is None:
            return body
        share = f"{number(option.dose_factor)} of the dose"
        return f"{body}, {share}" if body else share


__all__ = ["BoardError", "read_over", "what_the_wall_leaves_out", "write_full", "write_wall"]
