"""Attacks on a running server. Each gives '' where it came to nothing, else what succeeded."""

from __future__ import annotations

import json
import os
import signal
import socket
import time
import urllib.request
from collections.abc import Callable
from concurrent.futures import ThreadPoolExecutor
from contextlib import ExitStack
from datetime import UTC, date, datetime, timedelta
from typing import Any
from uuid import uuid4

from tests.core.test_hostile_text import SHAPES
from tests.serving import HANGS_S, PASSWORD, Answer, Server, Visitor, longest, patience

ATTACKS: list[Callable[[Server], str]] = []


def attack(made: Callable[[Server], str]) -> Callable[[Server], str]:
    """Have it tried, in the order in which they stand here: what locks an address comes last."""
    ATTACKS.append(made)
    return made


def asks(who: Visitor) -> Callable[[], None]:
    """Somebody asks, and has an answer."""

    def ask() -> None:
        assert who.send("GET", "/me").status == 200

    return ask


def opened(server: Server, token: str) -> Visitor:
    """Somebody's phone with their own link."""
    phone = Visitor(server)
    answer = phone.send("POST", "/checkin/open", {"token": token})
    assert answer.status < 300, answer.body
    return phone


def link_of(coach: Visitor, person: Any) -> str:
    made = coach.send("POST", f"/people/{person['id']}/checkin").json()
    return str(made["address"].partition("#")[2])


@attack
def words_under_anothers_link(server: Server) -> str:
    coach = Visitor(server, "marit")
    one, other = coach.send("GET", "/people").json()[:2]
    phone = opened(server, link_of(coach, one))
    mine = phone.send("GET", "/checkin").json()
    phone.send("POST", "/checkin/open", {"token": link_of(coach, other)})
    said = {"number": str(uuid4()), "at": datetime.now(UTC).isoformat(), "what": "fresh", "value": 3}
    answer = phone.send("POST", "/checkin/say", {"link": mine["link"], "said": [said]})
    return "" if answer.status == 409 else f"words of one link were taken under another's ({answer.status})"


@attack
def anothers_squad(server: Server) -> str:
    server.fine_tally(
        "account", "create", "intruder", "--squad", "Elsewhere", "--new-squad", "--role", "head-coach"
    )
    athlete, head = Visitor(server, "tamsin"), Visitor(server, "marit")
    squad = head.send("GET", "/me").json()["squads"][0]["id"]
    person = next(one for one in head.send("GET", "/people").json() if "Tamsin" not in one["name"])["id"]
    tried: list[tuple[str, str, Any]] = [
        ("GET", f"/people/{person}", None),
        ("POST", f"/people/{person}/export", {"password": PASSWORD}),
        ("POST", f"/people/{person}/erase", {"password": PASSWORD}),
        ("GET", f"/log/file.json?squad={squad}", None),
        ("POST", "/log/file", {"file": str(uuid4()), "text": "{}", "squad": squad}),
        ("POST", f"/squads/{squad}/export", {"health": True, "password": PASSWORD}),
        ("GET", f"/plan/removed?squad={squad}", None),
        ("POST", "/account/second-factor", {"password": PASSWORD}),
    ]
    got = [f"{method} {path}" for method, path, body in tried if athlete.send(method, path, body).status < 400]
    return f"an athlete got {', '.join(got)}" if got else ""


@attack
def from_another_site(server: Server) -> str:
    who = Visitor(server, "marit")
    body = json.dumps({"title": "Walk", "minutes": 60, "effort": 2, "day": "2031-05-05"})
    for forged in ({"X-CSRFToken": ""}, {"Referer": "https://elsewhere.invalid/"}, {"X-CSRFToken": "x" * 64}):
        headers = {**who.headers(), **forged}
        head = "".join(f"{name}: {value}\r\n" for name, value in headers.items() if value)
        if "Referer" in forged:
            head += "Origin: https://elsewhere.invalid\r\n"
        request = f"POST /api/plan/entries HTTP/1.1\r\nHost: 127.0.0.1:{server.port}\r\n{head}"
        request += (
            f"Content-Type: application/json\r\nContent-Length: {len(body)}\r\nConnection: close\r\n\r\n{body}"
        )
        if _status(server, request.encode()) < 400:
            return f"another site planned an entry ({forged})"
    return ""


def _status(server: Server, request: bytes) -> int:
    with socket.create_connection(("127.0.0.1", server.port), timeout=30) as made:
        made.sendall(request)
        line = made.makefile("rb").readline()
    return int(line.split()[1]) if line else 400


@attack
def files_of_the_machine(server: Server) -> str:
    ways = (
        "/static/../../secret",
        "/static/%2e%2e/%2e%2e/secret",
        "/static/app/..%2f..%2fsecret",
        "/../secret",
        "//etc/passwd",
    )
    for way in ways:
        with socket.create_connection(("127.0.0.1", server.port), timeout=30) as made:
            made.sendall(f"GET {way} HTTP/1.1\r\nHost: 127.0.0.1\r\nConnection: close\r\n\r\n".encode())
            answer = made.makefile("rb").read()
        if b"root:" in answer or (server.folder / "secret").read_bytes() in answer:
            return f"{way} gave a file of the machine"
    return ""


@attack
def pages_that_run_what_was_written(server: Server) -> str:
    with urllib.request.urlopen(f"{server.url}/sign-in", timeout=30) as page:
        policy = page.headers.get("Content-Security-Policy", "")
    rules = dict(one.strip().partition(" ")[::2] for one in policy.split(";"))
    sources = rules.get("script-src", rules.get("default-src", ""))
    return "" if sources == "'self'" else f"scripts may come from {sources or 'anywhere'}"


@attack
def hostile_texts(server: Server) -> str:
    coach, other = Visitor(server, "marit"), Visitor(server, "osk")
    squad = coach.send("GET", "/me").json()["squads"][0]["id"]
    most = patience(asks(other))
    for text in SHAPES[::8]:
        began = time.monotonic()
        with ThreadPoolExecutor(1) as beside:
            waiting = beside.submit(coach.send, "POST", "/board", {"text": text, "squad": squad})
            held = longest(asks(other), times=1)
            answer = waiting.result()
        took = time.monotonic() - began
        if answer.status >= 500 or took > 3 * most or held > most:
            return f"{text[:12]!r} took {took:.1f} s ({answer.status}), others waited {held:.1f} s"
    return ""


@attack
def hostile_logs(server: Server) -> str:
    coach = Visitor(server, "marit")
    squad = coach.send("GET", "/me").json()["squads"][0]["id"]
    start = '{"fine_tally_log": 1, "as_of": "2026-11-24", "entries": ['
    for text in ("[" * 300_000, start + "[" * 300_000, start + "1," * 150_000, start + '{"a": "' + "x" * 300_000):
        job = coach.send("POST", "/log/file", {"file": str(uuid4()), "text": text, "squad": squad})
        if job.status != 202:
            return f"a log of {text[:20]!r} gave {job.status}: {job.body[:300]!r}"
        give_up = time.monotonic() + HANGS_S
        while time.monotonic() < give_up:
            now = coach.send("GET", f"/jobs/{job.json()['id']}").json()
            if now["over"]:
                break
            time.sleep(0.05)
        if now["state"] != "refused" or now["problems"][0]["code"] == "fault":
            return f"a log of {text[:70]!r} ended {now['state']}"
    return ""


@attack
def floods_of_what_is_kept(server: Server) -> str:
    coach = Visitor(server, "marit")
    session = coach.send("GET", "/sessions").json()["items"][0]["id"]
    stale = coach.send("GET", f"/sessions/{session}").json()
    for n in range(60):
        document = {**stale["document"], "title": f"flood {n}"}
        answer = coach.send(
            "PUT", f"/sessions/{session}", {"document": document, "base": stale["etag"], "tab": f"t{n}"}
        )
    return "" if answer.status == 422 else f"60 versions that clash were kept ({answer.status})"


@attack
def slow_connections(server: Server) -> str:
    who = Visitor(server, "osk")
    most = patience(asks(who))
    with ExitStack() as stack:
        for begun in (
            b"GET / HTTP/1.1\r\nHost: x\r\n",
            b"POST /api/figures HTTP/1.1\r\nHost: x\r\nContent-Length: 400\r\n\r\n{",
        ):
            for _ in range(40):
                stack.enter_context(socket.create_connection(("127.0.0.1", server.port))).sendall(begun)
        held = longest(asks(who))
    return "" if held <= most else f"80 slow connections kept others waiting for {held:.1f} s"


@attack
def a_process_killed_in_the_middle(server: Server) -> str:
    coach = Visitor(server, "marit")
    day = (date(2032, 1, 1) + timedelta(days=1)).isoformat()
    made = coach.send("POST", "/plan/entries", {"title": "Kept", "minutes": 60, "effort": 2, "day": day})
    for pid in server.workers():
        os.kill(pid, signal.SIGKILL)
    give_up = time.monotonic() + HANGS_S
    while time.monotonic() < give_up:
        try:
            week = coach.send("GET", f"/plan/week?day={day}")
        except OSError:
            time.sleep(0.05)
            continue
        return "" if made.json()["id"] in week.body.decode() else "what was confirmed is lost"
    return "it does not answer again"


def _guess(server: Server, name: str, **more: str) -> Answer:
    return Visitor(server).send("POST", "/sign-in", {"name": name, "password": "guess" + more.get("password", "")})


@attack
def passwords_that_keep_members_out(server: Server) -> str:
    member = Visitor(server, "marit")
    most = patience(asks(member))
    with ThreadPoolExecutor(6) as guessers:
        going = [guessers.submit(_guess, server, f"nobody-{n}") for n in range(30)]
        held = longest(asks(member))
        statuses = {one.result().status for one in going}
    if held > most:
        return f"six guessers kept a member waiting for {held:.1f} s"
    return "" if 200 not in statuses else "a guess let somebody in"


@attack
def passwords_with_forged_addresses(server: Server) -> str:
    statuses = []
    for n in range(12):
        who = Visitor(server)
        forged = {**who.headers(), "X-Forwarded-For": f"198.51.100.{n}", "Content-Type": "application/json"}
        body = json.dumps({"name": "osk", "password": f"guess {n}"})
        head = "".join(f"{name}: {value}\r\n" for name, value in forged.items() if value)
        request = f"POST /api/sign-in HTTP/1.1\r\nHost: 127.0.0.1:{server.port}\r\n{head}Connection: close\r\n"
        statuses.append(_status(server, f"{request}Content-Length: {len(body)}\r\n\r\n{body}".encode()))
    return "" if statuses[-1] == 429 else f"12 guesses, each from an address of its own choice: {statuses}"


def tried(server: Server) -> dict[str, str]:
    """What each attack came to."""
    return {one.__name__.replace("_", " "): one(server) for one in ATTACKS}
