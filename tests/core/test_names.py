"""One resolver of movement names: texts and board text mean the same movement; help with spelling never runs out."""

from __future__ import annotations

import pytest

from finetally.core.board.problems import BoardError
from finetally.core.board.reader import read_board
from finetally.core.board.writer import write_wall
from finetally.core.movements.names import MOST_TYPOS, everyday_names
from finetally.core.session.cleaning import one_line
from finetally.shipped import shipped_library
from tests.core.walls import read, steps_of

LIBRARY = shipped_library()
NAMES = sorted({text for key, one in LIBRARY.items() for text in (key, one.name or key, *(one.aliases or ()))})


def on_the_board(line: str) -> str | None:
    """The movement that a line of board text names; None where it is no board text."""
    try:
        read_in = read_board(f"Main: for time, 3 rounds\n  {line}", library=LIBRARY)
    except BoardError:
        return None
    key = str(read_in.document["blocks"][0]["steps"][0]["movement"])  # type: ignore[index,call-overload]
    return key if key in LIBRARY else None


def in_a_text(line: str) -> str:
    return str(steps_of(read(f"3 rounds\n{line}\n10 burpees"))[0]["movement"])


@pytest.mark.parametrize("dose", ["10 {}", "10 {}s", "5 {} 80 kg", "10 {} each side"])
def test_a_name_is_one_movement_in_a_text_and_on_the_board(dose: str) -> None:
    lines = [dose.format(name) for name in NAMES]
    pairs = {line: (on_the_board(line), in_a_text(line)) for line in lines}
    differ = {line: pair for line, pair in pairs.items() if pair[0] and pair[1] in LIBRARY and pair[0] != pair[1]}
    assert differ == {}
    assert sum(one is not None for one, _ in pairs.values()) > len(pairs) / 2


@pytest.mark.parametrize(
    "dose", [{"reps": 5}, {"seconds": 300}, {"seconds": 30}, {"metres": 40}, {"reps": 5, "seconds": 60}]
)
@pytest.mark.parametrize("load", [{}, {"load": {"kg": 80}}])
def test_every_movement_reads_back_behind_every_dose(dose: dict[str, object], load: dict[str, object]) -> None:
    steps = [{"movement": key, **dose, **load} for key in LIBRARY]
    document = {"fine_tally": 1, "title": "All", "blocks": [{"clock": {"kind": "task"}, "steps": steps}]}
    text = write_wall(document, library=LIBRARY)
    assert read_board(text, library=LIBRARY).document == document
    assert [one["movement"] for one in steps_of(read(text))] == list(LIBRARY)


def letters(number: int) -> str:
    return "".join("abcdefghij"[int(digit)] for digit in f"{number:04d}")


def test_spelling_is_counted_by_text_and_not_by_process() -> None:
    nonsense = "\n".join(f"10 qx{letters(number)}vk" for number in range(MOST_TYPOS + 50))
    read(f"3 rounds\n{nonsense}")
    assert in_a_text("10 thurster") == "thruster"
    assert everyday_names(LIBRARY) is everyday_names(LIBRARY)


@pytest.mark.parametrize(
    ("typed", "kept"),
    [
        ("Anna\u200b Berg\u202e", "Anna Berg"),
        ("\ufeffAn\u200dna\u00ad", "Anna"),
        ("\u2066Ben\u2069\u2060", "Ben"),
        ("می\u200cخواهم", "می\u200cخواهم"),
        ("👩\u200d🚒", "👩\u200d🚒"),
    ],
)
def test_names_that_look_the_same_are_the_same(typed: str, kept: str) -> None:
    assert one_line(typed) == kept
