"""Every route of the API, tried with what its own description allows, and with what it does not."""

from __future__ import annotations

import json
import random
import time
import warnings
from typing import Any

import requests
import schemathesis
from hypothesis import HealthCheck, Phase, given, seed, settings
from hypothesis.errors import HypothesisException
from schemathesis import GenerationMode

from tests.conftest import REPOSITORY
from tests.fuzz.watch import HANGS_S, Watch
from tests.serving import Visitor

A_ROUND = 3
"""Cases of one route before the next one has its turn."""


def operations() -> list[Any]:
    """All routes but signing out, which would end the try."""
    described = schemathesis.openapi.from_dict(json.loads((REPOSITORY / "docs/openapi.json").read_text("utf-8")))
    found = [one.ok() for one in described.get_all_operations()]
    return [one for one in found if one.path not in ("/api/sign-out", "/api/sign-in")]


def known_ids(who: Visitor) -> dict[str, Any]:
    """Ids of things that are there, so that paths lead somewhere now and then."""
    ids: dict[str, Any] = {}
    sessions = who.send("GET", "/sessions").json()["items"]
    if sessions:
        ids["session_id"] = sessions[0]["id"]
    week = who.send("GET", "/plan/week?day=2026-11-26")
    if week.status == 200 and week.json()["entries"]:
        ids["entry_id"] = week.json()["entries"][0]["id"]
        ids["squad_id"] = week.json()["squad"]
    return ids


def try_routes(watch: Watch, who: Visitor, rng: random.Random) -> None:
    """Round after round over all routes, until the time is up."""
    warnings.simplefilter("ignore")
    session = requests.Session()
    headers = {**who.headers(), "Content-Type": "application/json"}
    all_operations, ids = operations(), known_ids(who)
    while not watch.over:
        for operation in all_operations:
            if watch.over:
                return
            _try_one(watch, operation, session, headers, ids, rng)


def _try_one(
    watch: Watch, operation: Any, session: requests.Session, headers: dict[str, str], ids: dict[str, Any],
    rng: random.Random,
) -> None:  # fmt: skip
    mode = rng.choice((GenerationMode.POSITIVE, GenerationMode.POSITIVE, GenerationMode.NEGATIVE))

    @seed(rng.randrange(2**32))
    @settings(
        max_examples=A_ROUND, database=None, deadline=None, phases=[Phase.generate],
        suppress_health_check=list(HealthCheck),
    )  # fmt: skip
    @given(case=operation.as_strategy(generation_mode=mode))
    def once(case: Any) -> None:
        for name, value in ids.items():
            if name in (case.path_parameters or {}) and rng.random() < 0.7:
                case.path_parameters[name] = value
        _call(watch, case, session, headers)

    try:
        once()
    except (HypothesisException, schemathesis.errors.SchemathesisError):
        # Nothing of the kind can be made for this route (there is nothing wrong to send where nothing is asked).
        return


def _call(watch: Watch, case: Any, session: requests.Session, headers: dict[str, str]) -> None:
    case.headers = {}
    case.cookies = {}
    began = time.monotonic()
    path = case.operation.path
    try:
        answer = case.call(base_url=watch.server.url, session=session, headers=headers, timeout=HANGS_S)
    except requests.exceptions.InvalidHeader:
        return
    except requests.exceptions.RequestException as error:
        watch.faults.append(f"no answer ({error}): {case.method} {path}")
        return
    seconds = time.monotonic() - began
    sent = case.body if isinstance(case.body, dict | list) else None
    found = {name.title(): value[0] if isinstance(value, list) else value for name, value in answer.headers.items()}
    told = f"{path} {case.path_parameters} {case.query}"
    watch.note(case.method, told, sent, answer.status_code, seconds, found, answer.content)
