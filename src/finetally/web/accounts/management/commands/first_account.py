import getpass
import os
import sys
import zoneinfo
from typing import Any

from django.contrib.auth import get_user_model
from django.contrib.auth.password_validation import validate_password
from django.core.exceptions import ValidationError
from django.core.management.base import BaseCommand, CommandError
from django.db import transaction

from finetally.environment import value_of
from finetally.web.squads.models import Membership, Role, Squad

DAYS = ("monday", "tuesday", "wednesday", "thursday", "friday", "saturday", "sunday")


def machine_zone() -> str:
    """The time zone of this machine, by name; UTC where it has none."""
    named = os.environ.get("TZ", "").lstrip(":") or os.path.realpath("/etc/localtime").partition("zoneinfo/")[2]
    return named if named in zoneinfo.available_timezones() else "UTC"


class Command(BaseCommand):
    help = "Create the first squad and its head coach, if there is no account yet."

    def handle(self, *args: Any, **options: Any) -> None:
        if get_user_model().objects.exists():
            return
        squad, name, password = self._ask()
        zone, week_start = self._ask_when()
        if not name:
            raise CommandError("A name to sign in with is needed.")
        try:
            validate_password(password)
        except ValidationError as error:
            raise CommandError(" ".join(error.messages)) from None
        with transaction.atomic():
            user = get_user_model().objects.create_user(name, password=password)
            made = Squad.objects.create(name=squad, time_zone=zone, week_start=week_start)
            Membership.objects.create(user=user, squad=made, role=Role.HEAD_COACH)
        self.stdout.write(f"{name} is head coach of {squad}.")

    def _ask(self) -> tuple[str, str, str]:
        keys = ("FINE_TALLY_SQUAD", "FINE_TALLY_NAME", "FINE_TALLY_PASSWORD")
        known = [value_of(key) for key in keys]
        if all(known):
            return known[0], known[1].strip(), known[2]
        if not sys.stdin.isatty():
            raise CommandError(f"There is no account yet. Start in a terminal, or set {', '.join(keys)}.")
        self.stdout.write("There is no account yet. This makes the first squad and its head coach.")
        squad = input("Name of the squad: ").strip() or "My squad"
        name = input("Name to sign in with: ").strip()
        return squad, name, getpass.getpass("Password (10 characters or more): ")

    def _ask_when(self) -> tuple[str, int]:
        """The squad's time zone, and the day its weeks begin with (0 is Monday)."""
        zone, day = value_of("FINE_TALLY_TIME_ZONE"), value_of("FINE_TALLY_WEEK_START")
        here = machine_zone()
        if sys.stdin.isatty():
            zone = zone or input(f"The squad's time zone [{here}]: ").strip()
            day = day or input("Weeks begin on [Monday]: ").strip()
        zone = zone or here
        if zone not in zoneinfo.available_timezones():
            raise CommandError(f"There is no time zone {zone!r}; one is called Europe/London, say.")
        begins = [number for number, name in enumerate(DAYS) if name.startswith((day or "monday").lower()[:3])]
        if len(day) == 1 or not begins:
            raise CommandError(f"{day!r} is no day; weeks begin on one of {', '.join(DAYS)}.")
        return zone, begins[0]
