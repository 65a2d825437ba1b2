"""Slow connections: heads, bodies and readers that take their time hold nobody else up."""

from __future__ import annotations

import socket
import time
from collections.abc import Iterator
from contextlib import ExitStack
from pathlib import Path

import pytest

from finetally.web.server import AHEAD_BYTES, HEAD_S, has_come
from tests.serving import Server, Visitor, longest, patience, served

SLOW = 40
"""Slow connections: five times as many as there are threads."""


@pytest.fixture(scope="module")
def server(tmp_path_factory: pytest.TempPathFactory) -> Iterator[Server]:
    with served(tmp_path_factory.mktemp("slow")) as made:
        yield made


def head_of(who: Visitor, length: int, path: str = "/api/figures") -> bytes:
    headers = "".join(f"{name}: {value}\r\n" for name, value in who.headers().items())
    kind = "Content-Type: application/json"
    return (
        f"POST {path} HTTP/1.1\r\nHost: 127.0.0.1\r\n{headers}{kind}\r\nContent-Length: {length}\r\n\r\n".encode()
    )


def begun(server: Server, stack: ExitStack, text: bytes, number: int = SLOW) -> list[socket.socket]:
    made = [stack.enter_context(socket.create_connection(("127.0.0.1", server.port))) for _ in range(number)]
    for one in made:
        one.sendall(text)
    return made


class Other:
    """Somebody else who asks meanwhile; whether the slow ones keep them waiting."""

    def __init__(self, server: Server) -> None:
        self._who = Visitor(server, "marit")
        self._patience = patience(self._ask)

    def _ask(self) -> None:
        assert self._who.send("GET", "/me").status == 200

    def is_held(self) -> bool:
        return longest(self._ask, times=6) >= self._patience


@pytest.mark.parametrize(
    ("begin", "whole"),
    [
        (b"", False),
        (b"GET / HTTP/1.1\r\nHost: x\r\n", False),
        (b"GET / HTTP/1.1\r\nHost: x\r\n\r\n", True),
        (b"POST / HTTP/1.1\r\ncontent-LENGTH:  3\r\n\r\nab", False),
        (b"POST / HTTP/1.1\r\ncontent-LENGTH:  3\r\n\r\nabc", True),
        (b"POST / HTTP/1.1\r\nContent-Length: 9999999\r\n\r\nabc", False),
        (b"POST / HTTP/1.1\r\nContent-Length: 9999999\r\n\r\n" + b"a" * AHEAD_BYTES, True),
        (b"POST / HTTP/1.1\r\nX: Content-Length: 3\r\n\r\n", True),
        (b"a" * AHEAD_BYTES, True),
    ],
)
def test_a_request_has_come_when_a_thread_can_work_on_it(begin: bytes, whole: bool) -> None:
    assert has_come(begin) is whole


@pytest.mark.parametrize("length", [500, 400_000], ids=["short", "long"])
def test_slow_bodies_hold_nobody(server: Server, length: int) -> None:
    who, other = Visitor(server, "marit"), Other(server)
    with ExitStack() as stack:
        slow = begun(server, stack, head_of(who, length) + b"{")
        assert not other.is_held()
        # As does one that sends on, a little at a time.
        for one in slow:
            one.sendall(b' "a": ')
        assert not other.is_held()
        slow[0].settimeout(HEAD_S * 3)
        assert b"408" in slow[0].recv(200)


def test_slow_heads_hold_nobody(server: Server) -> None:
    other = Other(server)
    with ExitStack() as stack:
        slow = begun(server, stack, b"GET /api/me HTTP/1.1\r\nHost: 127.0.0.1\r\nX-Slow: ")
        assert not other.is_held()
        slow[0].sendall(b"no more\r\n\r\n")
        slow[0].settimeout(HEAD_S)
        assert b"401" in slow[0].recv(200)


def test_bodies_that_nobody_reads_hold_nobody(server: Server) -> None:
    nobody, other = Visitor(server), Other(server)
    with ExitStack() as stack:
        begun(server, stack, head_of(nobody, 4_000_000) + b"x" * AHEAD_BYTES)
        assert not other.is_held()


def test_long_bodies_that_trickle_leave_threads_for_others(server: Server) -> None:
    who, other = Visitor(server, "marit"), Other(server)
    with ExitStack() as stack:
        begun(server, stack, head_of(who, 4_000_000) + b"[" + b" " * AHEAD_BYTES)
        assert not other.is_held()


def test_whoever_takes_no_answer_and_never_closes_holds_nobody(server: Server) -> None:
    other = Other(server)
    with ExitStack() as stack:
        begun(server, stack, b"GET /api/me HTTP/1.1\r\nHost: 127.0.0.1\r\nConnection: close\r\n\r\n")
        assert not other.is_held()


def test_the_server_ends_at_once_while_slow_ones_wait(tmp_path: Path) -> None:
    with served(tmp_path) as server, ExitStack() as stack:
        begun(server, stack, b"GET /api/me HTTP/1.1\r\n")
        began = time.monotonic()
        server.stop()
        assert time.monotonic() - began < 10
