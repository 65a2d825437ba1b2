"""The commands of whoever keeps the machine: run, demo, backup, restore."""

from __future__ import annotations

import argparse
import os
import sys
from collections.abc import Callable
from pathlib import Path

from finetally.running.backup import back_up, restore
from finetally.running.installation import RefusedError, current_installation, hold_database
from finetally.running.start import known_migrations, migrate, serve, use_django

REFUSED = 3
PORT = 8420
DEMO_DATABASE = "demo.sqlite3"


def _run(arguments: argparse.Namespace) -> None:
    use_django()
    from django.core.management import CommandError, call_command

    installation = current_installation()
    migrate(installation)
    try:
        call_command("first_account")
    except CommandError as error:
        raise RefusedError(str(error)) from None
    serve(installation, arguments.port)


def _demo(arguments: argparse.Namespace) -> None:
    os.environ["FINE_TALLY_DATABASE"] = DEMO_DATABASE
    installation = current_installation()
    if arguments.fresh:
        os.close(hold_database(installation))
        for path in (installation.database, *installation.beside):
            path.unlink(missing_ok=True)
        # Empty, not missing: begun anew on purpose, which no start takes for a restore that was broken off.
        installation.database.touch()
    use_django()
    from django.core.management import call_command

    migrate(installation)
    call_command("demo")
    serve(installation, arguments.port)


def _back_up(arguments: argparse.Namespace) -> None:
    made = back_up(current_installation(), arguments.file, keep=arguments.keep)
    print(f"{made}: the database and the secret. Keep it where others cannot read it.")


def _restore(arguments: argparse.Namespace) -> None:
    installation = current_installation()
    use_django()
    kept = restore(installation, arguments.file, known_migrations())
    print(f"{installation.database} is what {arguments.file} holds." + (f" What was there: {kept}" if kept else ""))


def refusing(work: Callable[[argparse.Namespace], None]) -> Callable[[argparse.Namespace], int]:
    """A command that tells in one line why it does not do what it is asked for; status 3 then."""

    def run(arguments: argparse.Namespace) -> int:
        try:
            work(arguments)
        except RefusedError as refused:
            print(f"fine-tally: {refused}", file=sys.stderr)
            return REFUSED
        return 0

    return run


def add_commands(commands: argparse._SubParsersAction[argparse.ArgumentParser]) -> None:
    """Add these to the command line."""
    for name, help_, work in (
        ("run", "start for real use; the first start makes the first account", _run),
        ("demo", "start with a made-up squad", _demo),
    ):
        one = commands.add_parser(name, help=help_)
        one.add_argument("--port", type=int, default=PORT)
        if name == "demo":
            one.add_argument("--fresh", action="store_true", help="begin the made-up squad anew")
        one.set_defaults(run=refusing(work))
    one = commands.add_parser("backup", help="write the database and the secret to one file, also while it runs")
    one.add_argument("file", nargs="?", type=Path, help="default: the folder of backups, named by the time")
    one.add_argument("--keep", type=int, help="of those in the folder of backups only the newest so many stay")
    one.set_defaults(run=refusing(_back_up))
    one = commands.add_parser("restore", help="put a backup in the database's place; what was there is kept")
    one.add_argument("file", type=Path)
    one.set_defaults(run=refusing(_restore))
