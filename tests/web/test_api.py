"""Figures over the API, one error shape, headers, and the published description."""

from __future__ import annotations

import json
from typing import Any

import jsonschema
import pytest
from django.core.management import call_command
from django.db import connection
from django.test import Client
from django.test.utils import CaptureQueriesContext

from finetally.web.api.api import openapi_document
from finetally.web.squads.figuring_context import contexts_of
from finetally.web.training import figuring, listing
from finetally.web.training.figuring import keep_figures
from finetally.web.training.models import Session, Summary
from tests.conftest import REPOSITORY
from tests.web.conftest import DOCUMENT, World

WRONG: dict[str, Any] = {**DOCUMENT, "blocks": [{"clock": {"kind": "sand"}, "steps": []}]}
MILLION: dict[str, Any] = {**DOCUMENT, "blocks": [{**DOCUMENT["blocks"][0], "rounds": 1_000_000}]}

REFUSED = [
    ("unknown-clock", "/figures", {"document": WRONG}, 422, "blocks[0].clock.kind"),
    ("a-million-rounds", "/figures", {"document": MILLION}, 422, "blocks[0].rounds"),
    ("wrong-save", "/sessions", {"document": WRONG}, 422, "blocks[0].clock.kind"),
    ("no-document", "/figures", {}, 422, "document"),
    ("not-json", "/figures", "{", 422, "(document)"),
    ("nan", "/figures", '{"document": NaN}', 422, "document"),
    ("key-twice", "/figures", '{"document": {"a": 1, "a": 2}}', 422, "document.a"),
    ("ten-megabytes", "/figures", "x" * 10_000_000, 413, "(document)"),
    ("unknown-figure", "/explain", {"document": DOCUMENT, "figure": "hue"}, 404, None),
    ("long-name", "/sign-in", {"name": "x" * 999, "password": "y"}, 422, "name"),
    ("unknown-given", "/figures", {"document": DOCUMENT, "given": {"mood": 1}}, 422, "given.mood"),
]


@pytest.mark.parametrize(("path", "body", "status", "place"), [r[1:] for r in REFUSED], ids=[r[0] for r in REFUSED])
def test_refusals_have_one_shape_and_name_the_place(
    world: World, path: str, body: Any, status: int, place: str | None
) -> None:
    answer = world.send("coach", "POST", path, body)
    assert answer.status_code == status, answer.content
    assert answer["Content-Type"] == "application/problem+json"
    problem = answer.json()
    assert set(problem) == {"type", "title", "status", "detail", "problems"}
    assert "Traceback" not in answer.content.decode()
    if place is not None:
        assert place in [item["path"].removeprefix("data.") for item in problem["problems"]]


def test_djangos_own_refusals_have_the_same_shape(world: World) -> None:
    checked = Client(enforce_csrf_checks=True)
    checked.force_login(world.users["coach"])
    for answer in (
        checked.post("/api/figures", json.dumps({"document": DOCUMENT}), content_type="application/json"),
        world.send("coach", "GET", "/nothing-here"),
        world.send("coach", "DELETE", f"/sessions/{world.session.pk}"),
    ):
        assert answer.status_code in (403, 404, 405)
        assert answer["Content-Type"] == "application/problem+json", answer.content


def test_figures_fit_their_published_schema(world: World) -> None:
    answer = world.send("coach", "POST", "/figures", {"document": DOCUMENT}).json()
    openapi = openapi_document()
    schema = {**openapi["components"]["schemas"]["FiguresOut"], "components": openapi["components"]}
    jsonschema.validate(answer, schema)
    assert answer["figures"]["total_s"] == 230
    assert len(answer["stave"]["marks"]) == 8


def test_explanations_fit_their_published_schema(world: World) -> None:
    body = {"document": DOCUMENT, "figure": "blocks.0.rest_s"}
    answer = world.send("coach", "POST", "/explain", body).json()
    openapi = openapi_document()
    schema = {**openapi["components"]["schemas"]["ExplanationOut"], "components": openapi["components"]}
    jsonschema.validate(answer, schema)
    assert [(t["count"], t["each"]) for t in answer["explanation"]["terms"]] == [(7, 10)]


def test_a_squads_methods_govern_its_figures(world: World) -> None:
    world.squad.methods = {"closing_rest": True}
    world.squad.save()
    assert world.send("coach", "POST", "/figures", {"document": DOCUMENT}).json()["figures"]["total_s"] == 240
    assert world.send("stranger", "POST", "/figures", {"document": DOCUMENT}).json()["figures"]["total_s"] == 230


def test_list_figures_are_made_once_and_few_queries_are_needed(
    world: World, django_assert_max_num_queries: Any
) -> None:
    for _ in range(5):
        world.send("coach", "POST", f"/sessions/{world.session.pk}/duplicate")
    client = world.client("coach")
    client.get("/api/sessions")
    made = Summary.objects.count()
    with django_assert_max_num_queries(8):
        items = client.get("/api/sessions").json()["items"]
    assert Summary.objects.count() == made
    assert {item["figures"]["total_s"] for item in items} == {230}


def test_a_list_reads_no_documents_and_comes_in_pages(world: World) -> None:
    for number in range(listing.PAGE + 4):
        session = Session(squad=world.squad, head=world.session.head)
        session.describe({**DOCUMENT, "title": f"Hill {number:03}", "tags": ["hill"] if number % 2 else []})
        session.save()
    keep_figures(list(Session.objects.all()), contexts_of([world.squad, world.foreign.squad]))
    figuring._held.clear()
    client = world.client("coach")
    with CaptureQueriesContext(connection) as queries:
        first = client.get("/api/sessions?by=title&down=false").json()
    assert not [one["sql"] for one in queries if 'document"' in one["sql"].replace("document_hash", "")]
    assert (len(first["items"]), first["total"], first["size"]) == (listing.PAGE, listing.PAGE + 5, listing.PAGE)
    last = client.get("/api/sessions?by=title&down=false&page=2").json()
    assert [one["title"] for one in last["items"]] == ["Hill 100", "Hill 101", "Hill 102", "Hill 103", "Ridge"]
    found = client.get("/api/sessions?words=HILL 01&tag=hill").json()
    assert (found["total"], found["tags"]) == (7, ["hill"])
    by_load = client.get("/api/sessions?by=share:squat").json()
    assert len(by_load["items"]) == listing.PAGE
    wrong = client.get("/api/sessions?by=beauty")
    assert (wrong.status_code, wrong.json()["problems"][0]["path"]) == (422, "by")
    assert len(client.get("/api/sessions/names").json()) == listing.PAGE + 5


def test_a_session_that_cannot_be_figured_is_listed_with_its_problem(world: World) -> None:
    nothing = {"clock": {"kind": "amrap", "window_s": 60}, "steps": [{"movement": "hover", "seconds": 0}]}
    odd = {**DOCUMENT, "blocks": [nothing]}
    assert world.send("coach", "POST", "/sessions", {"document": odd}).status_code == 201
    problems = [item["figures"]["problem"] for item in world.send("coach", "GET", "/sessions").json()["items"]]
    assert any(problem and "blocks[0]" in problem for problem in problems)


def test_sign_in_and_out(world: World) -> None:
    client = Client()
    wrong = client.post("/api/sign-in", {"name": "coach", "password": "no"}, content_type="application/json")
    assert wrong.status_code == 401
    body = {"name": "coach", "password": "a-long-password"}
    assert client.post("/api/sign-in", body, content_type="application/json").json()["squads"][0]["role"] == "coach"
    assert client.get("/api/me").status_code == 200
    assert client.post("/api/sign-out", content_type="application/json").status_code == 204
    assert client.get("/api/me").status_code == 401


def signs_in(password: str, name: str = "coach", address: str = "127.0.0.1") -> int:
    body = {"name": name, "password": password}
    return Client(REMOTE_ADDR=address).post("/api/sign-in", body, content_type="application/json").status_code


def test_guessing_a_password_is_stopped_and_keeps_nobody_else_out(world: World) -> None:
    assert [signs_in("guess") for _ in range(9)] == [401] * 9
    assert signs_in("a-long-password") == 200
    # A right one forgets those before it; whatever the case, it is one name.
    assert [signs_in("guess", name="Coach") for _ in range(10)] == [401] * 9 + [429]
    assert signs_in("a-long-password") == 429
    assert signs_in("a-long-password", address="127.0.0.2") == 200
    assert signs_in("a-long-password", name="head") == 200


def test_answers_carry_safe_headers(world: World) -> None:
    answer = world.send("coach", "GET", "/me")
    assert "script-src" not in answer["Content-Security-Policy"]
    assert "default-src 'self'" in answer["Content-Security-Policy"]
    assert answer["X-Frame-Options"] == "DENY"
    assert answer["X-Content-Type-Options"] == "nosniff"
    assert answer["Cache-Control"] == "no-store"


def test_the_published_description_is_current() -> None:
    written = json.loads((REPOSITORY / "docs/openapi.json").read_text("utf-8"))
    assert openapi_document() == written, "run ./tally describe"


def test_generated_types_have_no_room_for_unknown_keys() -> None:
    for name, schema in openapi_document()["components"]["schemas"].items():
        assert schema.get("additionalProperties") is not True, name


def test_no_migration_is_missing(db: None) -> None:
    call_command("makemigrations", "--check", "--dry-run", verbosity=0)
