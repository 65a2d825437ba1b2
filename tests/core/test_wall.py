"""Reading a wall: any coach's own words give figures, what was assumed is told, and nothing is lost."""

from __future__ import annotations

import json
import random
from typing import Any

import pytest

from finetally.core.movements.names import canonical
from finetally.core.session.movement import MovementDef
from finetally.core.wall.reading import read_wall
from finetally.core.wall.tokens.rules import WRITING_RULES, scan
from finetally.core.wall.tokens.tokens import plain, tokens_of
from finetally.core.wall.told import told_of
from finetally.shipped import everyday_aliases
from tests.conftest import REPOSITORY
from tests.core.helpers import session, step
from tests.core.walls import CORPUS, HABITS, LIBRARY, figured, read, steps_of


@pytest.mark.parametrize("case", [*CORPUS, *HABITS], ids=lambda case: case["text"][:30].replace("\n", " "))
def test_everyday_writings_come_to_what_they_say(case: dict[str, Any]) -> None:
    reading = read(case["text"])
    made = figured(reading)
    assert made["total_s"] == pytest.approx(case["total_s"], abs=0.6)
    assert made["work_s"] == pytest.approx(case["work_s"], abs=0.6)
    assert made["rest_s"] == pytest.approx(case["rest_s"], abs=0.6)
    reps = made["reps"]
    assert (reps["called"], reps["estimated"]) == (case["called"], case["estimated"])
    assert reps["paced"] == pytest.approx(case["paced"], abs=1.01)
    assert set(case["movements"]) <= set(made["movements"])


EXAMPLES = [(rule.kind, example) for rule in WRITING_RULES for example in rule.examples]


@pytest.mark.parametrize(("kind", "example"), EXAMPLES, ids=[example for _, example in EXAMPLES])
def test_every_rule_reads_its_examples(kind: str, example: str) -> None:
    assert scan(tokens_of(plain(example))).has(kind)


@pytest.mark.parametrize("kind", sorted({rule.kind for rule in WRITING_RULES}))
def test_every_kind_of_fact_has_an_example(kind: str) -> None:
    assert any(rule.kind == kind and rule.examples for rule in WRITING_RULES)


# Unknown movements ------------------------------------------------------------------------------------------------
def test_a_name_that_nobody_knows_takes_nothing_away() -> None:
    reading = read("Thursday, 40 min\n3 rounds, 60 s rest\n10 gate vaults\n12 push ups\n")
    assert reading.unknown == ["gate vaults"]
    made = figured(reading)
    assert made["total_s"] == 3 * (30 + 24) + 2 * 60
    assert made["movements"]["gate vaults"] == {
        **made["movements"]["push-up"], "provisional": True, "called": 30, "work_s": 90,
    }  # fmt: skip
    assert made["effort"]["complete"] is False
    assert made["effort"]["provisional"] == ["gate vaults"]
    assert made["balance"]["unassigned_s"] == 90
    assert made["balance"]["rows"]["push"]["share"] == 1


def test_a_new_name_under_a_window_has_no_reps_and_in_metres_the_speed_of_the_unknown() -> None:
    window = figured(read("40 on 20 off x 2\ngate vaults\n"))
    assert window["reps"]["estimated"] == 0
    assert figured(read("100 m gate vaults\n"))["work_s"] == pytest.approx(50)


def test_a_new_name_is_one_movement_however_it_is_written() -> None:
    reading = read("3 rounds\n10 gate vaults\n10 Gate-Vault\n")
    assert {one["movement"] for one in steps_of(reading)} == {"gate vaults"}


def test_a_defined_name_is_known_from_then_on() -> None:
    own = {"key": "gate-vault", "name": "gate vault", "patterns": {"jump": 1}, "pace_s": 2}
    before = {**session({"clock": {"kind": "task"}, "steps": [step("push-up", reps=1)]}), "movements": [own]}
    reading = read("3 rounds\n10 gate vaults\n", before=before)
    assert (reading.unknown, steps_of(reading)[0]["movement"]) == ([], "gate-vault")


def test_a_name_that_came_to_be_known_is_that_movement_when_the_words_are_read_again() -> None:
    text = "3 rounds\n10 goblin squats\n10 burpees\n"
    before = read(text).document
    named = MovementDef.model_validate({"key": "goblet-squat", "aliases": ["goblin squats"]})
    again = read_wall(text, library=LIBRARY.with_definitions([named]), before=before)
    assert steps_of(again)[0]["movement"] == "goblet-squat"


# Names ------------------------------------------------------------------------------------------------------------
NAMES = [
    (key, name) for key, movement in LIBRARY.items() for name in (movement.name, *(movement.aliases or ())) if name
]


def test_every_name_is_read_behind_a_number() -> None:
    wrong = []
    for key, name in NAMES:
        steps = steps_of(read(f"Day\n10 {name}\n5 burpees\n"))
        if len(steps) != 2 or steps[0]["movement"] != key:
            wrong.append((key, name, [one["movement"] for one in steps]))
    assert not wrong


def test_no_name_stands_for_two() -> None:
    owner: dict[str, str] = {}
    for key, name in NAMES:
        assert owner.setdefault("".join(canonical(name)), key) == key, name


def test_every_group_of_everyday_names_has_its_reason() -> None:
    groups = json.loads((REPOSITORY / "src/finetally/data/aliases.json").read_text("utf-8"))
    assert all(group["why"] and set(group["of"]) <= set(LIBRARY) for group in groups)
    assert sum(len(names) for names in everyday_aliases().values()) > 400


EVERYDAY = [
    ("10 air sqauts", "air-squat"), ("20 mountian climbers", "mountain-climber"), ("10 pressups", "push-up"),
    ("10 KB swings", "swing"), ("10 DB rows", "bent-row"), ("10 KB rows", "bell-row"), ("8 RDL", "straight-leg-deadlift"),
    ("10 chins", "chin-up"), ("10 dips", "bar-dip"), ("10 dips on bench", "box-dip"), ("500 m row", "row-machine"),
    ("5 min run", "jog"), ("10 lunges", "forward-lunge"), ("5 reps press", "barbell-press"), ("20 MC", "mountain-climber"),
    ("5 squats @ 80%", "barbell-back-squat"), ("10 thrusters 40 kg", "barbell-thruster"), ("10 thrusters 2x12 kg", "thruster"),
    ("40 m waiter carry", "overhead-carry"), ("5 depth jumps", "drop-jump"), ("10 pull downs w/ band", "band-pull-down"),
    ("4 world's greatest stretch", "world-lunge"), ("10 strict pull-ups", "pull-up"), ("10 lunges with twist", "lunge-twist"),
]  # fmt: skip


@pytest.mark.parametrize(("line", "key"), EVERYDAY, ids=[line for line, _ in EVERYDAY])
def test_everyday_names(line: str, key: str) -> None:
    assert steps_of(read(f"Day\n{line}\n5 burpees\n"))[0]["movement"] == key


def test_a_squad_is_no_squat() -> None:
    assert read("Ropes and sleds, squad 4\n\n2:00 march\n").unknown == []
    assert steps_of(read("Day\n10 log jumps\n5 burpees\n"))[0]["movement"] == "log jumps"


# Assumptions ------------------------------------------------------------------------------------------------------
ASSUMED = [
    ("emom 12\n12 push ups\n10 air squats\n15 swings", "starts-order", 4 * (24 + 20 + 24), 12 * (24 + 20 + 16)),
    ("3 rounds\n10 push ups\nrest 1 min\n8 min amrap\n5 burpees", "rest-below", 60 + 480, 60 + 480),
    ("cool down: 30 s each\nquad stretch\ncalf stretch", "stretch-window", 120, 60),
    ("4 min: 20s hard 10s easy\nburpees", "closing-rest", 160, 160),
    ("burpees 1-10", "ladder-up", 220, 20),
    ("5-20 burpees", "wide-range", 48, 800),
    ("tabata\nburpees\nswings", "tabata-order", 320, 160),
    ("2 min side plank", "own-seconds", 120, 240),
    ("10 x 20 s sprint / 40 s easy", "easy-rest", 200, 240),
]


@pytest.mark.parametrize(("text", "rule", "work", "other"), ASSUMED, ids=[case[1] for case in ASSUMED])
def test_what_could_be_meant_otherwise_is_told_and_can_be_chosen(
    text: str, rule: str, work: float, other: float
) -> None:
    reading = read(text)
    assert figured(reading)["work_s"] == pytest.approx(work)
    [one] = [a for a in reading.assumed.made if a.rule == rule]
    assert (one.settled, len(one.readings) > 1) == (False, True)
    chosen = 1 - one.chosen
    again = read(text, settled={one.id: chosen})
    assert figured(again)["work_s"] == pytest.approx(other)
    [settled] = [a for a in again.assumed.made if a.id == one.id]
    assert (settled.settled, settled.chosen) == (True, chosen)
    habit = read(text, habits={rule: chosen})
    assert habit.document == again.document
    assert [a.settled for a in habit.assumed.made if a.id == one.id] == [False]


def test_what_was_chosen_stays_with_its_words_when_lines_above_change() -> None:
    text = "emom 12\n12 push ups\n10 air squats\n"
    [one] = read(text).assumed.made
    again = read(f"Thursday, 40 min\n5 min jog\n\n{text}", settled={one.id: 1})
    assert steps_of(again)[1]["chain"] is True


def test_every_reading_that_is_offered_gives_a_session() -> None:
    for case in CORPUS:
        for one in read(case["text"]).assumed.made:
            for number in range(len(one.readings)):
                again = read(case["text"], settled={one.id: number})
                figured(again)
                assert again.unread == read(case["text"]).unread


def test_what_is_told_has_its_line_and_the_other_readings() -> None:
    told = told_of(read("Day\n\nemom 12\n12 push ups\n10 gate vaults\nHave fun!\n"))
    [one] = told["assumed"]
    assert (one["line"], one["rule"], len(one["or"])) == (3, "starts-order", 1)
    assert told["unknown"] == ["gate vaults"]


# Notes and what is not read ----------------------------------------------------------------------------------------
NOTHING = [
    "",
    "\n\n",
    "Rest day!",
    "Hi all, see you on Thursday!",
    "🔥🔥🔥",
    "----",
    "a" * 5_000,
    "(((((",
    "0",
    "x",
    ":",
]


@pytest.mark.parametrize("text", NOTHING, ids=range(len(NOTHING)))
def test_a_text_without_work_is_an_empty_session(text: str) -> None:
    reading = read(text)
    assert figured(reading)["total_s"] == 0
    kept = reading.document.get("notes", "") + reading.document["title"]
    assert not text.strip("-🔥\n") or kept.strip()


TOO_MUCH = [
    ("10 burpees\n\nevery 1 min x 900: 5000 push ups for 86400 s", "every 1 min x 900", {"burpee"}),
    ("3 rounds\n10 burpees\n10 swings 4000 kg\n20 sit ups", "10 swings 4000 kg", {"burpee", "swing", "sit-up"}),
    ("10 burpees\nhall code 4711#, 2 of 3 doors", "hall code 4711#", {"burpee", "doors"}),
    ("5x5 back squat 9000 kg\n\n3x10 press ups", "back squat 9000", {"barbell-back-squat", "push-up"}),
]  # fmt: skip


@pytest.mark.parametrize(("text", "told", "kept"), TOO_MUCH, ids=[case[1] for case in TOO_MUCH])
def test_what_no_session_can_hold_takes_nothing_else_away(text: str, told: str, kept: set[str]) -> None:
    reading = read(text)
    assert figured(reading)["total_s"] > 0
    assert kept <= {one["movement"] for one in steps_of(reading)}
    assert not any("load" in one for one in steps_of(reading))
    assert [told in one.text for one in reading.unread] == [True]


def test_several_thousand_lines_are_read_as_far_as_a_session_goes() -> None:
    reading = read("10 burpees\n" * 30_000)
    assert steps_of(reading)
    assert reading.unread


def test_mutated_writings_and_random_words_give_a_session() -> None:
    chance = random.Random(7)
    texts = [case["text"] for case in CORPUS]
    words = sorted({word for text in texts for word in text.split()})
    signs = "0123456789:/-x,.()[]\"'+@%*\n\t½→é🔥#=&;!?"

    def mutated(text: str) -> str:
        for _ in range(chance.randint(1, 5)):
            lines = text.split("\n")
            at = chance.randrange(len(text) + 1)
            match chance.randint(0, 4):
                case 0:
                    text = text[:at] + chance.choice(signs) + text[at:]
                case 1:
                    text = text[: max(0, at - 1)] + text[at:]
                case 2:
                    chance.shuffle(lines)
                    text = "\n".join(lines)
                case 3:
                    text = f"{text}\n{chance.choice(texts)}"
                case _:
                    text = text.replace(chance.choice("0123456789"), str(chance.randint(0, 99_999)))
        return text

    made = [mutated(chance.choice(texts)) for _ in range(1_000)]
    for _ in range(300):
        lines = (" ".join(chance.choices(words, k=chance.randint(0, 9))) for _ in range(chance.randint(1, 20)))
        made.append("\n".join(lines))
    for text in made:
        figured(read(text))
