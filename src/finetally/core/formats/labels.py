"""What the numbers of a format are called where a coach sets them."""

from __future__ import annotations

from types import MappingProxyType

PARAM_LABELS = MappingProxyType(
    {
        "step_rest_s": "between steps", "pair_rest_s": "between pairs", "work_s": "work", "rest_s": "rest",
        "rounds": "rounds", "order": "order", "turn_rest_s": "between turns", "slot_s": "slot", "by_s": "by",
        "rest_first": "rest first", "top_s": "from", "clock": "by", "window_s": "window",
        "set_rest_s": "between sets", "strip_from": "drop from the", "windows_s": "windows",
        "stage_rest_s": "between stages", "period_s": "every", "mark_s": "work until", "reps": "reps",
        "growth": "more each round", "top": "from", "times": "times", "pod_rest_s": "between pods",
        "start": "from", "end": "to", "by": "by", "back": "and back down", "layout": "layout", "cap_s": "cap",
        "pulse_work_s": "on", "pulse_rest_s": "off", "seconds": "then", "sets": "sets", "laps": "laps",
        "rotate_s": "to move on", "round_rest_s": "between rounds",
    }
)  # fmt: skip
