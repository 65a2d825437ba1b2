"""Windows told line by line, `Work: 40 s`, `Rest: 20 s`, `Rounds: 3`: one line says all of it."""

from __future__ import annotations

import re

_LINE = re.compile(
    r"\s*+(?:[-*•]\s*+)?(?P<key>work(?:ing)?|on|rest(?:ing)?|off|rounds?|sets?|laps?|exercises?|movements?)\s*+[:=]\s*+(?P<value>\S.*)",
    re.IGNORECASE,
)
_KEYS = {"working": "work", "on": "work", "resting": "rest", "off": "rest", "set": "rounds", "sets": "rounds",
         "round": "rounds", "lap": "rounds", "laps": "rounds", "exercise": "names", "exercises": "names",
         "movement": "names", "movements": "names"}  # fmt: skip
FEWEST = 2
"""So many settings, work and rest among them, stand one below the other."""


def without_settings(text: str) -> str:
    """The text with windows that are told line by line on one line, line for line."""
    lines = text.split("\n")
    at = 0
    while at < len(lines):
        found: dict[str, str] = {}
        end = at
        while end < len(lines) and (m := _LINE.match(lines[end])) is not None:
            key = _KEYS.get(m["key"].lower(), m["key"].lower())
            if key in found:
                break
            found[key] = m["value"].rstrip()
            end += 1
        if len(found) >= FEWEST and {"work", "rest"} <= found.keys() and "rest" not in found["rest"].lower():
            rounds = found.get("rounds", "")
            front = f"{rounds} rounds: " if rounds.isdigit() else f"{rounds}: " if rounds else ""
            behind = f": {found['names']}" if "names" in found else ""
            lines[at:end] = [f"{front}{found['work']} work {found['rest']} rest{behind}", *[""] * (end - at - 1)]
        at = max(end, at + 1)
    return "\n".join(lines)
