"""The command line: figures out, errors with file and place, status 2."""

from __future__ import annotations

import json
from pathlib import Path
from typing import Any

import pytest

from finetally.cli import main
from tests.conftest import CASES

GOOD = json.loads((CASES / "sessions/whole-session.json").read_text("utf-8"))


@pytest.fixture
def good(tmp_path: Path) -> Path:
    path = tmp_path / "good.json"
    path.write_text(json.dumps(GOOD["session"]))
    return path


def test_json_is_one_object_a_line(good: Path, tmp_path: Path, capsys: pytest.CaptureFixture[str]) -> None:
    methods = tmp_path / "bare.json"
    methods.write_text('{"fatigue": 0, "change": {"step": 0, "kit": 0, "down": 0, "up": 0}, "breathers": 0}')
    assert main(["figures", str(good), str(good), "--methods", str(methods), "--json"]) == 0
    lines = capsys.readouterr().out.splitlines()
    assert [json.loads(line)["total_s"] for line in lines] == [2280, 2280]
    assert json.loads(lines[0])["effort"]["rpe"] == pytest.approx(6.039, abs=0.02)


def test_table_names_the_parts(good: Path, capsys: pytest.CaptureFixture[str]) -> None:
    assert main(["figures", str(good)]) == 0
    out = capsys.readouterr().out
    assert "counted parts" in out
    assert "warm-up" in out
    assert "volume" in out


def test_given_reaches_the_figures(good: Path, tmp_path: Path, capsys: pytest.CaptureFixture[str]) -> None:
    given = tmp_path / "given.json"
    given.write_text('{"person": {"pace_factor": 2}}')
    main(["figures", str(good), "--json"])
    main(["figures", str(good), "--given", str(given), "--json"])
    plain, slow = (json.loads(line)["reps"] for line in capsys.readouterr().out.splitlines())
    assert slow["estimated"] < plain["estimated"]


BAD = [
    ("wrong-value", '{"fine_tally": 1, "title": "x", "blocks": [{"clock": {"kind": "amrap", "window_s": "a"}}]}',
     "blocks[0].clock.window_s"),
    ("unknown-clock", '{"fine_tally": 1, "title": "x", "blocks": [{"clock": {"kind": "sand"}, "steps": []}]}',
     "blocks[0].clock.kind"),
    ("noise", "\x00\x01" * 5_000_001, "(document)"),
    ("a-million-rounds", '{"fine_tally": 1, "title": "x", "blocks": [{"rounds": 1000000, "clock": '
     '{"kind": "intervals", "work_s": 1}, "steps": [{"movement": "burpee"}]}]}', "blocks[0].rounds"),
    ("empty", "", "(document)"),
]  # fmt: skip


@pytest.mark.parametrize(("text", "place"), [b[1:] for b in BAD], ids=[b[0] for b in BAD])
def test_a_bad_file_is_named_and_the_good_one_still_figured(
    text: str, place: str, good: Path, tmp_path: Path, capsys: pytest.CaptureFixture[str]
) -> None:
    bad = tmp_path / "bad.json"
    bad.write_text(text)
    assert main(["figures", str(bad), str(good), "--json"]) == 2
    captured = capsys.readouterr()
    assert f"{bad}: {place}: found" in captured.err
    assert "allowed" in captured.err
    assert len(captured.out.splitlines()) == 1


def test_a_missing_file_is_told(tmp_path: Path, capsys: pytest.CaptureFixture[str]) -> None:
    assert main(["figures", str(tmp_path / "none.json")]) == 2
    assert "none.json" in capsys.readouterr().err


def test_wrong_methods_name_the_setting(good: Path, tmp_path: Path, capsys: pytest.CaptureFixture[str]) -> None:
    methods = tmp_path / "m.json"
    methods.write_text('{"fatigue": "much", "hue": 3}')
    assert main(["figures", str(good), "--methods", str(methods)]) == 2
    err = capsys.readouterr().err
    assert "fatigue: found" in err
    assert "hue: found" in err


# The floor: sheets and runs.


def printed_of(capsys: pytest.CaptureFixture[str]) -> Any:
    return json.loads(capsys.readouterr().out)


def test_a_sheet_is_printed_as_beats(good: Path, capsys: pytest.CaptureFixture[str]) -> None:
    assert main(["sheet", str(good), "--json"]) == 0
    told = printed_of(capsys)
    assert told["fine_tally_sheet"] == 1
    assert {beat["kind"] for beat in told["beats"]} == {"work", "rest", "talk"}
    assert main(["sheet", str(good)]) == 0
    assert "lasts" in capsys.readouterr().out


def test_a_run_is_played(tmp_path: Path, capsys: pytest.CaptureFixture[str]) -> None:
    run = tmp_path / "run.json"
    run.write_text(
        json.dumps(
            {"fine_tally_run": 1, "session": GOOD["session"], "events": [{"t": 0, "do": "start"}], "until": 45}
        )
    )
    assert main(["replay", str(run), "--json"]) == 0
    told = printed_of(capsys)
    assert (told["over"], told["now"]["mode"], told["played"][0]["end"]) == (False, "playing", 30)
    assert main(["replay", str(run)]) == 0
    assert "playing" in capsys.readouterr().out


@pytest.mark.parametrize(
    ("text", "place"),
    [
        ("{", "(document)"),
        ('{"fine_tally_run": 2}', "fine_tally_run"),
        ('{"fine_tally_run": 1, "session": {}, "events": [{"t": 0, "do": "jump"}]}', "events[0]"),
        ('{"fine_tally_run": 1, "session": {"fine_tally": 1, "title": "x"}}', "blocks"),
    ],
    ids=["no JSON", "another version", "an unknown event", "no session"],
)
def test_a_bad_run_is_told_with_its_place(
    tmp_path: Path, capsys: pytest.CaptureFixture[str], text: str, place: str
) -> None:
    run = tmp_path / "bad.json"
    run.write_text(text)
    assert main(["replay", str(run)]) == 2
    told = capsys.readouterr().err
    assert f"{run}: {place}" in told
