"""Who asks, and what it costs to know: few questions to the database, and never an answer that is out of date."""

from __future__ import annotations

from datetime import date, timedelta
from typing import Any

import pytest
from django.db import connection, transaction
from django.test.utils import CaptureQueriesContext

from finetally.web.plan.models import Entry
from finetally.web.squads.figuring_context import context_of
from finetally.web.squads.models import Membership, Role, Squad, SquadMovement
from tests.web.conftest import DOCUMENT, World
from tests.web.logbooks import a_year

MONDAY = date(2031, 3, 3)
CARRY = {"key": "wet-haul", "name": "wet haul", "patterns": {"carry": 1.0}}


def asked(world: World, who: str, method: str, path: str, body: Any = None) -> int:
    """How many questions an answer takes, once what processes hold is there."""
    client = world.client(who)
    call = getattr(client, method)
    arguments: dict[str, Any] = {"content_type": "application/json"} if body is None else {
        "data": body, "content_type": "application/json",
    }  # fmt: skip
    assert call(f"/api{path}", **arguments).status_code == 200
    with CaptureQueriesContext(connection) as queries:
        assert call(f"/api{path}", **arguments).status_code == 200
    return len(queries)


def test_figures_ask_for_the_cookie_and_for_whom_it_stands(world: World) -> None:
    SquadMovement.objects.create(squad=world.squad, key="wet-haul", definition=CARRY)
    assert asked(world, "coach", "post", "/figures", {"document": DOCUMENT}) == 2


def test_a_week_asks_as_much_however_many_entries_there_are(world: World) -> None:
    few = asked(world, "coach", "get", f"/plan/week?day={MONDAY}")
    for n in range(60):
        day = MONDAY - timedelta(days=n)
        Entry.objects.create(squad=world.squad, day=day, title="Hike", minutes=60, effort=3, summary={"load": 180})
    assert asked(world, "coach", "get", f"/plan/week?day={MONDAY}") == few <= 9


LOG_PAGES = ("/log", "/log/entries/{entry}", "/log/people/{person}", "/log/entries/{entry}/expected")


@pytest.mark.parametrize("path", LOG_PAGES)
def test_the_log_asks_as_much_however_long_it_is_and_however_many_people_there_are(world: World, path: str) -> None:
    counts = []
    for people, each_week, weeks in ((3, 2, 2), (9, 4, 6)):
        with transaction.atomic():
            person = a_year(world, people, each_week, weeks)[0]
            entry = Entry.objects.filter(squad=world.squad, title="Window").order_by("-day").first()
            assert entry is not None
            where = path.format(entry=entry.pk, person=person.public_id)
            counts.append(asked(world, "coach", "get", f"{where}?squad={world.squad.pk}"))
            transaction.set_rollback(True)
    assert counts[0] == counts[1] <= 24


def test_a_right_that_is_taken_away_is_gone_at_the_next_question(world: World) -> None:
    client = world.client("coach")
    path = f"/api/plan/week?day={MONDAY}&squad={world.squad.pk}"
    assert client.get(path).status_code == 200
    Membership.objects.filter(user=world.users["coach"]).update(role=Role.ATHLETE)
    entry = {"title": "Hike", "day": MONDAY.isoformat(), "minutes": 60, "effort": 3, "squad": world.squad.pk}
    assert client.post("/api/plan/entries", entry, content_type="application/json").status_code == 403
    Membership.objects.filter(user=world.users["coach"]).delete()
    assert client.get(path).status_code == 404


@pytest.mark.parametrize("who", ["coach", "nobodys"])
def test_an_account_that_was_closed_is_signed_out(world: World, who: str) -> None:
    client = world.client(who)
    assert client.get("/api/me").status_code == 200
    world.users[who].is_active = False
    world.users[who].save()
    assert client.get("/api/me").status_code == 401


def test_another_password_signs_out_what_was_signed_in_before(world: World) -> None:
    client = world.client("coach")
    assert client.get("/api/me").status_code == 200
    world.users["coach"].set_password("another-long-password")
    world.users["coach"].save()
    assert client.get("/api/me").status_code == 401


def known(squad: Squad) -> set[str]:
    return set(context_of(Squad.objects.get(pk=squad.pk)).own)


def test_own_movements_are_held_until_one_changes(world: World) -> None:
    squad = world.squad
    with CaptureQueriesContext(connection) as queries:
        assert known(squad) == set()
    assert len(queries) == 1, "who never had any is not asked for them"
    made = SquadMovement.objects.create(squad=squad, key="wet-haul", definition=CARRY)
    assert known(squad) == {"wet-haul"}
    with CaptureQueriesContext(connection) as queries:
        assert known(squad) == {"wet-haul"}
    assert len(queries) == 1
    made.definition = {**CARRY, "name": "long haul"}
    made.save()
    found = context_of(Squad.objects.get(pk=squad.pk)).library.get("wet-haul")
    assert found is not None
    assert found.name == "long haul"
    made.delete()
    assert known(squad) == set()


def test_movements_that_were_rolled_back_were_never_known(world: World) -> None:
    """The next change has a version of its own: what was read before the roll-back is not taken for it."""
    squad = world.squad
    with transaction.atomic():
        SquadMovement.objects.create(squad=squad, key="wet-haul", definition=CARRY)
        assert known(squad) == {"wet-haul"}
        transaction.set_rollback(True)
    assert known(squad) == set()
    SquadMovement.objects.create(squad=squad, key="dry-haul", definition={**CARRY, "key": "dry-haul"})
    assert known(squad) == {"dry-haul"}
