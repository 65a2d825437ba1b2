"""The wheel: the pages inside, run in an environment of its own with nothing but what it asks for; none without pages."""

from __future__ import annotations

import os
import re
import shutil
import subprocess
import sys
import tomllib
import urllib.request
import venv
from collections.abc import Iterator
from contextlib import contextmanager
from importlib.metadata import distribution
from pathlib import Path

import pytest
from packaging.requirements import Requirement

from tests.conftest import REPOSITORY
from tests.running.test_watch import until
from tests.serving import PASSWORD, free_port

PAGE = "src/finetally/web/static/app/index.html"
PIP = ("-m", "pip", "--disable-pip-version-check", "--quiet")


def sources(into: Path, *, page: bool) -> Path:
    """What a wheel is built from; a page of its own where the front end is not built."""
    left_out = shutil.ignore_patterns("__pycache__", "*.egg-info", *(() if page else ("app",)))
    shutil.copytree(REPOSITORY / "src", into / "src", ignore=left_out)
    for name in ("pyproject.toml", "setup.py", "README.md"):
        shutil.copy(REPOSITORY / name, into)
    if page and not (into / PAGE).is_file():
        (into / PAGE).parent.mkdir(parents=True)
        (into / PAGE).write_text("<!doctype html><title>Fine Tally</title>")
    return into


def build(source: Path, into: Path) -> subprocess.CompletedProcess[str]:
    command = [sys.executable, *PIP, "wheel", "--no-deps", "--no-build-isolation", "--wheel-dir", str(into), "."]
    return subprocess.run(command, cwd=source, capture_output=True, text=True)


def packages() -> Iterator[Path]:
    """What requirements/app.txt names, where it is installed here: files and folders to be linked elsewhere."""
    names = re.findall(r"^([\w.-]+)==", (REPOSITORY / "requirements/app.txt").read_text(), re.MULTILINE)
    assert len(names) > 30
    for name in names:
        found = distribution(name)
        tops = {one.parts[0] for one in found.files or [] if one.parts[0] not in ("..", "__pycache__")}
        yield from (Path(str(found.locate_file(top))) for top in sorted(tops))


@pytest.fixture(scope="module")
def environment(tmp_path_factory: pytest.TempPathFactory) -> Path:
    """An environment with the wheel and the packages it asks for, and nothing else; its `bin`."""
    folder = tmp_path_factory.mktemp("wheel")
    made = build(sources(folder / "source", page=True), folder)
    assert made.returncode == 0, made.stderr
    [wheel] = folder.glob("finetally-*.whl")
    venv.create(folder / "venv", symlinks=True)
    [site] = (folder / "venv/lib").glob("python*/site-packages")
    for path in packages():
        if not (site / path.name).exists():
            (site / path.name).symlink_to(path)
    installing = [
        sys.executable,
        *PIP,
        "--python",
        str(folder / "venv/bin/python"),
        "install",
        "--no-deps",
        str(wheel),
    ]
    subprocess.run(installing, check=True, cwd=folder)
    return folder / "venv/bin"


@contextmanager
def run(fine_tally: Path, home: Path, port: int) -> Iterator[None]:
    """The server, in somebody's home, far from any checkout."""
    process = subprocess.Popen(
        [fine_tally, "run", "--port", str(port)], cwd=home, env=of(home), stderr=subprocess.DEVNULL, stdout=subprocess.DEVNULL
    )  # fmt: skip
    try:
        yield
    finally:
        process.terminate()
        process.wait(60)


def of(home: Path) -> dict[str, str]:
    first = {"FINE_TALLY_SQUAD": "Vale", "FINE_TALLY_NAME": "ada", "FINE_TALLY_PASSWORD": PASSWORD}
    return {"HOME": str(home), "PATH": os.defpath, "LANG": "C.UTF-8", **first}


def test_it_runs_with_the_pages_inside_and_keeps_all_in_the_users_folder(environment: Path, tmp_path: Path) -> None:
    fine_tally, port = environment / "fine-tally", free_port()
    with run(fine_tally, tmp_path, port):

        def page() -> bytes:
            with urllib.request.urlopen(f"http://127.0.0.1:{port}/", timeout=5) as answer:
                return bytes(answer.read())

        assert b"<!doctype html>" in until(page, "a page")
        folder = tmp_path / ".local/share/fine-tally"
        assert {one.name for one in folder.iterdir()} >= {"fine-tally.sqlite3", "secret"}

        def amiss() -> list[str]:
            command = [fine_tally, "doctor"]
            told = subprocess.run(command, env=of(tmp_path), cwd=tmp_path, capture_output=True, text=True)
            return [line for line in told.stdout.splitlines() if line.startswith(("WRONG", "look"))]

        # The process for heavy work comes up after the first answer.
        until(lambda: amiss() == ["WRONG  backup: No backup is known."], "nothing else is amiss")
    # Nothing anywhere else: neither in the home nor beside the program.
    assert [one.name for one in tmp_path.iterdir()] == [".local"]


def test_it_figures_files_too(environment: Path, tmp_path: Path) -> None:
    (tmp_path / "wall.txt").write_text("8 x 20s on 10s off air squats")
    made = subprocess.run(
        [environment / "fine-tally", "figures", "wall.txt"], cwd=tmp_path, capture_output=True, text=True
    )
    assert made.returncode == 0, made.stderr
    assert "3:50" in made.stdout


def test_without_the_pages_no_wheel_is_made(tmp_path: Path) -> None:
    made = build(sources(tmp_path / "source", page=False), tmp_path)
    assert made.returncode != 0
    assert "The front end is not built" in made.stdout + made.stderr
    assert list(tmp_path.glob("*.whl")) == []


def test_beside_it_stands_every_package_it_asks_for_with_its_version_and_hashes() -> None:
    pins = (REPOSITORY / "requirements/app.txt").read_text()
    pinned = dict(re.findall(r"^([a-z0-9-]+)(?:\[[^]]*\])?==(\S+) \\\n    --hash=sha256:", pins, re.MULTILINE))
    project = tomllib.loads((REPOSITORY / "pyproject.toml").read_text())["project"]
    for asked in map(Requirement, project["dependencies"]):
        assert pinned[asked.name.lower()] in asked.specifier
    # What ./tally wheel puts beside it is this list.
    assert 'cp requirements/app.txt "${made%.whl}.requirements.txt"' in (REPOSITORY / "tally").read_text()
