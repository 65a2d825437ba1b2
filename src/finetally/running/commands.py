"""The commands of whoever keeps the machine: run, demo, account, backup, restore, upgrade, doctor."""

from __future__ import annotations

import argparse
import os
import sys
from collections.abc import Callable
from pathlib import Path

from finetally.environment import LOG_PROBLEMS
from finetally.running.accounts import account_lines, address_here, create_account, reset_account
from finetally.running.backup import back_up, restore
from finetally.running.doctor.diagnosis import Level
from finetally.running.installation import RefusedError, current_installation, hold_database
from finetally.running.start import erase_again, refuse_unfit, serve, set_up_django, use_django
from finetally.running.upgrade import known_migrations, migrate

REFUSED = 3
AMISS = 1
"""The doctor's status where something has to be done."""
PORT = 8420
DEMO_DATABASE = "demo.sqlite3"
ROLES = ("head-coach", "coach", "athlete")
"""As web/squads/models.py has them; said here so that the command line loads without Django."""


def _run(arguments: argparse.Namespace) -> None:
    use_django()
    from django.core.management import CommandError, call_command

    installation = current_installation()
    migrate(installation)
    erase_again(installation)
    try:
        call_command("first_account")
    except CommandError as error:
        raise RefusedError(str(error)) from None
    serve(installation, arguments.port)


def _demo(arguments: argparse.Namespace) -> None:
    os.environ["FINE_TALLY_DATABASE"] = DEMO_DATABASE
    os.environ.setdefault("FINE_TALLY_LOG", LOG_PROBLEMS)
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
    erase_again(installation)
    call_command("demo")
    serve(installation, arguments.port)


def _back_up(arguments: argparse.Namespace) -> None:
    made = back_up(current_installation(), arguments.file, keep=arguments.keep)
    print(f"{made}: the database and the secret. Keep it where others cannot read it.")


def _restore(arguments: argparse.Namespace) -> None:
    installation = current_installation()
    use_django()
    kept = restore(installation, arguments.file, known_migrations())
    if installation.erased.exists():
        # Whoever was erased since the backup is in it: gone again before anybody reads it.
        migrate(installation)
        back = erase_again(installation)
        print(f"{back} that were erased since were in it, and are erased again.")
    print(f"{installation.database} is what {arguments.file} holds." + (f" What was there: {kept}" if kept else ""))


def _upgrade(arguments: argparse.Namespace) -> None:
    use_django()
    installation = current_installation()
    if not installation.database.exists():
        raise RefusedError(f"There is no database at {installation.database}; fine-tally run makes one.")
    made = migrate(installation)
    erase_again(installation)
    if made.backup is None:
        print(f"Nothing to do: {installation.database} is one of this release.")
        return
    print(f"{made.migrations} migrations; {made.documents} documents are what they were, no row was lost.")
    print(f"To go back: install the release you had, then fine-tally restore {made.backup}")


def _doctor(arguments: argparse.Namespace) -> int:
    from finetally.running.doctor.round import amiss_from_the_start, findings, patient_here, told

    installation = current_installation()
    found = amiss_from_the_start(installation)
    if not found:
        set_up_django()
        found = list(findings(patient_here(installation)))
    for line in told(found):
        print(line)
    return AMISS if any(one.level is Level.WRONG for one in found) else 0


def _account(arguments: argparse.Namespace) -> None:
    use_django()
    refuse_unfit(current_installation())
    if arguments.what == "list":
        for line in account_lines():
            print(line)
        return
    if arguments.what == "create":
        token = create_account(arguments.name, arguments.squad, arguments.role, new_squad=arguments.new_squad)
    else:
        token = reset_account(arguments.name)
    address = (arguments.address or address_here()).rstrip("/")
    print(f"Good for a day, and once: {address}/reset#{token}")


def _add_account(commands: argparse._SubParsersAction[argparse.ArgumentParser]) -> None:
    account = commands.add_parser("account", help="make, list and reset accounts, also while it runs")
    kinds = account.add_subparsers(dest="what", required=True)
    create = kinds.add_parser("create", help="make an account; prints a link that sets its password")
    create.add_argument("name")
    create.add_argument("--squad", required=True, help="the squad's name")
    create.add_argument("--role", choices=ROLES, default=ROLES[0])
    create.add_argument("--new-squad", action="store_true", help="make the squad")
    reset = kinds.add_parser("reset", help="print a link that sets an account's password anew")
    reset.add_argument("name")
    for one in (create, reset):
        one.add_argument("--address", help="what the link begins with, as the server is reached: https://…")
    kinds.add_parser("list", help="every account, its squads, when it signed in last")
    account.set_defaults(run=refusing(_account))


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
    _add_account(commands)
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
    one = commands.add_parser("upgrade", help="bring the database up to this release, or put back what was there")
    one.set_defaults(run=refusing(_upgrade))
    one = commands.add_parser("doctor", help="look at everything it stands on, and say what to do; status 1 then")
    one.set_defaults(run=_doctor)
    one = commands.add_parser("restore", help="put a backup in the database's place; what was there is kept")
    one.add_argument("file", type=Path)
    one.set_defaults(run=refusing(_restore))
