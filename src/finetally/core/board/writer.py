"""Session document → board text: the wall form that people read, and the full form that loses nothing."""

from __future__ import annotations

import json
from collections.abc import Iterator, Sequence
from typing import Any, TypeGuard

from finetally.core.board.head_text import call_text, clock_phrases, said_phrases, slots_of_clock, value_of
from finetally.core.board.names import NameBook
from finetally.core.board.phrases import (
    AT_EACH,
    CLOCKS,
    OF_BLOCK,
    OF_ROTATION,
    PRESETS,
    TAKE_TURNS,
    PhraseKey,
)
from finetally.core.board.problems import BoardError
from finetally.core.board.reader import TRAILER_BEGINS, TRAILER_ENDS, read_board
from finetally.core.board.step_text import dose_text, quality_texts
from finetally.core.board.unsaid import Patch, unsaid
from finetally.core.board.values import count_text, number, quoted, time_text
from finetally.core.movements.library import Library
from finetally.core.session.entries import blocks_in
from finetally.core.session.reading import parse_session

MAY = {"skip": "(optional)", "exit": "(or stop here)"}


def write_wall(document: dict[str, Any], *, library: Library) -> str:
    """The wall form of a document that can be read: all that a person needs, no ids."""
    session = parse_session(document)
    return WallWriter(NameBook(library.with_definitions(session.movements))).write(document)


def what_the_wall_leaves_out(document: dict[str, Any], *, library: Library) -> Patch | None:
    """What of a document has no place on the wall: ids, unknown keys, definitions, values no phrase says."""
    wall = write_wall(document, library=library)
    session = parse_session(document)
    named = library.with_definitions(session.movements)
    return unsaid(read_board(wall, library=named).document, document)


SAME_IN_ANY_FORMAT = frozenset({"announced_s", "talk_s", "talk_over", "rest_as", "calls", "rpe", "rest_after_s"})


def headings(document: dict[str, Any]) -> list[str]:
    """How each block and section goes by its numbers, as on the wall: no title, no steps, no talk."""
    wall = WallWriter(NameBook(Library(())))
    lines = []
    for entry in document["blocks"]:
        if "section" in entry:
            lines.append(next(wall.section({**entry, "section": ""})).removesuffix(":"))
        for block in blocks_in(entry):
            shown = {key: value for key, value in block.items() if key not in SAME_IN_ANY_FORMAT}
            lines.append(", ".join(wall.phrases(shown)))
    return lines


def write_full(document: dict[str, Any], *, library: Library) -> str:
    """The full form: the wall form, and a short trailer for the rest. Reading it gives the same document."""
    wall = write_wall(document, library=library)
    patch = what_the_wall_leaves_out(document, library=library)
    if patch is None:
        return wall
    return f"{wall}\n{TRAILER_BEGINS}\n{json.dumps(patch, ensure_ascii=False)}\n{TRAILER_ENDS}\n"


def read_over(text: str, before: dict[str, Any], *, library: Library) -> Any:
    """Read a wall text that was edited from `before`: ids and all that the wall leaves out stay with their parts.

    Raises BoardError.
    """
    if not before.get("blocks"):
        # A page that is still empty has nothing to leave out.
        return read_board(text, library=library)
    return read_board(text, library=library, unsaid=what_the_wall_leaves_out(before, library=library))


def _whole_minutes(value: Any) -> TypeGuard[int]:
    """Whether a length is told in whole minutes."""
    return isinstance(value, int) and value > 0 and value % 60 == 0


def _space(space: Any) -> Iterator[str]:
    """The line of a room's size: two sides, one number, or whatever words stand there."""
    if isinstance(space, list) and space:
        yield f"space: {' x '.join(number(one) for one in space)} m"
    elif isinstance(space, int | float):
        yield f"space: {number(space)} m"
    elif space:
        yield f"space: {' '.join(str(space).split())}"


class WallWriter:
    """Writes parts of a session as they stand on the wall."""

    def __init__(self, names: NameBook, *, quoting: bool = True) -> None:
        self._names = names
        self._quoting = quoting

    def write(self, document: dict[str, Any]) -> str:
        """The whole session."""
        lines = [self._title(document), *self._session(document)]
        for entry in document["blocks"]:
            lines.append("")
            if "section" in entry:
                lines.extend(self.section(entry))
            else:
                lines.extend(self._block(entry))
        if document["blocks"] and lines[-1].startswith("rest "):
            # With nothing behind it, a rest below would be one between the rounds.
            lines[-1] += " after it"
        return "\n".join(lines) + "\n"

    @staticmethod
    def _title(document: dict[str, Any]) -> str:
        title = " ".join(str(document["title"]).split()) or "Session"
        if not document["blocks"]:
            # Alone on a page it could be something to do.
            title = f"title: {title}"
        told = document.get("announced_s")
        if _whole_minutes(told):
            return f"{title}, {told // 60} min"
        if (
            isinstance(told, dict)
            and set(told) == {"low", "high"}
            and all(_whole_minutes(end) for end in told.values())
        ):
            return f"{title}, {told['low'] // 60}-{told['high'] // 60} min"
        text = time_text(told)
        return f"{title}, {text}" if text and not isinstance(told, dict | list) else title

    @staticmethod
    def _session(document: dict[str, Any]) -> Iterator[str]:
        for line in str(document.get("notes") or "").splitlines():
            yield f"note: {line}".rstrip()
        cautions = document.get("cautions") or []
        for line in cautions if isinstance(cautions, list) else str(cautions).splitlines():
            if line.strip():
                yield f"caution: {' '.join(line.split())}"
        if document.get("tags"):
            yield f"tags: {', '.join(document['tags'])}"
        if document.get("people"):
            yield f"people: {document['people']}"
        yield from _space(document.get("space_m"))
        slack = time_text(document.get("slack_s"))
        if slack:
            yield f"slack: {slack}"
        if document.get("rpe") is not None:
            yield f"effort: {number(document['rpe'])} of 10"
        if document.get("stands_alone"):
            yield "stands alone"

    def section(self, section: dict[str, Any]) -> Iterator[str]:
        """The lines of a section: how often, its blocks, its end."""
        parts = ["together"]
        label = quoted(section["section"])
        parts[0] += f" {label}" if label else ""
        times, rest = count_text(section.get("times")), time_text(section.get("rest_between_s"))
        if times:
            parts.append(f"{times} times")
        if rest:
            parts.append(f"{rest} between")
        yield f"{', '.join(parts)}:"
        for block in section["blocks"]:
            yield from self._block(block)
        yield "end together"
        after = time_text(section.get("rest_after_s"))
        if after:
            yield f"rest {after}"

    def _block(self, block: dict[str, Any]) -> Iterator[str]:
        yield self._head(block)
        for line in str(block.get("notes") or "").splitlines():
            yield f"  note: {line}".rstrip()
        yield from self.steps(block)
        rest = time_text(block.get("rest_after_s"))
        if rest:
            yield f"rest {rest}"

    def steps(self, block: dict[str, Any]) -> Iterator[str]:
        """The lines of a block's steps, stations and options, indented."""
        clock = block["clock"]
        if clock["kind"] == "rotation":
            for station in clock["stations"]:
                yield self._station(station)
                yield from self._steps(station["steps"], "    ")
        else:
            windows = block.get("part") == "cool-down" and clock["kind"] == "intervals"
            yield from self._steps(block["steps"], "  ", windows=windows)

    def _head(self, block: dict[str, Any]) -> str:
        part = block.get("part")
        opening = [str(part or "main").capitalize()]
        label = quoted(block["title"]) if block.get("title") else None
        opening += [label] if label else []
        opening += [MAY[block["optional"]]] if block.get("optional") in MAY else []
        return f"{' '.join(opening)}: {', '.join(self.phrases(block))}".rstrip()

    def phrases(self, block: dict[str, Any]) -> Iterator[str]:
        """What a block's head line says after the colon, phrase by phrase."""
        clock = block["clock"]
        kind = clock["kind"]
        outer = {**block, "clock": clock}
        said: set[PhraseKey] = set()
        preset = next((one for one in PRESETS if all(value_of(outer, key) == v for key, v in one.values)), None)
        if preset is not None and kind != "every":
            said.update(key for key, _ in preset.values)
            yield preset.words
        if kind == "rotation":
            yield from said_phrases((CLOCKS[2], *OF_ROTATION), outer, said)
            yield AT_EACH
            yield from clock_phrases({**block, "clock": clock["inner"]}, set())
        else:
            yield from clock_phrases(outer, said)
        if kind == "every" and block.get("group") is None and slots_of_clock(block) > 1:
            yield TAKE_TURNS.words
        yield from said_phrases(OF_BLOCK, outer, said)
        if block.get("rpe") is not None:
            yield f"effort {number(block['rpe'])} of 10"
        if block.get("rest_as"):
            yield f"resting with {self._names.words_of(block['rest_as'])}"
        for call in block.get("calls") or ():
            yield from call_text(call)

    def _station(self, station: dict[str, Any]) -> str:
        parts = [f'at "{station["name"]}"' if quoted(station["name"]) else "at"]
        rounds = count_text(station.get("rounds"))
        if rounds:
            parts.append(f"{rounds} rounds")
        if station.get("capacity"):
            parts.append(f"room for {station['capacity']}")
        kit = [quoted(one) for one in station.get("kit") or ()]
        if kit and all(kit):
            parts.append(f"kit {', '.join(one for one in kit if one)}")
        return f"  {', '.join(parts)}:"

    def _steps(self, steps: Sequence[dict[str, Any]], indent: str, *, windows: bool = False) -> Iterator[str]:
        pieces: list[str] = []
        for index, step in enumerate(steps):
            shares = windows and step.get("seconds") is None and self._names.holds_a_side(step["movement"])
            pieces.append(self.piece(step) + (", sides share the window" if shares else ""))
            joined = step.get("chain") is True and index < len(steps) - 1 and not step.get("options")
            if not joined:
                yield indent + " + ".join(pieces)
                pieces = []
                for option in step.get("options") or ():
                    yield f"{indent}  {self._option(option)}"

    def piece(self, step: dict[str, Any]) -> str:
        """One movement with its dose and what goes with it; without quotes where nobody reads it back."""
        name = self._names.words_of(step["movement"])
        return dose_text(step) + (name if self._quoting else name.strip('"')) + "".join(quality_texts(step))

    def _option(self, option: dict[str, Any]) -> str:
        body = self._of_option(option)
        label = quoted(option["label"]) or chr(34) * 2
        if not self._quoting:
            label = "" if option["label"] in (body, option.get("level")) else option["label"]
        parts = [label] if label else []
        if option.get("level"):
            parts.append(option["level"])
        kit = option.get("kit") or []
        kit = [quoted(one) for one in ([kit] if isinstance(kit, str) else kit)]
        if kit and all(kit):
            parts.append(f"kit {', '.join(one for one in kit if one)}")
        said = f"or {', '.join(parts)}"
        return f"{said}: {body}" if body else said

    def _of_option(self, option: dict[str, Any]) -> str:
        """What an option changes of its step."""
        name = self._names.words_of(option["movement"]) if option.get("movement") else ""
        body = f"{dose_text(option)}{name}{''.join(quality_texts(option))}".strip(" ,")
        if option.get("dose_factor") is None:
            return body
        share = f"{number(option['dose_factor'])} of the dose"
        return f"{body}, {share}" if body else share


__all__ = ["BoardError", "read_over", "what_the_wall_leaves_out", "write_full", "write_wall"]
