"""How the core writes what several of its rooms tell people."""

from __future__ import annotations


def clock_text(seconds: float) -> str:
    """Seconds (0 or more) as 15:30, or 1:02:05 from an hour on; rounded to whole seconds."""
    minutes, left = divmod(round(seconds), 60)
    hours, minutes = divmod(minutes, 60)
    return f"{hours}:{minutes:02}:{left:02}" if hours else f"{minutes}:{left:02}"
