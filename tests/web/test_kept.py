"""Nothing is lost and nothing is written over unseen: conflicts, pinned versions, stale proposals, stale writes."""

from __future__ import annotations

import copy
import json
from datetime import timedelta
from typing import Any

import pytest
from django.utils import timezone

from finetally.web.plan.models import Entry
from finetally.web.training.models import Revision, RevisionKind, Summary
from finetally.web.training.upkeep import prune
from tests.web.conftest import World
from tests.web.test_levelling import proposed

MONDAY = "2026-12-07"


def read(world: World) -> Any:
    return world.send("coach", "GET", f"/sessions/{world.session.pk}").json()


def save(world: World, document: Any, base: str, tab: str, who: str = "coach") -> Any:
    body = {"document": document, "base": base, "tab": tab}
    answer = world.send(who, "PUT", f"/sessions/{world.session.pk}", body)
    assert answer.status_code == 200, answer.content
    return answer.json()


def titled(document: Any, title: str) -> Any:
    return {**copy.deepcopy(document), "title": title}


def test_every_conflict_is_kept_by_what_it_was_made_from(world: World) -> None:
    first = read(world)
    second = save(world, titled(first["document"], "theirs"), first["etag"], "other", "head")
    assert save(world, titled(first["document"], "mine"), first["etag"], "tab")["outcome"] == "conflict"
    # The same tab goes on from the same state: one conflict. It looks, goes on from there, and meets another one.
    assert save(world, titled(first["document"], "mine, more"), first["etag"], "tab")["outcome"] == "conflict"
    save(world, titled(first["document"], "theirs again"), second["etag"], "other", "head")
    assert save(world, titled(first["document"], "mine anew"), second["etag"], "tab")["outcome"] == "conflict"
    kept = Revision.objects.filter(session=world.session, kind=RevisionKind.CONFLICT)
    assert {one.document["title"] for one in kept} == {"mine, more", "mine anew"}


@pytest.mark.parametrize("how", ["plan", "newest", "again", "export"])
def test_what_a_plan_or_a_file_refers_to_is_saved_over_no_more(world: World, how: str) -> None:
    now = save(world, titled(read(world)["document"], "before"), read(world)["etag"], "tab")
    entry = {"session": str(world.session.pk), "day": MONDAY}
    made = None
    if how != "export":
        made = world.send("coach", "POST", "/plan/entries", entry).json()
        if how in ("newest", "again"):
            now = save(world, titled(read(world)["document"], "before"), read(world)["etag"], "tab")
        if how == "newest":
            world.send("coach", "PATCH", f"/plan/entries/{made['id']}", {"newest": True})
        if how == "again":
            world.send("coach", "POST", f"/plan/entries/{made['id']}/again", {"weeks": 1})
    else:
        assert world.send("coach", "POST", f"/sessions/{world.session.pk}/pin").status_code == 204
    pinned = Revision.objects.get(pk=int(now["etag"].partition(".")[0]))
    after = save(world, titled(read(world)["document"], "after"), read(world)["etag"], "tab")
    if how != "again":
        pinned.refresh_from_db()
        assert (pinned.document["title"], pinned.pinned) == ("before", True)
        assert after["etag"].partition(".")[0] != str(pinned.pk)
    if made is not None:
        [shown] = world.send("coach", "GET", f"/plan/week?day={MONDAY}").json()["entries"]
        assert shown["newer"] is True
        revision = Entry.objects.get(pk=made["id"]).revision
        assert revision is not None
        assert revision.document["title"] != "after"


def test_only_old_autosaves_that_another_version_followed_are_pruned(world: World) -> None:
    session = world.session
    made = {}
    for name, kind, pinned in (
        ("followed", RevisionKind.AUTOSAVE, False),
        ("pinned", RevisionKind.AUTOSAVE, True),
        ("kept", RevisionKind.KEPT, False),
        ("conflict", RevisionKind.CONFLICT, False),
        ("young", RevisionKind.AUTOSAVE, False),
        ("head", RevisionKind.AUTOSAVE, False),
    ):
        made[name] = Revision.objects.create(session=session, kind=kind, pinned=pinned, document={})
    session.head = made["head"]
    session.save()
    Summary.objects.create(key="old", figures={})
    long_ago = timezone.now() - timedelta(days=400)
    old = [one.pk for name, one in made.items() if name != "young"]
    Revision.objects.filter(pk__in=old).update(updated_at=long_ago)
    Summary.objects.filter(key="old").update(made_at=long_ago)
    assert prune() == 2
    assert not Revision.objects.filter(pk=made["followed"].pk).exists()
    assert Revision.objects.filter(pk__in=[one.pk for name, one in made.items() if name != "followed"]).count() == 5
    assert not Summary.objects.filter(key="old").exists()


def put(world: World) -> Any:
    return world.send("coach", "POST", "/plan/entries", {"session": str(world.session.pk), "day": MONDAY}).json()


@pytest.mark.parametrize("door", ["preview", "take"])
def test_an_edit_that_was_made_on_what_stands_no_more_is_told_and_not_made(world: World, door: str) -> None:
    entry = put(world)
    job = proposed(world, [(entry["id"], {"day": 4})])
    save(world, titled(read(world)["document"], "longer"), read(world)["etag"], "tab")
    changed = copy.deepcopy(read(world)["document"])
    changed["blocks"][0]["rounds"] = 20
    save(world, changed, read(world)["etag"], "tab")
    world.send("coach", "PATCH", f"/plan/entries/{entry['id']}", {"newest": True})
    answer = world.send("coach", "POST", f"/plan/level/{job}/{door}", {"edits": [0]})
    assert (answer.status_code, answer.json()["type"]) == (409, "about:changed")
    assert Entry.objects.get(pk=entry["id"]).day.isoformat() == MONDAY


def test_a_write_that_replaces_says_what_it_saw(world: World) -> None:
    entry = put(world)
    path, client = f"/api/plan/entries/{entry['id']}", world.client("coach")

    def patch(**more: Any) -> int:
        body = {"version": entry["version"], **more}
        return client.patch(path, body, content_type="application/json").status_code

    assert patch(group=world.group("north")) == 200
    assert patch(group=world.group("south")) == 409
    assert client.delete(f"{path}?version={entry['version']}").status_code == 409
    assert Entry.objects.get(pk=entry["id"]).group_id == world.group("north")
    assert client.delete(f"{path}?version={entry['version'] + 1}").status_code == 204


@pytest.mark.parametrize(
    ("method", "path", "body"),
    [
        ("PUT", f"/plan/days/{MONDAY}", {"intent": "hard"}),
        ("PATCH", "/squads/SQUAD/methods", {"methods": {"fatigue": 0.1}}),
        ("PUT", "/plan/entries/ENTRY/attendance", {"person": "PERSON", "came": False}),
    ],
)
def test_a_stale_version_changes_nothing(world: World, method: str, path: str, body: dict[str, Any]) -> None:
    path = path.replace("SQUAD", str(world.squad.pk)).replace("ENTRY", str(world.planned.entry.pk))
    if body.get("person"):
        body = {**body, "person": str(world.planned.person.public_id)}
    assert world.send("head", method, path, {**body, "version": "long ago"}).status_code == 409
    assert world.send("head", method, path, body).status_code in (200, 204)


def test_a_file_of_movements_replaces_only_when_it_says_so(world: World) -> None:
    def send(pace: int, **more: Any) -> Any:
        text = json.dumps([{"key": "vault", "patterns": {"jump": 1.0}, "pace_s": pace}])
        return world.send("coach", "POST", "/movements", {"kind": "json", "text": text, **more})

    assert send(3).status_code == 200
    assert send(3).status_code == 200
    refused = send(5)
    assert (refused.status_code, "vault" in refused.json()["detail"]) == (409, True)
    assert send(5, replace=True).status_code == 200
