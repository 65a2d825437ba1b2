"""Estimates that are off three sessions running: of a person, and of all in a movement or a format."""

from __future__ import annotations

import math
from datetime import date

import pytest

from finetally.core.learn.learned import PaceSeen
from finetally.core.learn.off import ScoreSeen, off_course, off_together
from finetally.core.log.movements import movements_kept
from finetally.core.movements.library import Library
from finetally.core.session.reading import parse_session
from finetally.core.tally.measure import tally

DAY = date(2026, 11, 2)


@pytest.mark.parametrize(
    ("factors", "told"),
    [
        ([0.8, 0.85, 0.8], True),
        ([1.2, 1.25, 1.3], True),
        ([0.8, 1.25, 0.8], False),
        ([0.8, 0.85], False),
        ([0.98, 0.97, 0.99], False),
        ([1.3, 0.8, 0.8, 0.8], True),
        ([0.8, 0.8, 0.25, 0.8], True),
    ],
)
def test_three_times_running_off_by_more_than_the_spread_is_told(factors: list[float], told: bool) -> None:
    found = off_course([PaceSeen(DAY, one) for one in factors], 1.0, 0.1)
    assert (found is not None) is told
    if found is not None:
        assert found["fits"] == pytest.approx(math.prod(found["factors"]) ** (1 / 3))


def seen(session: int, *factors: float) -> list[ScoreSeen]:
    return [ScoreSeen(str(session), PaceSeen(DAY, one), 1.0, 0.1) for one in factors]


@pytest.mark.parametrize(
    ("sessions", "fits"),
    [
        ([(1.3, 1.2), (1.25, 1.2), (1.4, 1.2)], 1.256),
        ([(0.8, 0.7), (0.75, 0.8), (0.7, 0.9)], 0.772),
        # Before the last three nothing counts, and a session of one person tells nothing of all.
        ([(0.7, 0.7), (1.3, 1.2), (3.9,), (1.25, 1.2), (1.4, 1.2)], 1.256),
        # A score to check, four times as slow, is nobody's.
        ([(1.3, 1.2), (1.25, 1.2), (1.4, 4.0, 1.2)], 1.256),
        ([(1.3, 1.2), (1.25, 1.2), (1.4, 0.8)], None),
        ([(1.3, 1.2), (0.75, 0.8), (1.4, 1.2)], None),
        ([(1.3, 1.2), (1.25, 1.2)], None),
    ],
)
def test_what_is_off_for_all_is_told_with_what_fits(sessions: list[tuple[float, ...]], fits: float | None) -> None:
    found = off_together([one for number, factors in enumerate(sessions) for one in seen(number, *factors)])
    assert (found and round(found["fits"], 3)) == fits


def test_landings_and_the_row_of_a_movement_are_kept_with_what_was_done(library: Library) -> None:
    hops = {"key": "line-hop", "patterns": {"jump": 0.6, "brace": 0.4}, "pace_s": 1.0, "landings": 2}
    block = {"clock": {"kind": "task"}, "rounds": 3, "steps": [{"movement": "line-hop", "reps": 10}]}
    document = {"fine_tally": 1, "title": "Hops", "movements": [hops], "blocks": [block]}
    kept = movements_kept(tally(parse_session(document), library=library))
    assert (kept["line-hop"]["row"], kept["line-hop"]["landings"], kept["line-hop"]["visits"]) == ("jump", 60, 3)
