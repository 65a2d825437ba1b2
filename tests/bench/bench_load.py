"""How many answers a second the server gives, to how many clients, and beside levellings that wait.

Run as `./tally bench load`. Every row stands beside the loop figure: how long ten million additions take here.
"""

from __future__ import annotations

import http.client
import json
import multiprocessing
import statistics
import sys
import tempfile
import threading
import time
from collections.abc import Callable
from datetime import date
from pathlib import Path
from typing import Any

from tests.conftest import CASES
from tests.serving import Server, Visitor

SECONDS = 8.0
FIGURES = json.loads((CASES / "sessions/whole-session.json").read_text("utf-8"))["session"]
MONDAY = date(2031, 3, 3)


def loop() -> float:
    begun, total = time.perf_counter(), 0
    for n in range(10_000_000):
        total += n
    return time.perf_counter() - begun


def _client(
    port: int, headers: dict[str, str], method: str, path: str, body: bytes, until: float, out: Any
) -> None:
    """One client, one connection: asks again as soon as it is answered. A connection that breaks off is a failure."""
    connection = http.client.HTTPConnection("127.0.0.1", port, timeout=60)
    took: list[float] = []
    failed = 0
    while time.time() < until:
        begun = time.perf_counter()
        try:
            connection.request(method, path, body or None, headers)
            answer = connection.getresponse()
            answer.read()
            failed += answer.status >= 400
        except (OSError, http.client.HTTPException) as error:
            sys.stderr.write(f"{error!r} after {time.perf_counter() - begun:.2f} s\n")
            failed += 1
            connection.close()
        took.append(time.perf_counter() - begun)
    out.put((took, failed))


def hammer(server: Server, who: Visitor, clients: int, method: str, path: str, body: Any) -> dict[str, float]:
    """So many clients for some seconds; requests a second, and in milliseconds the median and the 95th of 100."""
    data = json.dumps(body).encode() if body is not None else b""
    headers = {**who.headers(), "Content-Type": "application/json"}
    out: Any = multiprocessing.Queue()
    until = time.time() + SECONDS
    asked = [
        multiprocessing.Process(
            target=_client, args=(server.port, headers, method, f"/api{path}", data, until, out)
        )
        for _ in range(clients)
    ]
    for one in asked:
        one.start()
    results = [out.get() for _ in asked]
    for one in asked:
        one.join()
    took = sorted(second for times, _ in results for second in times)
    return {
        "a second": len(took) / SECONDS,
        "median ms": 1000 * statistics.median(took),
        "95 % ms": 1000 * took[int(0.95 * len(took))],
        "failed": sum(failed for _, failed in results),
    }


def squads_with_weeks(server: Server, count: int) -> list[Visitor]:
    """Squads of their own, each with a crowded week that waits to be levelled."""
    server.manage("shell", "-c", MAKE.format(count=count))
    return [Visitor(server, f"bench{n}") for n in range(count)]


MAKE = """
from datetime import date, timedelta
from django.contrib.auth import get_user_model
from finetally.web.plan.entries import plan_session, add_phase
from finetally.web.squads.actor import member
from finetally.web.squads.models import Membership, Role, Squad
from finetally.web.training.demo import PASSWORD, demo_documents
from finetally.web.training.use_cases import create_session
for n in range({count}):
    squad = Squad.objects.create(name=f"Bench {{n}}")
    user = get_user_model().objects.create_user(f"bench{{n}}", password=PASSWORD)
    Membership.objects.create(user=user, squad=squad, role=Role.HEAD_COACH)
    actor = member(user.pk)
    sessions = [create_session(actor, squad.pk, one) for one in demo_documents()]
    load = 0.0
    for k in range(14):
        day = date(2031, 3, 3) + timedelta(days=k % 7)
        load += plan_session(actor, sessions[k % len(sessions)].pk, day, {{}}).summary["load"]
    add_phase(actor, squad.pk, date(2031, 3, 3), 1, "build", load * 0.88, load * 0.96)
"""


def saving(who: Visitor, over: threading.Event, failures: list[str]) -> None:
    """Saves once a second, as a coach who types would."""
    made = who.send("GET", "/sessions").json()["items"][0]
    session = who.send("GET", f"/sessions/{made['id']}").json()
    base = session["etag"]
    while not over.wait(1.0):
        body = {"document": session["document"], "base": base, "tab": "bench"}
        answer = who.send("PUT", f"/sessions/{made['id']}", body)
        if answer.status != 200:
            failures.append(f"{answer.status} {answer.body[:200]!r}")
        else:
            base = answer.json()["etag"]


def row(name: str, made: dict[str, float], seconds: float) -> None:
    told = ", ".join(f"{value:.0f} {unit}" for unit, value in made.items())
    sys.stdout.write(f"{name}: {told} (loop {seconds:.2f} s)\n")
    sys.stdout.flush()


def main() -> None:
    """All rows."""
    with tempfile.TemporaryDirectory() as folder:
        server = Server(Path(folder))
        server.start()
        try:
            coach = Visitor(server, "marit")
            figures: Callable[[int], dict[str, float]] = lambda clients: hammer(  # noqa: E731
                server, coach, clients, "POST", "/figures", {"document": FIGURES}
            )
            figures(8)
            for clients in (8, 32):
                row(f"figures, {clients} clients", figures(clients), loop())
            today = date.today().isoformat()
            row("the week, 8 clients", hammer(server, coach, 8, "GET", f"/plan/week?day={today}", None), loop())
            coaches = squads_with_weeks(server, 8)
            for one in coaches:
                asked = one.send("POST", "/plan/level", {"day": MONDAY.isoformat()})
                assert asked.status == 202, asked.body
            over, failures = threading.Event(), list[str]()
            saver = threading.Thread(target=saving, args=(coach, over, failures))
            saver.start()
            made = figures(8)
            over.set()
            saver.join()
            row(f"figures, 8 clients beside eight levellings, {len(failures)} saves failed", made, loop())
            for failure in failures[:3]:
                sys.stdout.write(f"  {failure}\n")
        finally:
            server.stop()


if __name__ == "__main__":
    main()
