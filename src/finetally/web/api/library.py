"""The movements that an answer is made with: a squad's, and those that only a file knows."""

from __future__ import annotations

from typing import Any

from finetally.core.movements.library import Library
from finetally.core.session.json_value import JsonObject
from finetally.core.session.reading import parse_session


def library_with(library: Library, definitions: list[dict[str, Any]]) -> Library:
    """The squad's movements with a file's own on top. Raises DocumentError for wrong ones."""
    if not definitions:
        return library
    blank: JsonObject = {"clock": {"kind": "intervals", "work_s": 20}, "steps": [{"movement": "-"}]}
    whole: JsonObject = {"fine_tally": 1, "title": "-", "blocks": [blank], "movements": [*definitions]}
    return library.with_definitions(parse_session(whole).movements)
