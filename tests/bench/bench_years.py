"""Whether a file stays as quick as it grows: many squads, three years of each. Run as `./tally bench years [squads]`.

Each row: what was asked, by how many questions to the database, how long it took (median of nine, over three squads), beside
the loop figure.
"""

from __future__ import annotations

import gc
import json
import os
import statistics
import sys
import tempfile
import time
from datetime import timedelta
from pathlib import Path
from typing import Any

SQUADS = 200
TRIES = 3
SIZES = (1, 20, 200)


def loop() -> float:
    begun, total = time.perf_counter(), 0
    for n in range(10_000_000):
        total += n
    return time.perf_counter() - begun


def say(text: str) -> None:
    sys.stdout.write(text + "\n")
    sys.stdout.flush()


def asked(squad_id: int, user: Any) -> dict[str, tuple[float, int]]:
    """What a coach looks at, each: milliseconds, and questions to the database."""
    from django.db import connection
    from django.test import Client
    from django.test.utils import CaptureQueriesContext

    from finetally.web.plan.models import Entry
    from finetally.web.squads.models import Squad
    from tests.bench.years import last_day

    squad = Squad.objects.get(pk=squad_id)
    client = Client()
    client.force_login(user)
    entry = Entry.objects.filter(squad=squad, results__isnull=False).order_by("-day").first()
    person, day = squad.people.order_by("pk").first(), last_day(squad)
    assert entry is not None
    assert person is not None
    paths = {
        "who I am": "/me",
        "a week, three years behind it": f"/plan/week?day={day + timedelta(weeks=60)}",
        "a season of 52 weeks": f"/plan/season?day={day}",
        "the list of sessions": "/sessions",
        "the log's list": "/log",
        "a logged entry": f"/log/entries/{entry.pk}",
        "a person's log": f"/log/people/{person.public_id}",
        "people": "/people",
    }
    made = {}
    for name, path in paths.items():
        whole = f"/api{path}{'&' if '?' in path else '?'}squad={squad_id}"
        answer = client.get(whole)
        assert answer.status_code == 200, (whole, answer.content[:300])
        with CaptureQueriesContext(connection) as queries:
            client.get(whole)
            questions = len(queries)
        took = []
        for _ in range(TRIES):
            begun = time.perf_counter()
            client.get(whole)
            took.append(1000 * (time.perf_counter() - begun))
        made[name] = (statistics.median(took), questions)
    return made


def measure(squads: int) -> None:
    """One size of the file: every question, for three squads."""
    from django.contrib.auth import get_user_model

    from finetally.web.squads.models import Membership, Squad

    before = loop()
    chosen = list(Squad.objects.order_by("pk"))[:: max(1, squads // 3)][:3]
    found: dict[str, list[tuple[float, int]]] = {}
    for squad in chosen:
        user = get_user_model().objects.get(
            pk=Membership.objects.filter(squad=squad).values_list("user", flat=True)[0]
        )
        for name, row in asked(squad.pk, user).items():
            found.setdefault(name, []).append(row)
    for name, rows in found.items():
        took, questions = statistics.median(one[0] for one in rows), rows[0][1]
        say(f"{squads:4d} squads | {name}: {took:.0f} ms, {questions} questions")
    say(f"{squads:4d} squads | loop {before:.2f} to {loop():.2f} s")


def sizes(database: Path) -> None:
    """How large it is, and what of it is what."""
    from django.db import connection

    from finetally.web.plan.models import Entry
    from finetally.web.squads.models import Person, Squad

    with connection.cursor() as cursor:
        cursor.execute("PRAGMA wal_checkpoint(TRUNCATE)")
    squads = Squad.objects.count()
    size = database.stat().st_size
    say(
        f"{squads} squads, {Person.objects.count()} people, {Entry.objects.count()} entries: {size / 1e6:,.0f} MB, {size / squads / 1e6:.1f} MB a squad"
    )


def main() -> None:
    """Fill a file of its own, and ask at each size."""
    most = int(sys.argv[1]) if len(sys.argv) > 1 else SQUADS
    with tempfile.TemporaryDirectory(prefix="fine-tally-years-") as folder:
        os.environ.update(
            FINE_TALLY_VAR=folder, DJANGO_SETTINGS_MODULE="finetally.web.settings", FINE_TALLY_LOG="problems"
        )
        import django

        django.setup()
        from django.conf import settings
        from django.core.management import call_command

        from tests.bench.years import more_squads, three_years

        settings.ALLOWED_HOSTS = [*settings.ALLOWED_HOSTS, "testserver"]
        call_command("migrate", verbosity=0)
        call_command("demo", verbosity=0)
        # The server's own: what is there stays, and is not searched for garbage again and again.
        gc.freeze()
        gc.set_threshold(5_000)
        begun = time.perf_counter()
        three_years()
        say(f"one squad made in {time.perf_counter() - begun:.0f} s")
        made = 1
        for size in [one for one in SIZES if one <= most] + ([most] if most not in SIZES else []):
            for _ in more_squads(made, size):
                pass
            made = max(made, size)
            sizes(Path(folder) / "fine-tally.sqlite3")
            measure(size)
        say(json.dumps({"filled and asked in s": round(time.perf_counter() - begun)}))


if __name__ == "__main__":
    main()
