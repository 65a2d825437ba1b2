"""What is read together is read as it was at one moment."""

from __future__ import annotations

from collections.abc import Iterator
from contextlib import contextmanager
from pathlib import Path
from typing import Any

import pytest
from django.db import OperationalError
from django.db.backends.base.base import BaseDatabaseWrapper
from django.db.utils import ConnectionHandler
from pytest_django import DjangoDbBlocker

from finetally.web.plan import week
from finetally.web.settings import DATABASES
from finetally.web.snapshot import snapshot
from tests.web.conftest import World

COUNT = "SELECT count(*) FROM entry"


def count(of: BaseDatabaseWrapper) -> int:
    with of.cursor() as cursor:
        return int(cursor.execute(COUNT).fetchone()[0])


@pytest.fixture
def two(
    tmp_path: Path, django_db_blocker: DjangoDbBlocker
) -> Iterator[tuple[BaseDatabaseWrapper, BaseDatabaseWrapper]]:
    """Two connections to one database, as the app opens them."""
    settings = {**DATABASES["default"], "NAME": tmp_path / "one.sqlite3"}
    handler = ConnectionHandler({"default": settings, "other": dict(settings)})
    one, other = handler["default"], handler["other"]
    with django_db_blocker.unblock():
        with one.cursor() as cursor:
            cursor.execute("CREATE TABLE entry (day TEXT)")
        yield one, other
        one.close()
        other.close()


def test_what_another_writes_meanwhile_is_not_seen_until_the_end(
    two: tuple[BaseDatabaseWrapper, BaseDatabaseWrapper],
) -> None:
    one, other = two
    with snapshot(one):
        before = count(one)
        with other.cursor() as cursor:
            cursor.execute("INSERT INTO entry VALUES ('2026-12-09')")
        assert (before, count(one)) == (0, 0)
    assert count(one) == 1


def test_a_fault_inside_leaves_the_connection_ready(
    two: tuple[BaseDatabaseWrapper, BaseDatabaseWrapper],
) -> None:
    one, _ = two
    with pytest.raises(OperationalError), snapshot(one), one.cursor() as cursor:
        cursor.execute("SELECT * FROM nothing")
    with snapshot(one):
        assert count(one) == 0


def test_entries_and_loads_of_a_week_are_read_at_one_moment(world: World, monkeypatch: pytest.MonkeyPatch) -> None:
    asked: list[str] = []

    @contextmanager
    def watched() -> Iterator[None]:
        asked.append("begins")
        yield
        asked.append("ends")

    def noting(name: str) -> None:
        real = getattr(week, name)

        def noted(*given: Any) -> Any:
            asked.append(name)
            return real(*given)

        monkeypatch.setattr(week, name, noted)

    monkeypatch.setattr(week, "snapshot", watched)
    noting("entries_between")
    noting("planned_loads_between")
    assert world.send("coach", "GET", "/plan/week?day=2026-12-02").status_code == 200
    assert asked == ["begins", "entries_between", "planned_loads_between", "ends"]
