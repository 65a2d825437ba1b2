"""Behind the proxies of docs/server/, where they are installed: whom they serve, and what slow ones do through them."""

from __future__ import annotations

import json
import socket
import urllib.error
import urllib.request
from collections.abc import Iterator
from contextlib import ExitStack
from pathlib import Path
from typing import Any

import pytest

from tests.proxies import INSTALLED, Proxy, in_front_of, trusting
from tests.serving import PASSWORD, Server, longest, patience, served, until

pytestmark = pytest.mark.skipif(not INSTALLED, reason="neither nginx nor Caddy is installed")


@pytest.fixture(scope="module", params=INSTALLED)
def proxied(request: Any, tmp_path_factory: pytest.TempPathFactory) -> Iterator[tuple[Server, Proxy]]:
    settings = {"FINE_TALLY_HTTPS": "1", "FINE_TALLY_PROXIES": "1", "FINE_TALLY_HOSTS": "127.0.0.1"}
    folder = tmp_path_factory.mktemp("proxy")
    with (
        served(tmp_path_factory.mktemp("behind"), **settings) as server,
        in_front_of(server, request.param, folder) as proxy,
    ):
        yield server, proxy


def ask(proxy: Proxy, path: str, body: Any = None, **headers: str) -> int:
    """The status of an answer; what changes something brings the token of a page."""
    token = "x" * 32
    sent = {"Content-Type": "application/json", "X-CSRFToken": token, "Cookie": f"csrftoken={token}"}
    data = None if body is None else json.dumps(body).encode()
    request = urllib.request.Request(
        f"{proxy.url}{path}", data, {**sent, "Host": "127.0.0.1", "Referer": "https://127.0.0.1/", **headers}
    )
    try:
        with urllib.request.urlopen(request, timeout=60, context=trusting()) as answer:
            return int(answer.status)
    except urllib.error.HTTPError as error:
        return error.code


def sign_in(proxy: Proxy, password: str, **headers: str) -> int:
    return ask(proxy, "/api/sign-in", {"name": "marit", "password": password}, **headers)


def test_a_guesser_chooses_no_address_and_locks_nobody_else_out(proxied: tuple[Server, Proxy]) -> None:
    _, proxy = proxied
    forged = {
        "X-Forwarded-For": "203.0.113.7, 203.0.113.8",
        "X-Real-Ip": "203.0.113.9",
        "Forwarded": "for=203.0.113.5",
    }
    answers = []
    for number in range(11):
        forged["X-Forwarded-For"] = f"203.0.113.{number}"
        answers.append(sign_in(proxy, "guess", **forged))
    assert answers == [401] * 9 + [429] * 2


def test_somebody_elsewhere_is_not_kept_out(proxied: tuple[Server, Proxy]) -> None:
    server, _ = proxied
    # As the proxy would say it of somebody else: the guesser's address was 127.0.0.1.
    direct = Proxy(server.url, server.port, server.folder)
    elsewhere = {"X-Forwarded-For": "203.0.113.1, 198.51.100.7", "X-Forwarded-Proto": "https"}
    assert sign_in(direct, PASSWORD, **elsewhere) == 200


@pytest.mark.parametrize(
    "begin",
    [
        "POST /api/figures HTTP/1.1\r\nHost: 127.0.0.1\r\nContent-Type: application/json\r\nContent-Length: 900\r\n\r\n{",
        "GET /api/me HTTP/1.1\r\nHost: 127.0.0.1\r\nX-Slow: ",
    ],
    ids=["body", "head"],
)
def test_slow_ones_hold_nobody(proxied: tuple[Server, Proxy], begin: str) -> None:
    _, proxy = proxied

    def asks() -> None:
        assert ask(proxy, "/api/me") == 401

    most = patience(asks)
    with ExitStack() as stack:
        for _ in range(24):
            plain = socket.create_connection(("127.0.0.1", proxy.port))
            slow = stack.enter_context(trusting().wrap_socket(plain, server_hostname="localhost"))
            slow.sendall(begin.encode())
        assert longest(asks) < most


def until_written(proxy: Proxy, what: str) -> None:
    """Wait until its logs hold that."""
    until(lambda: what in proxy.written(), proxy.written)


def test_its_logs_hold_no_token(proxied: tuple[Server, Proxy]) -> None:
    _, proxy = proxied
    secret = "t0ken-that-opens-something"
    ask(proxy, f"/feeds/{secret}.ics")
    ask(proxy, "/api/floor/wall", **{"X-Wall": secret})
    ask(proxy, "/api/me", Cookie=f"sessionid={secret}; own={secret}", Authorization=secret)
    until_written(proxy, "/api/floor/wall")
    assert secret not in proxy.written()


def test_its_logs_hold_no_token_where_the_server_does_not_answer(tmp_path: Path) -> None:
    for name in INSTALLED:
        folder = tmp_path / name
        folder.mkdir()
        with served(tmp_path / f"server {name}") as server, in_front_of(server, name, folder) as proxy:
            server.stop()
            for path in ("/feeds/t0ken.ics", "/api/floor/wall"):
                assert ask(proxy, path, **{"X-Wall": "t0ken"}) in (502, 503, 504)
            until_written(proxy, "/api/floor/wall")
            assert "t0ken" not in proxy.written()
