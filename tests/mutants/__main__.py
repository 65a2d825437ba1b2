"""Changes the source in one small place after another and looks which changes no test notices.

Run as `./tally mutants`. Works on copies in var/mutants; what each mutant came to is written to var/mutants/report.jsonl.
"""

from __future__ import annotations

import argparse
import json
import os
import queue
import resource
import shutil
import subprocess
import sys
import threading
from dataclasses import asdict
from pathlib import Path

from tests.conftest import REPOSITORY
from tests.mutants.chosen import TestChoice
from tests.mutants.draw import Mutant, sample

FOLDER = REPOSITORY / "var/mutants"
COPIED = ["src", "tests", "docs", "pyproject.toml", "tally", "CHANGELOG.md", "README.md"]
PACKAGES = ["src/finetally/core", "src/finetally/web"]
TESTS = ["tests/core", "tests/web", "tests/test_cli.py"]
MEMORY = 4 << 30
"""Bytes that the tests of one mutant may take: a loop that never ends fills no machine."""
HANGS_S = 120
"""No whole test takes so many seconds."""


def copy_of(name: str, of: Path = REPOSITORY) -> Path:
    """A fresh copy of what the tests need, with the source of another copy."""
    root = FOLDER / name
    shutil.rmtree(root, ignore_errors=True)
    root.mkdir(parents=True)
    for one in COPIED:
        source = (of if one == "src" else REPOSITORY) / one
        if source.is_dir():
            shutil.copytree(source, root / one, ignore=shutil.ignore_patterns("__pycache__", "app"))
        else:
            shutil.copy(source, root / one)
    return root


def run(root: Path, *arguments: str) -> subprocess.CompletedProcess[str]:
    """pytest in a copy, with the copy's own source."""
    return subprocess.run(
        [sys.executable, "-m", "pytest", "-o", f"faulthandler_timeout={HANGS_S}", *arguments],
        cwd=root,
        env={**os.environ, "PYTHONPATH": str(root / "src"), "PYTHONDONTWRITEBYTECODE": "1"},
        preexec_fn=lambda: resource.setrlimit(resource.RLIMIT_AS, (MEMORY, MEMORY)),
        capture_output=True,
        text=True,
    )


def measure() -> TestChoice:
    """Run all tests once and see where each comes by. Exits with their words where one fails."""
    root = copy_of("whole")
    (root / ".coveragerc").write_text("[run]\nsource_pkgs = finetally\n")
    whole = run(root, *TESTS, "-n", "2", "--dist", "loadfile", "--tb=short", "--cov", "--cov-context=test", "--cov-report=",
                "--junitxml=times.xml", "-o", "junit_duration_report=call")  # fmt: skip
    if whole.returncode:
        sys.exit(whole.stdout)
    return measured()


def measured() -> TestChoice:
    root = FOLDER / "whole"
    return TestChoice(root / ".coverage", root / "times.xml", root)


def is_caught(root: Path, mutant: Mutant, tests: list[str]) -> bool:
    """Whether a test fails when the copy has the mutant in it. The copy is whole again afterwards."""
    path = root / mutant.path
    original = path.read_text("utf-8")
    (root / "tests.txt").write_text("\n".join(tests))
    path.write_text(mutant.source(original), "utf-8")
    try:
        return run(root, "-x", "@tests.txt").returncode != 0
    finally:
        path.write_text(original, "utf-8")


def hunt(mutants: list[Mutant], choice: TestChoice | None, tests: list[str]) -> list[Mutant]:
    """The mutants that pass, the source being that of which the choice of tests was made; two are tried at a time.

    Writes each to the report as it is known.
    """
    waiting: queue.SimpleQueue[Mutant] = queue.SimpleQueue()
    for mutant in mutants:
        waiting.put(mutant)
    survivors: list[Mutant] = []
    report = FOLDER / ("again.jsonl" if choice is None else "report.jsonl")
    report.write_text("")
    told = threading.Lock()

    def work(root: Path) -> None:
        while True:
            try:
                mutant = waiting.get_nowait()
            except queue.Empty:
                return
            tried = tests if choice is None else choice.of(mutant)
            caught = is_caught(root, mutant, tried)
            change = mutant.difference((root / mutant.path).read_text("utf-8"))
            with told:
                if not caught:
                    survivors.append(mutant)
                with report.open("a", encoding="utf-8") as file:
                    file.write(
                        json.dumps({"caught": caught, **asdict(mutant), "tests": len(tried), "change": change})
                        + "\n"
                    )
                print(
                    "caught  " if caught else "PASSED  ", f"{mutant.path}:{mutant.first_line}", change, flush=True
                )

    source = REPOSITORY if choice is None else FOLDER / "whole"
    hands = [threading.Thread(target=work, args=[copy_of(name, source)]) for name in ("first", "second")]
    for hand in hands:
        hand.start()
    for hand in hands:
        hand.join()
    return survivors


def last_survivors() -> list[Mutant]:
    """What passed in the last run and can still be made of the source as it is now."""
    found = [json.loads(line) for line in (FOLDER / "report.jsonl").read_text("utf-8").splitlines()]
    survivors = []
    for one in found:
        if not one["caught"]:
            mutant = Mutant(**{key: one[key] for key in Mutant.__dataclass_fields__})
            try:
                same = mutant.difference((REPOSITORY / mutant.path).read_text("utf-8")) == one["change"]
            except ValueError:
                same = False
            if same:
                survivors.append(mutant)
            else:
                print("gone    ", f"{mutant.path}:{mutant.first_line}", one["change"])
    return survivors


def main() -> None:
    told = argparse.ArgumentParser(prog="./tally mutants", description=__doc__)
    told.add_argument("--number", type=int, default=100, help="how many are drawn (100)")
    told.add_argument("--seed", type=int, default=16, help="another seed draws others (16)")
    told.add_argument("--measured", action="store_true", help="take where tests come by from the last run")
    told.add_argument(
        "--again", nargs="+", metavar="TESTS", help="only those that passed last time, with these tests"
    )
    options = told.parse_args()
    if options.again:
        mutants, choice = last_survivors(), None
    else:
        choice = measured() if options.measured else measure()
        mutants = sample(FOLDER / "whole", PACKAGES, options.number, options.seed)
    survivors = hunt(mutants, choice, options.again or [])
    print(f"{len(mutants) - len(survivors)} of {len(mutants)} caught")


if __name__ == "__main__":
    main()
