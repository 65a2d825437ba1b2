"""The log over the API: the list, an entry, a person; what is written into it."""

from __future__ import annotations

from uuid import UUID

from django.http import HttpResponse
from ninja import Router, Status

from finetally.core.figures import printed
from finetally.core.log.notes import CAUTIONS
from finetally.web.api.days import PlanDay
from finetally.web.api.figures import json_answer
from finetally.web.api.log_answers import (
    entry_answer,
    expected_answer,
    foreseen_answer,
    list_answer,
    person_answer,
)
from finetally.web.api.log_inputs import (
    ForeseenIn,
    LearningIn,
    LogIn,
    NoteIn,
    RatingIn,
    ResultsIn,
    SettleIn,
    UsePaceIn,
)
from finetally.web.api.log_person_schemas import PersonLogOut
from finetally.web.api.log_schemas import (
    CautionOut,
    ExpectedOut,
    ForeseenHereOut,
    LogEntryOut,
    LogOut,
    SettledOut,
)
from finetally.web.api.plan import REFUSALS
from finetally.web.api.request import ActorRequest
from finetally.web.log import learning, notes, ratings, results, settling
from finetally.web.log.foreseen import foreseen_of
from finetally.web.log.listing import last_done_by_movement, log_list
from finetally.web.log.models import RatingWay
from finetally.web.log.page import entry_page, expected_of
from finetally.web.log.person_page import person_page

router = Router()


@router.get("", response={200: LogOut, **REFUSALS}, operation_id="log")
def log(request: ActorRequest, squad: int | None = None, before: PlanDay | None = None) -> LogOut:
    """Eight weeks of the log before a day, the latest first; what waits to be logged comes with the first page.

    Who does not plan sees what was for them, and of ratings and notes their own.
    """
    return list_answer(log_list(request.auth, squad, before))


@router.get("/last-done", response={200: dict[str, int], **REFUSALS}, operation_id="last_done")
def movements_last_done(request: ActorRequest, squad: int | None = None) -> dict[str, int]:
    """How many days ago each movement (by key) was last logged, a year back; for those who plan."""
    return last_done_by_movement(request.auth, squad)


@router.post("/settle", response={200: SettledOut, **REFUSALS}, operation_id="settle")
def settle(request: ActorRequest, data: SettleIn) -> SettledOut:
    """Log several entries as they were run, or as planned: all, or none where one is refused."""
    return SettledOut(entries=settling.settle(request.auth, data.entries, data.away))


@router.put("/learning", response={204: None, **REFUSALS}, operation_id="set_learning")
def set_learning(request: ActorRequest, data: LearningIn) -> Status[None]:
    """Let the squad's estimates learn as scores come (auto), or ask for each person (ask)."""
    learning.set_learning(request.auth, data.squad, data.learning)
    return Status(204, None)


@router.post("/foreseen", response={200: ForeseenHereOut, **REFUSALS}, operation_id="foreseen")
def foreseen(request: ActorRequest, data: ForeseenIn) -> HttpResponse:
    """What the windows of a document should be scored at, by one person's pace, or from the squad's slowest to its
    quickest, each with the interval that 8 of 10 lie in.
    """
    found = foreseen_of(request.auth, data.squad, data.document, data.person)
    return json_answer(foreseen_answer(found))


@router.get("/entries/{entry_id}", response={200: LogEntryOut, **REFUSALS}, operation_id="log_entry")
def entry(request: ActorRequest, entry_id: UUID) -> HttpResponse:
    """An entry: planned against done, scores against what was expected, ratings and notes.

    Who does not plan sees their own alone.
    """
    return json_answer(entry_answer(entry_page(request.auth, entry_id)))


@router.get("/entries/{entry_id}/expected", response={200: list[ExpectedOut], **REFUSALS}, operation_id="expected")
def expected(request: ActorRequest, entry_id: UUID) -> HttpResponse:
    """What everybody whom an entry is for should make in its windows, with the interval that 8 of 10 lie in."""
    return json_answer(printed(expected_answer(expected_of(request.auth, entry_id))))


@router.put("/entries/{entry_id}", response={204: None, **REFUSALS}, operation_id="write_log")
def write_log(request: ActorRequest, entry_id: UUID, data: LogIn) -> Status[None]:
    """Log an entry of today or before: as it was run or planned, or with the minutes and effort that are sent."""
    settling.log_entry(
        request.auth,
        entry_id,
        settling.LogWish(
            data.minutes,
            data.effort,
            tuple(data.away) if data.away is not None else None,
            left_out=tuple(data.left_out) if data.left_out is not None else None,
        ),
    )
    return Status(204, None)


@router.delete("/entries/{entry_id}", response={204: None, **REFUSALS}, operation_id="unlog")
def unlog(request: ActorRequest, entry_id: UUID) -> Status[None]:
    """Take the log of an entry back: it waits again. Scores, ratings and notes stay."""
    settling.unlog(request.auth, entry_id)
    return Status(204, None)


@router.put("/entries/{entry_id}/results", response={204: None, **REFUSALS}, operation_id="write_results")
def write_results(request: ActorRequest, entry_id: UUID, data: ResultsIn) -> Status[None]:
    """Write scores down, all or none; what the same account told of a window before is replaced."""
    wishes = [
        results.ResultWish(
            one.person, one.block, one.section_pass, one.index,
            one.score.model_dump(exclude_none=True) if one.score is not None else None,
            one.unfinished, one.options, [{str(k): v for k, v in s.items()} for s in one.sets],
        )
        for one in data.results
    ]  # fmt: skip
    results.write_results(request.auth, entry_id, wishes)
    return Status(204, None)


@router.post("/results/{result_id}/use", response={204: None, **REFUSALS}, operation_id="choose_result")
def choose_result(request: ActorRequest, result_id: int) -> Status[None]:
    """Settle that of several counts this one is used."""
    results.choose_result(request.auth, result_id)
    return Status(204, None)


@router.put("/entries/{entry_id}/rating", response={204: None, **REFUSALS}, operation_id="rate")
def rate(request: ActorRequest, entry_id: UUID, data: RatingIn) -> Status[None]:
    """Keep how hard somebody found it, or the group together. Answers nothing: nobody sees what others said."""
    ratings.rate(request.auth, entry_id, data.person, data.effort, RatingWay(data.way))
    return Status(204, None)


@router.post("/entries/{entry_id}/notes", response={201: CautionOut, **REFUSALS}, operation_id="write_note")
def write_note(request: ActorRequest, entry_id: UUID, data: NoteIn) -> Status[CautionOut]:
    """Write a note; of pain and dizziness the caution that belongs to it comes back at once."""
    wish = notes.NoteWish(data.person, data.kind, data.text, data.place, data.side, data.level)
    made = notes.write_note(request.auth, entry_id, wish)
    return Status(201, CautionOut(id=made.pk, caution=CAUTIONS.get(data.kind)))


@router.post("/notes/{note_id}/lift", response={204: None, **REFUSALS}, operation_id="lift_note")
def lift_note(request: ActorRequest, note_id: int) -> Status[None]:
    """A note of pain or dizziness stands no more on the person's next sessions."""
    notes.lift_note(request.auth, note_id)
    return Status(204, None)


@router.get("/people/{person_id}", response={200: PersonLogOut, **REFUSALS}, operation_id="person_log")
def person(request: ActorRequest, person_id: UUID) -> HttpResponse:
    """A person over the last year: scores by shape, ratings, what is learned and why, what they did, notes."""
    return json_answer(person_answer(person_page(request.auth, person_id)))


@router.put("/people/{person_id}/learned", response={204: None, **REFUSALS}, operation_id="use_learned")
def use_learned(request: ActorRequest, person_id: UUID, data: UsePaceIn) -> Status[None]:
    """Use what is learned of somebody, or put it back."""
    learning.use_learned(request.auth, person_id, data.use)
    return Status(204, None)
