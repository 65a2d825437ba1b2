"""Several sessions in one text: where the days begin, and what is no day."""

from __future__ import annotations

import pytest

from finetally.core.wall.text.several import LONGEST_HEADING, MOST_SESSIONS, is_heading, sessions_in

HEADINGS = [
    "Monday", "Tuesday - legs", "**Wed**", "## Thursday 6pm", "Fri 14.11. gym", "2031-03-03", "3/3 ridge", "--- Sunday ---",
    "The long Saturday",
]  # fmt: skip
NO_HEADINGS = [
    "", "   ", "***", "  Monday", "\tTuesday", "Monday 5 rounds", "Tuesday 3x10 squats", "Friday 20 kg swings",
    "Wednesday AMRAP 12", "Saturday 400m", "burpees on every other Monday", "warm up",
    f"Monday {'and on we go ' * 5}"[: LONGEST_HEADING + 1],
]  # fmt: skip


@pytest.mark.parametrize("line", HEADINGS)
def test_a_day_or_a_date_at_the_margin_heads_a_session(line: str) -> None:
    assert is_heading(line)


@pytest.mark.parametrize("line", NO_HEADINGS)
def test_work_indents_and_sentences_head_none(line: str) -> None:
    assert not is_heading(line)


def test_the_longest_heading_is_one_and_a_letter_more_is_none() -> None:
    longest = "Monday ".ljust(LONGEST_HEADING, "x")
    assert is_heading(longest)
    assert not is_heading(longest + "x")


WEEK = "Monday\n3 rounds\n10 burpees\n\nWednesday 6 pm, in the hall\n5 rounds\n12 swings\n"


def test_each_day_is_a_session_of_its_own() -> None:
    assert sessions_in(WEEK) == [
        "Monday\n3 rounds\n10 burpees\n",
        "Wednesday 6 pm, in the hall\n5 rounds\n12 swings\n",
    ]


def test_what_stands_before_the_first_day_goes_with_it() -> None:
    assert (
        sessions_in("Week 3, ridge block\n\n" + WEEK)[0] == "Week 3, ridge block\n\nMonday\n3 rounds\n10 burpees\n"
    )
    # Blank lines are nothing.
    assert sessions_in("\n\n" + WEEK)[0].startswith("Monday")


def test_a_bare_day_needs_no_blank_line_and_a_longer_line_does() -> None:
    close = "Monday\n10 burpees\nThursday\n12 swings"
    assert sessions_in(close) == ["Monday\n10 burpees", "Thursday\n12 swings"]
    said = "Monday\n10 burpees\nThursday we do the same again\n12 swings"
    assert sessions_in(said) == [said]
    dated = "Monday\n10 burpees\n14.11. again\n12 swings"
    assert sessions_in(dated) == [dated]


@pytest.mark.parametrize(
    "text",
    [
        "10 burpees\n12 swings",
        "Monday\n3 rounds\n10 burpees",
        # A day with nothing under it is a line of the session before.
        "Monday\n10 burpees\n\nTuesday\n\nWednesday\n12 swings",
        "Monday\n10 burpees\n\nSunday",
    ],
)
def test_one_session_stays_whole(text: str) -> None:
    assert sessions_in(text) == [text]


@pytest.mark.parametrize("count", [2, MOST_SESSIONS, MOST_SESSIONS + 1])
def test_a_fortnight_is_taken_apart_and_more_is_not(count: int) -> None:
    text = "\n\n".join(f"{number}.3. ridge\n10 burpees" for number in range(1, count + 1))
    assert len(sessions_in(text)) == (count if count <= MOST_SESSIONS else 1)
    assert "\n".join(sessions_in(text)) == text
