"""Saving: as written, run together, never over somebody else's state."""

from __future__ import annotations

import copy
from typing import Any

import pytest

from finetally.core.session.ids import without_ids
from finetally.web.training import use_cases
from finetally.web.training.models import Revision
from tests.web.conftest import DOCUMENT, World


def read(world: World, who: str = "coach") -> dict[str, Any]:
    answer: dict[str, Any] = world.send(who, "GET", f"/sessions/{world.session.pk}").json()
    return answer


def save(world: World, session: dict[str, Any], rest: int, tab: str = "one", who: str = "coach") -> Any:
    document = copy.deepcopy(session["document"])
    document["blocks"][0]["clock"]["rest_s"] = rest
    body = {"document": document, "base": session["etag"], "tab": tab}
    return world.send(who, "PUT", f"/sessions/{world.session.pk}", body).json()


def test_a_session_is_stored_as_written(world: World) -> None:
    session = read(world)
    assert without_ids(session["document"]) == DOCUMENT
    assert list(session["document"]) == list(DOCUMENT)


def test_one_edit_changes_exactly_that(world: World) -> None:
    before = read(world)
    save(world, before, 20)
    after = read(world)
    wanted = copy.deepcopy(before["document"])
    wanted["blocks"][0]["clock"]["rest_s"] = 20
    assert after["document"] == wanted


def test_saves_of_one_tab_run_together(world: World) -> None:
    session = read(world)
    for rest in (11, 12, 13):
        session = save(world, session, rest)["session"]
    kinds = [r.kind for r in Revision.objects.filter(session=world.session).order_by("id")]
    assert kinds == ["kept", "autosave"]
    assert read(world)["document"]["blocks"][0]["clock"]["rest_s"] == 13


def test_saves_of_two_tabs_stay_apart(world: World) -> None:
    session = save(world, read(world), 11, "one")["session"]
    save(world, session, 12, "two")
    assert Revision.objects.filter(session=world.session, kind="autosave").count() == 2


def test_a_stale_save_becomes_a_conflict_and_both_are_there(world: World) -> None:
    mine, theirs = read(world), read(world, "head")
    assert save(world, theirs, 30, "theirs", "head")["outcome"] == "saved"
    answer = save(world, mine, 40, "mine")
    assert answer["outcome"] == "conflict"
    assert answer["session"]["document"]["blocks"][0]["clock"]["rest_s"] == 30
    path = f"/sessions/{world.session.pk}/revisions/{answer['revision']['id']}"
    kept = world.send("coach", "GET", path).json()
    assert kept["kind"] == "conflict"
    assert kept["document"]["blocks"][0]["clock"]["rest_s"] == 40


def test_a_stale_save_within_a_run_of_autosaves_is_told_too(world: World) -> None:
    first = save(world, read(world), 11, "one")["session"]
    save(world, first, 12, "one")
    assert save(world, first, 13, "two", "head")["outcome"] == "conflict"


def test_conflicts_have_a_bound_and_nothing_is_lost_over_it(world: World, monkeypatch: pytest.MonkeyPatch) -> None:
    monkeypatch.setattr(use_cases, "MOST_CONFLICTS", 2)
    first = read(world)
    assert save(world, first, 12, "one")["outcome"] == "saved"
    assert [save(world, first, n, f"tab {n}", "head")["outcome"] for n in (13, 14)] == ["conflict"] * 2
    # The same tab goes on in its own; another one has to settle something first.
    assert save(world, first, 15, "tab 14", "head")["outcome"] == "conflict"
    body = {"document": {**DOCUMENT, "title": "16"}, "base": first["etag"], "tab": "tab 16"}
    answer = world.send("head", "PUT", f"/sessions/{world.session.pk}", body)
    assert (answer.status_code, answer.json()["problems"][0]["code"]) == (422, "too_many_conflicts")
    assert world.session.revisions.filter(kind="conflict").count() == 2


def test_a_conflict_can_be_put_on_top(world: World) -> None:
    mine = read(world)
    theirs = save(world, read(world, "head"), 30, "theirs", "head")
    save(world, mine, 40, "mine")
    answer = save(world, {**mine, "etag": theirs["etag"]}, 40, "mine")
    assert answer["outcome"] == "saved"
    assert read(world)["document"]["blocks"][0]["clock"]["rest_s"] == 40


def test_a_wrong_document_is_refused_and_nothing_changes(world: World) -> None:
    session = read(world)
    body = {"document": {**session["document"], "blocks": {}}, "base": session["etag"], "tab": "t"}
    answer = world.send("coach", "PUT", f"/sessions/{world.session.pk}", body)
    assert answer.status_code == 422
    assert answer.json()["problems"][0]["path"] == "blocks"
    assert read(world) == session


def test_new_steps_get_ids_and_old_ones_keep_theirs(world: World) -> None:
    session = read(world)
    old = session["document"]["blocks"][0]["steps"][0]["id"]
    session["document"]["blocks"][0]["steps"].append({"movement": "burpee"})
    save(world, session, 10)
    steps = read(world)["document"]["blocks"][0]["steps"]
    assert steps[0]["id"] == old
    assert steps[1]["id"] not in (old, None)


def test_archived_sessions_leave_the_list_and_come_back(world: World) -> None:
    path = f"/sessions/{world.session.pk}/archive"
    world.send("coach", "POST", path)
    assert world.send("coach", "GET", "/sessions").json()["items"] == []
    assert len(world.send("coach", "GET", "/sessions?archived=true").json()["items"]) == 1
    world.send("coach", "POST", f"{path}?archived=false")
    assert len(world.send("coach", "GET", "/sessions").json()["items"]) == 1


def test_a_copy_is_its_own_session(world: World) -> None:
    copied = world.send("coach", "POST", f"/sessions/{world.session.pk}/duplicate").json()
    assert copied["id"] != str(world.session.pk)
    assert copied["title"] == "Ridge (copy)"
