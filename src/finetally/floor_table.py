"""A sheet and what was played as tables for the command line."""

from __future__ import annotations

from finetally.core.floor.published import PublishedPlayed, PublishedSheet
from finetally.core.words import clock_text
from finetally.table import grid


def sheet_table(made: PublishedSheet) -> str:
    """One beat a line: its number, kind, seconds, what ends it, what to do."""
    rows = [["beat", "block", "kind", "lasts", "ends", "do"]]
    for number, beat in enumerate(made["beats"]):
        todo = ", ".join(line.get("name", line.get("station", "")) for line in beat["lines"])
        rows.append([str(number), str(beat["block"]), beat["kind"], clock_text(beat["s"]), beat["ends"], todo])
    return "\n".join([made["title"], *grid(rows)])


def played_table(made: PublishedPlayed) -> str:
    """One played beat a line, then where the run stands."""
    rows = [["beat", "from", "to", "stood", "how", "again"]]
    for one in made["played"]:
        times = [clock_text(one["start"]), clock_text(one["end"]), clock_text(one["paused_s"])]
        rows.append([str(one["beat"]), *times, one["how"], "yes" if one["added"] else ""])
    now = made["now"]
    state = "over" if made["over"] else "not begun" if now is None else now["mode"]
    sums = (f"{kind} {clock_text(made[f'{kind}_s'])}" for kind in ("work", "rest", "talk", "paused", "waited"))  # type: ignore[literal-required]
    return "\n".join([*grid(rows), "", f"{state}: {', '.join(sums)}"])
