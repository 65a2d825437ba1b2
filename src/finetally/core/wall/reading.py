"""`read_wall`: any text becomes a session. What is in the written form is read as written."""

from __future__ import annotations

import copy
from collections.abc import Mapping

from finetally.core.board.problems import BoardError
from finetally.core.board.reader import MAX_LINES, BoardReading, definitions_in, split_lines, without_trailer
from finetally.core.board.unsaid import Patch, laid_over, unsaid
from finetally.core.board.writer import what_the_wall_leaves_out
from finetally.core.movements.library import Library
from finetally.core.movements.names import everyday_names
from finetally.core.session.document import Session
from finetally.core.session.ids import without_ids
from finetally.core.session.json_value import JsonObject, JsonValue
from finetally.core.session.limits import MAX_TEXT
from finetally.core.session.parts import as_written
from finetally.core.session.problems import DocumentError
from finetally.core.session.reading import parse_session
from finetally.core.wall.assumptions import Assumptions
from finetally.core.wall.reader import Reading, TextReader
from finetally.core.wall.sound import MOST_UNITS, MOST_UNITS_WRITTEN, sound
from finetally.core.wall.text.lines import MOST_ROWS
from finetally.core.wall.text.written import written_blocks, written_whole
from finetally.core.wall.unread import Unread


def read_wall(
    text: str,
    *,
    library: Library,
    settled: Mapping[str, int] | None = None,
    habits: Mapping[str, int] | None = None,
    before: JsonObject | None = None,
) -> Reading:
    """Read any text: what cannot be read is kept and told.

    `settled` is what was chosen for places that could be meant otherwise, by assumption; `habits` by rule; `before`
    the document that the text was written from: ids and all that a wall leaves out stay with their parts.
    Raises BoardError for a text that is too large or has a broken trailer.
    """
    lines, patch = without_trailer(split_lines(text))
    lines = [line.rstrip() for line in lines]
    if patch is None and before is not None and before.get("blocks"):
        # The words that were kept belong to what stood there before.
        patch = _left_out_of(before, library)
    library = library.with_definitions(definitions_in(patch))
    board = written_whole(lines[:MAX_LINES], library)
    most = MOST_ROWS if board is None else MAX_LINES
    lines, below = lines[:most], lines[most:]
    if board is not None:
        reading = _as_written(board)
    else:
        reader = TextReader(library, everyday_names(library), Assumptions(settled or {}, habits or {}))
        ready = {one.first: one for one in written_blocks(lines, library)}
        reading = reader.read("\n".join(lines), ready)
    if any(line.strip() for line in below):
        reading.unread.append(Unread(most + 1, f"{len(below)} lines more"))
    reading.rows = lines
    reading.unread = [
        one if one.text or not 0 < one.line <= len(lines) else Unread(one.line, lines[one.line - 1].strip())
        for one in reading.unread
    ]
    most_units = MOST_UNITS if board is None else MOST_UNITS_WRITTEN
    return _with_unsaid(sound(reading, library, most_units=most_units), patch)


def _left_out_of(before: JsonObject, library: Library) -> Patch | None:
    """What an earlier document holds beyond its text; at least its ids where the text of it cannot be read."""
    bare = {key: value for key, value in before.items() if key != "wall"}
    try:
        bare = _named_anew(bare, library.with_definitions(parse_session(before).movements))
        return what_the_wall_leaves_out(bare, library=library)
    except (BoardError, DocumentError):
        return unsaid({key: one for key, one in without_ids(bare).items() if key != "movements"}, bare)


def _named_anew(document: JsonObject, library: Library) -> JsonObject:
    """A document in which every new name that has come to be known since is the movement it names."""
    made = copy.deepcopy(document)
    waiting: list[JsonValue] = [made]
    while waiting:
        part = waiting.pop()
        if isinstance(part, dict):
            key = part.get("movement")
            if isinstance(key, str) and key not in library:
                part["movement"] = everyday_names(library).find(key) or key
            waiting.extend(part.values())
        elif isinstance(part, list):
            waiting.extend(part)
    return made


def keep_words(reading: Reading, text: str, settled: Mapping[str, int]) -> None:
    """Keep the words as typed, and what was chosen, with the session that was read; none for the written form.

    What was read by habit is kept as chosen: the words come to the same session when the habit is another one.
    """
    reading.document.pop("wall", None)
    settled = {**{one.id: one.chosen for one in reading.assumed.made if one.habit}, **settled}
    if not reading.written and len(text) <= MAX_TEXT:
        chosen: JsonObject = {"settled": {**settled}} if settled else {}
        reading.document["wall"] = {"text": text, **chosen}


def words_as_typed(session: Session, library: Library) -> tuple[str, dict[str, int]] | None:
    """The words that a session was read from, and what was chosen, if they still come to it; else None.

    Words that could not be read are given back as they are.
    """
    if session.wall is None:
        return None
    text, settled = session.wall.text, session.wall.settled or {}
    if session.wall.unread:
        return text, settled
    try:
        again = read_wall(text, library=library.with_definitions(session.movements), settled=settled)
    except BoardError:
        return None
    return (text, settled) if _bare(again.document) == _bare(as_written(session)) else None


def _bare(document: JsonObject) -> JsonValue:
    """A document without what a text has no words for: ids, definitions, the words themselves."""
    return _without_ids({key: one for key, one in document.items() if key not in ("wall", "movements")})


def _without_ids(value: JsonValue) -> JsonValue:
    if isinstance(value, dict):
        return {key: _without_ids(one) for key, one in value.items() if key != "id"}
    return [_without_ids(one) for one in value] if isinstance(value, list) else value


def _as_written(board: BoardReading) -> Reading:
    unknown = list(dict.fromkeys(stub.key for stub in board.stubs))
    places = [(stub.key, stub.words, stub.line) for stub in board.stubs]
    return Reading(board.document, Assumptions(), [], unknown, dict(board.lines), places=places, written=True)


def _with_unsaid(reading: Reading, patch: Patch | None) -> Reading:
    if patch is not None:
        document = laid_over(reading.document, patch)
        try:
            parse_session(document)
        except DocumentError:
            return reading
        reading.document = document
    return reading
