"""The service: the server, the process for heavy work, the proxies in front."""

from __future__ import annotations

import sqlite3
from collections.abc import Iterator

from finetally.environment import https, proxies
from finetally.running.doctor.diagnosis import Diagnosis, Patient, look, span, well, wrong
from finetally.running.installation import Installation
from finetally.running.state import counted, is_held, queue_of
from finetally.web.metrics import FORWARDED

WAITED_S = 900
"""Seconds that heavy work waits at most where the process for it runs and is not stuck."""
FEWEST_ASKED = 20
"""Requests from elsewhere before it is told how many proxies there seem to be."""


def processes(patient: Patient) -> Iterator[Diagnosis]:
    """The server, and the process for heavy work beside it."""
    here = patient.installation
    serves, works = is_held(here.lock), is_held(here.worker_lock)
    if serves:
        yield well("server", "A server runs with this database.")
    else:
        yield look("server", "No server runs with this database.", "systemctl start fine-tally, or: fine-tally run")
    try:
        queue = queue_of(here.database, patient.now)
    except sqlite3.Error:
        queue = None
    waits = queue is not None and queue.waiting and queue.oldest_s > WAITED_S
    if works and waits and queue is not None:
        says = f"Heavy work runs, and {queue.waiting} jobs wait, the oldest for {span(queue.oldest_s)}."
        yield look(
            "worker", says, "A long levelling may be before them. If it stays so: systemctl restart fine-tally"
        )
    elif works:
        yield well("worker", "The process for heavy work runs.")
    elif serves or waits:
        also = f" {queue.waiting} jobs wait." if queue is not None and queue.waiting else ""
        do = "systemctl restart fine-tally; what the log says of it: journalctl -u fine-tally"
        yield wrong("worker", f"The process for heavy work does not run.{also}", do)
    else:
        yield look("worker", "The process for heavy work does not run; the server starts it.", "Start the server.")


def in_front(patient: Patient) -> Iterator[Diagnosis]:
    """The proxies: what the settings say against what requests brought."""
    told = proxies()
    mend = "Set FINE_TALLY_PROXIES to what stands in front, each sending X-Forwarded-For, and start anew."
    if https() and not told:
        says = "FINE_TALLY_HTTPS is on, and FINE_TALLY_PROXIES says that no proxy stands in front."
        yield wrong("proxies", says, mend)
        return
    if told and not https():
        says = f"FINE_TALLY_PROXIES says {told}, and FINE_TALLY_HTTPS is off: cookies go over http, too."
        yield look("proxies", says, "Set FINE_TALLY_HTTPS=1 where the proxy speaks TLS.")
    seen = forwarded(patient.installation)
    asked = sum(seen.values())
    if asked < FEWEST_ASKED:
        yield well("proxies", f"{told} in front, by the settings; too few requests came from elsewhere to tell.")
        return
    # Whoever asks may write more addresses than there are, and few do: what most requests brought is what is there.
    usual = max(seen, key=lambda one: seen[one])
    if usual != told:
        says = f"{told} in front, by the settings; {seen[usual]:,} of {asked:,} requests came by {usual}."
        yield wrong("proxies", says, mend)
    else:
        yield well("proxies", f"{told} in front, by the settings and by what requests brought.")


def forwarded(installation: Installation) -> dict[int, int]:
    """How many requests from elsewhere came by how many proxies since the last start."""
    return {
        int(sample.labels["addresses"]): int(sample.value)
        for family in counted(installation).collect()
        if family.name == FORWARDED
        for sample in family.samples
        if sample.name.endswith("_total")
    }
