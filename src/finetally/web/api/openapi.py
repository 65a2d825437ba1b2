"""Puts the session file's own schemas into the API's description, so that there is one definition of each."""

from __future__ import annotations

from typing import Annotated, Any

from pydantic import WithJsonSchema

from finetally.core.session.document import Session

MARK = "x-core-schema"

Movement = Annotated[dict[str, Any], WithJsonSchema({"type": "object", MARK: "MovementDef"})]
"""A movement's definition as the library writes it."""

DocumentBody = Annotated[dict[str, Any], WithJsonSchema({"type": "object", MARK: "Session"})]
"""A session document as written: read by the core, not by the API's models."""


def _resolved(value: Any) -> Any:
    if isinstance(value, dict):
        if MARK in value:
            return {"$ref": f"#/components/schemas/{value[MARK]}"}
        return {key: _resolved(child) for key, child in value.items()}
    if isinstance(value, list):
        return [_resolved(child) for child in value]
    return value


def with_session_schemas(openapi: dict[str, Any]) -> dict[str, Any]:
    """Add the session's schemas and point every document at them. Refuses two schemas of one name."""
    own = Session.model_json_schema(by_alias=True, ref_template="#/components/schemas/{model}")
    definitions = own.pop("$defs", {})
    made: dict[str, Any] = _resolved(openapi)
    schemas = made["components"]["schemas"]
    for name, schema in {**definitions, "Session": own}.items():
        if name in schemas and schemas[name] != schema:
            raise ValueError(f"two schemas are named {name}")
        schemas[name] = schema
    return made
