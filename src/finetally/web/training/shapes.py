"""Shapes that coaches keep under names of their own."""

from __future__ import annotations

from typing import Any

from django.db import transaction
from django.db.models import QuerySet
from django.shortcuts import get_object_or_404

from finetally.core.compare.side_by_side import OwnShape
from finetally.core.formats.params import CannotMakeError, read_params
from finetally.core.formats.table import BY_KEY, make
from finetally.core.session.cleaning import one_line
from finetally.core.session.parts import parse_entries, written
from finetally.core.session.problems import DocumentError, Problem
from finetally.core.session.step import Step
from finetally.web.squads.actor import Actor, Right
from finetally.web.squads.use_cases import squad_for
from finetally.web.training.models import Shape
from finetally.web.versions import require_version

TRIAL_MOVEMENT = Step(movement="air-squat", reps=1)


SHAPE_KEY = "shape:"
"""What a shape's key in a comparison begins with; its number follows."""


MAX_SHAPES = 40
"""Shapes of a squad: every comparison pours into all of them."""


def list_shapes(actor: Actor, squad_id: int | None) -> QuerySet[Shape]:
    """The shapes of a squad, by name."""
    return squad_for(actor, squad_id, Right.LOOK).shapes.all()


def own_shapes(actor: Actor, squad_id: int | None) -> list[OwnShape]:
    """The shapes of a squad as comparisons take them; one of an older release that this one refuses is left."""
    found = []
    for shape in list_shapes(actor, squad_id):
        chosen = BY_KEY.get(shape.key)
        if chosen is None:
            continue
        try:
            params = read_params(chosen.params, shape.params, chosen.name)
        except CannotMakeError:
            continue
        found.append(OwnShape(f"{SHAPE_KEY}{shape.pk}", shape.name, chosen, params))
    return found


def keep_shape(
    actor: Actor, squad_id: int | None, name: str, key: str, params: dict[str, Any], replaces: int | None = None
) -> Shape:
    """Keep a shape. `replaces`: the id of the one of that name that it takes the place of.

    Raises DocumentError for one that makes nothing, ChangedError where another one of that name stands.
    """
    squad = squad_for(actor, squad_id, Right.PLAN)
    name = one_line(name)
    if not name:
        raise DocumentError([Problem("name", "no name", "a name", "name")])
    if key not in BY_KEY:
        raise DocumentError([Problem("key", repr(key), "a format of the table", "format")])
    least, _, by = BY_KEY[key].holds
    try:
        entries = make(key, [TRIAL_MOVEMENT] * (-(-least // by) * by), params)
        parse_entries(written(entry) for entry in entries)
    except CannotMakeError as error:
        place = f"params.{error.field}" if error.field else "params"
        raise DocumentError([Problem(place, "these numbers", str(error), "cannot_make")]) from None
    with transaction.atomic():
        there = squad.shapes.filter(name=name).values_list("pk", flat=True).first()
        require_version(f"a shape named “{name}”", replaces, there)
        if there is None and squad.shapes.count() >= MAX_SHAPES:
            raise DocumentError(
                [Problem("name", f"{MAX_SHAPES} shapes", "one less, before another is kept", "too_many")]
            )
        shape, _ = Shape.objects.update_or_create(squad=squad, name=name, defaults={"key": key, "params": params})
    return shape


def drop_shape(actor: Actor, shape_id: int) -> None:
    """Take a shape away; blocks made of it stay as they are."""
    shape = get_object_or_404(Shape, pk=shape_id, squad_id__in=actor.squads())
    actor.require(shape.squad_id, Right.PLAN)
    shape.delete()
