"""Hypothesis strategies for session documents: every clock, order, dose and rule of sides."""

from __future__ import annotations

from typing import Any

from hypothesis import strategies as st

PACED = ("air-squat", "push-up", "swing", "step-back-lunge", "burpee", "one-arm-press", "mountain-climber")
ANY = (*PACED, "hold-plank", "march", "calf-stretch", "farmer-carry", "bear-crawl", "jog")
HELD = ("hold-plank", "march", "calf-stretch")
TRAVELLED = ("farmer-carry", "bear-crawl", "jog")
SIDES = ("both", "each", "alternate", "swap", "left", "right")

seconds = st.integers(1, 90)
rests = st.integers(0, 60)
reps = st.integers(1, 15)


def optional(name: str, strategy: st.SearchStrategy[Any]) -> st.SearchStrategy[dict[str, Any]]:
    """A key that may be there."""
    return st.one_of(st.just({}), strategy.map(lambda value: {name: value}))


@st.composite
def loads(draw: st.DrawFn) -> dict[str, Any]:
    kind = draw(st.sampled_from(["kg", "pct_1rm", "bodyweight"]))
    if kind == "kg":
        return {"kg": draw(st.sampled_from([8, 12.5, 16, 24])), **draw(optional("count", st.just(2)))}
    return {kind: draw(st.integers(40, 95)) if kind == "pct_1rm" else 0.64}


def ranged(low: int, high: int) -> st.SearchStrategy[Any]:
    """A whole number, or a range of them."""
    plain = st.integers(low, high)
    pair = st.tuples(plain, plain).map(lambda p: {"low": min(p), "high": max(p)})
    return st.one_of(plain, plain, plain, pair)


@st.composite
def doses(draw: st.DrawFn) -> dict[str, Any]:
    """A movement with a dose that it can have."""
    kind = draw(st.sampled_from(["reps", "reps", "seconds", "metres", "both"]))
    if kind == "metres":
        return {"movement": draw(st.sampled_from([*TRAVELLED, *ANY])), "metres": draw(ranged(5, 40))}
    if kind == "seconds":
        return {"movement": draw(st.sampled_from(PACED + HELD)), "seconds": draw(ranged(5, 60))}
    # Now and then a dose that the movement has no pace for, or one to failure.
    movement = draw(st.sampled_from([*PACED, *PACED, *ANY]))
    failing = {"to_failure": True, **draw(optional("plan", reps))} if draw(st.integers(0, 9)) == 0 else None
    made: dict[str, Any] = {"movement": movement, "reps": failing or draw(ranged(1, 15))}
    if kind == "both":
        made["seconds"] = draw(seconds)
    return {**made, **draw(optional("grow", st.integers(1, 3)))}


@st.composite
def steps(draw: st.DrawFn, *, dosed: bool) -> dict[str, Any]:
    if dosed:
        made = draw(doses())
    else:
        made = {"movement": draw(st.sampled_from(PACED + HELD)), **draw(optional("seconds", seconds))}
    made.update(draw(optional("sides", st.sampled_from(SIDES))))
    made.update(draw(optional("load", loads())))
    made.update(draw(optional("effort", st.sampled_from(["easy", "steady", "hard", "all-out"]))))
    made.update(draw(optional("rest_s", rests)))
    made.update(draw(optional("reserve", st.integers(0, 5))))
    return made


@st.composite
def clocks(draw: st.DrawFn, kind: str) -> dict[str, Any]:
    if kind == "every":
        period = draw(st.integers(20, 120))
        return {"kind": kind, "period_s": period, **draw(optional("work_until_s", st.integers(5, period)))}
    made: dict[str, Any] = {
        "kind": kind,
        **draw(optional("rest_s", rests)),
        **draw(optional("round_rest_s", rests)),
    }
    if kind == "amrap":
        return {**made, "window_s": draw(st.integers(30, 600))}
    made.update(draw(optional("group_rest_s", rests)))
    if kind == "intervals":
        made["work_s"] = draw(ranged(5, 60))
        made.update(draw(optional("closing_rest", st.booleans())))
        made.update(draw(optional("rest_first", st.booleans())))
    else:
        made.update(draw(optional("cap_s", st.integers(30, 900))))
        pulse = st.fixed_dictionaries({"work_s": st.integers(10, 60), "rest_s": st.integers(1, 30)})
        made.update(draw(optional("pulse", pulse)))
        if "cap_s" in made:
            made.update(draw(optional("then", st.sampled_from(["stop", "restart", "reverse"]))))
    return made


@st.composite
def blocks(draw: st.DrawFn) -> dict[str, Any]:
    kind = draw(st.sampled_from(["intervals", "every", "amrap", "task", "rotation"]))
    inner = draw(st.sampled_from(["intervals", "amrap", "task"])) if kind == "rotation" else kind
    some = st.lists(steps(dosed=inner != "intervals"), min_size=1, max_size=4)
    if kind == "rotation":
        stations = st.lists(
            st.fixed_dictionaries({"name": st.just("place"), "steps": some}), min_size=1, max_size=3
        )
        clock = {"kind": kind, "inner": draw(clocks(inner)), "stations": draw(stations)}
        clock.update(draw(optional("rotate_s", rests)))
        clock.update(draw(optional("laps", st.integers(1, 2))))
        made: dict[str, Any] = {"clock": clock}
    else:
        made = {"clock": draw(clocks(kind)), "steps": draw(some)}
    made.update(draw(optional("part", st.sampled_from(["warm-up", "main", "finisher", "cool-down"]))))
    made.update(draw(optional("visit", st.sampled_from(["rounds", "build", "strip", "build-strip"]))))
    made.update(draw(optional("strip_from", st.sampled_from(["front", "back"]))))
    made.update(draw(optional("group", st.sampled_from([1, 2, "all"]))))
    made.update(draw(optional("rounds", ranged(1, 4))))
    made.update(draw(optional("repeat", st.integers(1, 2))))
    made.update(draw(optional("mirror", st.booleans())))
    made.update(draw(optional("rest_after_s", rests)))
    made.update(draw(optional("rest_between_repeats_s", rests)))
    made.update(draw(optional("talk_s", rests)))
    made.update(draw(optional("talk_over", st.just(True))))
    made.update(draw(optional("announced_s", st.integers(60, 900))))
    made.update(draw(optional("rest_as", st.just("walk"))))
    made.update(draw(optional("title", st.sampled_from(["Push hard", "für alle, 20/10", "  spaced  "]))))
    made.update(draw(optional("optional", st.sampled_from(["exit", "skip"]))))
    return made


def settled(value: Any) -> Any:
    """The same with every range at its low end."""
    if isinstance(value, dict):
        if value.keys() == {"low", "high"}:
            return value["low"]
        return {key: settled(child) for key, child in value.items()}
    return [settled(child) for child in value] if isinstance(value, list) else value


@st.composite
def documents(draw: st.DrawFn) -> dict[str, Any]:
    """A whole session document that can be figured with the shipped library; a quarter of them with ranges."""
    section = st.fixed_dictionaries(
        {
            "section": st.just("Pod"),
            "blocks": st.lists(blocks(), min_size=1, max_size=2),
            "times": st.integers(1, 2),
        },
        optional={"rest_between_s": rests, "rest_after_s": rests},
    )
    entries = draw(st.lists(st.one_of(blocks(), blocks(), blocks(), section), max_size=4))
    made: dict[str, Any] = {
        "fine_tally": 1,
        "title": draw(st.sampled_from(["Hill day", "A: b, c", "12"])),
        "blocks": entries,
    }
    made.update(draw(optional("announced_s", st.integers(60, 5400))))
    made.update(draw(optional("slack_s", rests)))
    return made if draw(st.integers(0, 3)) == 0 else settled(made)
