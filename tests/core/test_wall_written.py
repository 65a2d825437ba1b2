"""The written form and a wall: what the product writes is read back as it is, and what was typed is kept."""

from __future__ import annotations

import json
import re
from pathlib import Path
from typing import Any

import pytest
from hypothesis import HealthCheck, given, settings

from finetally.core.board.problems import BoardError
from finetally.core.board.writer import write_full, write_wall
from finetally.core.session.reading import parse_session
from finetally.core.wall.reading import keep_words, read_wall, words_as_typed
from finetally.core.wall.told import new_names
from tests.conftest import CASES, REPOSITORY
from tests.core.strategies import documents
from tests.core.walls import CORPUS, LIBRARY, figured, read, steps_of


def written_documents() -> list[dict[str, Any]]:
    files = [*(CASES / "sessions").glob("*.json"), *(REPOSITORY / "src/finetally/data/demo").glob("*.json")]
    loaded = [json.loads(Path(file).read_text("utf-8")) for file in sorted(files)]
    return [one.get("session", one) for one in loaded]


def test_what_the_product_writes_reads_back_without_a_question() -> None:
    for document in written_documents():
        reading = read(write_full(document, library=LIBRARY))
        assert reading.document == document
        assert not reading.assumed.made
        assert not reading.unread


@settings(max_examples=150, deadline=None, suppress_health_check=[HealthCheck.too_slow])
@given(documents())
def test_any_document_reads_back_without_a_question(document: dict[str, Any]) -> None:
    reading = read(write_full(document, library=LIBRARY))
    assert reading.document == document
    assert not reading.assumed.made
    assert not reading.unread


def test_what_was_read_is_written_and_read_again_the_same() -> None:
    for case in CORPUS:
        document = read(case["text"]).document
        again = read(write_full(document, library=LIBRARY))
        assert again.document == document, case["text"]
        assert not again.assumed.made


def test_a_written_block_that_was_gone_on_with_stays_as_written() -> None:
    document = next(one for one in written_documents() if one["title"].startswith("Cold-hands"))
    text = write_wall(document, library=LIBRARY) + "\nthen 3 rounds of 10 gate vaults, 1 min rest\n"
    made = read(text).document["blocks"]
    known = read(write_wall(document, library=LIBRARY)).document["blocks"]
    assert [block["clock"] for block in made[: len(known)]] == [block["clock"] for block in known]
    assert made[-1]["steps"] == [{"movement": "gate vaults", "reps": 10}]


CHANGED = [
    ("Cool-down: 30 s each\n  calf stretch\n", {"seconds": 30, "sides": "each"}),
    ("Main: every 2:00, 5 rounds\n  10 push-up\n  10 sit-up\n", {"chain": True}),
    ("Main: for time\n  10/8 push-up\n  5 burpee\n", {"reps": 10}),
    ("Main: for time\n  1-10 push-up\n  5 burpee\n", {"reps": list(range(1, 11))}),
    ("Main: for time\n  2 min side plank\n  5 burpee\n", {"seconds": 60, "sides": "each"}),
]


@pytest.mark.parametrize(("text", "step_"), CHANGED, ids=[text.split("\n")[1].strip() for text, _ in CHANGED])
def test_readings_that_the_rules_changed(text: str, step_: dict[str, Any]) -> None:
    reading = read(f"Day\n{text}")
    assert step_.items() <= steps_of(reading)[0].items()
    assert reading.assumed.made
    again = read(write_full(reading.document, library=LIBRARY))
    assert (again.document, again.assumed.made) == (reading.document, [])


def test_rests_that_the_rules_changed() -> None:
    head = read("Day\nMain: 3 rounds, 1:00 rest\n  10 push-up\n  10 burpee\n").document["blocks"][0]
    assert head["clock"] == {"kind": "task", "round_rest_s": 60}
    below = read("Day\nMain: 3 rounds\n  10 push-up\nrest 1:00\n").document["blocks"][0]
    assert below["clock"]["round_rest_s"] == 60
    assert "rest_after_s" not in below


def test_words_are_kept_as_typed_and_known_to_be_stale_once_the_blocks_are_others() -> None:
    text = "Day\nemom 12\n12 push ups\n10 gate vaults\n"
    reading = read(text)
    [one] = reading.assumed.made
    keep_words(reading, text, {one.id: 0})
    assert words_as_typed(parse_session(reading.document), LIBRARY) == (text, {one.id: 0})
    ids = json.loads(json.dumps(reading.document))
    ids["blocks"][0]["id"] = "b1"
    assert words_as_typed(parse_session(ids), LIBRARY) is not None
    ids["blocks"][0]["steps"][0]["reps"] = 13
    assert words_as_typed(parse_session(ids), LIBRARY) is None
    assert new_names(reading, LIBRARY)[0]["column"] == 4


DOCS = (REPOSITORY / "docs/board-text.md").read_text("utf-8")
IN_DOCS = re.findall(r"^\| `(.+?)` \| (\d+):(\d\d), (\d+):(\d\d) of work(.*) \|$", DOCS, re.MULTILINE)


@pytest.mark.parametrize("row", IN_DOCS, ids=[row[0][:40] for row in IN_DOCS])
def test_the_examples_in_the_docs_come_to_what_they_say(row: tuple[str, ...]) -> None:
    text, total_min, total_s, work_min, work_s, more = row
    reading = read(text.replace(" ⏎ ", "\n"))
    made = figured(reading)
    assert made["total_s"] == pytest.approx(int(total_min) * 60 + int(total_s), abs=0.6)
    assert made["work_s"] == pytest.approx(int(work_min) * 60 + int(work_s), abs=0.6)
    assert bool(more) == any(len(one.readings) > 1 for one in reading.assumed.made)
    assert not reading.unread


def test_the_docs_show_enough() -> None:
    assert len(IN_DOCS) > 35


def test_a_broken_trailer_is_told() -> None:
    with pytest.raises(BoardError):
        read("Day\n10 burpees\n--- not for the wall ---\n{nonsense\n")


def test_rounds_without_doses_are_looked_for_in_what_is_gone_through_together(library: Any) -> None:
    text = 'Day\n\ntogether "Pod", 2 times:\nMain: as many rounds as fit in 2:00\n  3 squat jump\nend together\n1. see you\n'
    made = read_wall(f"{text}\nwith “odd” lines ((\n", library=library)
    [entry] = [one for one in made.document["blocks"] if "section" in one]
    assert len(entry["blocks"]) == 1
