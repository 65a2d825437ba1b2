"""The formats as they are published: a JSON Schema for the parameters of each, and the table of docs/formats.md."""

from __future__ import annotations

from collections.abc import Iterator

from finetally.core.formats.bounds import Bound
from finetally.core.formats.format import AnyFormat
from finetally.core.formats.params import param_spec
from finetally.core.formats.table import FORMATS
from finetally.core.session.json_value import JsonObject

MEASURED = {
    "movements": "movements", "length": "length in s", "window": "longest work on one movement in s",
    "shortest": "shortest work on one movement in s",
    "dose": "reps of a turn", "rounds": "times that a movement comes up", "in-a-row": "reps in a row", "loaded-in-a-row": "loaded reps in a row",
    "possible": "share of the reps that a load leaves possible", "heavy-rest": "s between heavy sets",
    "filled": "share of a start that is work", "left": "share left over",
}  # fmt: skip


def formats_schema() -> JsonObject:
    """The JSON Schema of every format's parameters, by its key (draft 2020-12)."""
    return {
        "$schema": "https://json-schema.org/draft/2020-12/schema",
        "title": "Parameters of named formats, by the format's key",
        "formats": {one.key: one.params.model_json_schema() for one in FORMATS},
    }


def formats_table() -> str:
    """Every format with what is set, what a recast turns it within, and why, as Markdown."""
    return "\n".join(line for one in FORMATS for line in _lines(one))


def _lines(one: AnyFormat) -> Iterator[str]:
    least, most, by = one.holds
    many = f"{least} to {most}" if most is not None else f"{least} or more"
    movements = f"{least}" if least == most else many
    trade = f" ({', '.join(one.trade)})" if one.trade else ""
    yield f"### {one.name}{trade}\n"
    yield f"`{one.key}` · {movements} movement{'' if most == 1 else 's'}{f', by {by}' if by > 1 else ''} · {_carried(one)}\n"
    for name in one.params.model_fields:
        said = param_spec(one.params, name)
        usual = one.defaults().told()[name]
        yield f"- `{name}` {said.label}: {said.allowed}; usually {'open' if usual is None else usual}"
    for bound in one.usual:
        yield f"- *{_span(bound)}*: {bound.why}"
    yield ""


def _carried(one: AnyFormat) -> str:
    words = [f"reps are {one.rep_origin(one.defaults())}"]
    words += ["heavy sets may go in"] if one.keeps_sets else []
    words += ["no tempo is kept"] if one.raced else []
    words += ["only easy work and holds"] if one.no_rest else []
    return ", ".join(words)


def _span(bound: Bound) -> str:
    ends = [f"at least {bound.low:.2g}" if bound.low else "", f"at most {bound.high:.4g}" if bound.high else ""]
    return f"{MEASURED[bound.measure]} {' and '.join(filter(None, ends))}"
