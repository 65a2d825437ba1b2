"""Who may do what: method, path, role, status. Every route of the API stands here."""

from __future__ import annotations

import json
from typing import Any

import pytest

from finetally.web.api.api import openapi_document
from finetally.web.training.models import Session
from tests.web.conftest import DOCUMENT, World

ROLES = (None, "athlete", "coach", "head", "stranger", "nobodys")
SAVE = {"document": DOCUMENT, "base": "x", "tab": "t"}

TABLE: list[tuple[str, str, Any, tuple[int, ...]]] = [
    # method, path, body, and the status for: nobody, athlete, coach, head coach, another squad's head, no squad
    ("GET", "/me", None, (401, 200, 200, 200, 200, 200)),
    ("POST", "/sign-in", {"name": "x", "password": "y"}, (401, 401, 401, 401, 401, 401)),
    ("POST", "/sign-out", None, (401, 204, 204, 204, 204, 204)),
    ("GET", "/movements", None, (401, 200, 200, 200, 200, 404)),
    ("POST", "/movements", {"kind": "json", "text": "[]", "squad": "SQUAD"}, (401, 403, 200, 200, 404, 404)),
    ("GET", "/movements.{kind}", None, (401, 200, 200, 200, 200, 404)),
    ("GET", "/formats", None, (401, 200, 200, 200, 200, 200)),
    ("POST", "/formats/make", {"key": "strict-20-10", "movements": ["burpee"]}, (401, 200, 200, 200, 200, 404)),
    ("POST", "/board/read", {"text": "Day\nMain: 30 s each\n  burpee"}, (401, 200, 200, 200, 200, 404)),
    ("POST", "/board/write", {"document": DOCUMENT}, (401, 200, 200, 200, 200, 404)),
    ("POST", "/card", {"document": DOCUMENT}, (401, 200, 200, 200, 200, 404)),
    ("POST", "/card.pdf", {"document": DOCUMENT}, (401, 200, 200, 200, 200, 404)),
    ("POST", "/fit", {"document": DOCUMENT, "available_s": 300}, (401, 200, 200, 200, 200, 404)),
    ("GET", "/people", None, (401, 403, 200, 200, 200, 404)),
    (
        "PATCH",
        "/squads/{squad_id}/methods",
        {"methods": {"density": "by-the-clock"}},
        (401, 403, 403, 200, 404, 404),
    ),
    ("POST", "/figures", {"document": DOCUMENT}, (401, 200, 200, 200, 200, 404)),
    ("POST", "/figures", {"document": DOCUMENT, "squad": "SQUAD"}, (401, 200, 200, 200, 404, 404)),
    ("POST", "/explain", {"document": DOCUMENT, "figure": "total_s"}, (401, 200, 200, 200, 200, 404)),
    ("GET", "/sessions", None, (401, 200, 200, 200, 200, 200)),
    ("POST", "/sessions", {"document": DOCUMENT, "squad": "SQUAD"}, (401, 403, 201, 201, 404, 404)),
    (
        "POST",
        "/sessions/import",
        {"kind": "txt", "text": "Day\nMain: 30 s each\n  burpee", "squad": "SQUAD"},
        (401, 403, 201, 201, 404, 404),
    ),
    ("GET", "/sessions/{session_id}/export.{kind}", None, (401, 200, 200, 200, 404, 404)),
    ("GET", "/sessions/{session_id}", None, (401, 200, 200, 200, 404, 404)),
    ("PUT", "/sessions/{session_id}", SAVE, (401, 403, 200, 200, 404, 404)),
    ("POST", "/sessions/{session_id}/duplicate", None, (401, 403, 201, 201, 404, 404)),
    ("POST", "/sessions/{session_id}/archive", None, (401, 403, 200, 200, 404, 404)),
    ("GET", "/sessions/{session_id}/revisions", None, (401, 200, 200, 200, 404, 404)),
    ("GET", "/sessions/{session_id}/revisions/{revision_id}", None, (401, 200, 200, 200, 404, 404)),
    ("GET", "/sessions/{session_id}/revisions/{revision_id}/differences", None, (401, 200, 200, 200, 404, 404)),
]


def filled(text: str, world: World) -> str:
    return (
        text.replace("{session_id}", str(world.session.pk))
        .replace("{revision_id}", str(world.session.head_id))
        .replace('"SQUAD"', str(world.squad.pk))
        .replace("{squad_id}", str(world.squad.pk))
        .replace("{kind}", "json")
    )


@pytest.mark.parametrize(
    ("method", "path", "body", "who", "status"),
    [
        pytest.param(method, path, body, who, status, id=f"{method} {path} {index} {who}")
        for index, (method, path, body, statuses) in enumerate(TABLE)
        for who, status in zip(ROLES, statuses, strict=True)
    ],
)
def test_right(world: World, method: str, path: str, body: Any, who: str | None, status: int) -> None:
    sent = None if body is None else filled(json.dumps(body), world)
    answer = world.send(who, method, filled(path, world), sent)
    assert answer.status_code == status, answer.content
    if status >= 400:
        assert answer["Content-Type"] == "application/problem+json"
        assert answer.json()["status"] == status


def test_every_route_stands_in_the_table() -> None:
    routes = {
        (method.upper(), path.removeprefix("/api"))
        for path, operations in openapi_document()["paths"].items()
        for method in operations
    }
    assert routes == {(method, path) for method, path, _, _ in TABLE}


def test_lists_hold_only_ones_own_squads(world: World) -> None:
    mine = {item["id"] for item in world.send("athlete", "GET", "/sessions").json()}
    assert mine == {str(world.session.pk)}
    assert Session.objects.count() == 2
    assert world.send("nobodys", "GET", "/sessions").json() == []
