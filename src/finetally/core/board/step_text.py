"""What a step says on the wall behind its movement's name: its dose and its qualities."""

from __future__ import annotations

from collections.abc import Iterator
from typing import Any

from finetally.core.board.values import count_text, load_text, number, quoted, reps_text, time_text

SIDE_PHRASES = {
    "each": " each side",
    "left": " on the left",
    "right": " on the right",
    "both": " both sides",
    "alternate": ", sides take turns",
    "swap": ", sides swap",
}


def dose_text(step: dict[str, Any]) -> str:
    reps, seconds, metres = (
        reps_text(step.get("reps")), time_text(step.get("seconds")), count_text(step.get("metres")),
    )  # fmt: skip
    if reps and seconds:
        return f"{reps} within {seconds} "
    if reps:
        return f"{reps} "
    if seconds:
        return f"{seconds} "
    return f"{metres} m " if metres else ""


def _failure_text(reps: Any, before: str) -> str:
    """`to failure`, with the reps it is planned at where they are given; nothing for other doses."""
    if not isinstance(reps, dict) or reps.get("to_failure") is not True or not set(reps) <= {"to_failure", "plan"}:
        return ""
    return f"{before}to failure" + (f" (plan {number(reps['plan'])})" if "plan" in reps else "")


def quality_texts(step: dict[str, Any]) -> Iterator[str]:
    """What goes with a movement; each part brings the comma or the blank before it."""
    sides = SIDE_PHRASES.get(step.get("sides") or "", "")
    yield sides
    yield _failure_text(step.get("reps"), ", " if sides.startswith(",") else " ")
    load = load_text(step.get("load"))
    if load:
        yield f", {load}" if sides.startswith(",") else f" {load}"
    if step.get("fill"):
        yield " to fill"
    grow = step.get("grow")
    if isinstance(grow, int) and not isinstance(grow, bool):
        yield f", {grow:+d} each round"
    tempo = step.get("tempo")
    if isinstance(tempo, list):
        yield f", tempo {'-'.join(number(one) for one in tempo)}"
    if step.get("effort"):
        yield f", effort {step['effort']}"
    if step.get("reserve") is not None:
        yield f", {number(step['reserve'])} in reserve"
    pace = time_text(step.get("pace_s"))
    if pace:
        yield f", {pace} a rep"
    rest = time_text(step.get("rest_s"))
    if rest:
        yield f", rest {rest}"
    note = quoted(step.get("note") or "")
    if note:
        yield f", note {note}"
