"""Formats with fixed windows: intervals in their many orders."""

from __future__ import annotations

from typing import Any

from finetally.core.formats.lanes import countdowns, lane, slots
from finetally.core.formats.shape import (
    MAX_WINDOWS_MADE,
    CannotMakeError,
    Entry,
    Format,
    Param,
    Params,
    Steps,
    plain,
)


def _intervals(block: Entry) -> dict[str, Any] | None:
    clock: dict[str, Any] = block.get("clock", {})
    return clock if clock.get("kind") == "intervals" else None


def _one(entries: list[Entry]) -> tuple[Entry, dict[str, Any]] | None:
    """The only entry, if it is a block of intervals."""
    if len(entries) != 1:
        return None
    clock = _intervals(entries[0])
    return None if clock is None else (entries[0], clock)


def _make_strict(steps: Steps, p: Params) -> list[Entry]:
    clock: dict[str, Any] = {"kind": "intervals", "work_s": 20, "rest_s": 10}
    if p["step_rest_s"] is not None:
        clock["group_rest_s"] = p["step_rest_s"]
    return [{"clock": clock, "group": 1, "rounds": 8, "steps": steps}]


def _read_strict(entries: list[Entry]) -> tuple[Steps, Params] | None:
    found = _one(entries)
    if found is None:
        return None
    return plain(found[0]["steps"]), {"step_rest_s": found[1].get("group_rest_s")}


def _make_pairs(steps: Steps, p: Params) -> list[Entry]:
    clock = {"kind": "intervals", "work_s": 20, "rest_s": 10, "group_rest_s": p["pair_rest_s"]}
    return [{"clock": clock, "group": 2, "rounds": 4, "steps": steps}]


def _read_pairs(entries: list[Entry]) -> tuple[Steps, Params] | None:
    found = _one(entries)
    if found is None or found[1].get("group_rest_s") is None:
        return None
    return plain(found[0]["steps"]), {"pair_rest_s": found[1]["group_rest_s"]}


def _make_even(steps: Steps, p: Params) -> list[Entry]:
    clock: dict[str, Any] = {"kind": "intervals", "work_s": p["work_s"], "rest_s": p["rest_s"]}
    key = "round_rest_s" if p["order"] == "circuit" else "group_rest_s"
    if p["turn_rest_s"] is not None:
        clock[key] = p["turn_rest_s"]
    group = "all" if p["order"] == "circuit" else 1
    return [{"clock": clock, "group": group, "rounds": p["rounds"], "steps": steps}]


def _read_even(entries: list[Entry]) -> tuple[Steps, Params] | None:
    found = _one(entries)
    if found is None or isinstance(found[1].get("work_s"), list):
        return None
    block, clock = found
    straight = block.get("group", "all") == 1
    return plain(block["steps"]), {
        "work_s": clock.get("work_s"),
        "rest_s": clock.get("rest_s", 0),
        "rounds": block.get("rounds", 1),
        "order": "straight" if straight else "circuit",
        "turn_rest_s": clock.get("group_rest_s" if straight else "round_rest_s"),
    }


def _make_rising(steps: Steps, p: Params) -> list[Entry]:
    slot, by = p["slot_s"], p["by_s"]
    if by <= 0 or slot % by or slot > by * MAX_WINDOWS_MADE:
        raise CannotMakeError(f"a slot of {slot} s does not divide into steps of {by} s")
    work = list(range(by, slot + 1, by))
    if len(work) < 2:
        raise CannotMakeError(f"a slot of {slot} s in steps of {by} s is one window: nothing rises")
    clock: dict[str, Any] = {"kind": "intervals", "work_s": work, "rest_s": [slot - w for w in work]}
    if p["rest_first"]:
        clock["rest_first"] = True
    return [{"clock": clock, "rounds": len(work), "steps": steps}]


def _read_rising(entries: list[Entry]) -> tuple[Steps, Params] | None:
    found = _one(entries)
    if found is None or not isinstance(found[1].get("work_s"), list) or not found[1]["work_s"]:
        return None
    work = found[1]["work_s"]
    params = {"slot_s": work[-1], "by_s": work[0], "rest_first": bool(found[1].get("rest_first", False))}
    return plain(found[0]["steps"]), params


def _make_countdown(steps: Steps, p: Params) -> list[Entry]:
    top, by, pairs = p["top_s"], p["by_s"], len(steps) // 2
    if by <= 0 or top % by or top > by * MAX_WINDOWS_MADE:
        raise CannotMakeError(f"{top} s does not count down by {by} s")
    levels = top // by
    if levels % pairs:
        raise CannotMakeError(f"{levels} windows do not share out evenly among {pairs} pairs")
    rounds = levels // pairs
    made = []
    for index, step in enumerate(steps):
        windows = [top - by * (round_ * pairs + index // 2) for round_ in range(rounds)]
        made.append({**step, "seconds": windows if rounds > 1 else windows[0]})
    clock = {"kind": "intervals", "work_s": top, "rest_s": 0}
    return [
        {
            "clock": clock,
            "rounds": rounds,
            "repeat": 2,
            "mirror": True,
            "rest_between_repeats_s": p["turn_rest_s"],
            "steps": made,
        }
    ]


def _read_countdown(entries: list[Entry]) -> tuple[Steps, Params] | None:
    found = _one(entries)
    if found is None or not found[0].get("mirror"):
        return None
    steps = plain(found[0]["steps"])
    seconds = [s if isinstance(s, list) else [s] for s in (step.get("seconds") for step in steps)]
    if any(s is None for one in seconds for s in one):
        return None
    last = seconds[-1][-1]
    return [{k: v for k, v in step.items() if k != "seconds"} for step in steps], {
        "top_s": seconds[0][0],
        "by_s": last,
        "turn_rest_s": found[0].get("rest_between_repeats_s", 0),
    }


def _make_pyramid(steps: Steps, p: Params) -> list[Entry]:
    clock: dict[str, Any] = {"kind": p["clock"], "rest_s": 0, "round_rest_s": p["set_rest_s"]}
    if p["clock"] == "intervals":
        clock["work_s"] = p["window_s"]
    return [{"clock": clock, "visit": "build-strip", "strip_from": p["strip_from"], "steps": steps}]


def _read_pyramid(entries: list[Entry]) -> tuple[Steps, Params] | None:
    if len(entries) != 1 or entries[0].get("visit") != "build-strip":
        return None
    block, clock = entries[0], entries[0]["clock"]
    if clock.get("kind") not in ("intervals", "task"):
        return None
    return plain(block["steps"]), {
        "clock": clock.get("kind"),
        "window_s": clock.get("work_s", 30),
        "set_rest_s": clock.get("round_rest_s", 0),
        "strip_from": block.get("strip_from", "front"),
    }


STAGES: tuple[Any, ...] = ("all", 2, 3)


def _make_regrouped(steps: Steps, p: Params) -> list[Entry]:
    if len(p["windows_s"]) != len(STAGES):
        raise CannotMakeError("a window for each of the three stages")
    return [
        {
            "clock": {"kind": "intervals", "work_s": window, "rest_s": p["rest_s"]},
            "group": group,
            "rounds": p["rounds"],
            "rest_after_s": p["stage_rest_s"],
            "steps": [dict(step) for step in steps],
        }
        for window, group in zip(p["windows_s"], STAGES, strict=True)
    ]


def _read_regrouped(entries: list[Entry]) -> tuple[Steps, Params] | None:
    if len(entries) != len(STAGES) or any(_intervals(one) is None for one in entries):
        return None
    first = entries[0]
    return plain(first["steps"]), {
        "windows_s": [one["clock"].get("work_s") for one in entries],
        "rest_s": first["clock"].get("rest_s", 0),
        "rounds": first.get("rounds", 1),
        "stage_rest_s": first.get("rest_after_s", 0),
    }


def _make_flow(steps: Steps, p: Params) -> list[Entry]:
    clock = {"kind": "intervals", "work_s": p["window_s"], "rest_s": 0}
    return [{"clock": clock, "rounds": p["rounds"], "steps": steps}]


def _read_flow(entries: list[Entry]) -> tuple[Steps, Params] | None:
    found = _one(entries)
    if found is None:
        return None
    return plain(found[0]["steps"]), {"window_s": found[1].get("work_s"), "rounds": found[0].get("rounds", 1)}


WINDOW_FORMATS = (
    Format("strict-20-10", "Strict 20/10", ("tabata",), (Param("step_rest_s", "seconds", 60, open=True),),
           _make_strict, _read_strict, dose="window", claims=("tabata", "strict 20/10")),
    Format("pairs-20-10", "20/10 pairs", ("tabata pairs",), (Param("pair_rest_s", "seconds", 60, open=True),),
           _make_pairs, _read_pairs, steps=(2, None, 2), dose="window", claims=("20/10 pairs",)),
    Format("rising-windows", "Rising windows", ("fixed slot", "split shifts"),
           (Param("slot_s", "seconds", 30, 10, 120), Param("by_s", "seconds", 5, 1, 60), Param("rest_first", "flag", False)),
           _make_rising, _read_rising, dose="window", claims=("rising windows",), free=slots),
    Format("countdown-pairs", "Countdown pairs", (),
           (Param("top_s", "seconds", 60, 10, 300), Param("by_s", "seconds", 10, 1, 60), Param("turn_rest_s", "seconds", 60, open=True)),
           _make_countdown, _read_countdown, steps=(2, None, 2), dose="window", claims=("countdown",), free=countdowns),
    Format("movement-pyramid", "Movement pyramid", ("pyramid", "building pyramid"),
           (Param("clock", "choice", "intervals", choices=("intervals", "task")), Param("window_s", "seconds", 30, 5, 600),
            Param("set_rest_s", "seconds", 30, open=True), Param("strip_from", "choice", "front", choices=("front", "back"))),
           _make_pyramid, _read_pyramid, steps=(2, None, 1), claims=("pyramid",),
           free=lane("window_s", 10, 180, 5)),
    Format("regrouped-circuit", "Regrouped circuit", (),
           (Param("windows_s", "seconds-list", [40, 30, 20]), Param("rest_s", "seconds", 10, open=True),
            Param("rounds", "count", 2, 1, 20), Param("stage_rest_s", "seconds", 60, open=True)),
           _make_regrouped, _read_regrouped, steps=(6, None, 6), dose="window", free=lane("rounds", 1, 20)),
    Format("flow-holds", "Flow and holds", ("flow", "holds"),
           (Param("window_s", "seconds", 30, 5, 600), Param("rounds", "count", 1, 1, 20)),
           _make_flow, _read_flow, dose="window", claims=("flow", "holds"), free=lane("window_s", 10, 300, 5, rounds=(1, 2))),
    Format("even-intervals", "Even intervals", ("intervals",),
           (Param("work_s", "seconds", 40, 5, 1800), Param("rest_s", "seconds", 20, open=True), Param("rounds", "count", 3, 1, 50),
            Param("order", "choice", "circuit", choices=("circuit", "straight")), Param("turn_rest_s", "seconds", None, open=True)),
           _make_even, _read_even, dose="window", free=lane("rounds", 1, 50, work_s=(40, 30, 20))),
)  # fmt: skip
