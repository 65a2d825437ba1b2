"""A heart-rate recording: what both schools make of it, what is not known, a simulated strap."""

from __future__ import annotations

import math

import pytest

from finetally.core.log.pulse import clean_samples, curve_of, pulse_figures, simulated_watch
from finetally.core.session.reading import parse_session
from finetally.core.tally.measure import tally
from tests.core.helpers import session
from tests.core.test_log import AMRAP, LIBRARY, WINDOWS


def test_a_recording_comes_to_what_both_schools_make_of_it() -> None:
    """Ten minutes at 125, ten at 175; maximum 200, rest 50: reserves 0.5 and 5/6."""
    samples = [(float(t), 125.0 if t < 600 else 175.0) for t in range(0, 1201, 10)]
    made = pulse_figures(samples, 200, 50)
    assert (made["known_s"], made["peak"], made["mean"]) == (1200, 175, pytest.approx(150))
    assert made["above"] == {"60": 1200, "70": 600, "80": 600, "90": 0}
    assert made["edwards"] == pytest.approx(10 * 2 + 10 * 4)
    men = 10 * 0.5 * 0.64 * math.exp(1.92 * 0.5) + 10 * 5 / 6 * 0.64 * math.exp(1.92 * 5 / 6)
    women = 10 * 0.5 * 0.86 * math.exp(1.67 * 0.5) + 10 * 5 / 6 * 0.86 * math.exp(1.67 * 5 / 6)
    assert (made["banister_men"], made["banister_women"]) == (pytest.approx(men), pytest.approx(women))


def test_what_lies_in_a_gap_is_not_known() -> None:
    samples = clean_samples([(0, 100), (10, 110), (500, 120), (510, 0), (505, 130)])
    assert [t for t, _ in samples] == [0, 10, 500, 505]
    assert pulse_figures(samples, 190, 60)["known_s"] == 10 + 30 + 5


def test_a_simulated_strap_follows_the_breathing_trace() -> None:
    t = tally(
        parse_session(session(WINDOWS, {**AMRAP, "clock": {"kind": "amrap", "window_s": 600}})), library=LIBRARY
    )
    samples = simulated_watch(t, 190, 60)
    assert samples[-1][0] <= t.tape.total_s < samples[-1][0] + 5
    assert all(55 <= pulse <= 195 for _, pulse in samples)
    curve = curve_of(samples, 190)
    assert len(curve["shares"]) == 240
    late = [one for one in curve["shares"][150:] if one is not None]
    assert min(late) > (curve["shares"][0] or 0)
