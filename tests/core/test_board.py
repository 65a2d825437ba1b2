"""Board text: read, written, read again; wrong texts say where."""

from __future__ import annotations

import copy
import json
import random
import re
from typing import Any

import pytest
from hypothesis import given, settings

from finetally.core.board.phrases import HEAD_PHRASES, TAKE_TURNS, Phrase
from finetally.core.board.problems import BoardError
from finetally.core.board.reader import read_board
from finetally.core.board.writer import headings, read_over, what_the_wall_leaves_out, write_full, write_wall
from finetally.core.session.ids import with_ids
from finetally.core.session.reading import parse_session, read_json
from finetally.shipped import shipped_library
from tests.conftest import REPOSITORY
from tests.core.helpers import session, step
from tests.core.strategies import documents

LIBRARY = shipped_library()
RIDGE = """Ridge day B, 45 min

Warm-up: 2 rounds, 30 s each
  march
  hip hinge
  step-back lunge, sides take turns
rest 1:00

Main: movement pyramid, 30 s each, 30 s between sets
  push-up
  goblet squat 16 kg
  bent row 2 x 12 kg
  bear crawl

Main: every 1:00, 3 rounds straight, until 0:45
  12 push-up + mountain climber to fill
  12 sprawl + squat jump to fill
rest 1:30

Finisher: as many rounds as fit in 7:00
  2 man-maker, +2 each round
  12 one-arm snatch each side 16 kg
  9 air squat
  6 push-up

Finisher (optional): for time, cap 30:00, 45 s on / 15 s off
  10 push-up
  20 air squat
"""


def read(text: str) -> dict[str, Any]:
    return read_board(text, library=LIBRARY).document


@pytest.mark.parametrize("levels", [1, 8, 14])
def test_the_full_form_holds_what_is_nested_as_deep_as_a_document_may(levels: int) -> None:
    mark: Any = 1
    for _ in range(levels):
        mark = {"within": mark}
    option = {"label": "light", "reps": 8, "load": {"kg": 8, "mark": mark}}
    block = {"clock": {"kind": "task"}, "steps": [step("swing", reps=10, options=[option])]}
    document = session({"section": "Pod", "blocks": [block]})
    assert read_json(json.dumps(document)) == document
    assert read(write_full(document, library=LIBRARY)) == document


@settings(max_examples=60, deadline=None)
@given(documents())
def test_the_full_form_loses_nothing_and_is_stable(document: dict[str, Any]) -> None:
    document = with_ids({**document, "club": {"anthem": [1, None]}})
    text = write_full(document, library=LIBRARY)
    again = read_board(text, library=LIBRARY).document
    assert again == document
    assert write_full(again, library=LIBRARY) == text


@settings(max_examples=30, deadline=None)
@given(documents())
def test_the_wall_form_is_stable(document: dict[str, Any]) -> None:
    wall = write_wall(document, library=LIBRARY)
    read_again = read_over(wall, document, library=LIBRARY)
    assert read_again.document == document
    assert write_wall(read_again.document, library=LIBRARY) == wall


def test_a_session_as_it_stands_on_a_wall() -> None:
    made = read(RIDGE)
    assert (made["title"], made["announced_s"]) == ("Ridge day B", 2700)
    warm, pyramid, starts, rounds, ladder = made["blocks"]
    assert warm == {
        "part": "warm-up", "rounds": 2, "clock": {"kind": "intervals", "work_s": 30}, "rest_after_s": 60,
        "steps": [step("march"), step("hip-hinge"), step("step-back-lunge", sides="alternate")],
    }  # fmt: skip
    assert pyramid["visit"] == "build-strip"
    assert pyramid["clock"] == {"kind": "intervals", "work_s": 30, "round_rest_s": 30}
    assert pyramid["steps"][2] == step("bent-row", load={"kg": 12, "count": 2})
    assert starts["clock"] == {"kind": "every", "period_s": 60, "work_until_s": 45}
    assert starts["steps"][:2] == [step("push-up", reps=12, chain=True), step("mountain-climber", fill=True)]
    assert starts["group"] == 1
    assert rounds["steps"][0] == step("man-maker", reps=2, grow=2)
    assert rounds["steps"][1] == step("one-arm-snatch", reps=12, sides="each", load={"kg": 16})
    assert ladder["optional"] == "skip"
    assert ladder["clock"] == {"kind": "task", "cap_s": 1800, "pulse": {"work_s": 45, "rest_s": 15}}


FORGIVEN = [
    ("12 Push-Ups", step("push-up", reps=12)),
    ("push-up x 12", step("push-up", reps=12)),
    ("push-up × 12", step("push-up", reps=12)),
    ("12 x push up", step("push-up", reps=12)),
    ("push-up, 12 reps", step("push-up", reps=12)),
    ("swing for 30 sec", step("swing", seconds=30)),
    ("1 min swing", step("swing", seconds=60)),
    ("1:30 swing", step("swing", seconds=90)),
    ("1.5' swing", step("swing", seconds=90)),
    ("10 to 15 swing", step("swing", reps={"low": 10, "high": 15})),
    ("10/20/30 swing", step("swing", reps=[10, 20, 30])),
    ("20 metres bear crawl", step("bear-crawl", metres=20)),
    ("5 swing 35 lbs", step("swing", reps=5, load={"kg": 15.876, "unit": "lb"})),
    ("5 swing 16 kilos per side", step("swing", reps=5, load={"kg": 16}, sides="each")),
    ("12 within 30 s swing", step("swing", reps=12, seconds=30)),
    ("5 barbell deadlift 80 %, 2 in reserve, tempo 3-1-1-0, rest 2:00",
     step("barbell-deadlift", reps=5, load={"pct_1rm": 80}, reserve=2, tempo=[3, 1, 1, 0], rest_s=120)),
]  # fmt: skip


@pytest.mark.parametrize(("line", "expected"), FORGIVEN, ids=[line for line, _ in FORGIVEN])
def test_steps_are_read_as_they_are_typed(line: str, expected: dict[str, Any]) -> None:
    assert read(f"Day\nMain: for time\n  {line}\n")["blocks"][0]["steps"] == [expected]


@pytest.mark.parametrize(
    ("line", "clock", "more"),
    [
        ("tabata", {"kind": "intervals", "work_s": 20, "rest_s": 10}, {"group": 1, "rounds": 8}),
        ("tabata, 6 rounds", {"kind": "intervals", "work_s": 20, "rest_s": 10}, {"group": 1, "rounds": 6}),
        ("AMRAP 7:00", {"kind": "amrap", "window_s": 420}, {}),
        ("EMOM, 10 starts", {"kind": "every", "period_s": 60, "periods": 10}, {}),
        (
            "4 rounds circuit 40 sec on / 20 sec off",
            {"kind": "intervals", "work_s": 40, "rest_s": 20},
            {"group": "all", "rounds": 4},
        ),
    ],
)
def test_the_words_of_the_trade_are_understood(line: str, clock: dict[str, Any], more: dict[str, Any]) -> None:
    made = read(f"Day\nMain: {line}\n  5 burpee\n")["blocks"][0]
    made.pop("steps")
    assert made == {"clock": clock, **more}


def test_an_unknown_movement_becomes_a_stub_with_the_nearest_names() -> None:
    board = read_board("Day\nMain: 30 s each\n  goblin squat 16 kg\n", library=LIBRARY)
    assert board.document["blocks"][0]["steps"][0]["movement"] == "goblin squat"
    [stub] = board.stubs
    assert (stub.line, stub.column, stub.words) == (3, 3, "goblin squat")
    assert "goblet squat" in stub.nearest


WRONG = [
    ("Day\nMain: 30 s eech\n  push-up\n", [(2, 12)]),
    ("Day\n  push-up\n", [(2, 3)]),
    ("Day\nMain: 30 s each\n  push-up 16 kog\nrest soon\n", [(3, 14), (4, 6)]),
    ("Day\nMain: 30 s each\n", [(2, 1)]),
    ("Day\nend together\n", [(2, 1)]),
    ("Day\nMain: 30 s each\n  12 + 13\n", [(3, 6)]),
    ("Day\nMain: 30 s each\n  push-up\n--- not for the wall ---\n{nonsense\n", [(5, 1)]),
]


@pytest.mark.parametrize(("text", "places"), WRONG, ids=range(len(WRONG)))
def test_every_problem_has_its_line_and_column(text: str, places: list[tuple[int, int]]) -> None:
    with pytest.raises(BoardError) as refused:
        read(text)
    assert [(one.line, one.column) for one in refused.value.problems] == places
    assert all(one.found and one.allowed for one in refused.value.problems)


def test_mutated_texts_never_crash() -> None:
    rng = random.Random(8420)
    full = write_full(with_ids(read(RIDGE)), library=LIBRARY)
    letters = "abxs0159:/-+,.\"“”()%'’ \n\t×{}[]é\0"
    refused = 0
    for _ in range(500):
        text = list(rng.choice((RIDGE, full)))
        for _ in range(rng.randint(1, 6)):
            at = rng.randrange(len(text))
            kind = rng.randrange(3)
            if kind == 0:
                text[at] = rng.choice(letters)
            elif kind == 1:
                text[at : at + rng.randint(1, 12)] = []
            else:
                text.insert(at, rng.choice(letters))
        try:
            read("".join(text))
        except BoardError as error:
            refused += 1
            assert all(one.line >= 1 and one.column >= 1 for one in error.problems)
    assert refused > 50


def edited(before: str, after: str) -> dict[str, Any]:
    document = with_ids({**read(RIDGE), "club": "Ridge"})
    document["blocks"][1]["hall"] = "north"
    wall = write_wall(document, library=LIBRARY)
    assert before in wall
    return read_over(wall.replace(before, after), document, library=LIBRARY).document


def test_ids_and_foreign_keys_survive_an_edit_of_the_text() -> None:
    kept = with_ids({**read(RIDGE), "club": "Ridge"})
    more = edited("  goblet squat 16 kg\n", "  goblet squat 20 kg\n  swing\n")
    assert more["club"] == "Ridge"
    assert more["blocks"][1]["hall"] == "north"
    assert [b["id"] for b in more["blocks"]] == [b["id"] for b in kept["blocks"]]
    ids = [s.get("id") for s in more["blocks"][1]["steps"]]
    was = [s["id"] for s in kept["blocks"][1]["steps"]]
    assert ids == [was[0], was[1], None, was[2], was[3]]


def test_a_block_taken_out_of_the_text_leaves_the_others_theirs() -> None:
    kept = with_ids(read(RIDGE))
    wall = write_wall(kept, library=LIBRARY)
    begin, end = wall.index("Warm-up:"), wall.index("Main: movement pyramid")
    less = read_over(wall[:begin] + wall[end:], kept, library=LIBRARY).document
    assert [b["id"] for b in less["blocks"]] == [b["id"] for b in kept["blocks"][1:]]


def test_what_the_coach_changed_in_the_text_is_not_overwritten() -> None:
    scored = session({"id": "b1", "clock": {"kind": "task"}, "steps": [step("push-up", reps=8, note='say "go"')]})
    scored["blocks"][0]["steps"][0]["load"] = {"kg": 10, "colour": "red"}
    wall = write_wall(scored, library=LIBRARY)
    changed = read_over(wall.replace("10 kg", "12 kg"), scored, library=LIBRARY).document["blocks"][0]["steps"][0]
    assert changed["load"]["kg"] == 12
    assert changed["note"] == 'say "go"'


def test_an_empty_page_is_written_on() -> None:
    empty = {"fine_tally": 1, "title": "New session", "blocks": []}
    assert read_over(RIDGE, empty, library=LIBRARY).document == read(RIDGE)


def test_inline_movements_are_named_on_the_wall_and_kept_in_the_trailer() -> None:
    own = {"key": "rope-haul", "name": "wet rope haul", "patterns": {"pull-level": 1}, "pace_s": 3}
    document = session({"clock": {"kind": "task"}, "steps": [step("rope-haul", reps=6)]}, movements=[own])
    text = write_full(document, library=LIBRARY)
    assert "6 wet rope haul" in text
    assert read(text) == document
    assert what_the_wall_leaves_out(copy.deepcopy(document), library=LIBRARY) == {"set": {"movements": [own]}}


DOCS = (REPOSITORY / "docs/board-text.md").read_text("utf-8")
PHRASES_IN_DOCS = re.findall(r"`([^`]+)`", DOCS.split("## Phrases of a head line")[1].split("## Steps")[0])


def test_the_example_in_the_docs_reads() -> None:
    example = "\n".join(
        line.removeprefix("    ")
        for line in DOCS.split("## The written form")[1].split("## Lines")[0].splitlines()
        if line[:4].isspace() or not line
    )
    made = read(example)
    assert [b.get("part", "main") for b in made["blocks"]] == ["warm-up", "main", "main", "finisher"]
    assert made["blocks"][3]["steps"][1]["options"][0]["level"] == "easier"


@pytest.mark.parametrize("phrase", PHRASES_IN_DOCS)
def test_every_phrase_of_the_docs_is_understood(phrase: str) -> None:
    read(f"Day\nMain: {phrase}\n  5 burpee\n")


SAYING = [one for one in HEAD_PHRASES if one is not TAKE_TURNS]


def test_what_only_makes_plain_sets_nothing() -> None:
    head = "Main: every 1:00, 3 rounds"
    assert read(f"Day\n{head}, {TAKE_TURNS.words}\n  5 burpee\n") == read(f"Day\n{head}\n  5 burpee\n")


@pytest.mark.parametrize("phrase", SAYING, ids=[one.name for one in SAYING])
def test_what_the_writer_says_the_reader_understands(phrase: Phrase) -> None:
    amount = {"time": "1:00", "count": "3", "word": ""}[phrase.kind]
    words = f"{phrase.words} {amount}" if phrase.leads else f"{amount} {phrase.words}"
    made = read(f"Day\nMain: {words}\n  5 burpee\n")["blocks"][0]
    here: Any = made
    for key in phrase.key:
        here = here[key]
    expected = {"time": 60, "count": 3, "word": phrase.value}[phrase.kind]
    assert here == expected


ODD_NUMBERS = [1e-9, 1e-300, 1e16, 0.1 + 0.2, 1 / 3, 123456789.25]


@pytest.mark.parametrize("value", ODD_NUMBERS)
def test_numbers_are_written_as_people_write_them_and_come_back_exactly(value: float) -> None:
    block = {
        "clock": {"kind": "intervals", "work_s": 20, "rest_s": min(value, 80_000.5)},
        "steps": [step("push-up")],
    }
    document = session({**block, "rest_after_s": 0.1 + 0.2}, notes="kept")
    text = write_full(document, library=LIBRARY)
    assert not re.search(r"\de[-+]\d", text.partition("---")[0])
    assert read(text) == document


def test_a_foreign_key_called_blocks_makes_no_section_of_a_block() -> None:
    block = {"clock": {"kind": "task"}, "steps": [step("push-up", reps=8)], "blocks": 10**30}
    assert headings(parse_session(session(block)).blocks) == ["for time"]
    assert read(write_full(session(block), library=LIBRARY)) == session(block)


def test_a_title_alone_is_a_session_with_nothing_in_it_yet() -> None:
    assert read("Hill day") == {"fine_tally": 1, "title": "Hill day", "blocks": []}


def test_a_long_line_of_blanks_is_read_at_once() -> None:
    assert read(f"Day,{' ' * 90_000}x")["title"].startswith("Day,")


SECTION = """Day
together "Pod", 2 times, 20 s between:
Main: as many rounds as fit in 2:00, told 2:00, talk 1:00, people move meanwhile
  push-up to failure (plan 12)
  swing each side to failure
end together
rest 45 s

Main: 30 s each
  march
"""


def test_what_a_section_rests_a_dose_to_failure_and_a_talk_while_moving_stand_on_the_wall() -> None:
    made = read(SECTION)
    section = made["blocks"][0]
    assert (section["times"], section["rest_between_s"], section["rest_after_s"]) == (2, 20, 45)
    block = section["blocks"][0]
    assert (block["announced_s"], block["talk_s"], block["talk_over"]) == (120, 60, True)
    assert block["steps"] == [
        step("push-up", reps={"to_failure": True, "plan": 12}),
        step("swing", sides="each", reps={"to_failure": True}),
    ]
    assert read(write_wall(made, library=LIBRARY)) == made
    with pytest.raises(BoardError):
        read("Day\nrest 1:00\n")


@pytest.mark.parametrize("key", ["\r\nX: y", 'say "go"', "  spaced", "a  b", "-"])
def test_a_key_that_no_line_can_hold_comes_back_from_the_full_form(key: str) -> None:
    document = session({"clock": {"kind": "task"}, "steps": [step(key, reps=8), step("push-up", reps=3)]})
    text = write_full(document, library=LIBRARY)
    assert read(text) == document
    assert write_full(read(text), library=LIBRARY) == text
