"""What is published is what the code says."""

from __future__ import annotations

import json
import shutil
import subprocess
import sys
from pathlib import Path

import jsonschema
import pytest

from finetally.core.formats.published import formats_schema, formats_table
from finetally.core.methods.value import DEFAULT_METHODS, Methods
from finetally.core.session.reading import parse_session
from finetally.core.session.schema import session_schema
from finetally.core.unfold.published import published_tape, tape_schema
from finetally.core.unfold.unfold import unfold
from finetally.shipped import shipped_library
from tests.conftest import CASES, REPOSITORY

TAPE_SCHEMA = json.loads((REPOSITORY / "docs/tape.schema.json").read_text("utf-8"))
SCHEMA = json.loads((REPOSITORY / "docs/session.schema.json").read_text("utf-8"))


def test_session_schema_is_current() -> None:
    assert session_schema() == SCHEMA, "run ./tally describe"


def test_tape_schema_is_current() -> None:
    assert tape_schema() == TAPE_SCHEMA, "run ./tally describe"


def test_the_formats_are_published_as_they_are() -> None:
    written = json.loads((REPOSITORY / "docs/formats.schema.json").read_text("utf-8"))
    assert formats_schema() == written, "run ./tally describe"
    table = (REPOSITORY / "docs/formats.md").read_text("utf-8").partition("## The table\n\n")[2]
    assert formats_table() == table, "run ./tally describe"


def test_the_published_tape_is_as_it_was() -> None:
    golden = json.loads((CASES / "tape.json").read_text("utf-8"))
    tape = unfold(parse_session(golden["session"]), library=shipped_library())
    made = json.loads(json.dumps(published_tape(tape)))
    assert made == golden["tape"]
    jsonschema.validate(made, TAPE_SCHEMA)


@pytest.mark.parametrize("path", sorted((CASES / "sessions").glob("*.json")), ids=lambda p: p.stem)
def test_cases_fit_the_schema(path: Path) -> None:
    jsonschema.validate(json.loads(path.read_text("utf-8"))["session"], SCHEMA)


def test_schema_refuses_what_the_reader_refuses() -> None:
    wrong = {"fine_tally": 1, "title": "x", "blocks": [{"clock": {"kind": "intervals", "work_s": -1}, "steps": []}]}
    with pytest.raises(jsonschema.ValidationError):
        jsonschema.validate(wrong, SCHEMA)


def test_methods_survive_their_file() -> None:
    written = json.loads(DEFAULT_METHODS.model_dump_json(by_alias=True))
    assert Methods.model_validate(written) == DEFAULT_METHODS


@pytest.mark.parametrize(("name", "value"), json.loads(DEFAULT_METHODS.model_dump_json(by_alias=True)).items())
def test_every_setting_stands_in_the_methods_with_its_default(name: str, value: object) -> None:
    text = (REPOSITORY / "docs/methods.md").read_text("utf-8")
    assert f"| `{name}` | `{json.dumps(value)}` |" in text


def test_the_core_imports_no_framework() -> None:
    linter = Path(sys.executable).with_name("lint-imports")
    found = str(linter) if linter.exists() else shutil.which("lint-imports")
    assert found is not None
    done = subprocess.run([found, "--no-cache"], cwd=REPOSITORY, capture_output=True, text=True, check=False)
    assert done.returncode == 0, done.stdout
