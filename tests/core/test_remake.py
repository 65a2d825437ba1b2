"""A block made over into another format: movements, words, ids and doses that stay; what a new movement gets."""

from __future__ import annotations

import json
import re
from typing import Any

import pytest

from finetally.core.formats.doses import usual_dose, usual_step
from finetally.core.formats.params import CannotMakeError
from finetally.core.formats.remake import remade, with_words, without_twins
from finetally.core.session.document import BlockOrSection
from finetally.core.session.parts import written
from finetally.core.session.reading import parse_session
from finetally.shipped import shipped_library
from tests.core.helpers import session, step

LIBRARY = shipped_library()


def entry_of(entry: dict[str, Any]) -> BlockOrSection:
    return parse_session(session(entry)).blocks[0]


def over(entry: dict[str, Any], key: str, **params: Any) -> list[dict[str, Any]]:
    return [written(one) for one in remade(entry_of(entry), key, params, library=LIBRARY)]


ROUNDS = {
    "id": "b1", "title": "Ridge", "notes": "on the grass", "part": "main", "effort": "hard", "rest_after_s": 90, "announced_s": 600,
    "clock": {"kind": "task", "rest_s": 20}, "rounds": 3,
    "steps": [
        step("push-up", id="s1", reps=12, note="slow", tempo=[3, 0, 1, 0]),
        step("hold-plank", id="s2", seconds=40),
        step("goblet-squat", id="s3", reps=8, load={"kg": 16}),
    ],
}  # fmt: skip


def test_words_ids_and_movements_stay_and_doses_go_where_windows_are_set() -> None:
    made = over(ROUNDS, "strict-20-10")
    for key in ("id", "title", "notes", "part", "effort", "rest_after_s", "announced_s"):
        assert made[0][key] == ROUNDS[key], key
    steps = [one for block in made for one in block["steps"]]
    assert [one["movement"] for one in steps][:3] == ["push-up", "hold-plank", "goblet-squat"]
    assert steps[0] == step("push-up", id="s1", note="slow", tempo=[3, 0, 1, 0])
    assert steps[2] == step("goblet-squat", id="s3", load={"kg": 16})
    assert not any("reps" in one or "seconds" in one for one in steps)


def test_doses_stay_where_the_format_takes_doses_and_what_has_none_gets_its_usual() -> None:
    windows = {**ROUNDS, "clock": {"kind": "intervals", "work_s": 40, "rest_s": 20},
               "steps": [step("push-up"), step("hold-plank"), step("jog", metres=250)]}  # fmt: skip
    made = over(windows, "rounds-against-the-clock", window_s=600)
    doses = [{key: one[key] for key in ("reps", "seconds", "metres") if key in one} for one in made[0]["steps"]]
    assert doses == [
        dict(usual_dose("push-up", LIBRARY)),
        dict(usual_dose("hold-plank", LIBRARY)),
        {"metres": 250},
    ]
    assert over(ROUNDS, "rounds-against-the-clock", window_s=600)[0]["steps"][0]["reps"] == 12


def test_a_list_of_doses_is_no_dose_for_another_format() -> None:
    laddered = {**ROUNDS, "steps": [step("push-up", reps=[9, 6, 3])]}
    assert (
        over(laddered, "rounds-against-the-clock", window_s=600)[0]["steps"][0]["reps"]
        == usual_dose("push-up", LIBRARY)["reps"]
    )


def test_what_cannot_be_held_and_what_there_is_not_is_said() -> None:
    with pytest.raises(KeyError):
        over(ROUNDS, "no-such-format")
    with pytest.raises(CannotMakeError):
        over(ROUNDS, "rounds-against-the-clock", window_s=0)


def test_words_of_a_section_go_on_its_first_block() -> None:
    section = entry_of(
        {"section": "Pods", "blocks": [ROUNDS, {"clock": {"kind": "task"}, "steps": [step("burpee", reps=5)]}]}
    )
    named = written(with_words(section, {"title": "New"}))
    assert named["section"] == "Pods"
    assert [one.get("title") for one in named["blocks"]] == ["New", None]


def ids_of(entries: list[BlockOrSection]) -> list[str]:
    return re.findall(r'"id": "(\w+)"', json.dumps([written(one) for one in entries]))


STATIONS = {
    "id": "b2",
    "clock": {
        "kind": "rotation",
        "inner": {"kind": "amrap", "window_s": 60},
        "stations": [
            {"id": "t1", "name": "mat", "steps": [step("push-up", id="s1", reps=5)]},
            {
                "id": "t2",
                "name": "bells",
                "steps": [step("swing", id="s4", reps=5), step("burpee", id="s5", reps=5)],
            },
        ],
    },
}


def test_each_id_stands_once_the_first_time_also_at_stations_and_in_sections() -> None:
    block, stations = entry_of(ROUNDS), entry_of(STATIONS)
    section = entry_of({"id": "c1", "section": "Pods", "blocks": [ROUNDS]})
    assert ids_of(without_twins([block, block])) == ["b1", "s1", "s2", "s3"]
    assert ids_of(without_twins([block, stations])) == ["b1", "s1", "s2", "s3", "b2", "t1", "t2", "s4", "s5"]
    assert ids_of(without_twins([stations, stations])) == ["b2", "t1", "s1", "t2", "s4", "s5"]
    assert ids_of(without_twins([block, section])) == ["b1", "s1", "s2", "s3", "c1"]
    assert ids_of(without_twins([section], taken={"c1", "s2"})) == ["b1", "s1", "s3"]


@pytest.mark.parametrize(
    ("key", "dose"),
    [
        ("push-up", {"reps": 10}),
        ("hold-plank", {"seconds": 30}),
        ("jog", {"metres": 20}),
        ("none-of-ours", {"reps": 10}),
    ],
)
def test_the_usual_dose_is_reps_where_a_pace_or_nothing_is_known(key: str, dose: dict[str, int]) -> None:
    assert dict(usual_dose(key, LIBRARY)) == dose


def test_a_step_that_is_added_has_its_sides_and_a_dose_where_one_is_asked_for() -> None:
    sided = next(key for key, one in LIBRARY.items() if one.sides == "each")
    assert usual_step(sided, LIBRARY, dosed=False).sides == "each"
    assert usual_step("push-up", LIBRARY, dosed=True).sides is None
    assert written(usual_step("push-up", LIBRARY, dosed=False)) == {"movement": "push-up"}
    assert written(usual_step("push-up", LIBRARY, dosed=True)) == {"movement": "push-up", "reps": 10}
