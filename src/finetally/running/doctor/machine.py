"""The machine: Python and the packages, settings, space, rights of files, the clock."""

from __future__ import annotations

import os
import re
import sqlite3
from collections.abc import Iterator
from contextlib import closing
from datetime import datetime
from importlib.metadata import PackageNotFoundError, requires, version
from pathlib import Path

from django.conf import settings
from packaging.requirements import Requirement

from finetally import __version__
from finetally.environment import unknown_names, wrong_values
from finetally.oldest_python import OLDEST, too_old
from finetally.running.doctor.diagnosis import Diagnosis, Patient, look, span, well, wrong
from finetally.running.installation import OWNER_ONLY
from finetally.running.state import moment_of, read_only, size_of

MB = 1_000_000
LEAST_FREE = 200 * MB
FREE_FOR_YEARS = 1_000 * MB
CLOCK_S = 300
"""Seconds that something kept may lie after now: the clocks of machines that are told the time differ by less."""


def python(patient: Patient) -> Iterator[Diagnosis]:
    """Python and the packages, as this release asks for them."""
    says = too_old(patient.python)
    if says:
        found, _, do = says.partition(". ")
        yield wrong("python", f"{found}.", do)
    else:
        told = ".".join(map(str, patient.python[:3]))
        yield well("python", f"Python {told}; {'.'.join(map(str, OLDEST))} or newer is needed.")
    amiss = list(_packages())
    if amiss:
        yield wrong(
            "packages", "; ".join(amiss) + ".", "Install this release anew: pip install --upgrade finetally-….whl"
        )
    else:
        yield well("packages", f"Fine Tally {__version__} has the packages it asks for.")


def _packages() -> Iterator[str]:
    for line in requires("finetally") or []:
        asked = Requirement(line)
        if asked.marker is not None and not asked.marker.evaluate({"extra": ""}):
            continue
        try:
            if not asked.specifier.contains(version(asked.name), prereleases=True):
                yield f"{asked.name} is {version(asked.name)}, asked for is {asked.specifier}"
        except PackageNotFoundError:
            yield f"{asked.name} is missing"


def front_end(patient: Patient) -> Iterator[Diagnosis]:
    """The built front end, without which there is a server and no page."""
    if (Path(settings.STATIC_ROOT) / "app" / "index.html").is_file():
        yield well("front end", "The pages are here.")
    else:
        yield wrong(
            "front end",
            "The pages are not built.",
            "In a checkout: ./tally run builds them. Else install the wheel anew.",
        )


def environment(patient: Patient) -> Iterator[Diagnosis]:
    """The variables of the environment."""
    amiss = list(wrong_values())
    unknown = list(unknown_names())
    for says in amiss:
        yield wrong("settings", says, "Mend it where the service gets its settings (docs/settings.md).")
    for says in unknown:
        yield look("settings", says, "Mend its name or take it away (docs/settings.md).")
    if not amiss and not unknown:
        yield well("settings", "Every FINE_TALLY_… variable is known, with a value that is allowed.")


def space(patient: Patient) -> Iterator[Diagnosis]:
    """Room on the disk: what is there twice over fits, as a backup and an upgrade need it."""
    needed = max(LEAST_FREE, 2 * size_of(patient.installation))
    says = f"{patient.free / MB:,.0f} MB are left on the disk of {patient.installation.folder}"
    if patient.free < needed:
        do = f"Make room: {needed / MB:,.0f} MB are needed for a backup and an upgrade. Backups can lie elsewhere."
        yield wrong("space", f"{says}.", do)
    elif patient.free < max(FREE_FOR_YEARS, 3 * needed):
        yield look("space", f"{says}.", "Enough for today; make room before the next upgrade.")
    else:
        yield well("space", f"{says}.")


def rights(patient: Patient) -> Iterator[Diagnosis]:
    """Who may read what is kept: the owner alone."""
    here = patient.installation
    found = [one for one in (*here.private, *here.backups.glob("*"), *here.set_aside) if one.exists()]
    open_ones = [one for one in found if one.stat().st_mode & OWNER_ONLY]
    others = [one for one in found if one.stat().st_uid != os.geteuid()] if os.geteuid() else []
    for one in open_ones:
        mode = "700" if one.is_dir() else "600"
        yield wrong("rights", f"Others than its owner may open {one}.", f"chmod {mode} {one}")
    for one in others:
        yield wrong(
            "rights", f"{one} belongs to somebody else than who runs this.", f"As root: chown {os.geteuid()} {one}"
        )
    if not open_ones and not others:
        yield well("rights", "What is kept is open to its owner alone.")


MOMENTS = re.compile(r"\w+_at")
IN_THE_FUTURE = ("expires_at",)


def newest_moment(database: Path) -> datetime | None:
    """The latest moment at which anything was kept. Raises sqlite3.Error."""
    newest = ""
    with closing(read_only(database)) as found:
        tables = [name for (name,) in found.execute("SELECT name FROM sqlite_master WHERE type = 'table'")]
        for table in tables:
            columns = [row[1] for row in found.execute(f'PRAGMA table_info("{table}")') if row[2] == "datetime"]
            for column in columns:
                if MOMENTS.fullmatch(column) and column not in IN_THE_FUTURE:
                    (latest,) = found.execute(f'SELECT max("{column}") FROM "{table}"').fetchone()
                    newest = max(newest, str(latest or ""))
    return moment_of(newest) if newest else None


def clock(patient: Patient) -> Iterator[Diagnosis]:
    """The clock: nothing can have been kept after now."""
    try:
        newest = newest_moment(patient.installation.database)
    except (sqlite3.Error, OSError):
        return
    if newest is None:
        return
    ahead = (newest - patient.now).total_seconds()
    if ahead > CLOCK_S:
        here = f"{patient.now:%d %b %Y %H:%M} UTC"
        says = f"It is {here} by this clock, and the last entry was kept {span(ahead)} after that."
        yield wrong("clock", says, "Set the clock (timedatectl set-ntp true); one of the two times is wrong.")
    else:
        yield well("clock", f"The last entry was kept {span(-ahead) if ahead < 0 else 'a moment'} ago.")
