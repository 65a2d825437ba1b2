"""Who may do what: method, path, role, status. Every route of the API stands here."""

from __future__ import annotations

import json
from typing import Any

import pytest
from django.db import transaction

from finetally.web.api.api import openapi_document
from finetally.web.squads.models import ReadingHabit, SquadMovement
from finetally.web.training.models import Session
from tests.web.conftest import DOCUMENT, WALL_CODE, World

ROLES = (None, "athlete", "coach", "head", "stranger", "nobodys")
AS = {"link": None, "both": "coach", "wall": None, "own": None}
"""Actors whose rights here are those of another: somebody with a calendar's link and no account; a coach of this squad
who is head coach of another one; a screen on the wall; somebody by their own link."""
OF_WALLS = ("/floor/wall",)
"""What a screen on the wall may ask for; to everything else it is nobody."""
OF_OWN = {
    ("GET", "/checkin"): 200,
    ("POST", "/checkin/say"): 200,
    ("DELETE", "/checkin"): 204,
    ("DELETE", "/checkin/devices/{device_id}"): 204,
}
"""What somebody may do by their own link; to everything else they are nobody."""
ELSEWHERE = {"/squads": "stranger", "/account/second-factor": "stranger"}
"""What asks for a right in any squad: there the head coach of another squad is like its head coach."""
TOKEN = {"token": "no-such-token"}
LIMIT = {"joint": "knee", "first": "2026-12-07"}
A_SET = {"movement": "bench-press", "kg": 60, "reps": 5, "day": "2026-12-07"}
GUARDIAN = {"who": "Ada Merribeck", "day": "2026-12-07"}
SAVE = {"document": DOCUMENT, "base": "x", "tab": "t"}
AWAY = {"first": "2026-12-14", "last": "2026-12-20", "squad": "SQUAD"}
PHASE = {"begins": "2026-12-14", "weeks": 2, "kind": "build", "load_low": 1, "load_high": 2, "squad": "SQUAD"}
EVENT = {"device": "a-phone-on-a-box", "number": 1, "event": {"t": 12, "do": "next"}}
COMPARED = {"document": DOCUMENT, "formats": ["even-intervals"]}
PULSE = {"kind": "csv", "text": "time_s,hr\n0,100\n5,120"}
A_FILE = "5f0c8e2e-6a4b-4c3c-9a60-0d3c2b0c5a11"
NO_LOG = '{"fine_tally_log": 1, "as_of": "2026-12-07", "entries": []}'
SCORES = {"results": [{"person": "PERSON", "block": 0, "score": {"rounds": 4}}]}
SWEPT = {"document": DOCUMENT, "format": "even-intervals", "param": "work_s", "low": 20, "high": 30, "step": 5}

TABLE: list[tuple[str, str, Any, tuple[int, ...]]] = [
    # method, path, body, and the status for: nobody, athlete, coach, head coach, another squad's head, no squad
    ("GET", "/me", None, (401, 200, 200, 200, 200, 200)),
    ("POST", "/sign-in", {"name": "x", "password": "y"}, (401, 401, 401, 401, 401, 401)),
    ("POST", "/sign-out", None, (401, 204, 204, 204, 204, 204)),
    ("GET", "/tables", None, (401, 200, 200, 200, 200, 200)),
    ("GET", "/movements", None, (401, 200, 200, 200, 200, 404)),
    ("POST", "/movements", {"kind": "json", "text": "[]", "squad": "SQUAD"}, (401, 403, 200, 200, 404, 404)),
    ("DELETE", "/movements/{key}?squad=SQUAD_ID", None, (401, 403, 204, 204, 404, 404)),
    ("POST", "/movements/near", {"movement": "burpee", "squad": "SQUAD"}, (401, 200, 200, 200, 404, 404)),
    ("GET", "/movements/one?key=burpee&squad=SQUAD_ID", None, (401, 200, 200, 200, 404, 404)),
    (
        "POST",
        "/movements/preview",
        {"kind": "json", "text": "[]", "squad": "SQUAD"},
        (401, 403, 200, 200, 404, 404),
    ),
    ("GET", "/movements/unknown?squad=SQUAD_ID", None, (401, 403, 200, 200, 404, 404)),
    (
        "POST",
        "/movements/settle",
        {"name": "gate-run", "key": "burpee", "squad": "SQUAD"},
        (401, 403, 200, 200, 404, 404),
    ),
    ("GET", "/movements.{kind}", None, (401, 200, 200, 200, 200, 404)),
    ("GET", "/formats", None, (401, 200, 200, 200, 200, 200)),
    ("POST", "/formats/make", {"key": "strict-20-10", "movements": ["burpee"]}, (401, 200, 200, 200, 200, 404)),
    ("POST", "/formats/step", {"movement": "burpee", "clock": "task"}, (401, 200, 200, 200, 200, 404)),
    ("GET", "/compare/tables", None, (401, 200, 200, 200, 200, 200)),
    ("POST", "/compare", COMPARED, (401, 200, 200, 200, 200, 404)),
    ("POST", "/compare", {**COMPARED, "squad": "SQUAD"}, (401, 200, 200, 200, 404, 404)),
    ("POST", "/compare", {**COMPARED, "squad": "SQUAD", "pace_of": "slowest"}, (401, 200, 200, 200, 404, 404)),
    ("POST", "/compare", {**COMPARED, "squad": "SQUAD", "pace_of": "PERSON"}, (401, 404, 200, 200, 404, 404)),
    ("POST", "/compare", {**COMPARED, "squad": "SQUAD", "pace_of": "OWN"}, (401, 200, 200, 200, 404, 404)),
    ("POST", "/compare.{kind}", COMPARED, (401, 200, 200, 200, 200, 404)),
    ("POST", "/compare/week", COMPARED, (401, 200, 200, 200, 200, 404)),
    ("POST", "/compare/sweep", SWEPT, (401, 200, 200, 200, 200, 404)),
    (
        "POST",
        "/compare/use",
        {"document": DOCUMENT, "source": [0], "entries": DOCUMENT["blocks"]},
        (401, 200, 200, 200, 200, 200),
    ),
    ("POST", "/compare/sessions", {"sessions": ["SESSION", "SESSION"]}, (401, 200, 200, 200, 404, 404)),
    ("POST", "/compare/sessions.{kind}", {"sessions": ["SESSION", "SESSION"]}, (401, 200, 200, 200, 404, 404)),
    ("GET", "/shapes", None, (401, 200, 200, 200, 200, 404)),
    ("POST", "/shapes", {"name": "Odd", "key": "even-intervals", "squad": "SQUAD"}, (401, 403, 201, 201, 404, 404)),
    ("DELETE", "/shapes/{shape_id}", None, (401, 403, 204, 204, 404, 404)),
    ("POST", "/board", {"text": "Day\nMain: 30 s each\n  burpee"}, (401, 200, 200, 200, 200, 404)),
    (
        "POST",
        "/movements/names",
        {"key": "burpee", "words": "up-down", "squad": "SQUAD"},
        (401, 403, 204, 204, 404, 404),
    ),
    (
        "POST",
        "/board/readings",
        {"rule": "rest-below", "reading": 1, "squad": "SQUAD"},
        (401, 403, 204, 204, 404, 404),
    ),
    ("GET", "/squads/{squad_id}/habits", None, (401, 403, 200, 200, 404, 404)),
    ("DELETE", "/squads/{squad_id}/habits/{rule}", None, (401, 403, 204, 204, 404, 404)),
    ("POST", "/board/write", {"document": DOCUMENT}, (401, 200, 200, 200, 200, 404)),
    ("POST", "/card", {"document": DOCUMENT}, (401, 200, 200, 200, 200, 404)),
    ("POST", "/card.pdf", {"document": DOCUMENT}, (401, 202, 202, 202, 202, 404)),
    ("POST", "/fit", {"document": DOCUMENT, "available_s": 300}, (401, 200, 200, 200, 200, 404)),
    ("GET", "/plan/week?day=2026-12-07", None, (401, 200, 200, 200, 200, 404)),
    ("GET", "/plan/week?day=2026-12-07&squad=SQUAD_ID", None, (401, 200, 200, 200, 404, 404)),
    ("POST", "/plan/entries", {"session": "SESSION", "day": "2026-12-07"}, (401, 403, 201, 201, 404, 404)),
    ("PATCH", "/plan/entries/{entry_id}", {"locked": True}, (401, 403, 200, 200, 404, 404)),
    ("POST", "/plan/entries/{entry_id}/again", {"weeks": 1}, (401, 403, 201, 201, 404, 404)),
    ("GET", "/plan/entries/{entry_id}/attendance", None, (401, 403, 200, 200, 404, 404)),
    ("PUT", "/plan/entries/{entry_id}/attendance", {"person": "PERSON"}, (401, 403, 204, 204, 404, 404)),
    ("POST", "/plan/entries/{entry_id}/session", None, (401, 403, 422, 422, 404, 404)),
    ("DELETE", "/plan/entries/{entry_id}", None, (401, 403, 204, 204, 404, 404)),
    # There is nothing removed to be restored.
    ("POST", "/plan/entries/{entry_id}/restore", None, (401, 404, 404, 404, 404, 404)),
    ("GET", "/plan/entries/{entry_id}/noted", None, (401, 403, 200, 200, 404, 404)),
    ("GET", "/plan/removed?squad=SQUAD_ID", None, (401, 403, 200, 200, 404, 404)),
    ("PUT", "/plan/days/{day}", {"intent": "hard", "squad": "SQUAD"}, (401, 403, 204, 204, 404, 404)),
    ("POST", "/plan/phases", PHASE, (401, 403, 204, 204, 404, 404)),
    ("DELETE", "/plan/phases/{phase_id}", None, (401, 403, 204, 204, 404, 404)),
    ("POST", "/plan/level", {"day": "2026-12-07", "squad": "SQUAD"}, (401, 403, 202, 202, 404, 404)),
    ("GET", "/plan/level/{job_id}", None, (401, 404, 200, 200, 404, 404)),
    ("POST", "/plan/level/{job_id}/preview", {"edits": []}, (401, 404, 200, 200, 404, 404)),
    ("POST", "/plan/level/{job_id}/take", {"edits": []}, (401, 404, 201, 201, 404, 404)),
    ("GET", "/plan/away?squad=SQUAD_ID", None, (401, 200, 200, 200, 404, 404)),
    ("POST", "/plan/away", AWAY, (401, 403, 204, 204, 404, 404)),
    ("DELETE", "/plan/away/{away_id}", None, (401, 403, 204, 204, 404, 404)),
    ("GET", "/jobs/{job_id}", None, (401, 404, 200, 200, 404, 404)),
    ("DELETE", "/jobs/{job_id}", None, (401, 404, 204, 204, 404, 404)),
    ("GET", "/jobs/{job_id}/answer", None, (401, 404, 200, 200, 404, 404)),
    ("GET", "/jobs/{job_id}/file", None, (401, 404, 200, 200, 404, 404)),
    ("POST", "/plan/changes/{change_id}/undo/{item}", None, (401, 403, 200, 200, 404, 404)),
    ("GET", "/plan/season?day=2026-12-07&squad=SQUAD_ID", None, (401, 200, 200, 200, 404, 404)),
    ("GET", "/plan/beside?day=2026-12-07&other=2026-11-30&squad=SQUAD_ID", None, (401, 200, 200, 200, 404, 404)),
    ("GET", "/plan/week.{kind}?day=2026-12-07&squad=SQUAD_ID", None, (401, 200, 200, 200, 404, 404)),
    ("GET", "/plan/links?squad=SQUAD_ID", None, (401, 403, 200, 200, 404, 404)),
    ("POST", "/plan/links", {"squad": "SQUAD"}, (401, 403, 201, 201, 404, 404)),
    ("DELETE", "/plan/links/{link_id}", None, (401, 403, 204, 204, 404, 404)),
    ("GET", "/squads/{squad_id}/methods", None, (401, 200, 200, 200, 404, 404)),
    ("GET", "/squads/{squad_id}/methods/page", None, (401, 200, 200, 200, 404, 404)),
    ("GET", "/squads/{squad_id}/methods/history", None, (401, 403, 200, 200, 404, 404)),
    ("GET", "/people", None, (401, 403, 200, 200, 200, 404)),
    ("GET", "/reports", None, (401, 403, 200, 200, 200, 404)),
    ("POST", "/people", {"name": "Wim Karsholt", "squad": "SQUAD"}, (401, 403, 201, 201, 404, 404)),
    ("POST", "/people/list/preview", {"text": "Wim Karsholt", "squad": "SQUAD"}, (401, 403, 200, 200, 404, 404)),
    ("POST", "/people/list", {"text": "Wim Karsholt, A", "squad": "SQUAD"}, (401, 403, 200, 200, 404, 404)),
    # What is signed is looked at before who asks for it.
    ("POST", "/people/list/undo", {"undo": "unsigned"}, (401, 422, 422, 422, 422, 422)),
    ("GET", "/people/{person_id}", None, (401, 404, 200, 200, 404, 404)),
    ("GET", "/people/OWN", None, (401, 200, 200, 200, 404, 404)),
    ("PATCH", "/people/{person_id}", {"pace_factor": 1.1}, (401, 404, 200, 200, 404, 404)),
    ("PATCH", "/people/OWN", {"pace_factor": 1.1}, (401, 403, 200, 200, 404, 404)),
    ("PATCH", "/people/OWN", {"body_kg": 70}, (401, 403, 403, 200, 404, 404)),
    ("PUT", "/people/{person_id}/groups", {"groups": []}, (401, 404, 200, 200, 404, 404)),
    ("PUT", "/people/OWN/groups", {"groups": []}, (401, 403, 200, 200, 404, 404)),
    ("POST", "/people/{person_id}/maxima", A_SET, (401, 404, 201, 201, 404, 404)),
    ("POST", "/people/OWN/maxima", A_SET, (401, 403, 201, 201, 404, 404)),
    ("DELETE", "/people/maxima/{maximum_id}", None, (401, 403, 204, 204, 404, 404)),
    ("PUT", "/people/{person_id}/capacity", {"test": "met", "result": 12}, (401, 404, 200, 200, 404, 404)),
    ("PUT", "/people/OWN/capacity", {"test": "met", "result": 12}, (401, 403, 200, 200, 404, 404)),
    ("POST", "/people/{person_id}/limits", LIMIT, (401, 404, 201, 201, 404, 404)),
    ("POST", "/people/OWN/limits", LIMIT, (401, 201, 201, 201, 404, 404)),
    ("DELETE", "/people/limits/{limit_id}", None, (401, 404, 204, 204, 404, 404)),
    ("PUT", "/people/{person_id}/guardian", GUARDIAN, (401, 404, 403, 200, 404, 404)),
    ("PUT", "/people/{person_id}/named", {"agreed": True}, (401, 404, 200, 200, 404, 404)),
    ("PUT", "/people/OWN/named", {"agreed": True}, (401, 200, 200, 200, 404, 404)),
    ("PUT", "/people/OWN/guardian", GUARDIAN, (401, 403, 403, 200, 404, 404)),
    ("POST", "/people/{person_id}/export", {}, (401, 404, 403, 200, 404, 404)),
    ("POST", "/people/OWN/export", {}, (401, 200, 403, 200, 404, 404)),
    ("GET", "/people/{person_id}/traces", None, (401, 404, 403, 200, 404, 404)),
    ("GET", "/people/OWN/traces", None, (401, 200, 403, 200, 404, 404)),
    ("POST", "/people/{person_id}/erase", {}, (401, 404, 403, 204, 404, 404)),
    ("POST", "/people/OWN/erase", {}, (401, 204, 403, 204, 404, 404)),
    ("POST", "/checkin/open", TOKEN, (404, 404, 404, 404, 404, 404)),
    ("GET", "/checkin", None, (401, 401, 401, 401, 401, 401)),
    ("POST", "/checkin/say", {"said": []}, (401, 401, 401, 401, 401, 401)),
    ("DELETE", "/checkin", None, (401, 401, 401, 401, 401, 401)),
    ("DELETE", "/checkin/devices/{device_id}", None, (401, 401, 401, 401, 401, 401)),
    ("GET", "/people/{person_id}/checkin", None, (401, 404, 200, 200, 404, 404)),
    ("GET", "/people/OWN/checkin", None, (401, 200, 200, 200, 404, 404)),
    ("POST", "/people/{person_id}/checkin", None, (401, 404, 201, 201, 404, 404)),
    ("POST", "/people/OWN/checkin", None, (401, 403, 201, 201, 404, 404)),
    ("DELETE", "/people/{person_id}/checkin", None, (401, 404, 204, 204, 404, 404)),
    ("DELETE", "/people/OWN/checkin", None, (401, 204, 204, 204, 404, 404)),
    ("GET", "/groups?squad=SQUAD_ID", None, (401, 200, 200, 200, 404, 404)),
    ("POST", "/groups", {"name": "North", "squad": "SQUAD"}, (401, 403, 201, 201, 404, 404)),
    ("PATCH", "/groups/{group_id}", {"name": "North"}, (401, 403, 200, 200, 404, 404)),
    ("DELETE", "/groups/{group_id}", None, (401, 403, 204, 204, 404, 404)),
    ("POST", "/otherwise", {"document": DOCUMENT}, (401, 200, 200, 200, 200, 404)),
    ("POST", "/otherwise", {"document": DOCUMENT, "squad": "SQUAD"}, (401, 200, 200, 200, 404, 404)),
    ("POST", "/figures", {"document": DOCUMENT, "person": "PERSON"}, (401, 404, 200, 200, 404, 404)),
    ("POST", "/card", {"document": DOCUMENT, "person": "PERSON"}, (401, 404, 200, 200, 404, 404)),
    ("PUT", "/plan/entries/{entry_id}/teams", {"count": 0}, (401, 403, 204, 204, 404, 404)),
    ("POST", "/plan/away", {**AWAY, "person": "PERSON"}, (401, 404, 204, 204, 404, 404)),
    ("GET", "/floor/today?squad=SQUAD_ID", None, (401, 403, 200, 200, 404, 404)),
    ("GET", "/floor/entries/{entry_id}/sheet", None, (401, 403, 200, 200, 404, 404)),
    ("PUT", "/floor/runs/{run_id}", {"entry": "TO_RUN", "begun": "NOW"}, (401, 403, 200, 200, 404, 404)),
    ("GET", "/floor/clock", None, (401, 200, 200, 200, 200, 200)),
    ("GET", "/floor/entries/{entry_id}/stations?people=3", None, (401, 403, 200, 200, 404, 404)),
    ("GET", "/floor/runs/{run_id}/changes?t=1", None, (401, 403, 200, 200, 404, 404)),
    ("POST", "/floor/runs/{run_id}/minutes", {"t": 1, "left_s": 60}, (401, 403, 200, 200, 404, 404)),
    ("POST", "/floor/runs/{run_id}/added", {"t": 1, "text": "30 s burpee"}, (401, 403, 200, 200, 404, 404)),
    ("GET", "/floor/runs/{run_id}", None, (401, 403, 200, 200, 404, 404)),
    ("GET", "/floor/runs/{run_id}/sheet", None, (401, 403, 200, 200, 404, 404)),
    ("POST", "/floor/runs/{run_id}/events", {"events": [EVENT]}, (401, 403, 200, 200, 404, 404)),
    ("POST", "/floor/wall/screens", None, (200, 200, 200, 200, 200, 200)),
    ("GET", "/floor/wall", None, (401, 401, 401, 401, 401, 401)),
    ("POST", "/floor/wall/pair", {"code": WALL_CODE, "squad": "SQUAD"}, (401, 403, 200, 200, 404, 404)),
    ("GET", "/floor/walls?squad=SQUAD_ID", None, (401, 403, 200, 200, 404, 404)),
    ("DELETE", "/floor/walls/{screen_id}", None, (401, 403, 204, 204, 404, 404)),
    ("GET", "/log?squad=SQUAD_ID", None, (401, 200, 200, 200, 404, 404)),
    ("POST", "/log/settle", {"entries": ["LOGGED"]}, (401, 403, 200, 200, 404, 404)),
    ("GET", "/log/last-done?squad=SQUAD_ID", None, (401, 403, 200, 200, 404, 404)),
    ("PUT", "/log/learning", {"learning": "auto", "squad": "SQUAD"}, (401, 403, 204, 204, 404, 404)),
    ("GET", "/log/file.{kind}?squad=SQUAD_ID", None, (401, 403, 200, 200, 404, 404)),
    ("GET", "/log/file.{kind}?person=PERSON", None, (401, 404, 200, 200, 404, 404)),
    ("GET", "/log/file.{kind}?person=OWN", None, (401, 200, 200, 200, 404, 404)),
    ("POST", "/log/file", {"file": A_FILE, "text": NO_LOG, "squad": "SQUAD"}, (401, 403, 202, 202, 404, 404)),
    ("POST", "/log/file/parts", {"file": A_FILE, "text": NO_LOG, "squad": "SQUAD"}, (401, 403, 200, 200, 404, 404)),
    ("PUT", "/log/entries/{entry_id}/watch", {**PULSE, "person": "PERSON"}, (401, 404, 200, 200, 404, 404)),
    ("PUT", "/log/entries/{entry_id}/watch", {**PULSE, "person": "OWN"}, (401, 200, 200, 200, 404, 404)),
    ("DELETE", "/log/watch/{recording_id}/curve", None, (401, 404, 204, 204, 404, 404)),
    ("POST", "/log/foreseen", {"document": DOCUMENT}, (401, 200, 200, 200, 200, 404)),
    ("POST", "/log/foreseen", {"document": DOCUMENT, "squad": "SQUAD"}, (401, 200, 200, 200, 404, 404)),
    ("POST", "/log/foreseen", {"document": DOCUMENT, "person": "PERSON"}, (401, 404, 200, 200, 404, 404)),
    ("GET", "/log/entries/{entry_id}", None, (401, 200, 200, 200, 404, 404)),
    ("GET", "/log/entries/{entry_id}/expected", None, (401, 200, 200, 200, 404, 404)),
    ("PUT", "/log/entries/{entry_id}", {}, (401, 403, 204, 204, 404, 404)),
    ("DELETE", "/log/entries/{entry_id}", None, (401, 403, 204, 204, 404, 404)),
    ("PUT", "/log/entries/{entry_id}/results", SCORES, (401, 404, 204, 204, 404, 404)),
    ("PUT", "/log/entries/{entry_id}/rating", {"person": "PERSON", "effort": 6}, (401, 404, 204, 204, 404, 404)),
    ("PUT", "/log/entries/{entry_id}/rating", {"person": "OWN", "effort": 6}, (401, 204, 204, 204, 404, 404)),
    ("PUT", "/log/entries/{entry_id}/rating", {"effort": 6}, (401, 404, 204, 204, 404, 404)),
    ("POST", "/log/entries/{entry_id}/notes", {"text": "cold"}, (401, 404, 201, 201, 404, 404)),
    ("POST", "/log/entries/{entry_id}/notes", {"text": "cold", "person": "OWN"}, (401, 201, 201, 201, 404, 404)),
    ("POST", "/log/results/{result_id}/use", None, (401, 403, 204, 204, 404, 404)),
    ("POST", "/log/notes/{note_id}/lift", None, (401, 404, 204, 204, 404, 404)),
    ("GET", "/log/people/{person_id}", None, (401, 404, 200, 200, 404, 404)),
    ("GET", "/log/people/OWN", None, (401, 200, 200, 200, 404, 404)),
    ("PUT", "/log/people/{person_id}/learned", {"use": "no"}, (401, 404, 204, 204, 404, 404)),
    ("PUT", "/log/people/OWN/learned", {"use": "no"}, (401, 403, 204, 204, 404, 404)),
    ("GET", "/squads/{squad_id}/settings", None, (401, 200, 200, 200, 404, 404)),
    ("PATCH", "/squads/{squad_id}/settings", {"name": "Ridge"}, (401, 403, 403, 200, 404, 404)),
    ("GET", "/squads/{squad_id}/history", None, (401, 403, 403, 200, 404, 404)),
    ("POST", "/squads/{squad_id}/export", {}, (401, 403, 403, 202, 404, 404)),
    ("GET", "/squads/{squad_id}/members", None, (401, 403, 403, 200, 404, 404)),
    ("PATCH", "/members/{member_id}", {"role": "coach"}, (401, 403, 403, 200, 404, 404)),
    ("DELETE", "/members/{member_id}", None, (401, 403, 403, 204, 404, 404)),
    ("POST", "/members/{member_id}/reset", None, (401, 403, 403, 201, 404, 404)),
    ("GET", "/squads/{squad_id}/invitations", None, (401, 403, 403, 200, 404, 404)),
    ("POST", "/squads/{squad_id}/invitations", {"role": "coach"}, (401, 403, 403, 201, 404, 404)),
    ("DELETE", "/invitations/{invitation_id}", None, (401, 403, 403, 204, 404, 404)),
    ("POST", "/invitations/look", TOKEN, (404, 404, 404, 404, 404, 404)),
    ("POST", "/invitations/accept", TOKEN, (404, 404, 404, 404, 404, 404)),
    ("POST", "/resets/look", TOKEN, (404, 404, 404, 404, 404, 404)),
    ("POST", "/resets/use", {**TOKEN, "password": "y"}, (404, 404, 404, 404, 404, 404)),
    ("POST", "/squads", {"name": "Peak", "time_zone": "UTC"}, (401, 403, 403, 201, 201, 403)),
    ("GET", "/time-zones", None, (401, 200, 200, 200, 200, 200)),
    ("POST", "/account/password", {"old": "no", "new": "y"}, (401, 422, 422, 422, 422, 422)),
    ("GET", "/account/devices", None, (401, 200, 200, 200, 200, 200)),
    ("PUT", "/account/units", {"units": "imperial"}, (401, 200, 200, 200, 200, 200)),
    ("DELETE", "/account/devices/{number}", None, (401, 204, 204, 204, 204, 204)),
    ("DELETE", "/account/notices/{notice_id}", None, (401, 204, 204, 204, 204, 204)),
    ("DELETE", "/account/squads/{squad_id}", None, (401, 204, 204, 422, 404, 404)),
    ("GET", "/account/second-factor", None, (401, 200, 200, 200, 200, 200)),
    ("POST", "/account/second-factor", {"password": "a-long-password"}, (401, 422, 422, 200, 200, 422)),
    ("PUT", "/account/second-factor", {"code": "no"}, (401, 422, 422, 422, 422, 422)),
    ("POST", "/account/second-factor/end", {"password": "no"}, (401, 422, 422, 422, 422, 422)),
    ("POST", "/account/erase", {"password": "no"}, (401, 422, 422, 422, 422, 422)),
    (
        "PATCH",
        "/squads/{squad_id}/methods",
        {"methods": {"density": "by-the-clock"}},
        (401, 403, 403, 200, 404, 404),
    ),
    ("GET", "/squads/{squad_id}/muted-checks", None, (401, 200, 200, 200, 404, 404)),
    ("PUT", "/squads/{squad_id}/muted-checks/{code}", None, (401, 403, 403, 200, 404, 404)),
    ("DELETE", "/squads/{squad_id}/muted-checks/{code}", None, (401, 403, 403, 200, 404, 404)),
    ("POST", "/figures", {"document": DOCUMENT}, (401, 200, 200, 200, 200, 404)),
    ("POST", "/figures", {"document": DOCUMENT, "squad": "SQUAD"}, (401, 200, 200, 200, 404, 404)),
    ("POST", "/explain", {"document": DOCUMENT, "figure": "total_s"}, (401, 200, 200, 200, 200, 404)),
    ("GET", "/sessions", None, (401, 200, 200, 200, 200, 200)),
    ("GET", "/sessions/names", None, (401, 200, 200, 200, 200, 200)),
    ("POST", "/sessions", {"document": DOCUMENT, "squad": "SQUAD"}, (401, 403, 201, 201, 404, 404)),
    (
        "POST",
        "/sessions/import",
        {"kind": "txt", "text": "Day\nMain: 30 s each\n  burpee", "squad": "SQUAD"},
        (401, 403, 201, 201, 404, 404),
    ),
    ("GET", "/sessions/{session_id}/export.{kind}", None, (401, 200, 200, 200, 404, 404)),
    ("GET", "/sessions/{session_id}", None, (401, 200, 200, 200, 404, 404)),
    ("PUT", "/sessions/{session_id}", SAVE, (401, 403, 200, 200, 404, 404)),
    ("POST", "/sessions/{session_id}/duplicate", None, (401, 403, 201, 201, 404, 404)),
    ("POST", "/sessions/{session_id}/pin", None, (401, 204, 204, 204, 404, 404)),
    ("POST", "/sessions/{session_id}/archive", None, (401, 403, 200, 200, 404, 404)),
    ("GET", "/sessions/{session_id}/revisions", None, (401, 200, 200, 200, 404, 404)),
    ("GET", "/sessions/{session_id}/revisions/{revision_id}", None, (401, 200, 200, 200, 404, 404)),
    ("GET", "/sessions/{session_id}/revisions/{revision_id}/differences", None, (401, 200, 200, 200, 404, 404)),
]


def filled(text: str, world: World) -> str:
    return (
        text.replace("/floor/entries/{entry_id}", f"/floor/entries/{world.floor.to_run.pk}")
        .replace("/log/entries/{entry_id}", f"/log/entries/{world.logbook.entry.pk}")
        .replace("LOGGED", str(world.logbook.entry.pk))
        .replace("{result_id}", str(world.logbook.result.pk))
        .replace("{recording_id}", str(world.logbook.recording.pk))
        .replace("{note_id}", str(world.logbook.note.pk))
        .replace("{session_id}", str(world.session.pk))
        .replace("{revision_id}", str(world.session.head_id))
        .replace('"SQUAD"', str(world.squad.pk))
        .replace("{squad_id}", str(world.squad.pk))
        .replace("{kind}", "csv" if "compare" in text or "plan" in text else "json")
        .replace("SQUAD_ID", str(world.squad.pk))
        .replace("PERSON", str(world.planned.person.public_id))
        .replace("{person_id}", str(world.planned.person.public_id))
        .replace("OWN", str(world.known.own.public_id))
        .replace("{maximum_id}", str(world.known.maximum.pk))
        .replace("{limit_id}", str(world.known.limit.pk))
        .replace("{group_id}", str(world.known.group.pk))
        .replace("{device_id}", str(world.own_device.pk) if "{device_id}" in text else "")
        .replace("{member_id}", str(world.known.member.pk))
        .replace("{invitation_id}", str(world.known.invitation.pk))
        .replace("{number}", "no-such-device")
        .replace("{notice_id}", "1")
        .replace("{entry_id}", str(world.planned.entry.pk))
        .replace("TO_RUN", str(world.floor.to_run.pk))
        .replace('"NOW"', str(world.floor.run.begun_at.timestamp()))
        .replace("{run_id}", str(world.floor.run.pk))
        .replace("{screen_id}", str(world.floor.screen.pk))
        .replace("{phase_id}", str(world.planned.phase.pk))
        .replace("{change_id}", str(world.planned.change.pk))
        .replace("{away_id}", str(world.planned.away.pk))
        .replace("{job_id}", str(world.planned.job.pk))
        .replace("{link_id}", str(world.planned.link.pk))
        .replace("{day}", "2026-12-07")
        .replace("{key}", "gate-vault")
        .replace("{item}", "0")
        .replace("{rule}", "rest-below")
        .replace("{code}", "no-warm-up")
        .replace("SESSION", str(world.session.pk))
        .replace("{shape_id}", str(world.shape.pk))
    )


def statuses_of(method: str, path: str, statuses: tuple[int, ...]) -> dict[str | None, int]:
    """The status that each actor is to get."""
    like = {who: ELSEWHERE.get(path, role) if role else role for who, role in AS.items()}
    wanted = dict(zip(ROLES, statuses, strict=True))
    wanted |= {who: statuses[ROLES.index(role)] for who, role in like.items()}
    if path.partition("?")[0] in OF_WALLS:
        wanted["wall"] = 200
    wanted["own"] = OF_OWN.get((method, path), wanted["own"])
    return wanted


@pytest.mark.parametrize(
    ("method", "path", "body", "statuses"),
    [pytest.param(*row, id=f"{row[0]} {row[1]} {index}") for index, row in enumerate(TABLE)],
)
def test_right(world: World, method: str, path: str, body: Any, statuses: tuple[int, ...]) -> None:
    """All actors in turn, each on the same world: what one did is taken back before the next."""
    vault = {"key": "gate-vault", "name": "gate vault", "patterns": {"jump": 1.0}, "pace_s": 4.0}
    SquadMovement.objects.create(squad=world.squad, key="gate-vault", definition=vault)
    assert world.floor.screen.pk
    assert world.own_device.pk
    ReadingHabit.objects.create(squad=world.squad, rule="rest-below", reading=1, times=2)
    sent = None if body is None else json.loads(filled(json.dumps(body), world))
    where = filled(path, world)
    wrong = []
    for who, status in statuses_of(method, path, statuses).items():
        before = transaction.savepoint()
        answer = world.send(who, method, where, sent)
        transaction.savepoint_rollback(before)
        shaped = status < 400 or (
            answer["Content-Type"] == "application/problem+json" and answer.json()["status"] == status
        )
        if answer.status_code != status or not shaped:
            wrong.append((who, status, answer.status_code, answer.content[:300]))
    assert wrong == []


def test_every_route_stands_in_the_table() -> None:
    routes = {
        (method.upper(), path.removeprefix("/api"))
        for path, operations in openapi_document()["paths"].items()
        for method in operations
    }
    own = {(method, path.partition("?")[0]) for method, path, _, _ in TABLE if "OWN" not in path}
    assert routes == own


def test_lists_hold_only_ones_own_squads(world: World) -> None:
    mine = {item["id"] for item in world.send("athlete", "GET", "/sessions").json()["items"]}
    assert mine == {str(world.session.pk)}
    assert Session.objects.count() == 2
    assert world.send("nobodys", "GET", "/sessions").json()["items"] == []
