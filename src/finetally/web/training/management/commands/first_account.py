import getpass
import os
import sys
from typing import Any

from django.contrib.auth import get_user_model
from django.contrib.auth.password_validation import validate_password
from django.core.exceptions import ValidationError
from django.core.management.base import BaseCommand, CommandError
from django.db import transaction

from finetally.web.squads.models import Membership, Role, Squad


class Command(BaseCommand):
    help = "Create the first squad and its head coach, if there is no account yet."

    def handle(self, *args: Any, **options: Any) -> None:
        if get_user_model().objects.exists():
            return
        squad, name, password = self._ask()
        if not name:
            raise CommandError("A name to sign in with is needed.")
        try:
            validate_password(password)
        except ValidationError as error:
            raise CommandError(" ".join(error.messages)) from None
        with transaction.atomic():
            user = get_user_model().objects.create_user(name, password=password)
            made = Squad.objects.create(name=squad)
            Membership.objects.create(user=user, squad=made, role=Role.HEAD_COACH)
        self.stdout.write(f"{name} is head coach of {squad}.")

    def _ask(self) -> tuple[str, str, str]:
        keys = ("FINE_TALLY_SQUAD", "FINE_TALLY_NAME", "FINE_TALLY_PASSWORD")
        known = [os.environ.get(key, "") for key in keys]
        if all(known):
            return known[0], known[1].strip(), known[2]
        if not sys.stdin.isatty():
            raise CommandError(f"There is no account yet. Start in a terminal, or set {', '.join(keys)}.")
        self.stdout.write("There is no account yet. This makes the first squad and its head coach.")
        squad = input("Name of the squad: ").strip() or "My squad"
        name = input("Name to sign in with: ").strip()
        return squad, name, getpass.getpass("Password (10 characters or more): ")
