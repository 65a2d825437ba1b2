"""Lines of the log: what they hold of a request, of a fault, of what others log – and what never."""

from __future__ import annotations

import json
import logging
from collections.abc import Iterator
from typing import Any

import pytest
from django.test import override_settings

from finetally.web.log_lines import JsonLines, log_number
from tests.web.conftest import DOCUMENT, World

pytestmark = pytest.mark.django_db
SECRET = "Ana's left knee, token k3J9"


class Kept(logging.Handler):
    """What was logged, as it would be written."""

    def __init__(self) -> None:
        super().__init__()
        self.lines: list[dict[str, Any]] = []
        self.setFormatter(JsonLines())

    def emit(self, record: logging.LogRecord) -> None:
        text = self.format(record)
        assert "\n" not in text
        self.lines.append(json.loads(text))


@pytest.fixture
def kept() -> Iterator[Kept]:
    handler = Kept()
    logging.getLogger().addHandler(handler)
    yield handler
    logging.getLogger().removeHandler(handler)


def test_one_line_a_request_with_who_by_a_number(world: World, kept: Kept) -> None:
    world.send("coach", "GET", f"/sessions/{world.session.pk}")
    world.send("athlete", "GET", "/people")
    world.client("own").get("/api/checkin")
    world.client(None).get("/api/me?note=Ana")
    told = [(one["method"], one["route"], one["status"], one["ended"], one["who"]) for one in kept.lines]
    number = {role: log_number("account", world.users[role].pk) for role in ("coach", "athlete")}
    assert told == [
        ("GET", "api/sessions/<session_id>", 200, "ok", number["coach"]),
        ("GET", "api/people", 403, "refused", number["athlete"]),
        ("GET", "api/checkin", 200, "ok", log_number("own", world.known.own.pk)),
        ("GET", "api/me", 401, "refused", None),
    ]
    assert len({one[4] for one in told}) == 4
    assert all(one["ms"] >= 0 for one in kept.lines)


def test_numbers_are_of_one_installation() -> None:
    here = log_number("account", 1)
    assert here == log_number("account", 1) != log_number("own", 1)
    with override_settings(SECRET_KEY="another"):
        assert log_number("account", 1) != here


def test_a_fault_is_told_by_its_kind_and_place_alone(
    world: World, kept: Kept, monkeypatch: pytest.MonkeyPatch
) -> None:
    def fails(*_: object, **__: object) -> None:
        raise ValueError(SECRET)

    monkeypatch.setattr("finetally.web.squads.actor.Actor.require", fails)
    monkeypatch.setattr("finetally.web.squads.actor.Actor.squads", fails)
    client = world.client("coach")
    client.raise_request_exception = False
    assert client.get("/api/people").status_code == 500
    fault = next(one for one in kept.lines if one["what"] == "fault")
    assert fault["error"] == "ValueError"
    assert fault["places"][-1].endswith(" fails")
    assert fault["route"] == "api/people"
    assert any(one["what"] == "request" and one["ended"] == "failed" for one in kept.lines)
    assert "knee" not in json.dumps(kept.lines)


@pytest.mark.parametrize(
    ("logger", "message", "filled", "says"),
    [
        ("django.request", "Not Found: %s", (SECRET,), "Not Found: %s"),
        ("axes.attempts", f"failed for {SECRET}", (), None),
        ("finetally.web.accounts.mail", "an e-mail could not be sent: %s", (SECRET,), "an e-mail could not be sent: %s"),
        ("gunicorn.error", "Error handling request %s", (SECRET,), "Error handling request %s"),
        ("finetally.web.jobs.work", "a job could not be done", (), "a job could not be done"),
    ],
)  # fmt: skip
def test_of_others_the_template_alone(logger: str, message: str, filled: tuple[str, ...], says: str | None) -> None:
    record = logging.LogRecord(logger, logging.WARNING, "", 0, message, filled, None)
    line = json.loads(JsonLines().format(record))
    assert line.get("says") == says
    assert "knee" not in json.dumps(line)
    assert line["level"] == "warning"


def test_a_job_has_its_line(world: World, kept: Kept, settings: Any) -> None:
    settings.LARGE_UNITS = 10
    asked = {"document": DOCUMENT, "formats": ["even-intervals", "strict-20-10"]}
    assert world.send("coach", "POST", "/compare", asked).status_code == 202
    [line] = [one for one in kept.lines if one["what"] == "job"]
    who = log_number("account", world.users["coach"].pk)
    assert (line["kind"], line["ended"], line["who"]) == ("compare", "done", who)
