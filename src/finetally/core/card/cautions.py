"""Cautions of a session, each once: its own, and of the usual ones those that it does not say already."""

from __future__ import annotations

from collections.abc import Sequence

from finetally.core.session.document import Session

USUAL_CAUTIONS: tuple[tuple[str, tuple[str, ...]], ...] = (
    ("Health screening comes first.", ("screening",)),
    ("Stop on pain, dizziness or chest discomfort, and say so.", ("pain", "dizz", "chest")),
    ("Form before speed once tired.", ("form before",)),
    ("Land softly.", ("land soft",)),
    ("Mind heat and water.", ("heat", "water")),
    ("Take the option that spares a sore joint.", ("sore joint",)),
    ("General information: local rules and licensed practice come first.", ("licensed",)),
)
"""The usual cautions, each with the words that an own caution has where it says the same."""


def cautions_of(session: Session) -> list[str]:
    """The session's own cautions, then the usual ones that it lacks on one line; nothing twice."""
    own = own_cautions(session)
    return [*own, *usual_cautions(own)]


def own_cautions(session: Session) -> list[str]:
    """What the session's author wrote, line by line, nothing twice."""
    written = session.cautions or []
    lines = written.splitlines() if isinstance(written, str) else written
    once = {" ".join(line.lower().split()).rstrip("."): line for line in reversed(lines) if line.strip()}
    return list(reversed(once.values()))


def usual_cautions(own: Sequence[str]) -> list[str]:
    """The usual cautions that none of these says, as one line."""
    said = "\n".join(own).lower()
    missing = [text for text, words in USUAL_CAUTIONS if not all(word in said for word in words)]
    return [" ".join(missing)] if missing else []
