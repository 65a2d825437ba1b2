"""Formats by starts and by places: minute starts, stations."""

from __future__ import annotations

from typing import Any

from finetally.core.formats.lanes import by_need, lane
from finetally.core.formats.shape import CannotMakeError, Entry, Format, Param, Params, Steps, plain


def _every(entries: list[Entry]) -> tuple[Entry, dict[str, Any]] | None:
    if len(entries) != 1 or entries[0].get("clock", {}).get("kind") != "every":
        return None
    if entries[0]["clock"].get("free"):
        # Starts that stay free are no part of these formats.
        return None
    return entries[0], entries[0]["clock"]


def _group(order: str) -> Any:
    return "all" if order == "in-turn" else 1


def _order(block: Entry) -> str:
    return "straight" if block.get("group", "all") == 1 else "in-turn"


def _make_starts(steps: Steps, p: Params) -> list[Entry]:
    clock = {"kind": "every", "period_s": p["period_s"]}
    return [{"clock": clock, "group": _group(p["order"]), "rounds": p["rounds"], "steps": steps}]


def _read_starts(entries: list[Entry]) -> tuple[Steps, Params] | None:
    found = _every(entries)
    if found is None:
        return None
    params = {"period_s": found[1].get("period_s"), "rounds": found[0].get("rounds", 1), "order": _order(found[0])}
    return plain(found[0]["steps"]), params


def _make_fill(steps: Steps, p: Params) -> list[Entry]:
    if p["mark_s"] > p["period_s"]:
        raise CannotMakeError(f"the mark at {p['mark_s']} s lies beyond the {p['period_s']} s of a start")
    clock = {"kind": "every", "period_s": p["period_s"], "work_until_s": p["mark_s"]}
    made = []
    for index, step in enumerate(steps):
        bare = {k: v for k, v in step.items() if k not in ("reps", "seconds", "metres", "chain", "fill")}
        made.append({**bare, "fill": True} if index % 2 else {**bare, "reps": p["reps"], "chain": True})
    return [{"clock": clock, "group": _group(p["order"]), "rounds": p["rounds"], "steps": made}]


def _read_fill(entries: list[Entry]) -> tuple[Steps, Params] | None:
    found = _every(entries)
    if found is None or found[1].get("work_until_s") is None:
        return None
    steps = plain(found[0]["steps"])
    reps = steps[0].get("reps")
    if reps is None:
        return None
    bare = [{k: v for k, v in step.items() if k not in ("reps", "chain", "fill")} for step in steps]
    return bare, {
        "period_s": found[1].get("period_s"),
        "mark_s": found[1]["work_until_s"],
        "reps": reps,
        "rounds": found[0].get("rounds", 1),
        "order": _order(found[0]),
    }


def _stations(steps: Steps, size: int) -> list[dict[str, Any]]:
    return [
        {"name": f"station {index // size + 1}", "steps": steps[index : index + size]}
        for index in range(0, len(steps), size)
    ]


def _rotation(entries: list[Entry], inner: str) -> tuple[Entry, dict[str, Any]] | None:
    if len(entries) != 1 or entries[0].get("clock", {}).get("kind") != "rotation":
        return None
    clock = entries[0]["clock"]
    return (entries[0], clock) if clock["inner"].get("kind") == inner else None


def _make_density(steps: Steps, p: Params) -> list[Entry]:
    clock = {
        "kind": "rotation",
        "laps": p["laps"],
        "rotate_s": p["rotate_s"],
        "inner": {"kind": "amrap", "window_s": p["window_s"]},
        "stations": _stations(steps, 2),
    }
    return [{"clock": clock}]


def _station_steps(clock: dict[str, Any]) -> Steps:
    steps: Steps = plain([step for station in clock["stations"] for step in station["steps"]])
    return steps


def _read_density(entries: list[Entry]) -> tuple[Steps, Params] | None:
    found = _rotation(entries, "amrap")
    if found is None:
        return None
    clock = found[1]
    return _station_steps(clock), {
        "window_s": clock["inner"].get("window_s"),
        "rotate_s": clock.get("rotate_s", 0),
        "laps": clock.get("laps", 1),
    }


def _make_interval_stations(steps: Steps, p: Params) -> list[Entry]:
    clock = {
        "kind": "rotation",
        "laps": p["laps"],
        "rotate_s": p["rotate_s"],
        "inner": {"kind": "intervals", "work_s": p["work_s"], "rest_s": p["rest_s"]},
        "stations": _stations(steps, 1),
    }
    return [{"clock": clock, "rounds": p["rounds"]}]


def _read_interval_stations(entries: list[Entry]) -> tuple[Steps, Params] | None:
    found = _rotation(entries, "intervals")
    if found is None:
        return None
    block, clock = found
    return _station_steps(clock), {
        "work_s": clock["inner"].get("work_s"),
        "rest_s": clock["inner"].get("rest_s", 0),
        "rounds": block.get("rounds", 1),
        "rotate_s": clock.get("rotate_s", 0),
        "laps": clock.get("laps", 1),
    }


_ORDER = Param("order", "choice", "in-turn", choices=("in-turn", "straight"))
_ROTATE = (Param("rotate_s", "seconds", 30, 0, 300), Param("laps", "count", 2, 1, 10))

PLACE_FORMATS = (
    Format("minute-starts-fill", "Minute starts with a filler", ("EMOM with filler",),
           (Param("period_s", "seconds", 60, 20, 600), Param("mark_s", "seconds", 45, 10, 600), Param("reps", "reps", 12, 1, 100),
            Param("rounds", "count", 3, 1, 30), _ORDER),
           _make_fill, _read_fill, steps=(2, None, 2), dose="made", free=by_need("rounds", 1, 60, reps=(12, 10, 8, 6, 4))),
    Format("minute-starts", "Minute starts", ("EMOM", "every minute on the minute"),
           (Param("period_s", "seconds", 60, 20, 600), Param("rounds", "count", 5, 1, 60), _ORDER),
           _make_starts, _read_starts, dose="reps", claims=("emom", "minute starts"),
           free=by_need("rounds", 1, 60, period_s=(60, 90, 120, 180, 240, 300))),
    Format("density-stations", "Density stations", (), (Param("window_s", "seconds", 150, 30, 900), *_ROTATE),
           _make_density, _read_density, steps=(4, None, 2), dose="reps", free=lane("window_s", 30, 900, 5, laps=(2, 1))),
    Format("interval-stations", "Interval stations", ("stations", "circuit stations"),
           (Param("work_s", "seconds", 40, 5, 600), Param("rest_s", "seconds", 20, open=True), Param("rounds", "count", 2, 1, 20), *_ROTATE),
           _make_interval_stations, _read_interval_stations, steps=(2, None, 1), dose="window", free=lane("rounds", 1, 20, laps=(2, 1))),
)  # fmt: skip
