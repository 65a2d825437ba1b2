"""The real server, killed in the middle of saves, copied while it writes, kept waiting: nothing confirmed is lost."""

from __future__ import annotations

import os
import random
import signal
import socket
import sqlite3
import threading
import time
from collections.abc import Iterator
from contextlib import ExitStack, closing
from pathlib import Path

import pytest

from finetally.web.body import READ_S
from tests.serving import HANGS_S, Server, Visitor, until
from tests.web.conftest import DOCUMENT

KILLS = 50
WHOLE_SERVER = 5
"""Of these so many end the whole server, as a power cut does; the others one that answers, which is started anew."""


@pytest.fixture
def server(tmp_path: Path) -> Iterator[Server]:
    made = Server(tmp_path)
    made.start()
    yield made
    made.stop()


class Saver(threading.Thread):
    """Saves one session over and over, each time under a name of its own, and notes what was confirmed."""

    def __init__(self, who: Visitor, session: str) -> None:
        super().__init__(daemon=True)
        self.who, self.session = who, session
        self.confirmed: list[str] = []
        self.going = True
        self.number = 0

    def run(self) -> None:
        while self.going:
            try:
                self._once()
            except OSError:
                time.sleep(0.02)

    def more(self) -> None:
        """Wait until another save is confirmed."""
        before = len(self.confirmed)
        until(lambda: len(self.confirmed) > before, "another save")

    def _once(self) -> None:
        now = self.who.send("GET", f"/sessions/{self.session}", timeout=HANGS_S).json()
        for _ in range(20):
            self.number += 1
            title = f"save {self.number}"
            body = {"document": {**now["document"], "title": title}, "base": now["etag"], "tab": title}
            answer = self.who.send("PUT", f"/sessions/{self.session}", body, timeout=HANGS_S)
            if answer.status != 200 or answer.json()["outcome"] != "saved":
                return
            now = answer.json()["session"]
            self.confirmed.append(title)


def titles(database: Path) -> set[str]:
    with closing(sqlite3.connect(database)) as found:
        return {title for (title,) in found.execute("SELECT document ->> 'title' FROM training_revision")}


def test_nothing_that_was_confirmed_is_lost_by_fifty_kills(server: Server) -> None:
    server.stop()
    # What answers is begun anew at once if all is loaded before: what is tried is the data, not the start.
    server.start("--preload")
    who = Visitor(server, "marit")
    session = who.send("POST", "/sessions", {"document": DOCUMENT}).json()["id"]
    saver = Saver(who, session)
    saver.start()
    rng = random.Random(8420)
    for number in range(KILLS):
        # By what was done and not by the clock: something new is confirmed before each kill, however slow it goes.
        saver.more()
        time.sleep(rng.uniform(0.0, 0.1))
        if number % (KILLS // WHOLE_SERVER) == 0:
            server.kill()
            server.start("--preload")
        else:
            for pid in server.workers():
                os.kill(pid, signal.SIGKILL)
            server.wait()
    saver.more()
    saver.going = False
    saver.join(30)
    assert len(saver.confirmed) > KILLS
    assert set(saver.confirmed) <= titles(server.database)
    with closing(sqlite3.connect(server.database)) as found:
        assert found.execute("PRAGMA integrity_check").fetchone() == ("ok",)


def test_a_backup_during_writes_holds_what_was_confirmed_before_it(server: Server) -> None:
    who = Visitor(server, "marit")
    session = who.send("POST", "/sessions", {"document": DOCUMENT}).json()["id"]
    saver = Saver(who, session)
    saver.start()
    while len(saver.confirmed) < 10:
        time.sleep(0.02)
    before = list(saver.confirmed)
    made = server.fine_tally("backup")
    assert made.returncode == 0, made.stderr
    [backup] = (server.folder / "backups").iterdir()
    saver.going = False
    saver.join(30)
    assert len(saver.confirmed) > len(before)
    assert set(before) <= titles(backup)
    refused = server.fine_tally("restore", str(backup))
    assert refused.returncode == 0, refused.stderr
    server.kill()
    server.start()
    back = Visitor(server, "marit")
    assert back.send("GET", f"/sessions/{session}").status == 200
    assert set(before) <= titles(server.database)


def half_sent(server: Server, text: bytes) -> socket.socket:
    made = socket.create_connection(("127.0.0.1", server.port))
    made.sendall(text)
    return made


def test_half_sent_bodies_and_heads_stop_nobody(server: Server) -> None:
    """More of them than there are threads: each is given up after its time, and everybody else is served."""
    who = Visitor(server, "marit")
    headers = "".join(f"{name}: {value}\r\n" for name, value in who.headers().items())
    body = f"POST /api/figures HTTP/1.1\r\nHost: 127.0.0.1\r\n{headers}Content-Type: application/json\r\n"
    with ExitStack() as open_ones:
        texts = [
            f"{body}Content-Length: 500\r\n\r\n{{".encode(),
            b"GET /api/me HTTP/1.1\r\nHost: 127.0.0.1\r\nX-Slow: ",
        ]
        slow = [open_ones.enter_context(half_sent(server, text)) for text in texts for _ in range(6)]
        # Where one process took all twelve, its four threads are free after three times that.
        assert who.send("GET", "/me", timeout=READ_S * 4).status == 200
        slow[0].settimeout(READ_S * 3)
        assert b"408" in slow[0].recv(200)
