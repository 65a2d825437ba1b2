"""Methods over the API: what they say, where coaches differ, every constant; what a squad has set, since when."""

from __future__ import annotations

from dataclasses import asdict
from datetime import datetime
from typing import Any

from ninja import Router, Schema
from pydantic import Field

from finetally.core.board.writer import write_wall
from finetally.core.methods.described import SETTINGS_TOLD, SettingShape, SettingTold
from finetally.core.methods.paragraphs import PARAGRAPHS, ParagraphKey
from finetally.core.methods.value import DEFAULT_METHODS
from finetally.core.schools import SCHOOLS_TOLD, SchoolLine, SchoolTold, sample_lines
from finetally.shipped import shipped_library
from finetally.web.api.request import ActorRequest
from finetally.web.log.working_out import methods_changed_in_log
from finetally.web.plan.refigure import methods_changed, reach_of
from finetally.web.problems import ProblemOut
from finetally.web.squads import history as past
from finetally.web.squads import use_cases
from finetally.web.squads.actor import Right
from finetally.web.squads.models import Act, Squad

router = Router()
REFUSALS = {401: ProblemOut, 403: ProblemOut, 404: ProblemOut, 409: ProblemOut, 422: ProblemOut}


class MethodsIn(Schema):
    """Settings to change, and the version of them that was seen; null takes one back to its default."""

    methods: dict[str, Any]
    version: str = Field(max_length=64)


class MethodsOut(Schema):
    """All settings of a squad, defaults included, and the version that they are."""

    methods: dict[str, Any]
    version: str


class ReachOut(Schema):
    """What a change of methods makes figured anew, in the background; what is logged stays."""

    sessions: int
    planned: int
    logged: int


class MethodsChangedOut(Schema):
    """When, who, what: a setting with what it was."""

    at: datetime
    by: str | None
    says: str


class ParagraphOut(Schema):
    """A paragraph of the methods: its heading and sentences, in a coach's words."""

    key: ParagraphKey
    heading: str
    says: list[str]


class SettingCellOut(Schema):
    """A number of a setting: its key within it ('' where the setting is the number), words, bounds."""

    key: str
    label: str
    low: float
    high: float


class SettingOut(Schema):
    """A constant: its words, paragraph, unit, numbers, source, default; `empty`: what it means to leave it out.

    `shape`: one number, one for each effort word, several named ones, or points of the effort scale.
    """

    key: str
    label: str
    paragraph: ParagraphKey
    shape: SettingShape
    unit: str
    cells: list[SettingCellOut]
    source: str
    step: float
    empty: str
    default: Any


class SchoolViewOut(Schema):
    """A side of a school: what the setting is then, what those argue who take it, what the sample comes to."""

    value: Any
    label: str
    argues: str
    lines: list[SchoolLine]


class SchoolToldOut(Schema):
    """A setting in which coaches differ, and the session that shows by how much, as text for the wall."""

    key: str
    label: str
    paragraph: ParagraphKey
    views: list[SchoolViewOut]
    default: Any
    title: str
    text: str


class MethodsPageOut(Schema):
    """The methods: paragraphs, constants, schools with their samples as the squad's other settings make them."""

    paragraphs: list[ParagraphOut]
    settings: list[SettingOut]
    schools: list[SchoolToldOut]
    methods: dict[str, Any]
    version: str
    reach: ReachOut
    can_change: bool


def _methods(squad: Squad) -> MethodsOut:
    shown = squad.methods_value().model_dump(mode="json", by_alias=True)
    return MethodsOut(methods=shown, version=use_cases.methods_version(squad))


@router.get("/squads/{squad_id}/methods", response={200: MethodsOut, **REFUSALS}, operation_id="methods")
def methods(request: ActorRequest, squad_id: int) -> MethodsOut:
    """All settings that a squad's figures are made with, defaults filled in, and their version."""
    return _methods(use_cases.squad_for(request.auth, squad_id, Right.LOOK))


@router.patch("/squads/{squad_id}/methods", response={200: MethodsOut, **REFUSALS}, operation_id="change_methods")
def change_methods(request: ActorRequest, squad_id: int, data: MethodsIn) -> MethodsOut:
    """Set some settings of a squad; null takes one back to its default. 409 where they changed meanwhile.

    What is planned is figured anew in the background.
    """
    squad = use_cases.change_methods(request.auth, squad_id, data.version, data.methods)
    methods_changed(squad)
    methods_changed_in_log(squad)
    return _methods(squad)


@router.get(
    "/squads/{squad_id}/methods/page", response={200: MethodsPageOut, **REFUSALS}, operation_id="methods_page"
)
def methods_page(request: ActorRequest, squad_id: int) -> MethodsPageOut:
    """All that the page on methods shows of a squad; samples are figured with the squad's other settings."""
    squad = use_cases.squad_for(request.auth, squad_id, Right.LOOK)
    now = _methods(squad)
    return MethodsPageOut(
        paragraphs=[ParagraphOut(key=one.key, heading=one.heading, says=list(one.says)) for one in PARAGRAPHS],
        settings=[_setting(one) for one in SETTINGS_TOLD],
        schools=[_school(one, squad) for one in SCHOOLS_TOLD],
        methods=now.methods,
        version=now.version,
        reach=ReachOut(**asdict(reach_of(squad))),
        can_change=request.auth.may(squad.pk, Right.HEAD),
    )


@router.get(
    "/squads/{squad_id}/methods/history",
    response={200: list[MethodsChangedOut], **REFUSALS},
    operation_id="methods_history",
)
def methods_history(request: ActorRequest, squad_id: int) -> list[MethodsChangedOut]:
    """Who changed the methods, when and how, the latest first; for those who plan."""
    found = past.history_of(request.auth, squad_id, Act.METHODS_CHANGED)
    return [MethodsChangedOut(at=one.at, by=past.by_whom(one), says=one.about) for one in found]


DEFAULTS: dict[str, Any] = DEFAULT_METHODS.model_dump(mode="json", by_alias=True)


def _setting(one: SettingTold) -> SettingOut:
    cells = [SettingCellOut(key=cell.key, label=cell.label, low=cell.low, high=cell.high) for cell in one.cells]
    return SettingOut(
        key=one.key, label=one.label, paragraph=one.paragraph, shape=one.shape, unit=one.unit, cells=cells,
        source=one.source, step=one.step, empty=one.empty, default=DEFAULTS[one.key],
    )  # fmt: skip


def _school(one: SchoolTold, squad: Squad) -> SchoolToldOut:
    library, methods = shipped_library(), squad.methods_value()
    return SchoolToldOut(
        key=one.key,
        label=one.label,
        paragraph=one.paragraph,
        views=[
            SchoolViewOut(
                value=view.value,
                label=view.label,
                argues=view.argues,
                lines=sample_lines(one, view, library, methods),
            )
            for view in one.views
        ],
        default=DEFAULTS[one.key],
        title=str(one.sample["title"]),
        text=write_wall(one.sample, library=library),
    )
