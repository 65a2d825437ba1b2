"""What the floor's events leave in the log: scores as results, notes as notes. Written as the events come in."""

from __future__ import annotations

from collections.abc import Iterable, Mapping
from typing import Any

from finetally.web.floor.models import FloorEvent, FloorRun
from finetally.web.log.asking import ask_to_work_out
from finetally.web.log.models import LogNote, Result, ResultWay
from finetally.web.log.using import ScoredPlace, corrected, settle_used
from finetally.web.log.windows import SCORE_NAMES


def take_from_floor(run: FloorRun, fresh: Iterable[FloorEvent], planned: Mapping[int, int | None]) -> None:
    """Keep scores and notes that came with fresh events; call it in the transaction that keeps them.

    `planned`: by event the number that a score's block had when the run began, where a change gave it another one;
    the score of a block that was put in since stays with the run (None).
    """
    if run.entry_id is None:
        return
    windows: set[ScoredPlace] = set()
    for event in fresh:
        if event.event["do"] == "score":
            number = planned.get(event.pk, int(event.event["block"]))
            if number is not None:
                windows.add(_score(run, event, number))
        elif event.event["do"] == "note":
            _note(run, event)
    for window in windows:
        settle_used(window)
    # While it runs nobody looks at the log: it is worked out once it is over, or logged.
    if windows and run.is_over and run.entry is not None:
        ask_to_work_out(run.entry)


def _score(run: FloorRun, event: FloorEvent, number: int) -> ScoredPlace:
    told = event.event
    whose = str(told.get("person") or ("person" if event.person_id else "session"))
    window = ScoredPlace(
        run.entry_id, event.person_id, whose,
        number, int(told.get("pass", 0)), int(told.get("index", 0)),
    )  # fmt: skip
    score: dict[str, Any] = {name: told[name] for name in SCORE_NAMES if told.get(name) is not None}
    # The same device says it anew: a correction, no second count.
    kept = corrected(window.results().filter(way=ResultWay.FLOOR, run=run, device=event.device))
    if score:
        Result.objects.create(
            **window.fields(), score=score, way=ResultWay.FLOOR, run=run, device=event.device,
            user_id=event.user_id, **kept,
        )  # fmt: skip
    return window


def _note(run: FloorRun, event: FloorEvent) -> None:
    told = event.event
    kind = str(told.get("kind", "free"))
    LogNote.objects.get_or_create(
        event=event.pk,
        defaults={
            "entry_id": run.entry_id, "person_id": event.person_id, "run": run,
            "kind": kind, "text": str(told.get("text", ""))[:2000],
            "user_id": event.user_id,
        },
    )  # fmt: skip
