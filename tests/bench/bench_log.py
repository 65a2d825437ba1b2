"""How long the log takes: a year of 40 people and six sessions a week. Run with ./tally bench; not a test."""

from __future__ import annotations

from typing import Any

import pytest

from finetally.web.plan.models import Entry
from tests.bench.bench_figures import quick_passwords, world
from tests.web.conftest import World
from tests.web.logbooks import a_year

__all__ = ["quick_passwords", "world"]


@pytest.mark.parametrize("what", ["list", "entry", "person"])
def test_a_year_of_forty_people(benchmark: Any, world: World, what: str) -> None:
    """The list, an entry's page and a person's: under 300 ms each."""
    person = a_year(world, 40, 6, 52)[0]
    entry = Entry.objects.filter(squad=world.squad, title="Window").order_by("-day").first()
    assert entry is not None
    path = {"list": "", "entry": f"/entries/{entry.pk}", "person": f"/people/{person.public_id}"}[what]
    client = world.client("coach")
    answer = benchmark(client.get, f"/api/log{path}?squad={world.squad.pk}")
    assert answer.status_code == 200
