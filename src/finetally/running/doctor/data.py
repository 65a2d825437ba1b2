"""What is kept: the database, its tables and migrations, the secret, the last backup."""

from __future__ import annotations

import sqlite3
from collections.abc import Iterator
from contextlib import closing

from finetally.core.session.cleaning import one_line
from finetally.running.backup import applied, newer_than, refuse_broken
from finetally.running.doctor.diagnosis import Diagnosis, Patient, look, span, well, wrong
from finetally.running.installation import RefusedError
from finetally.running.state import last_backup, read_only, size_of
from finetally.running.upgrade import known_migrations

FAULTS_TOLD = 3
LIST_OF_MIGRATIONS = "django_migrations"
SHORTEST_SECRET = 32
BACKUP_DAYS = 7
RESTORE = "Put the last backup back: fine-tally restore FILE. What is there now is kept beside it."


def database(patient: Patient) -> Iterator[Diagnosis]:
    """The database: there, whole page by page, every row where its others are."""
    path = patient.installation.database
    if not path.exists():
        yield wrong(
            "database", f"There is no database at {path}.", "fine-tally run makes one; or fine-tally restore FILE."
        )
        return
    try:
        with closing(read_only(path)) as found:
            said = [one_line(str(text)) for (text,) in found.execute(f"PRAGMA integrity_check({FAULTS_TOLD})")]
            astray = found.execute("PRAGMA foreign_key_check").fetchmany(FAULTS_TOLD) if said == ["ok"] else []
            (journal,) = found.execute("PRAGMA journal_mode").fetchone()
    except sqlite3.Error as error:
        yield wrong("database", f"{path} cannot be read: {one_line(str(error))}.", RESTORE)
        return
    if said != ["ok"]:
        yield wrong("database", f"{path} is broken: {'; '.join(said)}.", RESTORE)
    elif astray:
        tables = ", ".join(sorted({str(table) for table, *_ in astray}))
        yield wrong("database", f"Rows of {tables} belong to something that is not there.", RESTORE)
    else:
        yield well("database", f"{path} is whole, {size_of(patient.installation) / 1e6:,.1f} MB.")
    if journal != "wal":
        do = "Nothing, if it was just restored: the next start sets it."
        yield look(
            "database",
            f"It is kept in the manner {journal!r}, in which whoever reads waits for whoever writes.",
            do,
        )


def tables(patient: Patient) -> Iterator[Diagnosis]:
    """Every table and column of this release."""
    from django.apps import apps

    try:
        with closing(read_only(patient.installation.database)) as found:
            rows = found.execute("SELECT name FROM sqlite_master WHERE type = 'table'")
            there = {name: _columns(found, name) for (name,) in rows}
    except sqlite3.Error:
        return
    if not there or _pending(patient):
        return
    missing = [] if LIST_OF_MIGRATIONS in there else [LIST_OF_MIGRATIONS]
    for model in apps.get_models(include_auto_created=True):
        name = model._meta.db_table
        if name not in there:
            missing.append(name)
            continue
        wanted = {one.column for one in model._meta.concrete_fields}
        missing += [f"{name}.{one}" for one in sorted(wanted - there[name])]
    if missing:
        more = f" and {len(missing) - FAULTS_TOLD} more" if len(missing) > FAULTS_TOLD else ""
        yield wrong("tables", f"Missing: {', '.join(missing[:FAULTS_TOLD])}{more}.", RESTORE)
    else:
        yield well("tables", "Every table of this release is there.")


def _columns(found: sqlite3.Connection, table: str) -> set[str]:
    return {str(row[1]) for row in found.execute(f'PRAGMA table_info("{table}")')}


def _pending(patient: Patient) -> list[str] | None:
    """Migrations that are still to come; None where it cannot be told."""
    try:
        waiting = known_migrations() - applied(patient.installation.database)
    except sqlite3.Error:
        return None
    return sorted(f"{app}.{name}" for app, name in waiting)


def migrations(patient: Patient) -> Iterator[Diagnosis]:
    """Whether the database is one of this release."""
    pending = _pending(patient)
    if pending is None:
        return
    newer = newer_than(patient.installation.database, known_migrations())
    if newer:
        do = "Install the release that it is from; or put back a backup from before: fine-tally restore FILE."
        yield wrong("migrations", f"The database is from a newer release (it has {newer[0]}).", do)
    elif pending:
        do = "Stop the server, then: fine-tally upgrade"
        yield wrong("migrations", f"{len(pending)} are still to come, {pending[0]} first.", do)
    else:
        yield well("migrations", "The database is one of this release.")


def secret(patient: Patient) -> Iterator[Diagnosis]:
    """The secret that sessions and links are signed with."""
    path = patient.installation.secret
    try:
        text = path.read_text().strip()
    except FileNotFoundError:
        if patient.installation.database.exists():
            do = "Put it back from a backup, or start: a new one is made, and everybody signs in anew."
            yield look("secret", f"There is no secret at {path}.", do)
        return
    except OSError as error:
        yield wrong("secret", f"{path} cannot be read: {error.strerror}.", f"As root: chown {path.owner()} {path}")
        return
    if len(text) < SHORTEST_SECRET:
        found = "empty" if not text else f"{len(text)} characters long"
        do = f"Put it back from a backup, or delete {path}: a new one is made, and everybody signs in anew."
        yield wrong("secret", f"The secret is {found}: sessions and links could be forged.", do)
    else:
        yield well("secret", "The secret is there.")


def backup(patient: Patient) -> Iterator[Diagnosis]:
    """The last backup: not older than a week, and whole where it can be looked at."""
    if not patient.installation.database.exists():
        return
    do = "fine-tally backup --keep 14, each night by a timer (docs/running.md)."
    half = patient.installation.half_made
    if half:
        says = (
            f"A backup or a restore was broken off, and left {len(half)} files with everything in them: {half[0]}"
        )
        yield wrong("backup", f"{says}.", "The next backup removes them: fine-tally backup")
    found = last_backup(patient.installation)
    if found is None:
        yield wrong("backup", "No backup is known.", do)
        return
    age = (patient.now - found.at).total_seconds()
    says = f"The last backup was made {span(age)} ago: {found.file}"
    if age > BACKUP_DAYS * 86_400:
        yield wrong("backup", f"{says}.", do)
    elif not found.file.exists():
        yield look("backup", f"{says}; it is not there just now.", "Look whether it is where it should be.")
    else:
        try:
            refuse_broken(found.file)
        except RefusedError as refused:
            yield wrong("backup", str(refused), do)
        else:
            yield well("backup", f"{says}.")
