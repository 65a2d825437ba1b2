"""Short ways to write sessions in tests."""

from __future__ import annotations

from collections.abc import Sequence
from typing import Any

from finetally.core.figures import Figures, figures
from finetally.core.formats.table import make
from finetally.core.methods.given import Given
from finetally.core.methods.value import Methods
from finetally.core.session.parts import written
from finetally.core.session.reading import parse_session
from finetally.core.session.step import Step
from finetally.core.unfold.tape import Tape
from finetally.core.unfold.unfold import unfold
from finetally.shipped import shipped_library

BARE = Methods.model_validate({"fatigue": 0, "change": {"step": 0, "kit": 0, "down": 0, "up": 0}, "breathers": 0})


def session(*blocks: dict[str, Any], **more: Any) -> dict[str, Any]:
    return {"fine_tally": 1, "title": "Test", "blocks": list(blocks), **more}


def step(movement: str, **more: Any) -> dict[str, Any]:
    return {"movement": movement, **more}


def made(key: str, steps: Sequence[dict[str, Any]], params: dict[str, Any] | None = None) -> list[dict[str, Any]]:
    """The entries of a format as a document holds them."""
    return [written(entry) for entry in make(key, [Step.model_validate(one) for one in steps], params)]


def tape_of(document: dict[str, Any], methods: Methods = BARE, given: Given | None = None) -> Tape:
    return unfold(parse_session(document), library=shipped_library(), methods=methods, given=given or Given())


def windows(document: dict[str, Any], methods: Methods = BARE, given: Given | None = None) -> list[Any]:
    """The tape as [seconds, kind or movement] pairs."""
    tape = tape_of(document, methods, given)
    return [
        (round(s.seconds, 3), tape.visits[s.visit].step.key if s.visit is not None else s.kind)
        for s in tape.segments
    ]


def figured(document: dict[str, Any], methods: Methods = BARE, given: Given | None = None) -> Figures:
    return figures(parse_session(document), library=shipped_library(), methods=methods, given=given or Given())
