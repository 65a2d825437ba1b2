"""A heart-rate recording: what it comes to (peak, mean, time above shares, TRIMP by two schools), and a made-up
one.

Banister 1991: TRIMP = Σ minutes · r · k · e^(b · r), r = (pulse − rest) / (maximum − rest), with k, b = 0.64, 1.92
(men) or 0.86, 1.67 (women). Edwards 1993: minutes in five zones of the maximum from 50 % on, weighted 1 to 5.
"""

from __future__ import annotations

import itertools
import math
from collections.abc import Iterable, Sequence

from typing_extensions import TypedDict

from finetally.core.session.problems import refuse
from finetally.core.tally.measure import Tally
from finetally.core.tally.stave import ribbon_of

PulseSample = tuple[float, float]
"""Seconds from the start, beats a minute."""

MAX_RECORDING_S = 86_400.0
MAX_SAMPLES = 200_000
LEAST_PULSE, MOST_PULSE = 25.0, 250.0
"""Beats a minute beyond which it was no heart."""
GAP_S = 30.0
"""A sample holds for so long at most: what lies between longer ones is not known."""
SHARES = (60, 70, 80, 90)
MEN, WOMEN = (0.64, 1.92), (0.86, 1.67)
CURVE_POINTS = 240
SIMULATED_EVERY_S = 5


class PulseFigures(TypedDict):
    """What a recording comes to. `above`: seconds at or above so many per cent of the maximum; `known_s`:
    recorded.
    """

    known_s: float
    peak: float
    mean: float
    above: dict[str, float]
    banister_men: float
    banister_women: float
    edwards: float
    max_hr: float
    rest_hr: float


class PulseCurve(TypedDict):
    """A recording to be drawn: even slots of its length, each the mean pulse as share of the maximum, or
    nothing.
    """

    total_s: float
    shares: list[float | None]


def clean_samples(samples: Iterable[PulseSample]) -> list[PulseSample]:
    """Samples in order of time, from 0, without what was no heart. Raises DocumentError for too few, too long."""
    found = sorted((t, hr) for t, hr in samples if LEAST_PULSE <= hr <= MOST_PULSE and math.isfinite(t))
    if len(found) < 2:
        raise refuse(("text",), f"{len(found)} readings of a pulse", "at least two", "too_few")
    if len(found) > MAX_SAMPLES:
        raise refuse(("text",), f"{len(found)} readings", f"up to {MAX_SAMPLES:,}", "too_many")
    begun = found[0][0]
    if found[-1][0] - begun > MAX_RECORDING_S:
        raise refuse(("text",), f"{(found[-1][0] - begun) / 3600:.0f} hours", "up to 24 hours", "too_long")
    return [(t - begun, hr) for t, hr in found]


def pulse_figures(samples: Sequence[PulseSample], max_hr: float, rest_hr: float) -> PulseFigures:
    """What clean samples come to; each holds until the next one, for GAP_S at most.

    `max_hr`, `rest_hr`: beats a minute, the first above the second. Raises DocumentError where they are not.
    """
    if not LEAST_PULSE <= rest_hr < max_hr <= MOST_PULSE:
        raise refuse(
            ("max_hr",), f"{rest_hr:g} to {max_hr:g}", "a maximum above the resting pulse, 25 to 250", "bounds"
        )
    known = beats = men = women = edwards = 0.0
    above = dict.fromkeys(map(str, SHARES), 0.0)
    for (t, hr), (following, _) in itertools.pairwise(samples):
        seconds = min(following - t, GAP_S)
        minutes, share = seconds / 60, 100 * hr / max_hr
        reserve = min(1.0, max(0.0, (hr - rest_hr) / (max_hr - rest_hr)))
        known += seconds
        beats += hr * seconds
        for one in SHARES:
            above[str(one)] += seconds if share >= one else 0.0
        men += minutes * reserve * MEN[0] * math.exp(MEN[1] * reserve)
        women += minutes * reserve * WOMEN[0] * math.exp(WOMEN[1] * reserve)
        edwards += minutes * max(0, min(5, math.floor(share / 10) - 4))
    return {
        "known_s": known, "peak": max(hr for _, hr in samples), "mean": beats / known if known else 0.0,
        "above": above, "banister_men": men, "banister_women": women, "edwards": edwards,
        "max_hr": max_hr, "rest_hr": rest_hr,
    }  # fmt: skip


def curve_of(samples: Sequence[PulseSample], max_hr: float) -> PulseCurve:
    """Clean samples as CURVE_POINTS slots of their length, to 3 places."""
    total = samples[-1][0]
    sums, counts = [0.0] * CURVE_POINTS, [0] * CURVE_POINTS
    for t, hr in samples:
        slot = min(CURVE_POINTS - 1, int(t / total * CURVE_POINTS)) if total > 0 else 0
        sums[slot] += hr
        counts[slot] += 1
    shares = [round(s / n / max_hr, 3) if n else None for s, n in zip(sums, counts, strict=True)]
    return {"total_s": total, "shares": shares}


def simulated_watch(t: Tally, max_hr: float = 190, rest_hr: float = 60) -> list[PulseSample]:
    """A made-up strap's recording of a session: the pulse follows its breathing trace, with a small wave on it."""
    ribbon, total = ribbon_of(t), t.tape.total_s
    found: list[PulseSample] = []
    for number in range(int(total // SIMULATED_EVERY_S) + 1):
        at = number * SIMULATED_EVERY_S
        place = at / total * (len(ribbon) - 1) if total > 0 else 0.0
        low = min(int(place), len(ribbon) - 2)
        uptake = ribbon[low] + (ribbon[low + 1] - ribbon[low]) * (place - low)
        found.append((float(at), round(rest_hr + (max_hr - rest_hr) * uptake + 1.5 * math.sin(number * 0.9), 1)))
    return found
