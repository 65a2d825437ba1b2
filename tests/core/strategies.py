"""Hypothesis strategies for session documents: every clock, order, dose and rule of sides, lists, fills, scores, calls."""

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


def rarely(name: str, strategy: st.SearchStrategy[Any]) -> st.SearchStrategy[dict[str, Any]]:
    """A key that is there one time in six."""
    return st.integers(0, 5).flatmap(lambda n: strategy.map(lambda value: {name: value}) if n == 5 else st.just({}))


scores = st.fixed_dictionaries(
    {
        "from": st.fixed_dictionaries(
            {"block": st.just("tested"), "take": st.sampled_from(["rounds", "reps", "rung"])}
        ),
        "plan": st.integers(1, 4),
    },
    optional={"cap": st.integers(4, 6)},
)
"""A value that is known on the day: what an earlier block was scored at."""

calls = st.lists(
    st.one_of(
        st.fixed_dictionaries({"say": st.just("switch"), "at_s": st.integers(0, 40)}),
        st.fixed_dictionaries({"say": st.just("last ten"), "before_end_s": st.integers(0, 40)}),
        st.just({"say": "half", "half": True}),
    ),
    min_size=1,
    max_size=2,
)


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
def options(draw: st.DrawFn) -> dict[str, Any]:
    """Another version of a step."""
    made = {"label": draw(st.sampled_from(["short", "on the knees", "heavy"]))}
    made.update(draw(optional("level", st.sampled_from(["easier", "harder"]))))
    made.update(draw(optional("movement", st.sampled_from(PACED))))
    made.update(draw(optional("reps", reps)))
    made.update(draw(optional("sides", st.sampled_from(SIDES))))
    made.update(draw(optional("load", loads())))
    made.update(draw(optional("kit", st.sampled_from(["band", ["kettlebell"]]))))
    return {**made, **draw(optional("dose_factor", st.sampled_from([0.5, 1.5])))}


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
    made.update(draw(rarely("tempo", st.sampled_from([[3, 0, 1, 0], [2, 1, 2, 1], [0, 0, 0.5, 0]]))))
    made.update(draw(rarely("pace_s", st.sampled_from([1.5, 4]))))
    made.update(draw(rarely("options", st.lists(options(), min_size=1, max_size=2))))
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


def listed(draw: st.DrawFn, clock: dict[str, Any], some: list[dict[str, Any]], rounds: int) -> None:
    """Give some values of a block one for each round."""
    holders = [(step, key) for step in some for key in ("reps", "seconds", "metres", "rest_s") if key in step]
    holders += [(clock, key) for key in ("work_s", "rest_s", "round_rest_s", "group_rest_s") if key in clock]
    for holder, key in holders:
        value = holder[key]
        if isinstance(value, int) and draw(st.integers(0, 2)) == 0:
            holder[key] = [value + draw(st.integers(0, 9)) for _ in range(rounds)]
    for step in some:
        if "load" in step and draw(st.integers(0, 2)) == 0:
            step["load"] = [step["load"], *draw(st.lists(loads(), min_size=rounds - 1, max_size=rounds - 1))]


def slotted(draw: st.DrawFn, some: list[dict[str, Any]]) -> None:
    """Put steps of starts together in slots, and end some of them with what is done in the time that is left."""
    for step in some[:-1]:
        step.update(draw(rarely("chain", st.just(True))))
    for number, step in enumerate(some):
        if not step.get("chain") and number and draw(st.integers(0, 5)) == 5:
            filled(step)


def filled(step: dict[str, Any]) -> None:
    """Make of a step one that fills the time that is left."""
    for key in ("reps", "seconds", "metres", "grow"):
        step.pop(key, None)
    step["fill"] = True


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
    made.update(draw(optional("rounds", st.one_of(ranged(1, 4), ranged(1, 4), scores))))
    made.update(draw(optional("repeat", st.integers(1, 2))))
    lists = [made] if kind != "rotation" else made["clock"]["stations"]
    if inner == "every":
        slotted(draw, made["steps"])
    if inner == "amrap" and len(lists[0]["steps"]) > 1 and draw(st.integers(0, 5)) == 5:
        filled(lists[0]["steps"][-1])
    if draw(st.integers(0, 3)) == 3:
        made["rounds"] = draw(st.integers(2, 4))
        clock = made["clock"]
        listed(draw, clock.get("inner", clock), [step for one in lists for step in one["steps"]], made["rounds"])
    made.update(draw(rarely("calls", calls)))
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


def has_lists(value: Any) -> bool:
    """Whether a block, or a part of it, has a list with a value for each round."""
    if isinstance(value, list):
        return any(has_lists(one) for one in value)
    if not isinstance(value, dict):
        return False
    own = (value.get(key) for key in ("reps", "seconds", "metres", "load", "work_s", *RESTS))
    return any(isinstance(one, list) for one in own) or any(has_lists(one) for one in value.values())


RESTS = ("rest_s", "round_rest_s", "group_rest_s")


def settled(value: Any) -> Any:
    """The same with every range at its low end, and what is known on the day as it is planned."""
    if isinstance(value, dict):
        if value.keys() == {"low", "high"}:
            return value["low"]
        if "from" in value:
            return value["plan"]
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
