"""The published JSON Schema of the session file."""

from __future__ import annotations

from finetally.core.session.document import Session
from finetally.core.session.json_value import JsonObject

DIALECT = "https://json-schema.org/draft/2020-12/schema"


def session_schema() -> JsonObject:
    """JSON Schema (2020-12) of a session file; unknown keys are allowed and kept."""
    return {"$schema": DIALECT, **Session.model_json_schema(by_alias=True)}
