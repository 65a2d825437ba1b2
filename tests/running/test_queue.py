"""Heavy work with the real server: the process for it, its queue, stopping, what it holds up (nothing)."""

from __future__ import annotations

import json
import os
import signal
import subprocess
import sys
from collections.abc import Iterator
from datetime import date, timedelta
from functools import partial
from pathlib import Path
from typing import Any
from uuid import uuid4

import pytest

from tests.conftest import REPOSITORY
from tests.serving import Server, Visitor, longest, patience, served, until

MONDAY = date(2031, 3, 3)


@pytest.fixture(scope="module")
def server(tmp_path_factory: pytest.TempPathFactory) -> Iterator[Server]:
    with served(tmp_path_factory.mktemp("queue")) as made:
        yield made


@pytest.fixture(scope="module")
def coach(server: Server) -> Visitor:
    return Visitor(server, "marit")


def lives(pid: int) -> bool:
    """Whether a process runs; one that nobody collected has no command line any more."""
    try:
        return Path(f"/proc/{pid}/cmdline").read_bytes() != b""
    except OSError:
        return False


def finished(coach: Visitor, job: Any) -> Any:
    def look() -> Any:
        now = coach.send("GET", f"/jobs/{job['id']}").json()
        return now if now["over"] else None

    return until(look, "the job is over")


def crowded(coach: Visitor, week: int, entries: int = 14) -> date:
    """A week that takes long to level: two sessions on every day, all too even, in a squad that lets them clash."""
    squad = coach.send("GET", "/me").json()["squads"][0]["id"]
    path = f"/squads/{squad}/methods"
    body: dict[str, Any] = {"version": coach.send("GET", path).json()["version"], "methods": {"clash_hours": 0}}
    assert coach.send("PATCH", path, body).status < 300
    monday = MONDAY + timedelta(weeks=week)
    sessions = coach.send("GET", "/sessions").json()["items"]
    load = 0.0
    for n in range(entries):
        body = {"session": sessions[n % len(sessions)]["id"], "day": (monday + timedelta(days=n % 7)).isoformat()}
        answer = coach.send("POST", "/plan/entries", body)
        assert answer.status == 201
        load += answer.json()["load"]
    phase = {"begins": monday.isoformat(), "weeks": 1, "kind": "build"}
    phase = {**phase, "load_low": load * 0.88, "load_high": load * 0.96}
    assert coach.send("POST", "/plan/phases", phase).status == 204
    return monday


LONG = {"most_a_day": 2, "no_two_hard": False}


def ask(coach: Visitor, monday: date) -> Any:
    answer = coach.send("POST", "/plan/level", {"day": monday.isoformat(), **LONG})
    assert answer.status == 202, answer.body
    return answer.json()


def test_two_processes_answer_and_one_beside_them_works_behind_them(server: Server) -> None:
    assert len(server.workers()) == 2
    beside = until(server.worker_beside, "there is a process for heavy work")
    assert os.getpriority(os.PRIO_PROCESS, beside) == 10
    assert all(os.getpriority(os.PRIO_PROCESS, pid) == 0 for pid in server.workers())


def test_only_the_process_for_heavy_work_loads_the_solver_and_the_writer_of_pdfs() -> None:
    script = (
        "import os, sys, finetally.web.wsgi, finetally.web.urls, finetally.web.jobs.work;"
        "print(sorted({'ortools', 'fpdf', 'numpy', 'pandas'} & set(sys.modules)))"
    )
    done = subprocess.run(
        [sys.executable, "-c", script], cwd=REPOSITORY, capture_output=True, text=True, check=True
    )
    assert done.stdout.strip() == "[]"


def test_a_card_comes_as_a_file_of_its_job(coach: Visitor) -> None:
    clock = {"kind": "intervals", "work_s": 20, "rest_s": 10}
    block = {"clock": clock, "rounds": 8, "steps": [{"movement": "air-squat"}]}
    document = {"fine_tally": 1, "title": "Ridge", "blocks": [block]}
    asked = coach.send("POST", "/card.pdf", {"document": document})
    assert asked.status == 202
    job = finished(coach, asked.json())
    assert (job["state"], job["answered"]) == ("done", True)
    file = coach.send("GET", f"/jobs/{job['id']}/file")
    assert file.body.startswith(b"%PDF-")
    assert Visitor(coach.server, "osk").send("GET", f"/jobs/{job['id']}/file").status == 404


def test_asked_twice_it_is_one_job_and_stopped_it_gives_the_best_so_far(coach: Visitor) -> None:
    monday = crowded(coach, 0)
    job = ask(coach, monday)
    osk = Visitor(coach.server, "osk")
    assert ask(osk, monday)["id"] == job["id"]
    other = osk.send("POST", "/plan/level", {"day": (monday + timedelta(weeks=1)).isoformat()})
    assert (other.status, other.json()["problems"][0]["code"]) == (422, "busy")
    assert "marit" in other.json()["problems"][0]["found"]
    until(lambda: coach.send("GET", f"/jobs/{job['id']}").json()["progress"]["found"], "an answer is found")
    so_far = until(lambda: coach.send("GET", f"/plan/level/{job['id']}"), "the best so far is there").json()
    assert so_far["found"]
    assert osk.send("DELETE", f"/jobs/{job['id']}").status == 204
    over = finished(coach, job)
    assert over["state"] == "stopped"
    made = coach.send("GET", f"/plan/level/{job['id']}").json()
    assert (made["found"], made["end"]) == (True, "stopped")
    assert len(made["unmet"]) <= len(so_far["unmet"])


def test_saves_go_on_while_a_week_is_levelled(coach: Visitor) -> None:
    monday = crowded(coach, 3)
    job = ask(coach, monday)
    until(lambda: coach.send("GET", f"/jobs/{job['id']}").json()["state"] == "running", "it runs")
    for n in range(20):
        body = {"title": f"Hike {n}", "minutes": 60, "effort": 2, "day": (monday + timedelta(weeks=2)).isoformat()}
        answer = coach.send("POST", "/plan/entries", body)
        assert answer.status == 201, answer.body
    assert coach.send("GET", f"/jobs/{job['id']}").json()["state"] == "running"
    coach.send("DELETE", f"/jobs/{job['id']}")
    finished(coach, job)


def test_a_process_that_is_killed_is_started_again_and_its_job_keeps_what_it_had(
    server: Server, coach: Visitor
) -> None:
    monday = crowded(coach, 6)
    job = ask(coach, monday)
    until(lambda: coach.send("GET", f"/plan/level/{job['id']}").status == 200, "the best so far is there")
    killed = server.worker_beside()
    assert killed is not None
    os.kill(killed, signal.SIGKILL)
    until(lambda: server.worker_beside() not in (None, killed), "another one is there")
    over = finished(coach, job)
    assert (over["state"], over["answered"]) == ("broken", True)
    assert coach.send("GET", f"/plan/level/{job['id']}").json()["found"]
    assert finished(coach, ask(coach, monday + timedelta(weeks=1)))["state"] == "done"


def test_saves_go_on_while_a_log_is_brought_in_and_a_kill_loses_nothing_of_it(
    server: Server, coach: Visitor
) -> None:
    squad = coach.send("GET", "/me").json()["squads"][0]["id"]
    people = [one["name"] for one in coach.send("GET", f"/people?squad={squad}").json()][:8]
    steps = [{"movement": "burpee", "reps": 5}]
    block = {"clock": {"kind": "amrap", "window_s": 300}, "steps": steps}
    entries = [
        {
            "date": (date(2026, 1, 5) + timedelta(days=n)).isoformat(), "person": name, "rated": 6,
            "session": {"fine_tally": 1, "title": f"Brought {n}", "blocks": [block]},
            "scores": [{"block": 0, "rounds": 9 + n % 3}],
        }
        for n in range(80) for name in people
    ]  # fmt: skip
    text = json.dumps({"fine_tally_log": 1, "as_of": "2026-06-01", "entries": entries})

    def save(n: int) -> None:
        body = {"title": "Walk", "minutes": 60, "effort": 2, "day": str(date(2031, 8, 1) + timedelta(days=n))}
        assert coach.send("POST", "/plan/entries", body).status == 201

    most = patience(partial(save, -1))
    job = coach.send("POST", "/log/file", {"file": str(uuid4()), "text": text, "squad": squad}).json()
    waits, killed = [0.0], False
    for n in range(2000):
        waits.append(longest(partial(save, n), times=1))
        now = coach.send("GET", f"/jobs/{job['id']}").json()
        if not killed and (now["progress"]["count"] or 0) > 5:
            beside = server.worker_beside()
            assert beside is not None
            os.kill(beside, signal.SIGKILL)
            killed = True
        if now["over"]:
            break
    assert (now["state"], killed) == ("done", True), now
    # Hardly one takes two seconds, and none takes what a write that is waited for to its end would.
    assert sorted(waits)[len(waits) * 9 // 10] < 2
    assert max(waits) < most
    assert coach.send("GET", f"/jobs/{job['id']}/answer").json() == {"sessions": 80}
    file = coach.send("GET", f"/log/file.json?squad={squad}&last=2026-06-01").json()
    brought = [one for one in file["entries"] if one["session"]["title"].startswith("Brought")]
    assert len(brought) == len(entries)


def test_changed_methods_have_what_is_planned_figured_anew_but_not_what_is_logged(coach: Visitor) -> None:
    monday = MONDAY + timedelta(weeks=20)
    sessions = coach.send("GET", "/sessions").json()["items"]
    made = [
        coach.send("POST", "/plan/entries", {"session": sessions[0]["id"], "day": monday.isoformat()}).json()
        for _ in range(2)
    ]
    logged = {"version": made[1]["version"], "logged_minutes": 10, "logged_effort": 5}
    assert coach.send("PATCH", f"/plan/entries/{made[1]['id']}", logged).status == 200
    squad = coach.send("GET", "/me").json()["squads"][0]["id"]
    version = coach.send("GET", f"/squads/{squad}/methods").json()["version"]
    change = {"methods": {"fatigue": 0.6}, "version": version}
    assert coach.send("PATCH", f"/squads/{squad}/methods", change).status == 200

    def week() -> Any:
        now = coach.send("GET", f"/plan/week?day={monday.isoformat()}").json()
        return now if now["aged"] == 0 and now["refigured"] else None

    after = until(week, "the week is figured anew")
    assert after["refigured"]["count"] >= 1
    loads = {one["id"]: one["load"] for one in after["entries"]}
    assert loads[made[0]["id"]] != made[0]["load"]
    assert loads[made[1]["id"]] == 50


def test_it_ends_with_the_server(tmp_path: Path) -> None:
    one = Server(tmp_path)
    one.start()
    beside = until(one.worker_beside, "there is a process for heavy work")
    one.stop()
    until(lambda: not lives(beside), "it is gone")
    one.start()
    beside = until(one.worker_beside, "there is a process for heavy work")
    assert one._process is not None
    one._process.kill()
    one._process.wait(60)
    until(lambda: not lives(beside), "it is gone with a server that was killed")
