from typing import Any

from django.core.management.base import BaseCommand

from finetally.web.log.demo import load_demo_log
from finetally.web.plan.demo import load_demo_plan
from finetally.web.training.demo import ACCOUNTS, PASSWORD, load_demo


class Command(BaseCommand):
    help = "Load the demo squad with its plan, and print its made-up sign-in."

    def handle(self, *args: Any, **options: Any) -> None:
        load_demo()
        load_demo_plan()
        load_demo_log()
        names = ", ".join(f"{name} ({role.label})" for name, role in ACCOUNTS)
        self.stdout.write(f"Sign in as {names}; the password is {PASSWORD}")
