"""Plans to pour into formats, and what they come to: measured here from the tape alone, not as the search does."""

from __future__ import annotations

import functools
from collections import Counter
from collections.abc import Sequence
from itertools import pairwise
from typing import Any, NamedTuple

from hypothesis import strategies as st

from finetally.core.compare.held import Held, Hold
from finetally.core.compare.ingredients import Ingredients
from finetally.core.compare.recast import Recast, Recaster
from finetally.core.compare.side_by_side import ComparisonRequest, ComparisonStart, start_comparison
from finetally.core.formats.bounds import Bound
from finetally.core.formats.shape import shape_of
from finetally.core.session.document import BlockOrSection
from finetally.core.session.parts import session_of
from finetally.core.tally.measure import tally
from finetally.core.unfold.tape import Tape
from finetally.core.unfold.unfold import unfold
from finetally.shipped import shipped_library
from tests.core.helpers import made, session, step

LIBRARY = shipped_library()
HOLDS: tuple[Hold, ...] = ("total", "work", "reps", "load")
EPS = 1e-6

FOUR = [
    step("push-up", reps=10),
    step("goblet-squat", reps=8, load={"kg": 16}),
    step("bent-row", reps=10, load={"kg": 12, "count": 2}),
    step("half-kneeling-press", reps=6, sides="each", load={"kg": 12}),
]
PLANS: dict[str, list[dict[str, Any]]] = {
    "one": made("rounds-for-time", [step("push-up", reps=10)], {"rounds": 5}),
    "two": made("rounds-for-time", [step("push-up", reps=10), step("air-squat", reps=15)], {"rounds": 4}),
    "three-against-the-clock": made(
        "rounds-against-the-clock",
        [step("swing", reps=12, load={"kg": 16}), step("burpee", reps=6), step("air-squat", reps=15)],
        {"window_s": 720},
    ),
    "four-loaded": made("rounds-for-time", FOUR, {"rounds": 4}),
    "six-windows": made(
        "even-intervals",
        [step(key) for key in ("push-up", "goblet-squat", "bent-row", "swing", "burpee", "step-back-lunge")],
        {"work_s": 40, "rest_s": 20, "rounds": 3},
    ),
    "seven-with-a-hold": made(
        "rounds-for-time",
        [
            *(step(key, reps=10) for key in ("push-up", "goblet-squat", "bent-row", "swing", "burpee")),
            step("step-back-lunge", reps=12, sides="alternate"),
            step("hold-plank", seconds=30),
        ],
        {"rounds": 3, "round_rest_s": 90},
    ),
    "heavy": made("strength-sets", [step("barbell-back-squat", load={"pct_1rm": 80})]),
    "heavy-pair": made(
        "strength-sets",
        [step("barbell-back-squat", load={"pct_1rm": 75}), step("bench-press", load={"kg": 60}, reserve=2)],
        {"sets": 3, "reps": [8, 6, 4], "rest_s": 150},
    ),
    "capped": made(
        "rounds-for-time",
        [step("burpee", reps=15), step("air-squat", reps=20)],
        {"rounds": 8, "cap_s": 600},
    ),
    "up-and-down": made(
        "rep-ladder",
        [step("push-up"), step("air-squat")],
        {"start": 1, "end": 8, "by": 1, "back": True, "cap_s": None},
    ),
    "metres": made(
        "rounds-for-time", [step("jog", metres=200), step("push-up", reps=12), step("farmer-carry", metres=40)], {"rounds": 4}
    ),
    "all-out-windows": [
        {**made("strict-20-10", [step("air-squat"), step("push-up")])[0], "effort": "all-out", "part": "finisher"}
    ],
}  # fmt: skip


def plan_of(entries: list[dict[str, Any]], hold: Hold, target: float | None = None) -> ComparisonStart:
    """What a comparison of entries starts from."""
    numbers = list(range(len(entries)))
    return start_comparison(
        ComparisonRequest(session(*entries), numbers, hold=hold, target=target), library=LIBRARY
    )


@functools.cache
def planned(name: str, hold: Hold) -> ComparisonStart:
    return plan_of(PLANS[name], hold)


@functools.cache
def recaster(name: str, hold: Hold) -> Recaster:
    return planned(name, hold).recaster(library=LIBRARY)


class Made(NamedTuple):
    """What entries come to: the tape, the held figure, reps called by movement."""

    tape: Tape
    value: float
    called: dict[str, int]


def measured(entries: Sequence[BlockOrSection], of: Ingredients, hold: Hold) -> Made:
    laid = session_of(entries, of.definitions, stands_alone=True)
    if hold == "load":
        t = tally(laid, library=LIBRARY)
        tape, value = t.tape, t.load
    else:
        tape = unfold(laid, library=LIBRARY)
        value = {"total": tape.total_s, "work": sum(done.seconds for done in tape.visits), "reps": 0.0}[hold]
    called: Counter[str] = Counter()
    for done in tape.visits:
        called[done.step.key] += done.called
    return Made(tape, value, dict(called))


def is_within(bound: Bound, made: Made, start: ComparisonStart) -> bool:
    """Whether a bound is kept, `left` apart."""
    value = _measure(bound, made.tape, start)
    return value is None or not (
        (bound.high is not None and value > bound.high + EPS) or (bound.low is not None and value < bound.low - EPS)
    )


def _measure(bound: Bound, tape: Tape, start: ComparisonStart) -> float | None:
    of = start.ingredients
    if bound.measure == "left":
        return None
    if bound.measure == "movements":
        return len(of.steps)
    if bound.measure == "length":
        return sum(segment.seconds for segment in tape.segments)
    if bound.measure == "rounds":
        stands = Counter(one.movement for one in of.steps)
        came = Counter(done.step.key for done in tape.visits)
        return max(count / stands[key] for key, count in came.items())
    if bound.measure == "filled":
        heavy = {n for n, done in enumerate(tape.visits) if done.step.key in of.heavy}
        shares = [
            sum(s.seconds for s in tape.segments if s.window == n and s.kind != "rest") / window.seconds
            for n, window in enumerate(tape.windows)
            if not any(s.window == n and s.visit in heavy for s in tape.segments)
        ]
        return max(shares, default=None)
    if bound.measure == "heavy-rest":
        times: dict[str, list[tuple[float, float]]] = {}
        for segment in tape.segments:
            if segment.kind == "work" and segment.visit is not None:
                key = tape.visits[segment.visit].step.key
                if key in of.heavy:
                    times.setdefault(key, []).append((segment.start, segment.start + segment.seconds))
        gaps = [b[0] - a[1] for of_key in times.values() for a, b in pairwise(of_key)]
        return min((gap for gap in gaps if gap > EPS), default=None)
    stretches = _stretches(tape)
    if bound.measure == "shortest":
        return min(seconds for _, seconds, _, _ in stretches)
    if bound.measure == "dose":
        return max((done.called + done.paced) / (2 if done.per_side else 1) for done in tape.visits)
    if bound.measure == "window":
        return max((seconds for _, seconds, _, _ in stretches), default=0)
    asked: dict[str, float] = {}
    for one, dose in zip(of.steps, of.doses, strict=True):
        if isinstance(dose.get("reps"), int):
            asked[one.movement] = max(asked.get(one.movement, 0), dose["reps"])
    for key, _, reps, _ in _stretches(start.tape) if start.tape is not None else ():
        asked[key] = max(asked.get(key, 0), reps)
    longer = [(reps, load) for key, _, reps, load in stretches if reps > asked.get(key, 0) + EPS]
    if bound.measure == "possible":
        shares = [(reps, load.pct_1rm / 100) for reps, load in longer if load is not None and load.pct_1rm]
        return max((reps / max(1, 30 * (1 / share - 1)) for reps, share in shares), default=0)
    with_load = bound.measure == "loaded-in-a-row"
    return max((reps for reps, load in longer if _has_load(load) is with_load), default=0)


def _has_load(load: Any) -> bool:
    return load is not None and any((load.kg, load.pct_1rm, load.bodyweight))


def _stretches(tape: Tape) -> list[tuple[str, float, float, Any]]:
    """Movement, seconds, reps a side and load of each stretch of work without rest or another movement."""
    found: list[tuple[str, float, float, Any]] = []
    going = False
    for segment in tape.segments:
        if segment.kind in ("rest", "talk") and not segment.taken:
            going = False
        if segment.kind != "work" or segment.visit is None:
            continue
        done = tape.visits[segment.visit]
        share = segment.seconds / done.seconds
        reps = (done.called + done.paced) * share / (2 if done.per_side else 1)
        if going and found[-1][0] == done.step.key:
            key, seconds, before, load = found[-1]
            found[-1] = (key, seconds + segment.seconds, before + reps, load)
        else:
            found.append((done.step.key, segment.seconds, reps, done.load))
        going = True
    return found


def held_at(held: Held, made: Made) -> float:
    """What is left of what is held; below 0 where it is gone over."""
    if held.what != "reps":
        return float(held.target or 0) - made.value
    if any(n > held.reps.get(key, 0) for key, n in made.called.items()):
        return -1.0
    return float(sum(held.reps.values()) - sum(made.called.values()))


def is_plan(start: ComparisonStart, found: Recast) -> bool:
    return bool(start.entries) and shape_of(found.entries) == shape_of(start.entries)


LIGHT = ["push-up", "air-squat", "burpee", "sit-up", "swing", "bent-row", "step-back-lunge", "hold-plank", "jog"]


@st.composite
def drawn_plans(draw: st.DrawFn) -> list[dict[str, Any]]:
    """Plans of one to seven movements, loaded or not, counted, held or windowed, capped or not."""
    keys = draw(st.lists(st.sampled_from(LIGHT), min_size=1, max_size=7, unique=True))
    steps = []
    for key in keys:
        if key == "jog":
            dose: dict[str, Any] = {"metres": draw(st.sampled_from([100, 200, 400]))}
        elif key == "hold-plank":
            dose = {"seconds": draw(st.sampled_from([20, 30, 45]))}
        else:
            dose = {"reps": draw(st.integers(3, 20))}
        if key in ("swing", "bent-row"):
            dose["load"] = {"kg": draw(st.sampled_from([8, 12, 16, 24]))}
        if key == "step-back-lunge":
            dose["sides"] = draw(st.sampled_from(["alternate", "each"]))
        steps.append(step(key, **dose))
    kind = draw(st.sampled_from(["rounds-for-time", "even-intervals", "rounds-against-the-clock", "strength-sets"]))
    if kind == "even-intervals":
        bare = [{k: v for k, v in one.items() if k not in ("reps", "seconds", "metres")} for one in steps]
        return made(kind, bare, {"rounds": draw(st.integers(1, 6))})
    if kind == "rounds-against-the-clock":
        return made(kind, steps, {"window_s": draw(st.sampled_from([300, 600, 1200]))})
    if kind == "strength-sets":
        return made(kind, steps, {"reps": None, "sets": draw(st.integers(2, 5)), "rest_s": 90})
    cap = draw(st.sampled_from([None, None, 480]))
    return made(kind, steps, {"rounds": draw(st.integers(1, 8)), "cap_s": cap})
