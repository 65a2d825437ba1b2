"""Texts that nobody writes but to do harm: 100 kB of any shape is read within a second, and of blanks at once."""

from __future__ import annotations

import time

import pytest

from finetally.core.board.problems import BoardError
from finetally.core.board.writer import write_wall
from finetally.core.session.budget import budget_of
from finetally.core.session.problems import DocumentError
from finetally.core.session.reading import parse_session
from finetally.core.wall.numerals import unused_numbers
from finetally.core.wall.reading import keep_words, read_wall
from finetally.core.wall.sound import MOST_UNITS
from finetally.core.wall.text.lines import LONGEST_LINE, MOST_ROWS
from finetally.core.wall.text.several import sessions_in
from finetally.core.wall.told import told_of
from tests.core.walls import LIBRARY

SIZE = 100_000
TRIES = 3
MOST_S = 1.0
"""Seconds of the processor that a text may take, and not of the clock: other tests run beside it."""

SIGNS = " \t\n\u00a0\u3000-•*#~.,;:!'\"()[]/|\\+@%°x19aZ“″\u0301\u200b\u20e3中"
WORDS = (
    "a ", "1 ", "1x", "1-", "1/", "1, ", "1. ", "1) ", "A1 ", "a1)", "A. ", "( ", "- ", "or ", "then ", "rest 1 ", "@ 50 kg ", "every minute ",
    "10 push-ups ", "10 push-ups, ", "squats ", "3 rounds ", "20/10 ", "amrap 5: ", "1:00 ", "0:30", "work: 20 ", "21-15-9 ", "the ", "“a” ",
)  # fmt: skip
LINES = (
    "10 push-ups\n",
    "work: 20\n",
    "rest: 10\n",
    "day 1\n",
    "1\t2\n",
    "| a | b |\n",
    "A1 squat 3x5\n",
    "0:00 row\n",
    "\n\n- a",
)
SHAPES = [
    *(sign * SIZE for sign in SIGNS),
    *((sign * LONGEST_LINE + "\n") * (SIZE // LONGEST_LINE) for sign in SIGNS if sign != "\n"),
    *((one * SIZE)[:SIZE] for one in WORDS),
    *(((one * LONGEST_LINE)[: LONGEST_LINE - 2] + "\n") * (SIZE // LONGEST_LINE) for one in WORDS),
    *((one * SIZE)[:SIZE] for one in LINES),
    *(
        f"{before}{' ' * SIZE}{after}"
        for before in ("", "work:", "rest: 20", "title:", "1.")
        for after in ("x", "1", ":")
    ),
    *(one * (SIZE // 2) + other * (SIZE // 2) for one in " 1a-(" for other in ":)x*1" if one != other),
]


def _took(text: str) -> float:
    """Seconds that all takes that a text goes through when it is typed."""
    began = time.process_time()
    try:
        reading = read_wall(text, library=LIBRARY)
        keep_words(reading, text, {})
        told_of(reading)
        parse_session(reading.document)
        unused_numbers(reading, LIBRARY)
    except (BoardError, DocumentError):
        pass
    sessions_in(text)
    return time.process_time() - began


@pytest.mark.parametrize("text", SHAPES, ids=[f"{n}-{one[:12]!r}" for n, one in enumerate(SHAPES)])
def test_no_shape_of_a_text_takes_long(text: str) -> None:
    # A machine that others use, too, has slow moments: what takes long does so each time.
    assert any(_took(text) < MOST_S for _ in range(TRIES))


def test_forty_thousand_blanks_are_nothing_at_all() -> None:
    began = time.process_time()
    reading = read_wall(f"Ledges\n{' ' * 40_000}\n3 rounds: 10 burpees{' ' * 40_000}\n", library=LIBRARY)
    assert time.process_time() - began < 0.2
    assert [block["steps"][0]["movement"] for block in reading.document["blocks"]] == ["burpee"]


def test_what_is_too_much_to_read_is_kept_as_notes_and_said() -> None:
    lines = ["Ledges", "3 rounds: 10 burpees", *["bring the ropes and the long bag along"] * 2_500]
    reading = read_wall("\n".join(lines), library=LIBRARY)
    assert reading.document["blocks"]
    kept = {*reading.note_lines, *(one.line for one in reading.unread)}
    assert kept >= set(range(500, MOST_ROWS))
    assert [one.text for one in reading.unread if one.line > MOST_ROWS] == [f"{len(lines) - MOST_ROWS} lines more"]


def test_a_long_session_in_the_written_form_loses_no_block() -> None:
    block = {
        "clock": {"kind": "intervals", "work_s": 5, "rest_s": 5},
        "steps": [{"movement": one} for one in ("push-up", "air-squat", "burpee")],
        "rounds": 100,
    }
    document = {"fine_tally": 1, "title": "Ledges", "blocks": [block] * 14}
    with budget_of(10 * MOST_UNITS) as budget:
        read = read_wall(write_wall(document, library=LIBRARY), library=LIBRARY).document
    assert len(read["blocks"]) == 14
    assert budget.spent > MOST_UNITS, "as much work as no coach's own words may come to"
