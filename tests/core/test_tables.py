"""The tables of names: complete, told apart, and what the editor offers is read by the board."""

from __future__ import annotations

import pytest

from finetally.core import tables
from finetally.core.board.reader import read_board
from finetally.core.compare.sweep import sweep_values, usual_sweep
from finetally.core.formats.params import param_spec
from finetally.core.formats.table import BY_KEY
from finetally.core.methods.value import Methods
from finetally.shipped import shipped_library

LIBRARY = shipped_library()
LISTS = {
    name: value
    for name, value in vars(tables).items()
    if isinstance(value, tuple) and value and isinstance(value[0], tables.NamedKey)
}


@pytest.mark.parametrize("name", sorted(LISTS))
def test_no_two_names_of_a_table_are_alike(name: str) -> None:
    keys = [one.key for one in LISTS[name]]
    labels = [one.label for one in LISTS[name]]
    assert len(set(keys)) == len(keys)
    assert len(set(labels)) == len(labels)
    assert all(labels)


@pytest.mark.parametrize("school", tables.SCHOOLS, ids=lambda one: one.key)
def test_a_squad_can_be_set_to_every_school(school: tables.School) -> None:
    for choice in school.choices:
        assert getattr(Methods.model_validate({school.key: choice.key}), school.key) == choice.key
    # And none that exists is missing.
    with pytest.raises(ValueError, match="Input should be") as refused:
        Methods.model_validate({school.key: "no such school"})
    assert all(f"'{choice.key}'" in str(refused.value) for choice in school.choices)
    assert str(refused.value).split("[type=")[0].count("'") == 2 * len(school.choices)


def board(text: str) -> dict:  # type: ignore[type-arg]
    return read_board(text, library=LIBRARY).document


@pytest.mark.parametrize("phrase", tables.EDITOR_PHRASES.phrases)
def test_a_phrase_that_is_offered_is_read_in_a_head(phrase: str) -> None:
    others = {
        "8 rounds": "20 s on / 10 s off, ", "until 0:45": "every 1:00, ", "1:00 between rounds": "for time, 3 rounds, ",
        "cap 15:00": "for time, ", "1:00 between groups": "45 s on / 15 s off, 2 rounds, one at a time, ",
        "one at a time": "45 s on / 15 s off, 2 rounds, ", "in pairs": "45 s on / 15 s off, 2 rounds, ",
        "at each station": "stations, 2 laps, 30 s to move on, ", "30 s to move on": "stations, 2 laps, ",
        "rest first": "20 s on / 10 s off, 8 rounds, ", "mirrored": "movement pyramid, 20 s on / 10 s off, ",
        "building up": "20 s on / 10 s off, ", "talk 1:00": "20 s on / 10 s off, ", "hard": "20 s on / 10 s off, ",
        "all-out": "20 s on / 10 s off, ",
    }  # fmt: skip
    steps = "\n  squat\n  push-up\n"
    assert board(f"Title\n\nMain: {others.get(phrase, '')}{phrase}{steps}")["blocks"]


@pytest.mark.parametrize("quality", tables.EDITOR_PHRASES.qualities)
def test_a_quality_that_is_offered_is_read_in_a_step(quality: str) -> None:
    before = "every 1:00, 5 rounds" if quality == "to fill" else "for time, 3 rounds"
    dose = "" if quality == "to fill" else "10 "
    assert board(f"Title\n\nMain: {before}\n  {dose}bent row, {quality}\n")["blocks"]


@pytest.mark.parametrize("key", sorted(BY_KEY))
def test_the_first_range_of_a_sweep_can_be_swept(key: str) -> None:
    for name in BY_KEY[key].params.model_fields:
        usual = usual_sweep(key, name)
        assert (usual is None) == (param_spec(BY_KEY[key].params, name).unit not in ("seconds", "count", "reps"))
        if usual:
            assert len(sweep_values(key, name, **usual)) >= 2
