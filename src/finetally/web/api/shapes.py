"""Shapes under coaches' own names, over the API."""

from __future__ import annotations

from typing import Any

from ninja import Router, Schema, Status
from pydantic import Field

from finetally.web.api.request import ActorRequest
from finetally.web.problems import ProblemOut
from finetally.web.training import shapes
from finetally.web.training.models import Shape

router = Router()
REFUSALS = {
    401: ProblemOut, 403: ProblemOut, 404: ProblemOut, 409: ProblemOut, 413: ProblemOut, 422: ProblemOut,
}  # fmt: skip


class ShapeIn(Schema):
    """A name, a format of the table, and its numbers; the id of the shape of that name that it replaces."""

    name: str = Field(max_length=80)
    key: str = Field(max_length=64)
    params: dict[str, Any] = {}
    replaces: int | None = None
    squad: int | None = None


class ShapeOut(Schema):
    """A kept shape."""

    id: int
    name: str
    key: str
    params: dict[str, Any]


def _out(shape: Shape) -> ShapeOut:
    return ShapeOut(id=shape.pk, name=shape.name, key=shape.key, params=shape.params)


@router.get("/shapes", response={200: list[ShapeOut], **REFUSALS}, operation_id="list_shapes")
def list_shapes(request: ActorRequest, squad: int | None = None) -> list[ShapeOut]:
    """The formats with numbers of their own that a squad keeps by name."""
    return [_out(one) for one in shapes.list_shapes(request.auth, squad)]


@router.post("/shapes", response={201: ShapeOut, **REFUSALS}, operation_id="keep_shape")
def keep_shape(request: ActorRequest, data: ShapeIn) -> Status[ShapeOut]:
    """Keep a format with its numbers under a name. 409 where another of that name stands that `replaces` does
    not name.
    """
    made = shapes.keep_shape(request.auth, data.squad, data.name, data.key, data.params, data.replaces)
    return Status(201, _out(made))


@router.delete("/shapes/{shape_id}", response={204: None, **REFUSALS}, operation_id="drop_shape")
def drop_shape(request: ActorRequest, shape_id: int) -> Status[None]:
    """Remove a kept shape; blocks that were made of it stay."""
    shapes.drop_shape(request.auth, shape_id)
    return Status(204, None)
