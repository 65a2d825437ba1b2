"""Scores written down after the session: by coaches in a grid, by people their own; differing counts settled."""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import dataclass, field
from typing import Any
from uuid import UUID

from django.db import transaction
from django.shortcuts import get_object_or_404

from finetally.core.session.cleaning import one_line
from finetally.core.session.problems import DocumentError, Problem
from finetally.core.session.reading import parse_session
from finetally.core.unfold.unfold import blocks_of
from finetally.web.log.asking import ask_to_work_out
from finetally.web.log.models import Result, ResultWay
from finetally.web.log.seeing import looker_at, person_of
from finetally.web.log.using import ScoredPlace, corrected, settle_used
from finetally.web.plan.entries import entry_named, the_entry, wrong
from finetally.web.squads.actor import Actor
from finetally.web.squads.models import Act
from finetally.web.squads.record import record

MOST_AT_ONCE = 400
MOST_ROUNDS, MOST_SECONDS, MOST_SET_KG, MOST_SET_REPS, MOST_SETS = 10_000, 6 * 3600, 1_000, 1_000, 60


@dataclass(frozen=True, slots=True)
class ResultWish:
    """A score as it is written down; none takes back what the same account wrote of that window before.

    `sets`: kilograms and reps of each set; `unfinished`: where they stopped.
    """

    person: UUID | None
    block: int
    section_pass: int = 0
    index: int = 0
    score: dict[str, float] | None = None
    unfinished: str = ""
    options: dict[str, str] = field(default_factory=dict)
    sets: list[dict[str, float]] = field(default_factory=list)


def write_results(actor: Actor, entry_id: UUID, wishes: Sequence[ResultWish]) -> None:
    """Write scores down, all of them or none. For those who plan; whom the entry is for writes their own.

    What the same account told of a window before is replaced; what others told stands beside it. Raises
    DocumentError.
    """
    looker = looker_at(actor, entry_id)
    entry = looker.entry
    if entry.document is None:
        raise wrong("entry", "other training", "an entry with a session")
    if len(wishes) > MOST_AT_ONCE:
        raise wrong("results", f"{len(wishes)} at once", f"up to {MOST_AT_ONCE}")
    blocks = len(blocks_of(parse_session(entry.document)))
    problems = [one for n, wish in enumerate(wishes) for one in _problems(n, wish, blocks)]
    if problems:
        raise DocumentError(problems)
    with transaction.atomic():
        for wish in wishes:
            person = person_of(looker, wish.person)
            own = person is not None and not looker.plans
            window = ScoredPlace(
                entry.pk, person.pk if person is not None else None, "person" if person is not None else "session",
                wish.block, wish.section_pass, wish.index,
            )  # fmt: skip
            _write(window, wish, own=own, user_id=actor.user_id)
            settle_used(window)
        record(actor, entry.squad_id, Act.RESULT_SET, entry_named(entry))
        ask_to_work_out(entry)


def _write(window: ScoredPlace, wish: ResultWish, *, own: bool, user_id: int | None) -> None:
    way = ResultWay.OWN if own else ResultWay.TYPED
    # A person's own count is theirs, whether they told it by their account or by their link.
    mine = {"way": way} if own else {"user": user_id}
    kept = corrected(window.results().filter(**mine))
    if wish.options:
        kept["options"] = wish.options
    if wish.score is None and not (wish.unfinished or wish.sets or wish.options):
        return
    Result.objects.create(
        **window.fields(), score=_plain(wish.score or {}), unfinished=one_line(wish.unfinished)[:80],
        sets=wish.sets, way=way, user_id=user_id, **kept,
    )  # fmt: skip


def _plain(score: dict[str, float]) -> dict[str, Any]:
    """Counts as whole numbers, times as they are."""
    return {name: value if name == "time_s" else int(value) for name, value in score.items()}


def _problems(number: int, wish: ResultWish, blocks: int) -> list[Problem]:
    """What is wrong with one score, each with its place."""
    at = f"results[{number}]"
    found = []
    if not 0 <= wish.block < blocks:
        found.append(Problem(f"{at}.block", str(wish.block), f"0 to {blocks - 1}", "block"))
    score = wish.score or {}
    if wish.score is not None and ("time_s" in score) == bool(score.keys() & {"rounds", "reps", "rung"}):
        found.append(Problem(f"{at}.score", "none or several kinds", "rounds and reps, a time or a rung", "score"))
    for name, value in score.items():
        most = MOST_SECONDS if name == "time_s" else MOST_ROUNDS
        if not 0 <= value <= most or (name != "time_s" and value != int(value)):
            found.append(Problem(f"{at}.score.{name}", f"{value:g}", f"0 to {most:,}", "bounds"))
    if len(wish.sets) > MOST_SETS:
        found.append(Problem(f"{at}.sets", f"{len(wish.sets)} sets", f"up to {MOST_SETS}", "too_many"))
    for place, one in enumerate(wish.sets):
        if not (0 <= one.get("kg", 0) <= MOST_SET_KG and 0 <= one.get("reps", 0) <= MOST_SET_REPS):
            found.append(Problem(f"{at}.sets[{place}]", str(one), f"up to {MOST_SET_KG} kg, 1,000 reps", "bounds"))
    return found


def choose_result(actor: Actor, result_id: int) -> Result:
    """Settle which of several counts is used. For those who plan."""
    with transaction.atomic():
        found = Result.objects.filter(entry__squad_id__in=actor.squads(), entry__removed_at=None).select_related(
            "entry"
        )
        result = get_object_or_404(found, pk=result_id)
        entry = the_entry(actor, result.entry_id)
        window = ScoredPlace(
            entry.pk, result.person_id, result.whose, result.block, result.section_pass, result.index
        )
        window.results().update(chosen=False)
        result.chosen = True
        result.save(update_fields=["chosen"])
        settle_used(window)
        record(actor, entry.squad_id, Act.RESULT_CHOSEN, entry_named(entry))
        ask_to_work_out(entry)
    result.refresh_from_db()
    return result
