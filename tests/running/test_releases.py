"""Databases of every release, kept as it left them: each migration is tried on them, and back.

A release adds its own two (the demo, and a small real one) and its last migrations here.
"""

from __future__ import annotations

import json
import lzma
import os
import sqlite3
import subprocess
import sys
from contextlib import closing
from pathlib import Path
from typing import Any

import pytest

from tests.conftest import REPOSITORY

KEPT = REPOSITORY / "tests/releases"
LAST = {
    "0.1.0": {"squads": "0002", "training": "0002", "plan": "0001", "axes": "zero"},
    "1.0.0": {
        "squads": "0010", "training": "0005", "plan": "0008", "people": "0003", "floor": "0001", "log": "0004",
        "checkin": "0001", "accounts": "0002", "jobs": "0002",
    },
}  # fmt: skip
"""The last migration of each app in a release; `zero` where it had none."""
OURS = ("squads", "training", "plan", "people", "floor", "log", "checkin", "accounts")
RENAMED = {("plan_entry", "amount"): "summary"}
"""Columns that have another name since."""


def one_rm(person: dict[str, Any], all_rows: Any) -> dict[str, float]:
    """What was one column of a person: each movement's maximum, a row of its own since."""
    sets = [one for one in all_rows["people_maximum"] if one["person_id"] == person["id"]]
    return {one["movement"]: one["kg"] for one in sets}


def group_name(entry: dict[str, Any], all_rows: Any) -> str:
    """What was a name: a group, a row of its own since."""
    return next((one["name"] for one in all_rows["people_group"] if one["id"] == entry["group_id"]), "")


MOVED = {("squads_person", "one_rm"): one_rm, ("plan_entry", "group"): group_name}
"""Columns that are rows of tables of their own since; `people_…` holds nothing else."""


def laid_out(path: Path, into: Path) -> Path:
    database = into / "fine-tally.sqlite3"
    database.write_bytes(lzma.decompress(path.read_bytes()))
    return database


MIGRATE = """
import json, os, sys, django
os.environ["DJANGO_SETTINGS_MODULE"] = "finetally.web.settings"
django.setup()
from django.core.management import call_command
for target in json.loads(sys.argv[1]):
    call_command("migrate", *target, verbosity=0)
"""


def migrate(folder: Path, *targets: tuple[str, ...]) -> None:
    """Migrate to each target in turn (app and migration; nothing: all to the last), in a process of its own."""
    environment = {**os.environ, "FINE_TALLY_VAR": str(folder)}
    environment.pop("FINE_TALLY_DATABASE", None)
    command = [sys.executable, "-c", MIGRATE, json.dumps(targets)]
    made = subprocess.run(command, cwd=REPOSITORY, env=environment, capture_output=True, text=True)
    assert made.returncode == 0, made.stderr


def rows(database: Path) -> dict[str, list[dict[str, Any]]]:
    """Everything that people wrote, by table; what is kept beside it (sessions, summaries) left out."""
    with closing(sqlite3.connect(database)) as found:
        found.row_factory = sqlite3.Row
        names = [name for (name,) in found.execute("SELECT name FROM sqlite_master WHERE type = 'table'")]
        ours = [name for name in names if name.partition("_")[0] in OURS]
        return {
            name: [dict(row) for row in found.execute(f"SELECT * FROM {name} ORDER BY 1")]
            for name in ours
            if name != "training_summary"
        }


def same(before: Any, after: Any) -> None:
    """Nothing that was there is gone or another; tables and keys may have come, and are empty where they came."""
    assert before.keys() <= after.keys()
    assert not [name for name in after.keys() - before.keys() if after[name] and not name.startswith("people")]
    for table, found in before.items():
        assert len(found) == len(after[table]), table
        for one, other in zip(found, after[table], strict=True):
            for key, value in one.items():
                name = RENAMED.get((table, key), key)
                if (table, key) in MOVED and key not in other:
                    kept = json.loads(value) if value.startswith("{") else value
                    assert kept == MOVED[table, key](other, after), (table, key)
                elif key == "one_rm":
                    # Brought back: the same numbers, be they written 110 or 110.0.
                    assert json.loads(value) == json.loads(other[key])
                elif key != "pinned":
                    assert value == other[name if name in other else key], (table, key)


@pytest.mark.parametrize("path", sorted(KEPT.glob("*.xz")), ids=lambda path: path.name)
def test_a_database_of_an_older_release_comes_up_and_goes_back(path: Path, tmp_path: Path) -> None:
    database = laid_out(path, tmp_path)
    before = rows(database)
    assert before["training_revision"]
    migrate(tmp_path, ())
    now = rows(database)
    same(before, now)
    planned = {one["revision_id"] for one in now["plan_entry"] if one["revision_id"]}
    assert {one["id"] for one in now["training_revision"] if one["pinned"]} == planned
    release = path.name.rpartition("-")[0]
    if release == "0.1.0":
        # Kept conflicts are told apart by what they were made from; those from before have no such name.
        assert {one["base"] for one in now["training_revision"]} == {""}
    migrate(tmp_path, *LAST[release].items())
    back = rows(database)
    same(before, back)
    assert {key for one in back["training_revision"] for key in one} == set(before["training_revision"][0])
    if "real" in path.name:
        # Up once more: the same migrations on what came back, tried where there is least of it.
        migrate(tmp_path, ())
        same(before, rows(database))


UNDO_BEFORE = [
    {"op": "set", "place": ["b1", "rounds"], "value": 3},
    {"op": "move", "place": ["b1", "steps"], "index": 0, "to_index": 1, "to_place": ["b2", "steps"]},
    {"op": "insert", "place": ["blocks"], "index": 0, "value": {"place": "stays", "steps": []}},
]
UNDO_NOW = [
    {"op": "set", "path": ["b1", "rounds"], "value": 3},
    {"op": "move", "path": ["b1", "steps"], "index": 0, "to_index": 1, "to_path": ["b2", "steps"]},
    {"op": "insert", "path": ["blocks"], "index": 0, "value": {"place": "stays", "steps": []}},
]
ANSWER_BEFORE = {
    "before": {"load": {"totals": {}, "bouts": 3, "logged": 1, "coupled": {}, "uncoupled": {}, "weighted": {}}},
    "comparison": {
        "columns": [{"bent": ["a"], "key": "k"}],
        "pick": [{"breaks": [], "first_better": [], "place": 1}],
    },
}
ANSWER_NOW = {
    "before": {
        "load": {"totals": {}, "entries": 3, "logged": 1, "acwr_coupled": {}, "acwr_uncoupled": {}, "acwr_ewma": {}}
    },
    "comparison": {
        "columns": [{"losses": ["a"], "key": "k"}],
        "pick": [{"breaks": [], "first_better": [], "rank": 1}],
    },
}


def test_what_is_kept_as_json_goes_by_the_names_of_today_and_back(tmp_path: Path) -> None:
    database = laid_out(sorted(KEPT.glob("*demo*.xz"))[-1], tmp_path)
    migrate(tmp_path, ("plan", "0005"), ("jobs", "0001"))
    private = {"versions": {"e": {"what": "w", "amount": {"v": 2}, "edits": UNDO_BEFORE}}, "sessions": []}
    job = {
        "id": "0" * 32, "kind": "level", "squad_id": 1, "shared": 1, "place": "level 1", "key": "k", "priority": 0,
        "asked": "{}", "state": "waiting", "stop_asked": 0, "progress": "{}", "file_name": "", "file_type": "",
        "answer": json.dumps(ANSWER_BEFORE), "private": json.dumps(private), "created_at": "2026-11-01",
    }  # fmt: skip
    items = [{"entry": "e", "inverse": UNDO_BEFORE}, {"entry": "f", "day": "2026-11-02"}]
    with closing(sqlite3.connect(database)) as open_, open_:
        names, marks = ", ".join(job), ", ".join("?" * len(job))
        open_.execute(f"INSERT INTO jobs_job ({names}) VALUES ({marks})", list(job.values()))
        open_.execute(
            "INSERT INTO plan_change (id, squad_id, items, made_at) VALUES (99, 1, ?, '2026-11-01')",
            [json.dumps(items)],
        )

    def kept(column: str) -> list[Any]:
        with closing(sqlite3.connect(database)) as open_:
            found = open_.execute(f"SELECT {column}, answer, private FROM jobs_job").fetchone()
            (change,) = open_.execute("SELECT items FROM plan_change WHERE id = 99").fetchone()
        return [found[0], *(json.loads(one) for one in (*found[1:], change))]

    before = kept("place")
    migrate(tmp_path, ())
    version = {"what": "w", "summary": {"v": 2}, "edits": UNDO_NOW}
    now = [{"entry": "e", "inverse": UNDO_NOW}, {"entry": "f", "day": "2026-11-02"}]
    assert kept("lock_name") == ["level 1", ANSWER_NOW, {"versions": {"e": version}, "sessions": []}, now]
    migrate(tmp_path, ("plan", "0005"), ("jobs", "0001"))
    assert kept("place") == before


def test_its_sessions_can_be_figured_as_they_are(tmp_path: Path) -> None:
    from finetally.core.figures import figures
    from finetally.core.session.reading import parse_session
    from finetally.shipped import shipped_library

    for path in sorted(KEPT.glob("*.xz")):
        for revision in rows(laid_out(path, tmp_path))["training_revision"]:
            made = figures(parse_session(json.loads(revision["document"])), library=shipped_library())
            assert made["total_s"] > 0
