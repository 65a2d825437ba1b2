"""The command line: figures of files, and what whoever keeps the machine needs (run, demo, backup, restore)."""

from __future__ import annotations

import argparse
import json
import sys
from collections.abc import Iterator, Sequence
from pathlib import Path
from typing import TypeVar

from pydantic import BaseModel, ValidationError

from finetally.core.board.problems import BoardError
from finetally.core.figures import Figures, figures, printed
from finetally.core.floor.document import read_run
from finetally.core.floor.published import published_played, published_sheet
from finetally.core.floor.replay import replay
from finetally.core.floor.sheet import sheet
from finetally.core.log.document import DEEPER_IN_LOG, read_log
from finetally.core.log.learn import learn
from finetally.core.log.pulse import simulated_watch
from finetally.core.methods.given import Given
from finetally.core.methods.value import Methods
from finetally.core.movements.library import Library
from finetally.core.session.document import Session
from finetally.core.session.limits import MAX_BYTES, MAX_DEPTH
from finetally.core.session.problems import DocumentError, Problem, path_text, refuse, shown
from finetally.core.session.reading import parse_session, read_json, read_session
from finetally.core.tally.measure import tally
from finetally.core.wall.reader import Reading
from finetally.core.wall.reading import read_wall
from finetally.core.wall.text.several import sessions_in
from finetally.core.wall.told import told_of
from finetally.floor_table import played_table, sheet_table
from finetally.learned_table import learned_table
from finetally.running.commands import add_commands
from finetally.shipped import shipped_library
from finetally.table import figures_table, reading_table

Model = TypeVar("Model", bound=BaseModel)
BAD_FILE = 2
TEXT_FILES = frozenset({".txt", ".text", ".md"})
"""Endings of files that are a wall's text."""


def read_bytes(path: Path) -> bytes:
    """A file's bytes; a file that cannot be read or is too large becomes a DocumentError."""
    try:
        with path.open("rb") as file:
            data = file.read(MAX_BYTES + 1)
            if len(data) > MAX_BYTES:
                raise refuse((), "a file over the limit", f"up to {MAX_BYTES / 1e6:g} MB", "too_large")
            return data
    except OSError as error:
        raise refuse((), error.strerror or "nothing readable", "a readable file", "unreadable") from None


def read_value(path: Path | None, model: type[Model]) -> Model:
    """Read a methods or given file into its model; problems carry their paths. Raises DocumentError."""
    if path is None:
        return model()
    data = read_json(read_bytes(path))
    try:
        return model.model_validate(data)
    except ValidationError as error:
        raise DocumentError(
            Problem(path_text(tuple(d["loc"])), shown(d["input"]), d["msg"].lower(), d["type"])
            for d in error.errors(include_url=False)
        ) from None


def _complain(path: Path, error: DocumentError) -> None:
    for problem in error.problems:
        print(f"{path}: {problem.text}", file=sys.stderr)


def _known(arguments: argparse.Namespace) -> tuple[Methods, Given] | None:
    """The files of methods and of the day; None where one cannot be read, which is said."""
    path: Path = arguments.methods
    try:
        methods = read_value(path, Methods)
        path = arguments.given
        return methods, read_value(path, Given)
    except DocumentError as error:
        _complain(path, error)
        return None


def _figures(arguments: argparse.Namespace) -> int:
    library = shipped_library()
    known = _known(arguments)
    if known is None:
        return BAD_FILE
    methods, given = known
    status = 0
    for path in arguments.files:
        try:
            for session, reading in _sessions_of(path, library):
                _print(
                    figures(session, library=library, methods=methods, given=given), reading, as_json=arguments.json
                )
        except BoardError as error:
            for problem in error.problems:
                print(f"{path}: {problem.text}", file=sys.stderr)
            status = BAD_FILE
        except DocumentError as error:
            _complain(path, error)
            status = BAD_FILE
    return status


def _sessions_of(path: Path, library: Library) -> Iterator[tuple[Session, Reading | None]]:
    """The session of a file; of a text with several days, each of them."""
    data = read_bytes(path)
    if path.suffix.lower() not in TEXT_FILES:
        yield read_session(data)[1], None
        return
    for text in sessions_in(data.decode("utf-8", errors="replace")):
        reading = read_wall(text, library=library)
        yield parse_session(reading.document), reading


def _print(made: Figures, reading: Reading | None, *, as_json: bool) -> None:
    if as_json:
        told = {} if reading is None else {**told_of(reading)}
        print(json.dumps({**printed(made), **told}, ensure_ascii=False))
        return
    print(figures_table(made))
    if reading is not None:
        print(reading_table(reading))


def _sheet(arguments: argparse.Namespace) -> int:
    """Print a session's beats."""
    known = _known(arguments)
    if known is None:
        return BAD_FILE
    methods, given = known
    library = shipped_library()
    try:
        for session, _ in _sessions_of(arguments.file, library):
            laid = sheet(session, library=library, methods=methods, given=given, apart=arguments.apart)
            made = published_sheet(laid)
            print(json.dumps(made, ensure_ascii=False) if arguments.json else sheet_table(made))
    except DocumentError as error:
        _complain(arguments.file, error)
        return BAD_FILE
    return 0


def _replay(arguments: argparse.Namespace) -> int:
    """Print what the events of a run made of its session."""
    try:
        run = read_run(read_json(read_bytes(arguments.file), deepest=MAX_DEPTH + 1))
        made = published_played(replay(run, library=shipped_library()))
    except DocumentError as error:
        _complain(arguments.file, error)
        return BAD_FILE
    print(json.dumps(made, ensure_ascii=False) if arguments.json else played_table(made))
    return 0


def _learn(arguments: argparse.Namespace) -> int:
    """Print what a log teaches of each person."""
    path: Path = arguments.methods
    try:
        methods = read_value(path, Methods)
        path = arguments.file
        log = read_log(read_json(read_bytes(path), deepest=MAX_DEPTH + DEEPER_IN_LOG))
        made = {
            person: one.figures() for person, one in learn(log, library=shipped_library(), methods=methods).items()
        }
    except DocumentError as error:
        _complain(path, error)
        return BAD_FILE
    print(json.dumps(made, ensure_ascii=False) if arguments.json else learned_table(made))
    return 0


def _simulate_watch(arguments: argparse.Namespace) -> int:
    """Print the recording that a made-up strap makes of a session."""
    library = shipped_library()
    known = _known(arguments)
    if known is None:
        return BAD_FILE
    methods, given = known
    try:
        for session, _ in _sessions_of(arguments.file, library):
            t = tally(session, library=library, methods=methods, given=given)
            print("time_s,hr")
            for at, pulse in simulated_watch(t, arguments.max_hr, arguments.rest_hr):
                print(f"{at:g},{pulse:g}")
    except DocumentError as error:
        _complain(arguments.file, error)
        return BAD_FILE
    return 0


def parser() -> argparse.ArgumentParser:
    """The command line's grammar."""
    top = argparse.ArgumentParser(prog="fine-tally", description="Measures planned training sessions.")
    commands = top.add_subparsers(dest="command", required=True)
    one = commands.add_parser("figures", help="figure session files, and texts as they stand on a wall (.txt)")
    one.add_argument("files", nargs="+", type=Path, metavar="FILE")
    one.add_argument("--methods", type=Path, help="a file of methods; what it leaves out stays at the default")
    one.add_argument("--given", type=Path, help="what is known about the day: person, scores, options")
    one.add_argument("--json", action="store_true", help="one JSON object a line instead of a table")
    one.set_defaults(run=_figures)
    _add_floor(commands)
    _add_watch(commands)
    add_commands(commands)
    return top


def _add_floor(commands: argparse._SubParsersAction[argparse.ArgumentParser]) -> None:
    one = commands.add_parser("sheet", help="a session as beats, the smallest things that a coach steps through")
    one.add_argument("file", type=Path, metavar="FILE")
    one.add_argument("--methods", type=Path, help="a file of methods; what it leaves out stays at the default")
    one.add_argument("--given", type=Path, help="what is known about the day: person, scores, options")
    one.add_argument("--apart", action="store_true", help="in tasks without a cap each goes at their own pace")
    one.add_argument("--json", action="store_true", help="one JSON object instead of a table")
    one.set_defaults(run=_sheet)
    one = commands.add_parser("replay", help="what the events of a run made of its session")
    one.add_argument("file", type=Path, metavar="RUN.json")
    one.add_argument("--json", action="store_true", help="one JSON object instead of a table")
    one.set_defaults(run=_replay)
    one = commands.add_parser(
        "learn", help="what a log's scores and ratings teach of each person's pace and effort"
    )
    one.add_argument("file", type=Path, metavar="LOG.json")
    one.add_argument("--methods", type=Path, help="a file of methods; what it leaves out stays at the default")
    one.add_argument("--json", action="store_true", help="one JSON object instead of a table")
    one.set_defaults(run=_learn)


def _add_watch(commands: argparse._SubParsersAction[argparse.ArgumentParser]) -> None:
    one = commands.add_parser("simulate-watch", help="a made-up recording of a session's pulse, as time_s,hr")
    one.add_argument("file", type=Path, metavar="SESSION")
    one.add_argument("--methods", type=Path, help="a file of methods; what it leaves out stays at the default")
    one.add_argument("--given", type=Path, help="what is known about the day: person, scores, options")
    one.add_argument("--max-hr", type=float, default=190, help="beats a minute at most")
    one.add_argument("--rest-hr", type=float, default=60, help="beats a minute at rest")
    one.set_defaults(run=_simulate_watch)


def main(arguments: Sequence[str] | None = None) -> int:
    """Run a command; returns the exit status (2 for a file that cannot be read)."""
    chosen = parser().parse_args(arguments)
    status: int = chosen.run(chosen)
    return status


if __name__ == "__main__":
    sys.exit(main())
