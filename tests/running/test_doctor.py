"""The doctor: well where all is well, and each thing that can be amiss found, with what to do."""

from __future__ import annotations

import os
import re
import sqlite3
import subprocess
import sys
import threading
from collections.abc import Callable, Iterator
from contextlib import closing, contextmanager
from dataclasses import replace
from datetime import timedelta
from pathlib import Path

import pytest

from finetally.oldest_python import too_old
from finetally.running import worker
from finetally.running.backup import back_up
from finetally.running.doctor.diagnosis import Diagnosis, Level, Patient, span
from finetally.running.doctor.round import amiss_from_the_start, findings, patient_here, told
from finetally.running.installation import Installation, hold
from finetally.running.state import is_held, last_backup
from tests.conftest import REPOSITORY
from tests.running.test_backup import add_squad, installed

GB = 10**9


@pytest.fixture(scope="module")
def template(tmp_path_factory: pytest.TempPathFactory) -> Installation:
    made = installed(tmp_path_factory.mktemp("installed"))
    add_squad(made.database, "Ridge")
    with closing(sqlite3.connect(made.database)) as found:
        found.execute("PRAGMA journal_mode=WAL")
    return made


@contextmanager
def running(place: Installation) -> Iterator[None]:
    """As if a server ran, with the process for heavy work beside it."""
    handles = [hold(place.lock), hold(place.worker_lock)]
    yield
    for handle in handles:
        assert handle is not None
        os.close(handle)


@pytest.fixture
def well(template: Installation, tmp_path: Path) -> Iterator[Patient]:
    """An installation at which nothing is amiss, a minute after its last entry."""
    for path in (template.database, template.secret):
        (tmp_path / path.name).write_bytes(path.read_bytes())
    place = Installation(tmp_path, tmp_path / template.database.name)
    place.close_to_others()
    back_up(place)
    with running(place):
        yield replace(patient_here(place), free=50 * GB)


def amiss(patient: Patient) -> list[Diagnosis]:
    """What is not well; the pages, which not every test run builds, left out."""
    return [one for one in findings(patient) if one.level is not Level.WELL and one.about != "front end"]


def test_all_is_well(well: Patient) -> None:
    assert amiss(well) == []
    assert {"python", "packages", "settings", "space", "rights", "database", "migrations", "tables", "secret", "server",
            "worker", "backup", "proxies"} <= {one.about for one in findings(well)}  # fmt: skip


def execute(place: Installation, statement: str, *values: object) -> None:
    with closing(sqlite3.connect(place.database, isolation_level=None)) as made:
        made.execute("PRAGMA foreign_keys=OFF")
        made.execute(statement, values)


def old_python(patient: Patient) -> Patient:
    return replace(patient, python=(3, 9, 2))


def full_disk(patient: Patient) -> Patient:
    return replace(patient, free=30_000_000)


def read_by_all(patient: Patient) -> Patient:
    patient.installation.database.chmod(0o644)
    return patient


def corrupt_page(patient: Patient) -> Patient:
    execute(patient.installation, "PRAGMA wal_checkpoint(TRUNCATE)")
    with closing(sqlite3.connect(patient.installation.database)) as found:
        [page] = found.execute("SELECT rootpage FROM sqlite_master WHERE name = 'training_revision'").fetchone()
        [size] = found.execute("PRAGMA page_size").fetchone()
    with patient.installation.database.open("r+b") as file:
        file.seek((page - 1) * size)
        file.write(b"\xa5" * 64)
    return patient


def missing_table(patient: Patient) -> Patient:
    execute(patient.installation, "DROP TABLE log_lognote")
    return patient


def missing_list(patient: Patient) -> Patient:
    execute(patient.installation, "DROP TABLE django_migrations")
    return patient


def stray_row(patient: Patient) -> Patient:
    execute(patient.installation, "UPDATE training_session SET squad_id = 99")
    execute(
        patient.installation,
        "INSERT INTO training_shape (squad_id, name, key, params) VALUES (99, 'x', 'tabata', '{}')",
    )
    return patient


def empty_secret(patient: Patient) -> Patient:
    patient.installation.secret.write_text("\n")
    return patient


def an_hour_off(patient: Patient) -> Patient:
    kept = (patient.now + timedelta(hours=1)).strftime("%Y-%m-%d %H:%M:%S")
    execute(
        patient.installation, "INSERT INTO training_summary (key, figures, made_at) VALUES ('x', '{}', ?)", kept
    )
    return patient


def old_backup(patient: Patient) -> Patient:
    return replace(patient, now=patient.now + timedelta(days=9))


def lost_backup(patient: Patient) -> Patient:
    for one in patient.installation.backups.iterdir():
        one.write_bytes(one.read_bytes()[:5000])
    return patient


def pending(patient: Patient) -> Patient:
    execute(patient.installation, "DELETE FROM django_migrations WHERE app = 'checkin'")
    return patient


def newer(patient: Patient) -> Patient:
    execute(
        patient.installation, "INSERT INTO django_migrations (app, name, applied) VALUES ('plan', '0099_x', '')"
    )
    return patient


AMISS: list[tuple[Callable[[Patient], Patient], str, str, str]] = [
    (old_python, "python", "3.9 is too old", "python3.11"),
    (full_disk, "space", "30 MB are left", "Make room"),
    (read_by_all, "rights", "Others than its owner", "chmod 600 "),
    (corrupt_page, "database", "is broken|cannot be read|malformed", "restore"),
    (missing_table, "tables", "log_lognote", "restore"),
    (missing_list, "tables", "django_migrations", "restore"),
    (stray_row, "database", "training_shape", "restore"),
    (empty_secret, "secret", "is empty", "delete"),
    (an_hour_off, "clock", "1 hour after", "timedatectl"),
    (old_backup, "backup", "9 days ago", "timer"),
    (lost_backup, "backup", "is broken|cannot be read|no database", "timer"),
    (pending, "migrations", "checkin", "fine-tally upgrade"),
    (newer, "migrations", "newer release", "restore"),
]


@pytest.mark.parametrize(("spoil", "about", "says", "do"), AMISS, ids=[one[0].__name__ for one in AMISS])
def test_each_is_found_and_only_it(
    well: Patient, spoil: Callable[[Patient], Patient], about: str, says: str, do: str
) -> None:
    found = amiss(spoil(well))
    assert [(one.about, one.level) for one in found] == [(about, Level.WRONG)], list(told(found))
    assert re.search(says, found[0].says)
    assert do in found[0].do
    assert "→" in "\n".join(told(found))


def test_a_worker_that_does_not_run(well: Patient) -> None:
    place = well.installation
    place.worker_lock.unlink()
    assert is_held(place.lock)
    [found] = amiss(well)
    assert (found.about, found.level) == ("worker", Level.WRONG)
    assert "systemctl restart" in found.do


def test_a_worker_holds_its_lock_once_an_earlier_one_has_ended(
    well: Patient, monkeypatch: pytest.MonkeyPatch
) -> None:
    place = well.installation
    monkeypatch.setattr(worker, "PARENT_S", 0.01)
    monkeypatch.setattr(worker, "current_installation", lambda: place)
    taken = threading.Event()

    def hold_by(lock: Path) -> int | None:
        found = hold(lock)
        if found is not None:
            taken.set()
        return found

    monkeypatch.setattr(worker, "hold", hold_by)
    place.worker_lock.unlink()
    earlier = hold(place.worker_lock)
    assert earlier is not None
    loop = worker.Loop(os.getppid())
    looking = threading.Thread(target=loop._with_parent)
    looking.start()
    assert not taken.wait(0.3)
    os.close(earlier)
    assert taken.wait(20)
    assert is_held(place.worker_lock)
    loop.parent = -1
    looking.join(20)
    assert loop.ending


def test_a_folder_of_somebody_else_is_told(well: Patient, monkeypatch: pytest.MonkeyPatch) -> None:
    monkeypatch.setattr(os, "access", lambda *_: False)
    [found] = amiss_from_the_start(well.installation)
    assert "cannot be looked into" in found.says
    assert well.installation.folder.owner() in found.do


def test_nothing_runs(well: Patient) -> None:
    place = well.installation
    for one in (place.lock, place.worker_lock):
        one.unlink()
    assert {(one.about, one.level) for one in amiss(well)} == {("server", Level.LOOK), ("worker", Level.LOOK)}
    execute(
        place,
        "INSERT INTO jobs_job (id, kind, squad_id, shared, lock_name, key, priority, asked, state, stop_asked, progress,"
        " private, file_name, file_type, created_at, times_begun) VALUES ('a', 'level', 1, 0, '', 'k', 0, '{}', 'waiting',"
        " 0, '{}', '{}', '', '', ?, 0)",
        (well.now - timedelta(hours=2)).strftime("%Y-%m-%d %H:%M:%S"),
    )
    worker = next(one for one in amiss(well) if one.about == "worker")
    assert worker.level is Level.WRONG
    assert "1 jobs wait" in worker.says


COUNT = """
from finetally.web.metrics import count_request
for n in range(40):
    count_request("page", "GET", "ok", 0.01, {usual} if n else 7)
count_request("page", "GET", "ok", 0.01, None)
"""


def asked(place: Installation, usual: int) -> None:
    """Forty requests from elsewhere, as so many proxies tell of them; one visitor wrote more."""
    place.counts.mkdir()
    environment = {**os.environ, "PROMETHEUS_MULTIPROC_DIR": str(place.counts)}
    subprocess.run(
        [sys.executable, "-c", COUNT.format(usual=usual)], env=environment, cwd=REPOSITORY, check=True, timeout=60
    )


@pytest.mark.parametrize(
    ("https", "proxies", "usual", "says"),
    [
        ("1", "1", 1, None),
        ("1", "", 1, None),
        ("1", "1", 2, "39 of 40 requests came by 2"),
        ("", "", 1, "0 in front, by the settings; 39 of 40 requests came by 1"),
        ("1", "0", 1, "no proxy stands in front"),
    ],
)
def test_proxies(
    well: Patient, monkeypatch: pytest.MonkeyPatch, https: str, proxies: str, usual: int, says: str | None
) -> None:
    monkeypatch.setenv("FINE_TALLY_HTTPS", https)
    monkeypatch.setenv("FINE_TALLY_PROXIES", proxies)
    asked(well.installation, usual)
    found = amiss(well)
    assert [(one.about, one.level) for one in found] == ([("proxies", Level.WRONG)] if says else [])
    assert not says or says in found[0].says


def test_settings_that_are_wrong_or_unknown(well: Patient, monkeypatch: pytest.MonkeyPatch) -> None:
    monkeypatch.setenv("FINE_TALLY_HOST", "x")
    [found] = amiss(well)
    assert (found.about, found.level) == ("settings", Level.LOOK)
    assert "did you mean FINE_TALLY_HOSTS?" in found.says
    monkeypatch.setenv("FINE_TALLY_PROXIES", "one")
    [found] = amiss_from_the_start(well.installation)
    assert found.level is Level.WRONG
    assert "0 to 9" in found.says


def doctor(folder: Path, **more: str) -> subprocess.CompletedProcess[str]:
    environment = {**os.environ, "FINE_TALLY_VAR": str(folder), **more}
    environment.pop("FINE_TALLY_DATABASE", None)
    command = [sys.executable, "-m", "finetally.cli", "doctor"]
    return subprocess.run(command, cwd=REPOSITORY, env=environment, capture_output=True, text=True)


def test_the_command_tells_and_changes_nothing(well: Patient, tmp_path: Path) -> None:
    before = {one.name: one.read_bytes() for one in tmp_path.iterdir() if one.is_file()}
    empty_secret(well)
    made = doctor(tmp_path)
    assert made.returncode == 1, made.stderr
    assert "WRONG  secret: The secret is empty" in made.stdout
    after = {one.name: one.read_bytes() for one in tmp_path.iterdir() if one.is_file()}
    # The files in which readers of the database tell each other where they are do not count.
    changed = {name for name in after if after[name] != before.get(name)}
    assert changed - {f"fine-tally.sqlite3-{one}" for one in ("wal", "shm")} == {"secret"}
    assert "There is no folder" in doctor(tmp_path / "none").stdout
    assert not (tmp_path / "none").exists()


@pytest.mark.parametrize(
    ("seconds", "text"),
    [
        (5, "5 seconds"),
        (60, "1 minute"),
        (3600, "1 hour"),
        (3599.4, "1 hour"),
        (5400, "2 hours"),
        (86_400 * 9, "9 days"),
    ],
)
def test_spans(seconds: float, text: str) -> None:
    assert span(seconds) == text


def test_an_old_python_is_told_before_anything_is_loaded() -> None:
    assert too_old((3, 11, 0)) == too_old((3, 14)) == ""
    assert "Python 3.10 is too old" in too_old((3, 10, 12))
    code = (
        "import sys; sys.version_info = (3, 9, 2, 'final', 0); from finetally.entry import main; status = main(); "
        "assert 'finetally.cli' not in sys.modules; sys.exit(status)"
    )
    made = subprocess.run([sys.executable, "-c", code], capture_output=True, text=True, cwd=REPOSITORY)
    assert made.returncode == 3
    assert made.stderr.startswith("fine-tally: Python 3.9 is too old")


def test_a_backup_elsewhere_is_known(well: Patient, tmp_path: Path) -> None:
    made = back_up(well.installation, tmp_path / "stick.sqlite3")
    found = last_backup(well.installation)
    assert found is not None
    assert found.file == made
    well.installation.last_backup.write_text("{")
    found = last_backup(well.installation)
    assert found is not None
    assert found.file.parent == well.installation.backups
