"""Random events on random sessions, from a seed: what hands might do, and what nobody would."""

from __future__ import annotations

import random
from typing import Any

from tests.core.runs import run_cases

SIMPLE = ("pause", "resume", "next", "next", "next", "back", "lap", "lap", "undo", "undo", "stop")
HOLDS = ("entries", "blocks", "never")


def random_event(chance: random.Random, t: float, played: int) -> dict[str, Any]:
    """One event at `t`; a third of the orders say on which beat they were given."""
    do = chance.choice([*SIMPLE, "more", "more", "set", "set", "skip", "skip", "again", "again"])
    event: dict[str, Any] = {"t": t, "do": do}
    if do == "stop" and chance.random() < 0.9:
        event["do"] = "next"
    if do == "more":
        event["s"] = chance.choice([10, 10, -10, 30, -100, 0.25])
    elif do == "set":
        event |= {"kind": chance.choice(["work", "rest"]), "s": chance.choice([5, 12.5, 20, 40])}
    elif do in ("skip", "again"):
        event["what"] = chance.choice(["block", "round"])
    if do not in ("lap", "undo") and chance.random() < 0.3:
        event["on"] = max(0, played + chance.choice([0, 0, -1, 1]))
    return event


def random_events(chance: random.Random, count: int, pace_s: float) -> list[dict[str, Any]]:
    """A start, then so many events, `pace_s` apart on average; some at the same moment, some in the wrong order."""
    t = 0.0
    events: list[dict[str, Any]] = [{"t": 0, "do": "start"}]
    for played in range(count):
        t += chance.choice([0.0, 0.5, 1.0, chance.expovariate(1 / pace_s)])
        events.append(random_event(chance, t, played // 2))
    if chance.random() < 0.2:
        chance.shuffle(events)
    return events


def random_run(chance: random.Random, count: int) -> dict[str, Any]:
    """A run of one of the sessions of the golden cases."""
    session = chance.choice([one["run"] for one in run_cases()])
    events = random_events(chance, count, chance.choice([3.0, 15.0, 60.0]))
    hold = chance.choice(HOLDS)
    kept = {key: session[key] for key in ("fine_tally_run", "session", "methods", "apart") if key in session}
    return {**kept, "hold": hold, "events": events, "until": max(event["t"] for event in events) + 30}
