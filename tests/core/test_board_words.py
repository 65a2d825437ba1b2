"""Every construct of board text by itself: what a line says, and how it is written again."""

from __future__ import annotations

from typing import Any

import pytest

from finetally.core.board.problems import BoardError
from finetally.core.board.reader import read_board
from finetally.core.board.writer import write_wall
from finetally.core.session.ids import with_ids
from finetally.core.wall.reading import read_wall
from finetally.shipped import shipped_library
from tests.core.helpers import session, step

LIBRARY = shipped_library()


def read(text: str) -> dict[str, Any]:
    return read_board(text, library=LIBRARY).document


def wall(document: dict[str, Any]) -> str:
    return write_wall(document, library=LIBRARY)


MARGIN = [
    ("note: outdoors if it is dry", {"notes": "outdoors if it is dry"}, None),
    ("note: first\nnote: second", {"notes": "first\nsecond"}, None),
    ("caution: stop on pain", {"cautions": ["stop on pain"]}, None),
    ("caution: stop on pain\ncaution: soft landings", {"cautions": ["stop on pain", "soft landings"]}, None),
    ("tags: hill,  cold ,", {"tags": ["hill", "cold"]}, "tags: hill, cold"),
    ("people: 14", {"people": 14}, None),
    ("space: 8 x 12.5 m", {"space_m": [8, 12.5]}, "space: 8 x 12.5"),
    ("space: 20", {"space_m": 20}, None),
    ("slack: 2 min", {"slack_s": 120}, "slack: 2:00"),
    ("effort: 7 of ten", {"rpe": 7}, "effort: 7 of 10"),
    ("stands alone", {"stands_alone": True}, None),
]


@pytest.mark.parametrize(("line", "said", "written"), MARGIN, ids=[one[0].split("\n")[0] for one in MARGIN])
def test_lines_at_the_margin(line: str, said: dict[str, Any], written: str | None) -> None:
    made = read(f"Day\n{line}\n\nMain: for time\n  5 burpee\n")
    assert {key: made[key] for key in said} == said
    assert (written or line) in wall(made)


TITLES = [
    ("Ridge day B, 45 min", "Ridge day B", 2700),
    ("Ridge day B, 1:05:00", "Ridge day B", 3900),
    ("Ridge, cold, 30 min", "Ridge, cold", 1800),
    ("Ridge day B", "Ridge day B", None),
    ("Ridge, the long one", "Ridge, the long one", None),
    ("Ridge day, 40-45 min", "Ridge day", {"low": 2400, "high": 2700}),
]


@pytest.mark.parametrize(("line", "title", "told"), TITLES, ids=[one[0] for one in TITLES])
def test_the_first_line_is_the_title_and_the_length_told(line: str, title: str, told: Any) -> None:
    made = read(f"{line}\nMain: for time\n  5 burpee\n")
    assert (made["title"], made.get("announced_s")) == (title, told)
    assert read(wall(made)) == made


HEADS = [
    ("20 s on / 10 s off", {"kind": "intervals", "work_s": 20, "rest_s": 10}, {}),
    ("30 s each, no rest", {"kind": "intervals", "work_s": 30, "rest_s": 0}, {}),
    ("30 s each, 10 s rest, rest first", {"kind": "intervals", "work_s": 30, "rest_s": 10, "rest_first": True}, {}),
    ("30 s each, 10 s rest, closing rest", {"kind": "intervals", "work_s": 30, "rest_s": 10, "closing_rest": True}, {}),
    ("30 s each, no closing rest", {"kind": "intervals", "work_s": 30, "closing_rest": False}, {}),
    ("5/10/15 s each, 3 rounds", {"kind": "intervals", "work_s": [5, 10, 15]}, {"rounds": 3}),
    ("20-30 s each", {"kind": "intervals", "work_s": {"low": 20, "high": 30}}, {}),
    ("30 s each, 1:00 between groups, in pairs", {"kind": "intervals", "work_s": 30, "group_rest_s": 60}, {"group": 2}),
    ("30 s each, in threes, 4 at a time", {"kind": "intervals", "work_s": 30}, {"group": 4}),
    ("30 s each, all together", {"kind": "intervals", "work_s": 30}, {"group": "all"}),
    ("30 s each, 2 times over, 1:00 between times, mirrored", {"kind": "intervals", "work_s": 30},
     {"repeat": 2, "rest_between_repeats_s": 60, "mirror": True}),
    ("30 s each, not mirrored", {"kind": "intervals", "work_s": 30}, {"mirror": False}),
    ("30 s each, stripping down, dropping from the back", {"kind": "intervals", "work_s": 30}, {"visit": "strip", "strip_from": "back"}),
    ("30 s each, building up", {"kind": "intervals", "work_s": 30}, {"visit": "build"}),
    ("every 2:00, 5 starts", {"kind": "every", "period_s": 120, "periods": 5}, {}),
    ("every 1:00, until 45 s", {"kind": "every", "period_s": 60, "work_until_s": 45}, {}),
    ("as many rounds as possible in 12 min", {"kind": "amrap", "window_s": 720}, {}),
    ("for time, cap 15:00, then start over", {"kind": "task", "cap_s": 900, "then": "restart"}, {}),
    ("for time, then back down", {"kind": "task", "then": "reverse"}, {}),
    ("for time, cap 10:00, 45 s on / 15 s off", {"kind": "task", "cap_s": 600, "pulse": {"work_s": 45, "rest_s": 15}}, {}),
    ("for time, 2-4 rounds, 1:30 between rounds", {"kind": "task", "round_rest_s": 90}, {"rounds": {"low": 2, "high": 4}}),
    ('for time, 6 (rounds of "b2", at most 12) rounds', {"kind": "task"},
     {"rounds": {"from": {"block": "b2", "take": "rounds"}, "plan": 6, "cap": 12}}),
    ("for time, talk 1:00, all-out, effort 8 of 10", {"kind": "task"}, {"talk_s": 60, "effort": "all-out", "rpe": 8}),
    ("for time, resting with walk", {"kind": "task"}, {"rest_as": "walk"}),
    ('30 s each, call "switch" half-way, call "go" at 0:05, call "last" 5 s before the end', {"kind": "intervals", "work_s": 30},
     {"calls": [{"half": True, "say": "switch"}, {"at_s": 5, "say": "go"}, {"before_end_s": 5, "say": "last"}]}),
    ("tabata pairs", {"kind": "intervals", "work_s": 20, "rest_s": 10}, {"group": 2, "rounds": 4}),
    ("movement pyramid at own pace", {"kind": "task"}, {"visit": "build-strip"}),
]  # fmt: skip


@pytest.mark.parametrize(("line", "clock", "more"), HEADS, ids=[one[0] for one in HEADS])
def test_head_lines_say_what_they_say_and_are_read_again(
    line: str, clock: dict[str, Any], more: dict[str, Any]
) -> None:
    made = read(f"Day\nMain: {line}\n  5 burpee\n")
    block = dict(made["blocks"][0])
    block.pop("steps")
    assert block == {"clock": clock, **more}
    assert read(wall(made)) == made


OPENINGS = [
    ("Warm up:", {"part": "warm-up"}),
    ("WARM-UP:", {"part": "warm-up"}),
    ("Cool down:", {"part": "cool-down"}),
    ("Main part:", {}),
    ('Finisher "the grinder":', {"part": "finisher", "title": "the grinder"}),
    ("Finisher (or stop here):", {"part": "finisher", "optional": "exit"}),
    ("Main (may be left out):", {"optional": "skip"}),
]


@pytest.mark.parametrize(("line", "said"), OPENINGS, ids=[one[0] for one in OPENINGS])
def test_a_block_opens_with_its_part(line: str, said: dict[str, Any]) -> None:
    made = read(f"Day\n{line} for time\n  5 burpee\n")
    block = {key: value for key, value in made["blocks"][0].items() if key not in ("clock", "steps")}
    assert block == said
    assert read(wall(made)) == made


STEPS = [
    ("12 press on the left", {"reps": 12, "sides": "left"}),
    ("12 press right side", {"reps": 12, "sides": "right"}),
    ("12 press sides swap", {"reps": 12, "sides": "swap"}),
    ("12 press both sides", {"reps": 12, "sides": "both"}),
    ("12 press alternating", {"reps": 12, "sides": "alternate"}),
    ("5 press 0.64 body weight", {"reps": 5, "load": {"bodyweight": 0.64}}),
    ("5/4/3 press 16/20/24 kg", {"reps": [5, 4, 3], "load": [{"kg": 16}, {"kg": 20}, {"kg": 24}]}),
    ("5 press 2 x 26 lb", {"reps": 5, "load": {"kg": 11.793, "unit": "lb", "count": 2}}),
    ("10-15 (plan 12) press", {"reps": {"low": 10, "high": 15, "plan": 12}}),
    ("20 press, -2 each round", {"reps": 20, "grow": -2}),
    ("5 press 3 s a rep", {"reps": 5, "pace_s": 3}),
    ("5 press effort all out", {"reps": 5, "effort": "all-out"}),
    ('5 press note "slow down"', {"reps": 5, "note": "slow down"}),
    ("5 press tempo 3-0-1.5-0", {"reps": 5, "tempo": [3, 0, 1.5, 0]}),
    ("5 press 3 in the tank", {"reps": 5, "reserve": 3}),
    ("5 press rest 20-30 s", {"reps": 5, "rest_s": {"low": 20, "high": 30}}),
]


@pytest.mark.parametrize(("line", "said"), STEPS, ids=[one[0] for one in STEPS])
def test_qualities_of_a_step(line: str, said: dict[str, Any]) -> None:
    rounds = ", 3 rounds" if isinstance(said["reps"], list) else ""
    made = read(f"Day\nMain: for time{rounds}\n  {line.replace('press', 'shoulder press')}\n")
    [step] = made["blocks"][0]["steps"]
    movement = step.pop("movement")
    assert step == said
    assert movement in LIBRARY
    made["blocks"][0]["steps"] = [{"movement": movement, **said}]
    assert read(wall(made)) == made


def test_options_of_a_step_with_level_kit_and_another_dose() -> None:
    made = read(
        "Day\nMain: for time\n  12 one-arm snatch each side 16 kg\n"
        '    or "light", easier, kit "band", "box": 8 knee push-up each side\n'
        '    or "half": 0.5 of the dose\n'
        '    or "heavy", harder: 20 kg\n'
    )
    assert made["blocks"][0]["steps"][0]["options"] == [
        {"label": "light", "level": "easier", "kit": ["band", "box"], "movement": "knee-push-up", "reps": 8, "sides": "each"},
        {"label": "half", "dose_factor": 0.5},
        {"label": "heavy", "level": "harder", "load": {"kg": 20}},
    ]  # fmt: skip
    assert read(wall(made)) == made


def test_stations_and_what_happens_at_each() -> None:
    made = read(
        "Day\nMain: stations, 2 laps, 30 s to move on, at each station, as many rounds as fit in 2:30\n"
        '  at "mat", 2 rounds, room for 4, kit "mat", "band":\n    5 push-up\n  at the bells:\n    10 swing 16 kg\n'
    )
    clock = made["blocks"][0]["clock"]
    assert {key: clock[key] for key in ("kind", "laps", "rotate_s", "inner")} == {
        "kind": "rotation", "laps": 2, "rotate_s": 30, "inner": {"kind": "amrap", "window_s": 150},
    }  # fmt: skip
    mat, bells = clock["stations"]
    assert {key: mat[key] for key in ("name", "rounds", "capacity", "kit")} == {
        "name": "mat", "rounds": 2, "capacity": 4, "kit": ["mat", "band"],
    }  # fmt: skip
    assert (bells["name"], bells["steps"][0]["load"]) == ("the bells", {"kg": 16})
    assert read(wall(made)) == made


def test_blocks_gone_through_together() -> None:
    made = read(
        'Day\ntogether "couplets", 3 times, 1:30 between:\nMain: AMRAP 2:00\n  3 burpee\nrest 30 s\n'
        "Main: AMRAP 2:00\n  4 push-up\nend together\nCool-down: 30 s each\n  march\n"
    )
    section, last = made["blocks"]
    assert (section["section"], section["times"], section["rest_between_s"]) == ("couplets", 3, 90)
    assert [block.get("rest_after_s") for block in section["blocks"]] == [30, None]
    assert last["part"] == "cool-down"
    assert read(wall(made)) == made


WRONG = [
    ("Day\nMain: for tyme\n  5 burpee\n", 2),
    ("Day\nMain: for time\n  5\n", 3),
    ("Day\n  5 burpee\n", 2),
    ("Day\nrest 1:00\nMain: for time\n  5 burpee\n", 2),
    ("Day\nMain: for time\n", 2),
    ("Day\nMain: every 0:75\n  5 burpee\n", 2),
    ("Day\nend together\n", 2),
    ("Day\ntogether:\nend together\n", 3),
    ("Day\ntogether:\nMain: for time\n  5 burpee\ntogether:\nMain: for time\n  5 burpee\n", 5),
    ('Day\nMain: for time\n  or "light": 5 burpee\n', 3),
    ("Day\npeople: many\nMain: for time\n  5 burpee\n", 2),
]  # fmt: skip


@pytest.mark.parametrize(("text", "line"), WRONG, ids=[one[0].split("\n")[1] or one[0] for one in WRONG])
def test_what_cannot_be_read_names_its_line(text: str, line: int) -> None:
    with pytest.raises(BoardError) as caught:
        read(text)
    assert line in [problem.line for problem in caught.value.problems]
    assert all(problem.column >= 1 and problem.allowed for problem in caught.value.problems)


TITLES = ["Rest day", "HIIT 40/20", "20/10 x 8", "Main: x", "note: hi", "rest 5 min", "together", "title: x", "Legs, 45", "Legs, 45 min",
          "Warm-up (easy): hills", "EMOM 12", "10 burpees", "3111", "45 min", "Run 5 km", "stands alone", "my subtitle: x"]  # fmt: skip


@pytest.mark.parametrize("title", TITLES)
@pytest.mark.parametrize("more", [{}, {"announced_s": 2700}])
def test_a_title_that_looks_like_work_reads_back_as_the_title(title: str, more: dict[str, Any]) -> None:
    document = {
        **session({"clock": {"kind": "intervals", "work_s": 20}, "steps": [step("burpee")]}, **more),
        "title": title,
    }
    text = write_wall(document, library=LIBRARY)
    assert read_board(text, library=LIBRARY).document == document
    reading = read_wall(text, library=LIBRARY)
    assert (reading.document, reading.unread, reading.assumed.made) == (document, [], [])


def test_a_score_that_a_later_block_goes_on_from_keeps_its_block() -> None:
    goes_on = {"from": {"block": "up", "take": "rung"}, "plan": 5}
    document = session(
        {"id": "up", "clock": {"kind": "task", "cap_s": 600}, "steps": [step("push-up", reps=[1, 2, 3, 4])]},
        {"clock": {"kind": "task"}, "steps": [step("burpee", reps=goes_on)]},
    )
    text = write_wall(document, library=LIBRARY)
    assert 'scored as "up"' in text
    assert read_wall(text, library=LIBRARY).document == document
    # An id that nothing goes on from has no place on a wall.
    del document["blocks"][1]
    assert "scored as" not in write_wall(document, library=LIBRARY)


@pytest.mark.parametrize("text", ["Warm up 5 min", "Stretch 5 min", "cool down 5 min easy", "5 min easy breathing"])
def test_what_a_short_text_was_read_as_can_be_gone_on_with(text: str) -> None:
    before = with_ids(read_wall(text, library=LIBRARY).document)
    reading = read_wall(f"{text}\n3 rounds of 10 burpees", library=LIBRARY, before=before)
    assert [one["movement"] for block in reading.document["blocks"] for one in block["steps"]][-1:] == ["burpee"]  # type: ignore[index,union-attr,call-overload]


def test_ids_outlive_an_earlier_document_that_cannot_be_written() -> None:
    before = {
        **session({"id": "b7", "clock": {"kind": "task"}, "steps": [step("burpee", reps=-4, id="s9")]}),
        "people": 3,
    }
    reading = read_wall("Test\n\nMain: for time\n  5 burpee\n", library=LIBRARY, before=before)
    block = reading.document["blocks"][0]  # type: ignore[index]
    assert (block["id"], block["steps"][0]["id"]) == ("b7", "s9")  # type: ignore[index,call-overload]
