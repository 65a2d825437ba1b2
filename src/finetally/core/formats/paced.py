"""Self-paced formats: rounds against the clock, ladders, rounds for time, sets."""

from __future__ import annotations

from typing import Any

from finetally.core.formats.lanes import LONGEST_S, doses, ladders, lane
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


def _one(entries: list[Entry], kind: str) -> tuple[Entry, dict[str, Any]] | None:
    if len(entries) != 1 or entries[0].get("clock", {}).get("kind") != kind:
        return None
    return entries[0], entries[0]["clock"]


def _amrap(window_s: Any, steps: Steps) -> Entry:
    return {"clock": {"kind": "amrap", "window_s": window_s}, "steps": steps}


def _make_rounds(steps: Steps, p: Params) -> list[Entry]:
    return [_amrap(p["window_s"], steps)]


def _read_rounds(entries: list[Entry]) -> tuple[Steps, Params] | None:
    found = _one(entries, "amrap")
    return None if found is None else (plain(found[0]["steps"]), {"window_s": found[1].get("window_s")})


def _make_challenge(steps: Steps, p: Params) -> list[Entry]:
    return [_amrap(60, steps)]


def _read_challenge(entries: list[Entry]) -> tuple[Steps, Params] | None:
    found = _one(entries, "amrap")
    return None if found is None else (plain(found[0]["steps"]), {})


def _make_growing(steps: Steps, p: Params) -> list[Entry]:
    first, *rest = steps
    return [_amrap(p["window_s"], [{**first, "grow": p["growth"]}, *rest])]


def _read_growing(entries: list[Entry]) -> tuple[Steps, Params] | None:
    found = _one(entries, "amrap")
    if found is None or not found[0]["steps"][0].get("grow"):
        return None
    steps = plain(found[0]["steps"])
    growth = steps[0].pop("grow")
    return steps, {"window_s": found[1].get("window_s"), "growth": growth}


def _make_halving(steps: Steps, p: Params) -> list[Entry]:
    top = p["top"]
    doses = (top, top // 2, top // 4)
    return [_amrap(p["window_s"], [{**s, "reps": n} for s, n in zip(steps, doses, strict=True)])]


def _read_halving(entries: list[Entry]) -> tuple[Steps, Params] | None:
    found = _one(entries, "amrap")
    if found is None or len(found[0]["steps"]) != 3 or not isinstance(found[0]["steps"][0].get("reps"), int):
        return None
    steps = plain(found[0]["steps"])
    top = steps[0]["reps"]
    bare = [{k: v for k, v in step.items() if k != "reps"} for step in steps]
    return bare, {"window_s": found[1].get("window_s"), "top": top}


def _make_couplets(steps: Steps, p: Params) -> list[Entry]:
    first = {**_amrap(p["window_s"], steps[:2]), "rest_after_s": p["pod_rest_s"]}
    return [
        {
            "section": "Couplets",
            "times": p["times"],
            "rest_between_s": p["pod_rest_s"],
            "blocks": [first, _amrap(p["window_s"], steps[2:])],
        }
    ]


def _read_couplets(entries: list[Entry]) -> tuple[Steps, Params] | None:
    if len(entries) != 1 or "section" not in entries[0] or len(entries[0]["blocks"]) != 2:
        return None
    section = entries[0]
    if any(block["clock"].get("kind") != "amrap" for block in section["blocks"]):
        return None
    return plain([step for block in section["blocks"] for step in block["steps"]]), {
        "window_s": section["blocks"][0]["clock"].get("window_s"),
        "times": section.get("times", 1),
        "pod_rest_s": section.get("rest_between_s", 0),
    }


def ladder(start: int, end: int, by: int, *, back: bool) -> list[int]:
    """The rungs from `start` to `end` by `by`, and back down to the start if asked."""
    if by <= 0:
        raise CannotMakeError("a ladder needs a step above 0")
    if abs(end - start) > by * MAX_WINDOWS_MADE:
        raise CannotMakeError(f"a ladder has at most {MAX_WINDOWS_MADE} rungs")
    rungs = list(range(start, end + 1, by) if end >= start else range(start, end - 1, -by))
    if len(rungs) < 2:
        raise CannotMakeError("a ladder needs two rungs or more")
    if rungs[-1] != end:
        raise CannotMakeError(f"{start} to {end} is not reached by steps of {by}")
    return rungs + rungs[-2::-1] if back else rungs


def _make_ladder(steps: Steps, p: Params) -> list[Entry]:
    rungs = ladder(p["start"], p["end"], p["by"], back=p["back"])
    clock: dict[str, Any] = {"kind": "task"}
    if p["cap_s"] is not None:
        clock["cap_s"] = p["cap_s"]
    if "pulse_work_s" in p:
        clock["pulse"] = {"work_s": p["pulse_work_s"], "rest_s": p["pulse_rest_s"]}
    if p["layout"] == "rounds":
        return [{"clock": clock, "rounds": len(rungs), "steps": [{**step, "reps": list(rungs)} for step in steps]}]
    if len(rungs) != len(steps):
        raise CannotMakeError(f"{len(rungs)} rungs for {len(steps)} movements: one dose a movement needs as many")
    return [{"clock": clock, "steps": [{**step, "reps": n} for step, n in zip(steps, rungs, strict=True)]}]


def _read_ladder(entries: list[Entry], *, pulse: bool) -> tuple[Steps, Params] | None:
    found = _one(entries, "task")
    if found is None or ("pulse" in found[1]) is not pulse:
        return None
    steps = plain(found[0]["steps"])
    doses = [step.get("reps") for step in steps]
    in_rounds = all(isinstance(dose, list) for dose in doses)
    rungs = doses[0] if in_rounds else doses
    if not rungs or len(rungs) < 2 or not all(isinstance(n, int) for n in rungs):
        return None
    back = len(rungs) > 2 and rungs == rungs[::-1]
    end = rungs[len(rungs) // 2] if back else rungs[-1]
    params = {
        "start": rungs[0],
        "end": end,
        "by": abs(rungs[1] - rungs[0]),
        "back": back,
        "layout": "rounds" if in_rounds else "one-a-movement",
        "cap_s": found[1].get("cap_s"),
    }
    if pulse:
        params["pulse_work_s"] = found[1]["pulse"].get("work_s")
        params["pulse_rest_s"] = found[1]["pulse"].get("rest_s")
    return [{k: v for k, v in step.items() if k != "reps"} for step in steps], params


def _make_for_time(steps: Steps, p: Params) -> list[Entry]:
    clock: dict[str, Any] = {"kind": "task", "round_rest_s": p["round_rest_s"]}
    if p["cap_s"] is not None:
        clock["cap_s"] = p["cap_s"]
    return [{"clock": clock, "rounds": p["rounds"], "steps": steps}]


def _read_for_time(entries: list[Entry]) -> tuple[Steps, Params] | None:
    found = _one(entries, "task")
    if found is None:
        return None
    return plain(found[0]["steps"]), {
        "rounds": found[0].get("rounds", 1),
        "round_rest_s": found[1].get("round_rest_s", 0),
        "cap_s": found[1].get("cap_s"),
    }


def _make_refrain(steps: Steps, p: Params) -> list[Entry]:
    refrain, *others = steps
    made: Steps = []
    for other in others:
        made += [other, dict(refrain)]
    return [{"clock": {"kind": "task"}, "steps": made[:-1]}]


def _read_refrain(entries: list[Entry]) -> tuple[Steps, Params] | None:
    found = _one(entries, "task")
    if found is None or len(found[0]["steps"]) < 5 or len(found[0]["steps"]) % 2 == 0:
        return None
    steps = plain(found[0]["steps"])
    return [steps[1], *steps[::2]], {}


def _make_reps_then_time(steps: Steps, p: Params) -> list[Entry]:
    made = [
        {**step, "reps": p["reps"]} if index % 2 == 0 else {**step, "seconds": p["seconds"]}
        for index, step in enumerate(steps)
    ]
    clock = {"kind": "task", "group_rest_s": p["pair_rest_s"]}
    return [{"clock": clock, "group": 2, "rounds": p["rounds"], "steps": made}]


def _read_reps_then_time(entries: list[Entry]) -> tuple[Steps, Params] | None:
    found = _one(entries, "task")
    if found is None or found[0].get("group") != 2 or len(found[0]["steps"]) < 2:
        return None
    steps = plain(found[0]["steps"])
    params = {
        "reps": steps[0].get("reps"),
        "seconds": steps[1].get("seconds"),
        "pair_rest_s": found[1].get("group_rest_s"),
        "rounds": found[0].get("rounds", 1),
    }
    if None in params.values():
        return None
    return [{k: v for k, v in step.items() if k not in ("reps", "seconds")} for step in steps], params


def _make_sets(steps: Steps, p: Params) -> list[Entry]:
    made = [{**step, "reps": p["reps"]} for step in steps]
    return [{"clock": {"kind": "task", "rest_s": p["rest_s"]}, "group": 1, "rounds": p["sets"], "steps": made}]


def _read_sets(entries: list[Entry]) -> tuple[Steps, Params] | None:
    found = _one(entries, "task")
    if found is None or found[0].get("group") != 1:
        return None
    steps = plain(found[0]["steps"])
    params = {
        "reps": steps[0].get("reps"),
        "sets": found[0].get("rounds", 1),
        "rest_s": found[1].get("rest_s", 0),
    }
    return [{k: v for k, v in step.items() if k != "reps"} for step in steps], params


_WINDOW = Param("window_s", "seconds", 600, 30, 3600)
_WINDOWS = lane("window_s", 30, LONGEST_S, 5)
_LADDER = (
    Param("start", "reps", 10, 1, 500), Param("end", "reps", 40, 1, 500), Param("by", "reps", 10, 1, 100),
    Param("back", "flag", False), Param("layout", "choice", "rounds", choices=("rounds", "one-a-movement")),
    Param("cap_s", "seconds", 900, 60, 3600, open=True),
)  # fmt: skip

PACED_FORMATS = (
    Format("one-minute-challenge", "One-minute challenge", (), (), _make_challenge, _read_challenge,
           steps=(1, 1, 1), dose="reps", claims=("one-minute challenge",)),
    Format("halving-triplet", "Halving triplet", (), (_WINDOW, Param("top", "reps", 10, 4, 100)),
           _make_halving, _read_halving, steps=(3, 3, 1), dose="made", claims=("halving",), free=_WINDOWS),
    Format("growing-rounds", "Growing rounds", (), (Param("window_s", "seconds", 420, 30, 3600), Param("growth", "reps", 2, 1, 20)),
           _make_growing, _read_growing, dose="reps", claims=("growing rounds",), free=_WINDOWS),
    Format("rounds-against-the-clock", "Rounds against the clock", ("AMRAP", "as many rounds as possible"), (_WINDOW,),
           _make_rounds, _read_rounds, dose="reps", claims=("amrap", "rounds against the clock"), free=_WINDOWS),
    Format("low-rep-couplets", "Low-rep couplets", (),
           (Param("window_s", "seconds", 120, 30, 600), Param("times", "count", 2, 2, 3), Param("pod_rest_s", "seconds", 60, open=True)),
           _make_couplets, _read_couplets, steps=(4, 4, 1), dose="reps", free=lane("window_s", 30, 600, 5, times=(2, 3))),
    Format("rep-ladder-pulse", "Rep ladder under a pulse", ("ladder",),
           (*_LADDER, Param("pulse_work_s", "seconds", 45, 5, 600), Param("pulse_rest_s", "seconds", 15, 1, 600)),
           _make_ladder, lambda entries: _read_ladder(entries, pulse=True), dose="made", claims=("ladder",),
           free=ladders),
    Format("rep-ladder", "Rep ladder", ("ladder", "pyramid of reps"), _LADDER,
           _make_ladder, lambda entries: _read_ladder(entries, pulse=False), dose="made", claims=("ladder",),
           free=ladders),
    Format("reps-then-time-pairs", "Reps, then time", (),
           (Param("reps", "reps", 12, 1, 100), Param("seconds", "seconds", 30, 5, 600),
            Param("pair_rest_s", "seconds", 30, open=True), Param("rounds", "count", 1, 1, 20)),
           _make_reps_then_time, _read_reps_then_time, steps=(2, None, 2), dose="made", free=lane("rounds", 1, 30)),
    Format("strength-sets", "Strength sets", ("sets", "5 × 5"),
           (Param("sets", "count", 5, 1, 20), Param("reps", "reps", 5, 1, 50), Param("rest_s", "seconds", 180, 0, 900, open=True)),
           _make_sets, _read_sets, dose="made", claims=("strength sets",), free=lane("sets", 2, 20, reps=(5, 8, 10))),
    Format("refrain", "Refrain", (), (), _make_refrain, _read_refrain, steps=(4, None, 1), dose="any", claims=("refrain",), free=doses),
    Format("rounds-for-time", "Rounds until done", ("for time", "rounds for time"),
           (Param("rounds", "count", 3, 1, 50), Param("round_rest_s", "seconds", 60, open=True), Param("cap_s", "seconds", None, 60, 3600, open=True)),
           _make_for_time, _read_for_time, dose="any", claims=("for time",), free=lane("rounds", 1, 50)),
)  # fmt: skip
