"""What no input may do: hang, end in a fault of the server, or take more than its share."""

from __future__ import annotations

import csv
import io
import json
from typing import Any

import pytest
from django.db import OperationalError, connection
from django.test import Client
from django.test.utils import CaptureQueriesContext
from openpyxl import load_workbook

from finetally.core.session.limits import MAX_BYTES, MAX_PROBLEMS, MAX_WATCH_BYTES
from finetally.web.accounts import guessing
from finetally.web.body import SIGN_IN_BYTES, SMALL_BYTES, bound_of
from finetally.web.plan.models import Link
from finetally.web.squads.models import SquadMovement
from finetally.web.training import figuring
from finetally.web.training.models import Revision, Session, Summary
from tests.web.conftest import DOCUMENT, World

STEP = {"movement": "push-up", "reps": 0}


def alone(block: dict[str, Any]) -> dict[str, Any]:
    return {"fine_tally": 1, "title": "x", "blocks": [block]}


ENDLESS = [
    {"clock": {"kind": "task", "cap_s": 60, "then": "restart"}, "steps": [STEP]},
    {"clock": {"kind": "task", "cap_s": 60, "then": "restart"}, "steps": [{**STEP, "reps": {"low": 0, "high": 1}}]},
    {"clock": {"kind": "task", "cap_s": 60, "then": "restart"}, "steps": [{**STEP, "reps": 3, "grow": -3}], "rounds": 2},
    {"clock": {"kind": "amrap", "window_s": 60}, "steps": [STEP]},
    {"clock": {"kind": "amrap", "window_s": 60}, "steps": [{**STEP, "reps": {"low": 0, "high": 9}}]},
    {"clock": {"kind": "task"}, "steps": [STEP] * 20, "rounds": 1000, "repeat": 1000},
    {"clock": {"kind": "rotation", "inner": {"kind": "task"}, "laps": 1000,
               "stations": [{"name": "a", "steps": [STEP]}] * 400}},
]  # fmt: skip


@pytest.mark.parametrize("block", ENDLESS, ids=range(len(ENDLESS)))
def test_what_never_ended_is_answered_and_takes_no_list_away(world: World, block: dict[str, Any]) -> None:
    document = alone(block)
    assert world.send("coach", "POST", "/figures", {"document": document}).status_code in (200, 422)
    assert world.send("coach", "POST", "/sessions", {"document": document}).status_code == 201
    listed = world.send("coach", "GET", "/sessions")
    assert listed.status_code == 200
    assert listed.json()["total"] == 2


def test_a_request_has_a_budget_of_work_and_says_so(world: World, settings: Any) -> None:
    answer = world.send("coach", "POST", "/figures", {"document": DOCUMENT})
    spent = int(answer["X-Work"])
    assert spent > 20
    settings.WORK_UNITS = spent - 1
    refused = world.send("coach", "POST", "/figures", {"document": DOCUMENT})
    assert refused.status_code == 422
    assert refused.json()["problems"][0]["code"] == "over_budget"


def test_a_list_over_its_budget_opens_with_what_it_could_figure(world: World, settings: Any) -> None:
    for number in range(3):
        document = {**DOCUMENT, "title": f"n{number}"}
        Revision.objects.filter(session=world.session).update(document=document)
        world.send("coach", "POST", "/sessions", {"document": document})
    Summary.objects.all().delete()
    figuring._held.clear()
    settings.WORK_UNITS = 60
    first = [one["figures"]["problem"] for one in world.send("coach", "GET", "/sessions").json()["items"]]
    assert figuring.NOT_YET in first
    for _ in range(4):
        last = [one["figures"]["problem"] for one in world.send("coach", "GET", "/sessions").json()["items"]]
    assert last == [None] * 4


def test_what_cannot_be_figured_is_listed_as_such(world: World, monkeypatch: pytest.MonkeyPatch) -> None:
    def broken(*_: Any, **__: Any) -> None:
        raise ZeroDivisionError

    monkeypatch.setattr(figuring, "figures_and_tally", broken)
    Summary.objects.all().delete()
    figuring._held.clear()
    [item] = world.send("coach", "GET", "/sessions").json()["items"]
    assert "cannot be figured" in item["figures"]["problem"]


def test_looking_writes_nothing(world: World) -> None:
    world.send("coach", "POST", "/plan/entries", {"session": str(world.session.pk), "day": "2026-11-23"})
    Summary.objects.all().delete()
    figuring._held.clear()
    with CaptureQueriesContext(connection) as asked:
        for path in ("/sessions", "/plan/week?day=2026-11-23", "/plan/season?day=2026-11-23", "/movements", "/me"):
            assert world.send("coach", "GET", path).status_code == 200
    # Signing the test's client in is what is written here.
    written = [one["sql"] for one in asked if one["sql"].split()[0] in ("INSERT", "UPDATE", "DELETE")]
    assert [sql for sql in written if "accounts_device" not in sql and "auth_user" not in sql] == []


# Bodies


def test_each_route_has_its_own_bound(world: World) -> None:
    assert bound_of("/api/sign-in") == SIGN_IN_BYTES
    assert {
        bound_of(f"/api{p}")
        for p in ("/figures", "/sessions/import", "/board", "/compare.csv", "/otherwise", "/people/list")
    } == {MAX_BYTES}
    assert bound_of("/api/log/entries/1/watch") == MAX_WATCH_BYTES
    assert {bound_of(f"/api{p}") for p in ("/plan/entries", "/plan/level", "/shapes")} == {SMALL_BYTES}
    long = {"name": "x" * 10, "password": "y" * SIGN_IN_BYTES}
    answer = world.send(None, "POST", "/sign-in", long)
    assert (answer.status_code, answer.json()["problems"][0]["code"]) == (413, "too_large")
    assert answer["Connection"] == "close"


def test_nobody_has_a_body_read_before_it_is_known_who_asks(world: World) -> None:
    assert world.send(None, "POST", "/figures", "x" * 4_000_000).status_code == 401


def test_bodies_that_are_no_json_are_not_read(world: World) -> None:
    client = world.client("coach")
    for kind in ("application/x-www-form-urlencoded", "multipart/form-data; boundary=b", "text/plain"):
        assert client.post("/api/figures", data=b"a=b" * 100, content_type=kind).status_code == 415


def test_more_values_than_a_session_has_are_refused_before_they_are_made(world: World) -> None:
    answer = world.send("coach", "POST", "/figures", '{"document": [' + "[]," * 600_000 + "[]]}")
    assert (answer.status_code, answer.json()["problems"][0]["code"]) == (413, "too_large")


def test_at_most_a_hundred_problems_are_told(world: World) -> None:
    steps = [{"movement": f"no-such-{number}", "reps": "many"} for number in range(400)]
    answer = world.send(
        "coach", "POST", "/figures", {"document": alone({"clock": {"kind": "task"}, "steps": steps})}
    )
    assert (answer.status_code, len(answer.json()["problems"])) == (422, MAX_PROBLEMS)
    assert len(answer.content) < 60_000


def test_only_so_many_passwords_are_looked_at_at_a_time(world: World) -> None:
    turns = guessing.password_turns
    with turns.turn("198.51.100.1"), turns.turn("198.51.100.2"):
        turns.waiting.append("198.51.100.3")
        answer = world.send(None, "POST", "/sign-in", {"name": "coach", "password": "a-long-password"})
        turns.waiting.clear()
    assert (answer.status_code, answer["Retry-After"]) == (503, "2")
    assert world.send(None, "POST", "/sign-in", {"name": "coach", "password": "a-long-password"}).status_code == 200


# What ended in a fault of the server

FAULTS: list[tuple[str, str, Any, set[int]]] = [
    ("PATCH", "/squads/{squad}/methods", {"methods": {"effort_scale": [[0, 0], [1, 1e308]]}}, {422}),
    ("PATCH", "/squads/{squad}/methods", {"methods": {"effort_scale": [[0, 0]] * 500}}, {422}),
    ("POST", "/plan/phases", {"begins": "2026-11-23", "weeks": 2, "kind": "hold", "load_low": 0, "load_high": 1e308}, {422}),
    ("POST", "/plan/level", {"day": "2026-11-23", "landings_cap": 1e308}, {422}),
    ("PUT", "/sessions/{session}", {"document": DOCUMENT, "base": "²", "tab": "t"}, {200}),
    ("PUT", "/sessions/{session}", {"document": DOCUMENT, "base": "9" * 60, "tab": "t"}, {200}),
    ("POST", "/board", {"text": "Day\n--- not for the wall ---\n{\"set\": []}\n--- end ---"}, {200}),
    ("POST", "/board", {"text": f"Day\nMain: {'9' * 5000} s each\n  push-up"}, {200}),
    ("POST", "/board", {"text": f"Day\nMain: for time\n  {'9' * 5000} push-up"}, {200}),
    ("POST", "/figures", '{"document": {"fine_tally": ' + "9" * 5000 + "}}", {422}),
    ("POST", "/formats/make", {"key": "rep-ladder-pulse", "params": {"pulse_work_s": 30, "pulse_rest_s": None},
                               "movements": ["push-up"]}, {422}),
    ("POST", "/formats/make", {"key": "rep-ladder", "params": {"pulse_work_s": 30}, "movements": ["push-up"]}, {422}),
    ("GET", f"/plan/week?day=2026-11-23&person={10**30}", None, {404, 422}),
    ("GET", f"/sessions/{{session}}/revisions/{10**30}", None, {404, 422}),
    ("GET", f"/movements?squad={10**30}", None, {404, 422}),
    ("POST", "/figures", {"document": DOCUMENT, "given": {"person": {"body_kg": 10**30}}}, {422}),
    ("POST", "/movements", {"kind": "csv", "text": "key,patterns\n" + "x" * 200_000 + ",squat"}, {422}),
]  # fmt: skip


@pytest.mark.parametrize(
    ("method", "path", "body", "allowed"), FAULTS, ids=[f"{f[1][:30]}-{n}" for n, f in enumerate(FAULTS)]
)
def test_no_input_is_a_fault_of_the_server(
    world: World, method: str, path: str, body: Any, allowed: set[int]
) -> None:
    path = path.replace("{squad}", str(world.squad.pk)).replace("{session}", str(world.session.pk))
    answer = world.send("head", method, path, body)
    assert answer.status_code in allowed, answer.content


def test_settings_and_movements_that_a_newer_rule_refuses_take_nothing_away(world: World) -> None:
    world.squad.methods = {"effort_scale": [[0, 0], [1, 1e308]], "fatigue": 0.1}
    world.squad.save()
    SquadMovement.objects.create(squad=world.squad, key="odd", definition={"key": "odd", "pace_s": -5})
    assert world.send("coach", "GET", "/sessions").status_code == 200
    assert world.send("coach", "GET", "/movements").status_code == 200
    methods = world.send("coach", "GET", f"/squads/{world.squad.pk}/methods").json()["methods"]
    assert methods["fatigue"] == 0.1
    assert methods["effort_scale"][-1] == [1.0, 10]
    assert world.send("coach", "DELETE", f"/movements/odd?squad={world.squad.pk}").status_code == 204


def test_text_is_cleaned_at_the_door(world: World) -> None:
    title = "Hill\x00\x07 day\u2028\ud800\x85"
    document = {**DOCUMENT, "title": title, "club": {"k\x01ey": "v\x1b"}}
    made = world.send("coach", "POST", "/sessions", {"document": document}).json()
    assert made["title"] == "Hill day\ufffd"
    assert made["document"]["club"] == {"key": "v"}
    group = world.send("coach", "POST", "/groups", {"name": "no\r\nrth\x03"}).json()
    entry = {"session": made["id"], "day": "2026-11-23", "group": group["id"]}
    assert world.send("coach", "POST", "/plan/entries", entry).json()["group"]["name"] == "no rth"
    for kind in ("csv", "xlsx"):
        assert world.send("coach", "GET", f"/plan/week.{kind}?day=2026-11-23").status_code == 200
    own = json.dumps([{"key": "vault", "name": "va\ud800ult", "patterns": {"jump": 1.0}, "pace_s": 3}])
    assert world.send("coach", "POST", "/movements", {"kind": "json", "text": own}).status_code == 200
    assert "va\ufffdult" in world.send("coach", "GET", "/movements").content.decode()


def test_a_links_name_is_one_line_and_an_older_one_breaks_no_feed(world: World) -> None:
    made = world.send("coach", "POST", "/plan/links", {"name": "Hall\r\nX-EVIL: 1", "squad": world.squad.pk}).json()
    assert made["name"] == "Hall X-EVIL: 1"
    Link.objects.filter(pk=made["id"]).update(name="Hall\r\nX-EVIL: 1")
    feed = Client().get(made["path"])
    assert feed.status_code == 200
    assert b"\r\nX-EVIL" not in feed.content


FORMULAS = ("=1+1", "+1", "-1", "@x", "\t=1")


def test_no_cell_is_taken_for_a_formula(world: World) -> None:
    for formula in FORMULAS[:4]:
        hike = {"title": formula, "group": world.group(formula), "day": "2026-11-23", "minutes": 5, "effort": 3}
        assert world.send("coach", "POST", "/plan/entries", hike).status_code == 201
    table = list(
        csv.reader(io.StringIO(world.send("coach", "GET", "/plan/week.csv?day=2026-11-23").content.decode()))
    )
    assert [row[2] for row in table[1:5]] == [f"'{one}" for one in FORMULAS[:4]]
    book = load_workbook(io.BytesIO(world.send("coach", "GET", "/plan/week.xlsx?day=2026-11-23").content))
    assert "f" not in {cell.data_type for row in book.active.iter_rows(max_row=5) for cell in row}
    own = json.dumps([{"key": "m", "name": "=cmd()", "cues": ["+go"], "patterns": {"jump": 1.0}, "pace_s": 3}])
    world.send("coach", "POST", "/movements", {"kind": "json", "text": own})
    text = world.send("coach", "GET", "/movements.csv").content.decode()
    assert "'=cmd()" in text
    assert "'+go" in text
    world.send("coach", "POST", "/movements", {"kind": "csv", "text": text, "replace": True})
    kept = SquadMovement.objects.get(squad=world.squad, key="m").definition
    assert (kept["name"], kept["cues"]) == ("=cmd()", ["+go"])


# The database


@pytest.mark.parametrize(
    ("said", "status"),
    [("database is locked", 503), ("database or disk is full", 507), ("attempt to write a readonly database", 507)],
)
def test_what_the_database_cannot_do_just_now_is_told(
    world: World, monkeypatch: pytest.MonkeyPatch, said: str, status: int
) -> None:
    def refuse(*_: Any, **__: Any) -> None:
        raise OperationalError(said)

    monkeypatch.setattr(Session, "save", refuse)
    body = {"document": DOCUMENT, "base": world.session.head.etag, "tab": "t"}  # type: ignore[union-attr]
    answer = world.send("coach", "PUT", f"/sessions/{world.session.pk}", body)
    assert answer.status_code == status
    assert "Nothing was changed" in answer.json()["detail"] or "nothing was saved" in answer.json()["detail"]


@pytest.mark.django_db(transaction=True)
def test_with_a_full_disk_saving_says_so_and_looking_still_works(world: World) -> None:
    etag = world.session.head.etag  # type: ignore[union-attr]
    long = {**DOCUMENT, "notes": "x" * 19_000, "club": ["y" * 100_000]}
    body: dict[str, Any] = {"document": long, "base": etag, "tab": "t"}
    with connection.cursor() as cursor:
        pages = cursor.execute("PRAGMA page_count").fetchone()[0]
        cursor.execute(f"PRAGMA max_page_count = {pages + 2}")
        try:
            refused = world.client("coach").put(
                f"/api/sessions/{world.session.pk}", body, content_type="application/json"
            )
            assert refused.status_code == 507, refused.content
            assert "full" in refused.json()["detail"]
            assert world.send("coach", "GET", f"/sessions/{world.session.pk}").json()["etag"] == etag
        finally:
            cursor.execute("PRAGMA max_page_count = 1073741823")
    assert world.send("coach", "PUT", f"/sessions/{world.session.pk}", body).json()["outcome"] == "saved"


# Signing in behind a proxy


def test_without_the_proxys_word_signing_in_says_what_is_missing(world: World, settings: Any) -> None:
    settings.HTTPS = True
    answer = world.send(None, "POST", "/sign-in", {"name": "coach", "password": "a-long-password"})
    assert answer.status_code == 400
    assert "X-Forwarded-Proto" in answer.json()["detail"]


def test_signing_out_leaves_the_browser_what_other_accounts_keep_there(world: World) -> None:
    assert world.send("coach", "POST", "/sign-out")["Clear-Site-Data"] == '"cache"'


@pytest.mark.parametrize(
    ("path", "body"),
    [
        ("/otherwise", lambda long: {"document": {**DOCUMENT, "club": long}}),
        ("/people/list/preview", lambda long: {"text": "name,groups\nAnna Berg,hill\n" + "\n" * len(long)}),
    ],
)
def test_what_may_be_long_is_read_in_full(world: World, path: str, body: Any) -> None:
    answer = world.send("coach", "POST", path, {"squad": world.squad.pk, **body("x" * (SMALL_BYTES + 1))})
    assert answer.status_code == 200, answer.content
