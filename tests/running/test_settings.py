"""What the environment says: read in one place, described, refused where it is wrong; reading it makes nothing."""

from __future__ import annotations

import os
import re
import subprocess
import sys
from pathlib import Path

import pytest

from finetally.environment import KNOWN, OF_TESTS, data_folder, settings_table, unknown_names, wrong_values
from finetally.web.training.management.commands.describe import methods_told
from tests.conftest import REPOSITORY

READ = re.compile(r"FINE_TALLY_[A-Z_]+[A-Z]")


def test_every_variable_that_the_product_reads_is_in_the_table() -> None:
    files = [*(REPOSITORY / "src").rglob("*.py"), REPOSITORY / "tally", REPOSITORY / "frontend/vite.config.ts"]
    found = {name for file in files for name in READ.findall(file.read_text("utf-8"))}
    assert found - {*KNOWN, *OF_TESTS} == set()


def test_the_docs_hold_the_table() -> None:
    assert settings_table() in (REPOSITORY / "docs/settings.md").read_text("utf-8")


def test_the_docs_tell_the_methods_as_the_product_does() -> None:
    assert methods_told() in (REPOSITORY / "docs/methods-plain.md").read_text("utf-8")


def bare(tmp_path: Path, **more: str) -> dict[str, str]:
    kept = {
        name: value for name, value in os.environ.items() if not name.startswith(("FINE_TALLY", "XDG", "DJANGO"))
    }
    return {**kept, "HOME": str(tmp_path), **more}


def test_reading_the_settings_makes_no_file(tmp_path: Path) -> None:
    folder = tmp_path / "kept"
    code = (
        "import django, os; os.environ['DJANGO_SETTINGS_MODULE'] = 'finetally.web.settings'; django.setup(); "
        "from django.conf import settings; assert settings.DATABASES; import finetally.web.urls"
    )
    environment = bare(tmp_path, FINE_TALLY_VAR=str(folder), PYTHONDONTWRITEBYTECODE="1")
    made = subprocess.run(
        [sys.executable, "-c", code], cwd=tmp_path, env=environment, capture_output=True, text=True
    )
    assert made.returncode == 0, made.stderr
    assert list(tmp_path.iterdir()) == []


@pytest.mark.parametrize(
    ("name", "value"),
    [
        ("FINE_TALLY_PROXIES", "one"),
        ("FINE_TALLY_PROXIES", "12"),
        ("FINE_TALLY_HTTPS", "yes"),
        ("FINE_TALLY_LEVEL_SECONDS", "-1"),
        ("FINE_TALLY_LEVEL_SECONDS", "soon"),
        ("FINE_TALLY_LOG", "some"),
        ("FINE_TALLY_WATCH", "8430"),
        ("FINE_TALLY_EMAIL_URL", "http://mail.example.org"),
        ("FINE_TALLY_EMAIL_URL", "smtp://name:a-password-without-a-host"),
    ],
)
def test_a_wrong_value_is_named_with_what_is_allowed(tmp_path: Path, name: str, value: str) -> None:
    [says] = wrong_values({name: value})
    assert says.startswith(f"{name} is wrong: ")
    assert "password" not in says
    command = [sys.executable, "-m", "finetally.cli", "run", "--port", "1"]
    environment = bare(tmp_path, FINE_TALLY_VAR=str(tmp_path), **{name: value})
    made = subprocess.run(command, cwd=REPOSITORY, env=environment, capture_output=True, text=True)
    assert (made.returncode, made.stderr) == (3, f"fine-tally: {says}\n")


def test_what_is_allowed_is_allowed() -> None:
    good = {
        "FINE_TALLY_PROXIES": "2",
        "FINE_TALLY_HTTPS": "0",
        "FINE_TALLY_LEVEL_SECONDS": "0.5",
        "FINE_TALLY_LOG": "problems",
        "FINE_TALLY_WATCH": "127.0.0.1:8430",
    }
    assert list(wrong_values(good)) == list(wrong_values({})) == []
    assert (
        list(wrong_values({"FINE_TALLY_WATCH": "/run/x"})) == list(wrong_values({"FINE_TALLY_WATCH": "off"})) == []
    )
    assert list(unknown_names(good)) == []


def test_where_everything_lies(tmp_path: Path, monkeypatch: pytest.MonkeyPatch) -> None:
    monkeypatch.setenv("FINE_TALLY_VAR", str(tmp_path))
    assert data_folder() == tmp_path
    monkeypatch.delenv("FINE_TALLY_VAR")
    assert data_folder() == REPOSITORY / "var", "in a checkout: its own folder, wherever one stands"
    monkeypatch.setattr("finetally.environment.SOURCE", tmp_path)
    monkeypatch.setenv("XDG_DATA_HOME", str(tmp_path / "data"))
    assert data_folder() == tmp_path / "data/fine-tally"
