"""The socket that tells how it goes, and the log of a server that runs: lines of JSON with nobody in them."""

from __future__ import annotations

import http.client
import json
import os
import signal
import socket
import sqlite3
import tempfile
from collections.abc import Iterator
from contextlib import closing
from datetime import UTC, datetime
from pathlib import Path

import pytest

from finetally.running.installation import Installation
from finetally.running.state import queue_of
from finetally.running.watch import health, listen
from tests.serving import HANGS_S, Server, Visitor, free_port, served, until


class AtSocket(http.client.HTTPConnection):
    """A connection to the path of a socket."""

    def __init__(self, path: Path) -> None:
        super().__init__("localhost", timeout=HANGS_S)
        self._path = path

    def connect(self) -> None:
        self.sock = socket.socket(socket.AF_UNIX)
        self.sock.connect(str(self._path))


def asked(path: Path, question: str) -> tuple[int, str]:
    with closing(AtSocket(path)) as asking:
        asking.request("GET", question)
        answer = asking.getresponse()
        return answer.status, answer.read().decode()


@pytest.fixture(scope="module")
def server() -> Iterator[Server]:
    # The path of a socket may not be long.
    with tempfile.TemporaryDirectory(prefix="watch-") as folder, served(Path(folder), FINE_TALLY_WATCH="") as made:
        yield made


@pytest.fixture(scope="module")
def watched(server: Server) -> Path:
    path = server.folder / "demo.watch"
    until(lambda: asked(path, "/healthz")[0] == 200, "all is well")
    return path


def counted(watched: Path) -> dict[str, float]:
    lines = asked(watched, "/metrics")[1].splitlines()
    return {
        name: float(value) for name, _, value in (one.rpartition(" ") for one in lines if not one.startswith("#"))
    }


def test_all_is_well(watched: Path) -> None:
    assert json.loads(asked(watched, "/healthz")[1]) == {
        "ok": True,
        "server": "ok",
        "database": "ok",
        "worker": "ok",
    }
    assert asked(watched, "/anything")[0] == 404
    assert watched.stat().st_mode & 0o077 == 0


def test_neither_is_answered_at_the_squads_door(server: Server) -> None:
    for path in ("/metrics", "/healthz"):
        asking = http.client.HTTPConnection("127.0.0.1", server.port, timeout=HANGS_S)
        with closing(asking):
            asking.request("GET", path)
            answer = asking.getresponse()
            assert b"fine_tally_requests" not in answer.read()
            assert "json" not in (answer.getheader("Content-Type") or "")


def test_what_both_processes_answer_is_counted_together_by_template(server: Server, watched: Path) -> None:
    name = 'fine_tally_requests_total{ended="refused",method="GET",route="api/sessions/<session_id>"}'
    before = counted(watched).get(name, 0)
    nobody = Visitor(server)
    for number in range(12):
        assert nobody.send("GET", f"/sessions/{number}").status == 401
    now = counted(watched)
    assert now[name] == before + 12
    assert now["fine_tally_worker_running"] == 1
    assert now["fine_tally_database_bytes"] > 100_000
    assert not [one for one in now if "/sessions/1" in one]


def test_a_worker_that_ends_is_told_and_then_is_there_again(server: Server, watched: Path) -> None:
    was = server.worker_beside()
    assert was is not None
    os.kill(was, signal.SIGKILL)
    until(lambda: "does not run" in asked(watched, "/healthz")[1], "told")
    assert asked(watched, "/healthz")[0] in (200, 503)
    until(lambda: asked(watched, "/healthz")[0] == 200, "there again")


def test_the_log_is_json_and_tells_of_nobody(server: Server, watched: Path) -> None:
    coach = Visitor(server, "marit")
    session = coach.send("GET", "/sessions").json()["items"][0]["id"]
    assert coach.send("GET", f"/sessions/{session}").status == 200
    link = coach.send("POST", "/plan/links", {}).json()["path"]
    asking = http.client.HTTPConnection("127.0.0.1", server.port, timeout=HANGS_S)
    with closing(asking):
        asking.request("GET", link)
        assert asking.getresponse().status == 200
    coach.send("GET", "/nowhere/a-name-in-a-path")
    text = until(lambda: server.log.read_text() if "nowhere" in server.log.read_text() else "", "the last line")
    for secret in (session, link.split("/")[-1].partition(".")[0], "marit", "a-name-in-a-path", "Vale"):
        assert secret not in text, secret
    lines = [json.loads(line) for line in text.splitlines()]
    requests = [one for one in lines if one["what"] == "request"]
    assert all(
        set(one) == {"at", "level", "what", "method", "route", "status", "ended", "ms", "who"} for one in requests
    )
    assert {one["route"] for one in requests} >= {"feeds/<str:token>.ics", "api/sessions/<session_id>", "page"}
    mine = {one["who"] for one in requests if one["route"] == "api/sessions/<session_id>" and one["status"] == 200}
    listed = server.fine_tally("account", "list").stdout
    assert [f"{number} in the log" in listed for number in mine] == [True]
    assert next(one for one in requests if one["route"].startswith("feeds"))["who"] is None


def test_a_database_that_cannot_be_read_is_not_well(tmp_path: Path) -> None:
    place = Installation(tmp_path, tmp_path / "fine-tally.sqlite3")
    found = health(place, f"127.0.0.1:{free_port()}")
    assert found["server"].startswith("no answer")
    assert found["database"] == "it cannot be read (OperationalError)"
    with closing(sqlite3.connect(place.database)) as made:
        made.execute("CREATE TABLE squads_squad (x)")
    assert health(place, f"127.0.0.1:{free_port()}")["database"] == "ok"


def test_where_it_listens(tmp_path: Path) -> None:
    place = Installation(tmp_path, tmp_path / "fine-tally.sqlite3")
    port = free_port()
    with listen(place, "", f"127.0.0.1:{port}") as at_port:
        assert at_port.server_address == ("127.0.0.1", port)
    short = Path(f"/tmp/watch-{os.getpid()}")
    for _ in range(2):  # what a killed one left is no hindrance
        with listen(place, "", str(short)) as at_path:
            assert at_path.server_address == str(short)
    short.unlink()
    with pytest.raises(OSError, match="characters"):
        listen(place, "", f"/{'x' * 120}")


def test_it_knows_heavy_work_that_is_stuck(tmp_path: Path) -> None:
    database = tmp_path / "tally.sqlite3"
    now = datetime(2026, 12, 1, 12, tzinfo=UTC)

    def stuck(*rows: tuple[str, str, str | None]) -> str:
        database.unlink(missing_ok=True)
        with closing(sqlite3.connect(database)) as made:
            made.execute("CREATE TABLE jobs_job (state, created_at, seen_at)")
            made.executemany("INSERT INTO jobs_job VALUES (?, ?, ?)", rows)
            made.commit()
        return queue_of(database, now).stuck

    long_ago, just_now = "2026-12-01 11:00:00", "2026-12-01 11:59:50"
    assert stuck() == ""
    assert stuck(("waiting", just_now, None), ("running", just_now, just_now)) == ""
    assert stuck(("waiting", long_ago, None), ("running", long_ago, just_now)) == ""
    assert stuck(("running", long_ago, long_ago)) == "a job that runs has reported nothing for 60 minutes"
    assert stuck(("waiting", long_ago, None)) == "1 jobs wait, the first for 60 minutes, and none runs"
