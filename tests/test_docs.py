"""Docs that are true: every command in them is one that there is, and those of whoever keeps the machine are run here.

A command is a line of a block marked `sh`, an indented line that begins with `./tally`, or a piece of code in a sentence that
begins with `./tally` or `fine-tally`.
"""

from __future__ import annotations

import configparser
import os
import re
import shlex
import shutil
import subprocess
import sys
import time
from collections.abc import Iterator
from pathlib import Path

import pytest

from finetally.cli import main, parser
from finetally.environment import KNOWN, wrong_values
from tests.conftest import REPOSITORY
from tests.serving import PASSWORD, empty_installation

DOCS = [REPOSITORY / "README.md", *REPOSITORY.glob("CONTRIBUTING.md"), *sorted((REPOSITORY / "docs").glob("*.md"))]
SERVER = REPOSITORY / "docs/server"
BLOCK = re.compile(r"```sh\n(.*?)```", re.DOTALL)
INDENTED = re.compile(r"^    (\./tally .*)$", re.MULTILINE)
IN_A_SENTENCE = re.compile(r"`((?:\./tally|fine-tally) [^`]+)`")


def commands(text: str) -> Iterator[str]:
    """Every command of a page, without what is said of it behind a `#`."""
    found = [line for block in BLOCK.findall(text) for line in block.splitlines()]
    for line in [*found, *INDENTED.findall(text), *IN_A_SENTENCE.findall(text)]:
        command = re.sub(r"\s+#.*$", "", line).strip()
        if command:
            yield command


WRITTEN = sorted({(path.name, one) for path in DOCS for one in commands(path.read_text("utf-8"))})
TALLY = (REPOSITORY / "tally").read_text("utf-8")
OWN_OF_TALLY = set(re.findall(r"^  ([\w |-]+)\)", TALLY[TALLY.rindex("case $command in") :], re.MULTILINE))
HANDED_OVER = next(one for one in OWN_OF_TALLY if "figures" in one).split(" | ")
KNOWN_TO_TALLY = {word for one in OWN_OF_TALLY for word in one.split(" | ")}
TAKE_SOMETHING = {"account", "figures", "learn", "replay", "restore", "sheet", "simulate-watch"}
MACHINE = {"apt", "useradd", "python3", "install", "systemctl", "curl", "/opt/fine-tally/bin/pip"}
"""Commands of the machine, which change it: tried by hand on one of its own. What they take is looked at below."""


def filled_in(command: str) -> list[str]:
    """The words of a command with its options written out, and something for what stands in capitals."""
    written_out = re.sub(r"\[([^\]]*)\]", r"\1", command).replace("…", "").replace("|", " ")
    return ["7" if word == "N" else word for word in shlex.split(written_out)]


def test_there_are_commands() -> None:
    assert len(WRITTEN) > 40
    assert {"run", "demo", "doctor", "upgrade"} <= KNOWN_TO_TALLY


@pytest.mark.parametrize(("page", "command"), WRITTEN, ids=[" ".join(one) for one in WRITTEN])
def test_every_command_is_one_that_there_is(page: str, command: str) -> None:
    words = filled_in(command)
    if words[0] == "./tally":
        assert words[1] in KNOWN_TO_TALLY, f"{page}: {command}"
    if words[0] == "fine-tally" or (words[0] == "./tally" and words[1] in (*HANDED_OVER, "run", "demo")):
        if words[1:2] == ["account"] and "create" in words and "reset" in words:
            words = ["fine-tally", "account", "list"]
        if len(words) == 2 and words[1] in TAKE_SOMETHING:
            return  # named in a sentence, not to be typed
        parser().parse_args(words[1:])
    elif words[0] != "./tally":
        assert words[0] in MACHINE, f"{page}: {command}"
    for word in words[1:]:
        if word.startswith("docs/"):
            assert (REPOSITORY / word).is_file()


class Keeper:
    """Whoever keeps a machine, and does what docs/running.md says, line by line."""

    def __init__(self, folder: Path) -> None:
        self.folder, self.stick = folder / "kept", folder / "stick"
        self.stick.mkdir()
        empty_installation(self.folder)

    def does(self, command: str) -> subprocess.CompletedProcess[str]:
        words = [one.replace("/media/stick", str(self.stick)) for one in shlex.split(command)]
        words = [one.replace("/var/lib/fine-tally", str(self.folder)) for one in words]
        environment = {**os.environ, "FINE_TALLY_VAR": str(self.folder)}
        environment.pop("FINE_TALLY_DATABASE", None)
        run = [sys.executable, "-m", "finetally.cli", *words[1:]]
        return subprocess.run(run, cwd=REPOSITORY, env=environment, capture_output=True, text=True)


SAYS = {
    "fine-tally doctor": (1, r"WRONG  backup: No backup is known"),
    "fine-tally backup": (0, "the database and the secret"),
    "fine-tally backup --keep 14": (0, "the database and the secret"),
    "fine-tally backup /media/stick/ridge.sqlite3": (0, "the database and the secret"),
    "fine-tally restore /media/stick/ridge.sqlite3": (0, "is what .* holds"),
    "fine-tally upgrade": (0, "Nothing to do"),
    "fine-tally restore /var/lib/fine-tally/backups/fine-tally-before-migration-20261129-061542.sqlite3": (
        3,
        "no file",
    ),
    "fine-tally account list": (0, "ada"),
    "fine-tally account reset ada": (0, "Good for a day"),
    'fine-tally account create bo --squad "Vale Search" --role coach': (0, "Good for a day"),
}
"""What each command says to its keeper: its status, and words of what it tells. A backup of that name there is not."""


def test_whoever_keeps_the_machine_can_do_it_all(tmp_path: Path) -> None:
    text = (REPOSITORY / "docs/running.md").read_text("utf-8")
    blocks = "".join(f"```sh\n{one}```" for one in BLOCK.findall(text))
    written = list(dict.fromkeys(one for one in commands(blocks) if one.startswith("fine-tally ")))
    assert sorted(written) == sorted(SAYS)
    keeper = Keeper(tmp_path)
    assert keeper.does('fine-tally account create ada --squad "Vale Search" --new-squad').returncode == 0
    for command in written:
        if command.startswith("fine-tally backup"):
            # A backup has its second in its name, and overwrites none.
            time.sleep(1.1)
        made = keeper.does(command)
        status, says = SAYS[command]
        assert made.returncode == status, (command, made.stdout, made.stderr)
        assert re.search(says, made.stdout + made.stderr), (command, made.stdout, made.stderr)


@pytest.mark.parametrize("command", ["figures", "sheet", "simulate-watch"])
def test_commands_that_take_a_wall(command: str, tmp_path: Path, capsys: pytest.CaptureFixture[str]) -> None:
    (tmp_path / "wall.txt").write_text("8 x 20s on 10s off air squats")
    assert main([command, str(tmp_path / "wall.txt")]) == 0
    assert {"figures": "3:50", "sheet": "0:20", "simulate-watch": "time_s,hr"}[command] in capsys.readouterr().out


def of_file(path: Path) -> dict[str, str]:
    """The variables of a file of settings, as the shell and systemd read them."""
    lines = [one for one in path.read_text().splitlines() if one and not one.startswith("#")]
    return {name: shlex.split(value)[0] for name, _, value in (one.partition("=") for one in lines)}


def test_the_sample_of_settings_is_right() -> None:
    told = of_file(SERVER / "fine-tally.env")
    assert set(told) <= set(KNOWN)
    assert list(wrong_values(told)) == []
    assert told["FINE_TALLY_PASSWORD"] != PASSWORD


@pytest.mark.parametrize("name", ["fine-tally.service", "fine-tally-backup.service"])
def test_the_units_start_what_there_is(name: str) -> None:
    unit = configparser.ConfigParser(interpolation=None, strict=False)
    unit.optionxform = str  # type: ignore[assignment,method-assign]
    unit.read(SERVER / name)
    service = unit["Service"]
    program, *words = shlex.split(service["ExecStart"])
    assert program == "/opt/fine-tally/bin/fine-tally"
    parser().parse_args(words)
    assert service["EnvironmentFile"] == "/etc/fine-tally.env"
    assert of_file(SERVER / "fine-tally.env")["FINE_TALLY_VAR"] == f"/var/lib/{service['StateDirectory']}"


def test_both_proxies_tell_what_is_asked_of_them() -> None:
    nginx, caddy = (SERVER / "nginx.conf").read_text(), (SERVER / "Caddyfile").read_text()
    assert "X-Forwarded-Proto https" in nginx
    assert "X-Forwarded-For" in nginx
    assert "access_log /var/log/nginx/fine-tally.log combined if=$fine_tally_logged" in nginx
    assert len(re.findall(r"location /feeds/ \{[^}]*error_log /dev/null", nginx)) == 1
    assert caddy.count('request>uri regexp "^/feeds/.*"') == 2
    assert nginx.count("127.0.0.1:8420") == 2


CHECKERS = [
    ("systemd-analyze", ["verify", "--man=no", "fine-tally-backup.timer"]),
    ("caddy", ["validate", "--adapter", "caddyfile", "--config", "Caddyfile"]),
]


@pytest.mark.parametrize(("program", "words"), CHECKERS, ids=[one[0] for one in CHECKERS])
def test_samples_by_the_programs_they_are_for(program: str, words: list[str], tmp_path: Path) -> None:
    if shutil.which(program) is None:
        pytest.skip(f"{program} is not on this machine")
    for path in SERVER.iterdir():
        # What the unit starts is not here; any program will do.
        text = path.read_text().replace("/opt/fine-tally/bin/fine-tally", "/bin/true")
        (tmp_path / path.name).write_text(text)
    made = subprocess.run([program, *words], cwd=tmp_path, capture_output=True, text=True)
    assert made.returncode == 0, made.stderr


@pytest.mark.parametrize("path", DOCS, ids=[one.name for one in DOCS])
def test_links_lead_somewhere(path: Path) -> None:
    for link in re.findall(r"\]\(([^)\s]+)\)", path.read_text("utf-8")):
        target, _, place = link.partition("#")
        if "://" in target:
            continue
        there = (path.parent / target) if target else path
        assert there.exists(), f"{path.name}: {link}"
        if place and there.suffix == ".md":
            heads = re.findall(r"^#+ (.*)$", there.read_text("utf-8"), re.MULTILINE)
            slugs = {re.sub(r"[^\w -]", "", one.lower()).replace(" ", "-") for one in heads}
            assert place in slugs, f"{path.name}: {link}"
