"""The shipped movements make sense."""

from __future__ import annotations

import math
from typing import Any

import pytest

from finetally.core.board.names import MAX_STUB_LOOKUPS
from finetally.core.board.reader import read_board
from finetally.core.figures import figures
from finetally.core.movements.library import Library
from finetally.core.movements.near import near_to
from finetally.core.session.movement import FINE_PATTERNS, MovementDef
from finetally.core.session.reading import parse_session
from finetally.shipped import shipped_library
from tests.core.helpers import session, step

MOVEMENTS = list(shipped_library().values())


@pytest.mark.parametrize("movement", MOVEMENTS, ids=lambda m: m.key)
def test_a_movement_is_whole(movement: MovementDef) -> None:
    assert math.isclose(sum(movement.patterns.values()), 1, abs_tol=1e-6)
    assert movement.name
    assert movement.rep_is
    assert movement.met_source
    assert movement.met is not None
    assert 2 <= movement.met <= 13
    assert movement.position
    assert movement.plane
    if movement.landings:
        assert movement.landing_grade
    if movement.rep_is == "held, no reps":
        assert movement.pace_s is None
    if movement.rep_is == "metres or seconds":
        assert movement.speed_mps


def test_references_exist_and_chains_end(library: Library) -> None:
    for movement in MOVEMENTS:
        for inside in movement.contains or []:
            assert inside.movement in library
        for swap in movement.kit_swaps or []:
            assert swap in library
        for way in ("easier", "harder"):
            seen: set[str] = set()
            todo = [movement.key]
            while todo:
                here = library[todo.pop()]
                for key in getattr(here, way) or []:
                    assert key in library
                    assert key != movement.key, f"{movement.key} comes back to itself by {way}"
                    if key not in seen:
                        seen.add(key)
                        todo.append(key)


def test_what_could_stand_for_a_movement_is_its_chain_then_its_pattern_the_same_position_first() -> None:
    def made(key: str, position: str, **more: Any) -> MovementDef:
        return MovementDef(key=key, name=key, position=position, **{"patterns": {"squat": 1}, **more})

    small = Library(
        [
            made("lying", "supine"),
            made("asked", "standing", kit_swaps=["swap"], easier="eased", harder=["harder"]),
            made("standing-too", "standing", patterns={"squat": 0.5, "carry": 0.5}),
            made("stood", "standing"),
            made("barely", "standing", patterns={"squat": 0.4, "carry": 0.6}),
            made("swap", "supine", patterns={"carry": 1}),
            made("eased", "supine"),
            made("harder", "supine"),
        ]
    )
    assert near_to("asked", small) == ["swap", "eased", "harder", "stood", "standing-too", "lying"]
    assert near_to("stood", small)[:2] == ["asked", "standing-too"]
    assert near_to("nobody", small) == []


def test_a_movement_that_nobody_has_told_the_patterns_of_is_near_to_its_chain_alone(library: Library) -> None:
    own = library.with_definitions([MovementDef(key="odd", name="odd", easier=["push-up"])])
    assert near_to("odd", own) == ["push-up"]


def test_each_shipped_movement_has_something_that_could_stand_for_it(library: Library) -> None:
    for key in library:
        near = near_to(key, library)
        assert near, key
        assert key not in near
        assert len(set(near)) == len(near)


def test_breadth(library: Library) -> None:
    assert len(library) >= 160
    assert {p for m in MOVEMENTS for p in m.patterns} == set(FINE_PATTERNS)
    kits = {k for m in MOVEMENTS for k in m.kit or ["none"]}
    wanted = ["none", "kettlebell", "dumbbell", "band", "barbell", "box", "sled", "rope", "suspension", "stretcher"]
    assert {*wanted, "medicine ball", "loaded pack"} <= kits
    positions = {m.position for m in MOVEMENTS}
    assert positions == {"standing", "kneeling", "seated", "plank", "prone", "supine", "hanging"}


def test_nearest_names(library: Library) -> None:
    assert library.nearest("pushup")[0] == "push-up"
    assert library.nearest("zzzzz") == []


def test_a_file_changes_only_what_it_names(library: Library) -> None:
    merged = library.with_definitions([MovementDef.model_validate({"key": "push-up", "pace_s": 4})])
    assert merged["push-up"].pace_s == 4
    assert merged["push-up"].patterns == library["push-up"].patterns
    assert library["push-up"].pace_s == 2


def test_unknown_names_are_held_against_the_library_only_so_often(monkeypatch: pytest.MonkeyPatch) -> None:
    looked = []
    nearest = Library.nearest
    monkeypatch.setattr(Library, "nearest", lambda self, key: looked.append(key) or nearest(self, key))
    steps = [step(f"no such thing {number % 700}", reps=1) for number in range(500)]
    figures(parse_session(session({"clock": {"kind": "task"}, "steps": steps})), library=shipped_library())
    assert not looked
    lines = "\n".join(
        f"  3 thing of sort {chr(97 + n % 26)}{chr(97 + n // 26 % 26)}{chr(97 + n // 676)}" for n in range(5_000)
    )
    board = read_board(f"Day\nMain: for time\n{lines}", library=shipped_library())
    assert len(board.stubs) == 5_000
    assert len(looked) <= MAX_STUB_LOOKUPS
    assert shipped_library().nearest("x" * 100_000) == []
