"""A disk that is full: looking works, saving says so, a backup says so in one line, and nothing dies of it."""

from __future__ import annotations

import os
import shutil
import subprocess
from collections.abc import Iterator
from contextlib import suppress
from pathlib import Path

import pytest

from finetally.running.backup import back_up
from finetally.running.installation import Installation
from tests.serving import Visitor, empty_installation, served

DOCUMENT = {"fine_tally": 1, "title": "Ledges", "blocks": []}


@pytest.fixture
def small_disk(tmp_path: Path) -> Iterator[Path]:
    """A disk of its own, of 24 MB: for whoever may mount one."""
    folder = tmp_path / "disk"
    folder.mkdir()
    if shutil.which("mount") is None or os.geteuid() != 0:
        pytest.skip("only root mounts a disk")
    if subprocess.run(["mount", "-t", "tmpfs", "-o", "size=24m", "tmpfs", folder], capture_output=True).returncode:
        pytest.skip("no disk may be mounted here")
    yield folder
    subprocess.run(["umount", folder], check=True)


def fill(folder: Path) -> None:
    """Leave not one byte."""
    for size in (65_536, 100):
        with suppress(OSError), (folder / f"fill-{size}").open("wb", buffering=0) as file:
            while True:
                file.write(bytes(size))


def test_a_full_disk_ends_nothing(small_disk: Path) -> None:
    with served(small_disk / "var") as server:
        who = Visitor(server, "marit")
        before = server.workers()
        fill(small_disk)
        for number in range(8):
            assert who.send("GET", "/sessions").status == 200
            refused = who.send("POST", "/sessions", {"document": {**DOCUMENT, "notes": "y" * 9000}})
            assert (refused.status, "disk" in refused.json()["detail"]) == (507, True), number
        assert server.workers() == before
        told = server.fine_tally("backup")
        assert (told.returncode, len(told.stderr.strip().splitlines())) == (3, 1), told.stderr
        for file in small_disk.glob("fill-*"):
            file.unlink()
        assert who.send("POST", "/sessions", {"document": DOCUMENT}).status == 201


def test_counts_have_their_room_before_they_are_written(tmp_path: Path) -> None:
    with served(tmp_path) as server:
        Visitor(server, "marit")
        files = [one.stat() for one in (tmp_path / ".demo.counts").glob("*.db")]
    assert len(files) == 4
    assert all(one.st_blocks * 512 >= one.st_size >= 1 << 20 for one in files)


def test_half_backups_are_removed_and_told(tmp_path: Path) -> None:
    here = Installation(tmp_path, empty_installation(tmp_path))
    here.backups.mkdir()
    nobody = 2**22 + 1  # no process has this number
    half = [here.backups / f".old.sqlite3.{nobody}.part", here.backups / f".old.sqlite3.{nobody}.part-journal"]
    under_way = here.backups / f".now.sqlite3.{os.getpid()}.part"
    for one in (*half, under_way):
        one.write_bytes(b"half")
    assert sorted(here.half_made) == sorted(half)
    back_up(here)
    assert [one.exists() for one in half] == [False, False]
    assert under_way.exists()
