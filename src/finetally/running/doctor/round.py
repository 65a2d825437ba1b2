"""The doctor's round: everything that is looked at, in order, and how it is told."""

from __future__ import annotations

import os
import sys
from collections.abc import Iterable, Iterator
from datetime import UTC, datetime

from finetally.environment import wrong_values
from finetally.running.doctor import data, machine, service
from finetally.running.doctor.diagnosis import Diagnosis, Level, Look, Patient, wrong
from finetally.running.installation import Installation
from finetally.running.state import free_bytes

LOOKS: tuple[Look, ...] = (
    machine.python,
    machine.front_end,
    machine.environment,
    machine.space,
    machine.rights,
    data.database,
    data.migrations,
    data.tables,
    data.secret,
    machine.clock,
    service.processes,
    data.backup,
    service.in_front,
)
MARKS = {Level.WELL: "well ", Level.LOOK: "look ", Level.WRONG: "WRONG"}


def patient_here(installation: Installation) -> Patient:
    """The installation on this machine, now. Raises OSError where there is no folder."""
    return Patient(installation, datetime.now(UTC), tuple(sys.version_info[:3]), free_bytes(installation.folder))


def amiss_from_the_start(installation: Installation) -> list[Diagnosis]:
    """What has to be mended before anything else can be looked at: a setting that cannot be read, no folder."""
    amiss = [
        wrong("settings", says, "Mend it first; then look again (docs/settings.md).") for says in wrong_values()
    ]
    if not installation.folder.is_dir():
        do = "fine-tally run makes it; or say where it lies: FINE_TALLY_VAR."
        amiss.append(wrong("folder", f"There is no folder {installation.folder}.", do))
    elif not os.access(installation.folder, os.R_OK | os.X_OK):
        do = f"Run this as its owner, {installation.folder.owner()}."
        amiss.append(wrong("folder", f"{installation.folder} cannot be looked into.", do))
    return amiss


def findings(patient: Patient) -> Iterator[Diagnosis]:
    """Everything that is found, well or not, in the order of LOOKS. Needs Django set up."""
    for look in LOOKS:
        yield from look(patient)


def told(found: Iterable[Diagnosis]) -> Iterator[str]:
    """A line for each finding, and below it what to do."""
    for one in found:
        yield f"{MARKS[one.level]}  {one.about}: {one.says}"
        if one.do:
            yield f"       → {one.do}"
