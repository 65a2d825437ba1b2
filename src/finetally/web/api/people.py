"""People of a squad over the API: the list, one person, what is known of them."""

from __future__ import annotations

from datetime import date
from typing import Any
from uuid import UUID

from ninja import Router, Schema, Status
from pydantic import Field

from finetally.core.methods.one_rep_max import maximum_of_set
from finetally.core.session.limits import MAX_BYTES
from finetally.web.api.away import AwayOut
from finetally.web.api.days import PlanDay
from finetally.web.api.groups import GroupOut, group_out
from finetally.web.api.request import ActorRequest
from finetally.web.people import groups as group_cases
from finetally.web.people import limits, measures, people
from finetally.web.people.models import Limit, Maximum
from finetally.web.problems import ProblemOut
from finetally.web.squads.actor import Actor, Right
from finetally.web.squads.models import Person
from finetally.web.squads.today import today_of

router = Router()
REFUSALS = {401: ProblemOut, 403: ProblemOut, 404: ProblemOut, 409: ProblemOut, 413: ProblemOut, 422: ProblemOut}


class PersonOut(Schema):
    """Somebody in the list: name, name on the wall, groups, whether they have an account; their state today.

    `away`: until when, if they are away; `limited`: whether a limit holds; `under_age`: for head coaches and the
    person, else None.
    """

    id: UUID
    name: str
    short_name: str
    groups: list[GroupOut]
    account: str | None
    under_age: bool | None
    away: date | None
    limited: bool


class MaximumOut(Schema):
    """A set to the last rep, kg × reps; the maximum by each formula (a set of one rep is the maximum itself)."""

    id: int
    movement: str
    kg: float
    reps: int
    day: date | None
    epley: float
    brzycki: float


class LimitOut(Schema):
    """What somebody is to be spared. `note`: for head coaches and the person, else None; `holds`: today."""

    id: int
    joint: str
    movement: str
    side: str
    first: date
    last: date | None
    note: str | None
    holds: bool


class CapacityOut(Schema):
    """Capacity in MET and where it is from: a test's key, its result, its day."""

    met: float
    test: str
    result: float | None
    day: date | None


class PersonDetails(Schema):
    """What may be set of somebody: kilograms, factor of times, points of effort; what is not sent stays."""

    name: str | None = Field(None, max_length=200)
    short_name: str | None = Field(None, max_length=40)
    body_kg: float | None = None
    pace_factor: float | None = None
    effort_offset: float | None = None
    under_age: bool | None = None


class PersonIn(PersonDetails):
    """What is set, and the version of the person that was seen."""

    version: str = Field(max_length=64)


class OnePersonOut(PersonOut):
    """Everything about one person. `manages`: the actor may erase, note a guardian; `own`: the actor is them.

    `body_kg`, `under_age`, `guardian`, `guardian_on`, `keeps_little`: for head coaches and the person, else empty.
    """

    version: str
    squad: int
    body_kg: float | None
    pace_factor: float | None
    effort_offset: float
    capacity: CapacityOut | None
    maxima: list[MaximumOut]
    limits: list[LimitOut]
    times_away: list[AwayOut]
    guardian: str
    guardian_on: date | None
    named_on: date | None
    keeps_little: bool | None
    own: bool
    plans: bool
    manages: bool


class NewPersonIn(Schema):
    """A name, and groups by their names."""

    name: str = Field(max_length=200)
    groups: list[str] = Field([], max_length=20)
    squad: int | None = None


class PeopleListIn(Schema):
    """A list of people as text: a name on each line, groups behind it."""

    text: str = Field(max_length=MAX_BYTES)
    squad: int | None = None


class ListedOut(Schema):
    """A line of a list: `known` if somebody of that name is there already, who then gets the groups only."""

    line: int
    name: str
    groups: list[str]
    known: bool


class ImportedOut(Schema):
    """How many people are new; `undo`: what undoes the import within an hour."""

    added: int
    undo: str


class UndoImportIn(Schema):
    """What an import answered."""

    undo: str = Field(max_length=60_000)


class GroupsIn(Schema):
    """The groups that somebody is in from today on."""

    groups: list[int] = Field(max_length=40)


class SetIn(Schema):
    """A set to the last possible rep: movement, kilograms, reps (1: a measured maximum), its day."""

    movement: str = Field(max_length=120)
    kg: float
    reps: int
    day: PlanDay


class CapacityIn(Schema):
    """A field test and its result; no result takes the capacity away."""

    test: str = Field("", max_length=20)
    result: float | None = None
    day: PlanDay | None = None


class LimitIn(Schema):
    """A joint or a movement to be spared (one of both), a side, days, a note for head coaches and the person."""

    joint: str = Field("", max_length=20)
    movement: str = Field("", max_length=120)
    side: str = Field("both", max_length=5)
    first: PlanDay
    last: PlanDay | None = None
    note: str = Field("", max_length=1000)


class NamedIn(Schema):
    """Whether somebody agrees to be named beside their scores where others of the squad read."""

    agreed: bool


class GuardianIn(Schema):
    """Who agreed, and when; no day takes it back."""

    who: str = Field("", max_length=200)
    day: PlanDay | None = None


def _listed(actor: Actor, person: Person) -> dict[str, Any]:
    today = today_of(person.squad)
    places = person.present_places  # type: ignore[attr-defined]
    away = [one.last for one in person.away.all() if one.first <= today <= one.last]
    return {
        "id": person.public_id,
        "name": person.name,
        "short_name": person.on_the_wall,
        "groups": [group_out(one.group) for one in places],
        "account": person.user.get_username() if person.user is not None else None,
        "under_age": person.under_age if people.sees_private(actor, person) else None,
        "away": max(away, default=None),
        "limited": any(one.holds_on(today) for one in person.limits.all()),
    }


def _maximum(one: Maximum) -> MaximumOut:
    return MaximumOut(
        id=one.pk, movement=one.movement, kg=one.kg, reps=one.reps, day=one.day,
        epley=maximum_of_set(one.kg, one.reps, "epley"), brzycki=maximum_of_set(one.kg, one.reps, "brzycki"),
    )  # fmt: skip


def _limit(one: Limit, today: date, *, noted: bool) -> LimitOut:
    return LimitOut(
        id=one.pk, joint=one.joint, movement=one.movement, side=one.side, first=one.first, last=one.last,
        note=one.note if noted else None, holds=one.holds_on(today),
    )  # fmt: skip


def _capacity(person: Person) -> CapacityOut | None:
    if person.capacity_met is None:
        return None
    return CapacityOut(
        met=person.capacity_met, test=person.capacity_test, result=person.capacity_result, day=person.capacity_on
    )


def _whole(request: ActorRequest, person: Person) -> OnePersonOut:
    actor, today = request.auth, today_of(person.squad)
    noted = limits.reads_notes(actor, person)
    private = people.sees_private(actor, person)
    return OnePersonOut(
        **_listed(actor, person),
        version=people.person_version(person),
        squad=person.squad_id,
        body_kg=person.body_kg if private else None,
        pace_factor=person.pace_factor,
        effort_offset=person.effort_offset,
        capacity=_capacity(person),
        maxima=[_maximum(one) for one in person.maxima.all()],
        limits=[_limit(one, today, noted=noted) for one in person.limits.all()],
        times_away=[
            AwayOut(id=one.pk, first=one.first, last=one.last, known=one.known) for one in person.away.all()
        ],
        guardian=person.guardian if private else "",
        guardian_on=person.guardian_on if private else None,
        named_on=person.named_on,
        keeps_little=person.keeps_little if private else None,
        own=people.is_self(actor, person),
        plans=actor.may(person.squad_id, Right.PLAN),
        manages=actor.may(person.squad_id, Right.HEAD),
    )


@router.get("", response={200: list[PersonOut], **REFUSALS}, operation_id="people")
def look(request: ActorRequest, squad: int | None = None) -> list[PersonOut]:
    """The people of a squad, by name: their groups, who is away today, for whom a limit holds."""
    return [PersonOut(**_listed(request.auth, person)) for person in people.list_people(request.auth, squad)]


@router.post("", response={201: PersonOut, **REFUSALS}, operation_id="add_person")
def add(request: ActorRequest, data: NewPersonIn) -> Status[PersonOut]:
    """Add somebody, without an account; groups that there are not yet are made."""
    made = people.add_person(request.auth, data.squad, data.name, data.groups)
    return Status(201, PersonOut(**_listed(request.auth, people.read_person(request.auth, made.public_id))))


@router.post("/list/preview", response={200: list[ListedOut], **REFUSALS}, operation_id="preview_people")
def preview(request: ActorRequest, data: PeopleListIn) -> list[ListedOut]:
    """What a list of people would add; changes nothing. 422 with every line that is wrong."""
    return [
        ListedOut(line=one.line, name=one.name, groups=list(one.groups), known=one.known)
        for one in people.preview_list(request.auth, data.squad, data.text)
    ]


@router.post("/list", response={200: ImportedOut, **REFUSALS}, operation_id="take_people")
def take(request: ActorRequest, data: PeopleListIn) -> ImportedOut:
    """Add everybody of a list who is not there yet, and give the groups it names; all of it or nothing."""
    made = people.take_list(request.auth, data.squad, data.text)
    return ImportedOut(added=len(made.people), undo=made.undo)


@router.post("/list/undo", response={204: None, **REFUSALS}, operation_id="undo_people")
def undo(request: ActorRequest, data: UndoImportIn) -> Status[None]:
    """Undo an import of people within an hour; people with anything recorded since then are kept."""
    people.undo_list(request.auth, data.undo)
    return Status(204, None)


@router.get("/{person_id}", response={200: OnePersonOut, **REFUSALS}, operation_id="person")
def one_person(request: ActorRequest, person_id: UUID) -> OnePersonOut:
    """Everything that figures and plans take from one person; for those who plan, and the person."""
    return _whole(request, people.read_person(request.auth, person_id))


@router.patch("/{person_id}", response={200: OnePersonOut, **REFUSALS}, operation_id="change_person")
def change(request: ActorRequest, person_id: UUID, data: PersonIn) -> OnePersonOut:
    """Set what is sent of somebody; null takes a number away. 409 where they were changed meanwhile."""
    sent = data.model_dump(exclude_unset=True, exclude={"version"})
    people.change_person(request.auth, person_id, data.version, sent)
    return _whole(request, people.read_person(request.auth, person_id))


@router.put("/{person_id}/groups", response={200: OnePersonOut, **REFUSALS}, operation_id="set_groups")
def set_groups(request: ActorRequest, person_id: UUID, data: GroupsIn) -> OnePersonOut:
    """Let somebody be in these groups from today on, and in no others."""
    group_cases.set_groups(request.auth, people.the_person(request.auth, person_id), data.groups)
    return _whole(request, people.read_person(request.auth, person_id))


@router.post("/{person_id}/maxima", response={201: MaximumOut, **REFUSALS}, operation_id="add_maximum")
def add_maximum(request: ActorRequest, person_id: UUID, data: SetIn) -> Status[MaximumOut]:
    """Keep a set of somebody, with what it says of their maximum by both formulas."""
    made = measures.add_maximum(request.auth, person_id, data.movement, data.kg, data.reps, data.day)
    return Status(201, _maximum(made))


@router.delete("/maxima/{maximum_id}", response={204: None, **REFUSALS}, operation_id="drop_maximum")
def drop_maximum(request: ActorRequest, maximum_id: int) -> Status[None]:
    """Take a set away."""
    measures.drop_maximum(request.auth, maximum_id)
    return Status(204, None)


@router.put("/{person_id}/capacity", response={200: OnePersonOut, **REFUSALS}, operation_id="set_capacity")
def set_capacity(request: ActorRequest, person_id: UUID, data: CapacityIn) -> OnePersonOut:
    """Keep somebody's capacity by a field test's result."""
    measures.set_capacity(request.auth, person_id, data.test, data.result, data.day)
    return _whole(request, people.read_person(request.auth, person_id))


@router.post("/{person_id}/limits", response={201: LimitOut, **REFUSALS}, operation_id="add_limit")
def add_limit(request: ActorRequest, person_id: UUID, data: LimitIn) -> Status[LimitOut]:
    """Have somebody spared a joint or a movement; for those who plan, and the person."""
    wish = limits.LimitWish(data.joint, data.movement, data.side, data.first, data.last, data.note)
    made = limits.add_limit(request.auth, person_id, wish)
    noted = limits.reads_notes(request.auth, made.person)
    return Status(201, _limit(made, today_of(made.person.squad), noted=noted))


@router.delete("/limits/{limit_id}", response={204: None, **REFUSALS}, operation_id="end_limit")
def end_limit(request: ActorRequest, limit_id: int) -> Status[None]:
    """Have a limit hold no more from today on."""
    limits.end_limit(request.auth, limit_id)
    return Status(204, None)


@router.put("/{person_id}/guardian", response={200: OnePersonOut, **REFUSALS}, operation_id="guardian_agreed")
def guardian(request: ActorRequest, person_id: UUID, data: GuardianIn) -> OnePersonOut:
    """Note who agreed that more is kept of somebody under age, and when; for head coaches."""
    people.guardian_agreed(request.auth, person_id, data.who, data.day)
    return _whole(request, people.read_person(request.auth, person_id))


@router.put("/{person_id}/named", response={200: OnePersonOut, **REFUSALS}, operation_id="set_named")
def named(request: ActorRequest, person_id: UUID, data: NamedIn) -> OnePersonOut:
    """Note whether somebody agrees to be named beside their scores; for them, and for those who plan."""
    people.set_named(request.auth, person_id, agreed=data.agreed)
    return _whole(request, people.read_person(request.auth, person_id))
