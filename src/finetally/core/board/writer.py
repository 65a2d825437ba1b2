"""Session document → board text: the wall form that people read, and the full form that loses nothing."""

from __future__ import annotations

import json
from collections.abc import Iterator, Sequence
from typing import Any, TypeGuard

from finetally.core.board.names import NameBook
from finetally.core.board.phrases import (
    AT_EACH,
    CLOCKS,
    OF_BLOCK,
    OF_CLOCK,
    OF_ROTATION,
    PRESETS,
    TAKE_TURNS,
    Phrase,
    PhraseKey,
)
from finetally.core.board.problems import BoardError
from finetally.core.board.reader import TRAILER_BEGINS, TRAILER_ENDS, read_board
from finetally.core.board.unsaid import Patch, unsaid
from finetally.core.board.values import count_text, load_text, number, reps_text, time_text
from finetally.core.movements.library import Library
from finetally.core.session.entries import blocks_in
from finetally.core.session.reading import parse_session

MAY = {"skip": "(optional)", "exit": "(or stop here)"}
SIDE_PHRASES = {
    "each": " each side",
    "left": " on the left",
    "right": " on the right",
    "both": " both sides",
    "alternate": ", sides take turns",
    "swap": ", sides swap",
}


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


def _quoted(text: str) -> str | None:
    return f'"{text}"' if text and '"' not in text and "\n" not in text and text == text.strip() else None


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
        label = _quoted(section["section"])
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
        label = _quoted(block["title"]) if block.get("title") else None
        opening += [label] if label else []
        opening += [MAY[block["optional"]]] if block.get("optional") in MAY else []
        return f"{' '.join(opening)}: {', '.join(self.phrases(block))}".rstrip()

    def phrases(self, block: dict[str, Any]) -> Iterator[str]:
        """What a block's head line says after the colon, phrase by phrase."""
        clock = block["clock"]
        kind = clock["kind"]
        outer = {**block, "clock": clock}
        said: set[PhraseKey] = set()
        preset = next((one for one in PRESETS if all(_value(outer, key) == v for key, v in one.values)), None)
        if preset is not None and kind != "every":
            said.update(key for key, _ in preset.values)
            yield preset.words
        if kind == "rotation":
            yield from _said((CLOCKS[2], *OF_ROTATION), outer, said)
            yield AT_EACH
            yield from _of_clock({**block, "clock": clock["inner"]}, set())
        else:
            yield from _of_clock(outer, said)
        if kind == "every" and block.get("group") is None and _slots(block) > 1:
            yield TAKE_TURNS.words
        yield from _said(OF_BLOCK, outer, said)
        if block.get("rpe") is not None:
            yield f"effort {number(block['rpe'])} of 10"
        if block.get("rest_as"):
            yield f"resting with {self._names.words_of(block['rest_as'])}"
        for call in block.get("calls") or ():
            yield from _call(call)

    def _station(self, station: dict[str, Any]) -> str:
        parts = [f'at "{station["name"]}"' if _quoted(station["name"]) else "at"]
        rounds = count_text(station.get("rounds"))
        if rounds:
            parts.append(f"{rounds} rounds")
        if station.get("capacity"):
            parts.append(f"room for {station['capacity']}")
        kit = [_quoted(one) for one in station.get("kit") or ()]
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
        return _dose(step) + (name if self._quoting else name.strip('"')) + "".join(_qualities(step))

    def _option(self, option: dict[str, Any]) -> str:
        body = self._of_option(option)
        label = _quoted(option["label"]) or chr(34) * 2
        if not self._quoting:
            label = "" if option["label"] in (body, option.get("level")) else option["label"]
        parts = [label] if label else []
        if option.get("level"):
            parts.append(option["level"])
        kit = option.get("kit") or []
        kit = [_quoted(one) for one in ([kit] if isinstance(kit, str) else kit)]
        if kit and all(kit):
            parts.append(f"kit {', '.join(one for one in kit if one)}")
        said = f"or {', '.join(parts)}"
        return f"{said}: {body}" if body else said

    def _of_option(self, option: dict[str, Any]) -> str:
        """What an option changes of its step."""
        name = self._names.words_of(option["movement"]) if option.get("movement") else ""
        body = f"{_dose(option)}{name}{''.join(_qualities(option))}".strip(" ,")
        if option.get("dose_factor") is None:
            return body
        share = f"{number(option['dose_factor'])} of the dose"
        return f"{body}, {share}" if body else share


def _value(block: dict[str, Any], key: PhraseKey) -> Any:
    here: Any = block
    for part in key:
        here = here.get(part) if isinstance(here, dict) else None
    return here


def _said(phrases: Sequence[Phrase], block: dict[str, Any], said: set[PhraseKey]) -> Iterator[str]:
    """The phrases that say what is set and was not said yet; marks it as said."""
    for phrase in phrases:
        value = _value(block, phrase.key)
        if value is None or phrase.key in said:
            continue
        if phrase.kind == "word":
            if value == phrase.value and type(value) in (type(phrase.value), float):
                said.add(phrase.key)
                yield phrase.words
            continue
        text = time_text(value, as_clock=phrase.leads) if phrase.kind == "time" else count_text(value)
        if text is not None:
            said.add(phrase.key)
            words = _worded(phrase, block, one=text == "1")
            yield f"{words} {text}" if phrase.leads else f"{text} {words}"


def _slots(block: dict[str, Any]) -> int:
    return sum(1 for step in block["steps"][:-1] if step.get("chain") is not True) + 1


def _worded(phrase: Phrase, block: dict[str, Any], *, one: bool) -> str:
    """A phrase's words as they fit the block: sets where it builds, pairs where it goes in pairs."""
    if phrase.name == "rest" and block["clock"]["kind"] in ("task", "amrap"):
        # A rest in the head of doses is one between rounds to whoever reads a wall.
        return "rest after each"
    if phrase.name == "round_rest" and block.get("visit") not in (None, "rounds"):
        return "between sets"
    if phrase.name == "group_rest" and block.get("group") in (2, 3):
        return "between pairs" if block["group"] == 2 else "between threes"
    return phrase.words.replace("times over", "time over").removesuffix("s") if one else phrase.words


def _of_clock(block: dict[str, Any], said: set[PhraseKey]) -> Iterator[str]:
    clock = block["clock"]
    work, rest = clock.get("work_s"), clock.get("rest_s")
    if clock["kind"] == "intervals":
        if not said & {("clock", "work_s"), ("clock", "rest_s")} and _plain(work) and _plain(rest) and rest:
            said.update({("clock", "work_s"), ("clock", "rest_s")})
            yield f"{time_text(work)} on / {time_text(rest)} off"
        if work is not None:
            said.add(("clock", "kind"))
    if clock["kind"] in ("every", "amrap"):
        said.add(("clock", "kind"))
    yield from _said(CLOCKS, block, said)
    yield from _said(OF_CLOCK, block, said)
    pulse = clock.get("pulse")
    if isinstance(pulse, dict) and time_text(pulse.get("work_s")) and time_text(pulse.get("rest_s")):
        yield f"{time_text(pulse['work_s'])} on / {time_text(pulse['rest_s'])} off"


def _plain(value: Any) -> bool:
    return isinstance(value, int | float) and not isinstance(value, bool)


def _call(call: dict[str, Any]) -> Iterator[str]:
    say = _quoted(call.get("say", ""))
    if say is None:
        return
    if call.get("half"):
        yield f"call {say} half-way"
    elif time_text(call.get("at_s")):
        yield f"call {say} at {time_text(call['at_s'], as_clock=True)}"
    elif time_text(call.get("before_end_s")):
        yield f"call {say} {time_text(call['before_end_s'])} before the end"


def _dose(step: dict[str, Any]) -> str:
    reps, seconds, metres = (
        reps_text(step.get("reps")), time_text(step.get("seconds")), count_text(step.get("metres")),
    )  # fmt: skip
    if reps and seconds:
        return f"{reps} within {seconds} "
    if reps:
        return f"{reps} "
    if seconds:
        return f"{seconds} "
    return f"{metres} m " if metres else ""


def _failure_text(reps: Any, before: str) -> str:
    """`to failure`, with the reps it is planned at where they are given; nothing for other doses."""
    if not isinstance(reps, dict) or reps.get("to_failure") is not True or not set(reps) <= {"to_failure", "plan"}:
        return ""
    return f"{before}to failure" + (f" (plan {number(reps['plan'])})" if "plan" in reps else "")


def _qualities(step: dict[str, Any]) -> Iterator[str]:
    """What goes with a movement; each part brings the comma or the blank before it."""
    sides = SIDE_PHRASES.get(step.get("sides") or "", "")
    yield sides
    yield _failure_text(step.get("reps"), ", " if sides.startswith(",") else " ")
    load = load_text(step.get("load"))
    if load:
        yield f", {load}" if sides.startswith(",") else f" {load}"
    if step.get("fill"):
        yield " to fill"
    grow = step.get("grow")
    if isinstance(grow, int) and not isinstance(grow, bool):
        yield f", {grow:+d} each round"
    tempo = step.get("tempo")
    if isinstance(tempo, list):
        yield f", tempo {'-'.join(number(one) for one in tempo)}"
    if step.get("effort"):
        yield f", effort {step['effort']}"
    if step.get("reserve") is not None:
        yield f", {number(step['reserve'])} in reserve"
    pace = time_text(step.get("pace_s"))
    if pace:
        yield f", {pace} a rep"
    rest = time_text(step.get("rest_s"))
    if rest:
        yield f", rest {rest}"
    note = _quoted(step.get("note") or "")
    if note:
        yield f", note {note}"


__all__ = ["BoardError", "read_over", "what_the_wall_leaves_out", "write_full", "write_wall"]
