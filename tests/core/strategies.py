"""Hypothesis strategies for session documents: every clock, order, dose and rule of sides, lists, fills, scores, calls."""

from __future__ import annotations

from typing import Any

from hypothesis import strategies as st

PACED = ("air-squat", "push-up", "swing", "step-back-lunge", "burpee", "one-arm-press", "mountain-climber")
ANY = (*PACED, "hold-plank", "march", "calf-stretch", "farmer-carry", "bear-crawl", "jog")
HELD = ("hold-plank", "march", "calf-stretch")
TRAVELLED = ("farmer-carry", "bear-crawl", "jog")
SIDES = ("both", "each", "alternate", "swap", "left", "right")

Keys = st.SearchStrategy[dict[str, Any]]
# Strategies stand here ready made: one that is made while a session is drawn takes longer than the drawing.
seconds = st.integers(1, 90)
rests = st.integers(0, 60)
reps = st.integers(1, 15)


def weighted(*strategies: st.SearchStrategy[Any]) -> st.SearchStrategy[Any]:
    """One of the strategies; unlike `one_of`, what stands there twice comes twice as often."""
    return st.sampled_from(strategies).flatmap(lambda one: one)


def optional(name: str, strategy: st.SearchStrategy[Any]) -> Keys:
    """A key that may be there."""
    return st.one_of(st.just({}), strategy.map(lambda value: {name: value}))


def rarely(name: str, strategy: st.SearchStrategy[Any]) -> Keys:
    """A key that is there one time in six."""
    return weighted(*[st.just({})] * 5, strategy.map(lambda value: {name: value}))


def merged(*parts: Keys) -> Keys:
    """The keys of all parts."""
    return st.tuples(*parts).map(lambda some: {key: value for one in some for key, value in one.items()})


def ranged(low: int, high: int) -> st.SearchStrategy[Any]:
    """A whole number, or a range of them."""
    plain = st.integers(low, high)
    pair = st.tuples(plain, plain).map(lambda p: {"low": min(p), "high": max(p)})
    return st.one_of(plain, pair)


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


loads = st.one_of(
    merged(st.fixed_dictionaries({"kg": st.sampled_from([8, 12.5, 16, 24])}), optional("count", st.just(2))),
    st.fixed_dictionaries({"pct_1rm": st.integers(40, 95)}),
    st.just({"bodyweight": 0.64}),
)

# Now and then a dose that the movement has no pace for, or one to failure.
_failing = merged(st.just({"to_failure": True}), optional("plan", reps))
_called = st.fixed_dictionaries(
    {
        "movement": st.sampled_from([*PACED, *PACED, *ANY]),
        "reps": weighted(*[ranged(1, 15)] * 9, _failing),
    }
)
_grow = optional("grow", st.integers(1, 3))
_held = st.fixed_dictionaries({"movement": st.sampled_from(PACED + HELD), "seconds": ranged(5, 60)})
_travelled = st.fixed_dictionaries({"movement": st.sampled_from([*TRAVELLED, *ANY]), "metres": ranged(5, 40)})
doses = weighted(
    merged(_called, _grow),
    merged(_called, _grow),
    merged(_called, st.fixed_dictionaries({"seconds": seconds}), _grow),
    _held,
    _travelled,
)
"""A movement with a dose that it can have."""

options = merged(
    st.fixed_dictionaries({"label": st.sampled_from(["short", "on the knees", "heavy"])}),
    optional("level", st.sampled_from(["easier", "harder"])),
    optional("movement", st.sampled_from(PACED)),
    optional("reps", reps),
    optional("sides", st.sampled_from(SIDES)),
    optional("load", loads),
    optional("kit", st.sampled_from(["band", ["kettlebell"]])),
    optional("dose_factor", st.sampled_from([0.5, 1.5])),
)
"""Another version of a step."""

_of_any_step = (
    optional("sides", st.sampled_from(SIDES)),
    optional("load", loads),
    optional("effort", st.sampled_from(["easy", "steady", "hard", "all-out"])),
    optional("rest_s", rests),
    optional("reserve", st.integers(0, 5)),
    rarely("tempo", st.sampled_from([[3, 0, 1, 0], [2, 1, 2, 1], [0, 0, 0.5, 0]])),
    rarely("pace_s", st.sampled_from([1.5, 4])),
    rarely("options", st.lists(options, min_size=1, max_size=2)),
)
dosed_steps = merged(doses, *_of_any_step)
window_steps = merged(
    st.fixed_dictionaries({"movement": st.sampled_from(PACED + HELD)}), optional("seconds", seconds), *_of_any_step
)

_turn_rests = (optional("rest_s", rests), optional("round_rest_s", rests))


def _of_kind(kind: str, *parts: Keys) -> Keys:
    return merged(st.just({"kind": kind}), *parts)


def _until_end(clock: dict[str, Any]) -> dict[str, Any]:
    """Work in starts ends with the period at the latest; what comes after a cap needs one."""
    if "work_until_s" in clock:
        clock["work_until_s"] = min(clock["work_until_s"], clock["period_s"])
    if "cap_s" not in clock:
        clock.pop("then", None)
    return clock


clocks = {
    "every": _of_kind(
        "every",
        st.fixed_dictionaries({"period_s": st.integers(20, 120)}),
        optional("work_until_s", st.integers(5, 120)),
    ).map(_until_end),
    "amrap": _of_kind("amrap", *_turn_rests, st.fixed_dictionaries({"window_s": st.integers(30, 600)})),
    "intervals": _of_kind(
        "intervals",
        *_turn_rests,
        optional("group_rest_s", rests),
        st.fixed_dictionaries({"work_s": ranged(5, 60)}),
        optional("closing_rest", st.booleans()),
        optional("rest_first", st.booleans()),
    ),
    "task": _of_kind(
        "task",
        *_turn_rests,
        optional("group_rest_s", rests),
        optional("cap_s", st.integers(30, 900)),
        optional("pulse", st.fixed_dictionaries({"work_s": st.integers(10, 60), "rest_s": st.integers(1, 30)})),
        optional("then", st.sampled_from(["stop", "restart", "reverse"])),
    ).map(_until_end),
}


_more_loads = {rounds: st.lists(loads, min_size=rounds - 1, max_size=rounds - 1) for rounds in (2, 3, 4)}
_thirds, _sixths, _more = st.integers(0, 2), st.integers(0, 5), st.integers(0, 9)
_chained = rarely("chain", st.just(True))


def listed(draw: st.DrawFn, clock: dict[str, Any], some: list[dict[str, Any]], rounds: int) -> None:
    """Give some values of a block one for each round."""
    holders = [(step, key) for step in some for key in ("reps", "seconds", "metres", "rest_s") if key in step]
    holders += [(clock, key) for key in ("work_s", "rest_s", "round_rest_s", "group_rest_s") if key in clock]
    for holder, key in holders:
        value = holder[key]
        if isinstance(value, int) and draw(_thirds) == 0:
            holder[key] = [value + draw(_more) for _ in range(rounds)]
    for step in some:
        if "load" in step and draw(_thirds) == 0:
            step["load"] = [step["load"], *draw(_more_loads[rounds])]


def slotted(draw: st.DrawFn, some: list[dict[str, Any]]) -> None:
    """Put steps of starts together in slots, and end some of them with what is done in the time that is left."""
    for step in some[:-1]:
        step.update(draw(_chained))
    for number, step in enumerate(some):
        if not step.get("chain") and number and draw(_sixths) == 5:
            filled(step)


def filled(step: dict[str, Any]) -> None:
    """Make of a step one that fills the time that is left."""
    for key in ("reps", "seconds", "metres", "grow"):
        step.pop(key, None)
    step["fill"] = True


def _rotation(inner: str, some: Keys) -> Keys:
    station = st.fixed_dictionaries({"name": st.just("place"), "steps": some})
    turns = st.fixed_dictionaries({"inner": clocks[inner], "stations": st.lists(station, min_size=1, max_size=3)})
    clock = _of_kind("rotation", turns, optional("rotate_s", rests), optional("laps", st.integers(1, 2)))
    return st.fixed_dictionaries({"clock": clock})


def _plain(kind: str, some: Keys) -> Keys:
    return st.fixed_dictionaries({"clock": clocks[kind], "steps": some})


_dosed, _windows = (st.lists(one, min_size=1, max_size=4) for one in (dosed_steps, window_steps))
_of_any_block = merged(
    optional("part", st.sampled_from(["warm-up", "main", "finisher", "cool-down"])),
    optional("visit", st.sampled_from(["rounds", "build", "strip", "build-strip"])),
    optional("strip_from", st.sampled_from(["front", "back"])),
    optional("group", st.sampled_from([1, 2, "all"])),
    optional("rounds", st.one_of(ranged(1, 4), scores)),
    optional("repeat", st.integers(1, 2)),
    rarely("calls", calls),
    optional("mirror", st.booleans()),
    optional("rest_after_s", rests),
    optional("rest_between_repeats_s", rests),
    optional("talk_s", rests),
    optional("talk_over", st.just(True)),
    optional("announced_s", st.integers(60, 900)),
    optional("rest_as", st.just("walk")),
    optional("title", st.sampled_from(["Push hard", "für alle, 20/10", "  spaced  "])),
    optional("optional", st.sampled_from(["exit", "skip"])),
)
_of_some_clock = weighted(
    _plain("intervals", _windows),
    _plain("every", _dosed),
    _plain("amrap", _dosed),
    _plain("task", _dosed),
    weighted(_rotation("intervals", _windows), _rotation("amrap", _dosed), _rotation("task", _dosed)),
)
_quarters, _some_rounds = st.integers(0, 3), st.integers(2, 4)


@st.composite
def blocks(draw: st.DrawFn) -> dict[str, Any]:
    made = {**draw(_of_some_clock), **draw(_of_any_block)}
    clock = made["clock"].get("inner", made["clock"])
    lists = [one["steps"] for one in made["clock"].get("stations", [made])]
    if clock["kind"] == "every":
        slotted(draw, lists[0])
    if clock["kind"] == "amrap" and len(lists[0]) > 1 and draw(_sixths) == 5:
        filled(lists[0][-1])
    if draw(_quarters) == 3:
        made["rounds"] = draw(_some_rounds)
        listed(draw, clock, [step for some in lists for step in some], made["rounds"])
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


_block = blocks()
_section = st.fixed_dictionaries(
    {"section": st.just("Pod"), "blocks": st.lists(_block, min_size=1, max_size=2), "times": st.integers(1, 2)},
    optional={"rest_between_s": rests, "rest_after_s": rests},
)
_document = merged(
    st.fixed_dictionaries(
        {
            "fine_tally": st.just(1),
            "title": st.sampled_from(["Hill day", "A: b, c", "12"]),
            "blocks": st.lists(weighted(_block, _block, _block, _section), max_size=4),
        }
    ),
    optional("announced_s", st.integers(60, 5400)),
    optional("slack_s", rests),
)


@st.composite
def documents(draw: st.DrawFn) -> dict[str, Any]:
    """A whole session document that can be figured with the shipped library; a quarter of them with ranges."""
    made = draw(_document)
    return made if draw(_quarters) == 0 else settled(made)
