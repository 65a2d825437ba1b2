import json
from pathlib import Path
from typing import Any

from django.core.management.base import BaseCommand

from finetally.core.session.schema import session_schema
from finetally.core.unfold.schema import tape_schema
from finetally.web.api.api import openapi_document


class Command(BaseCommand):
    help = "Write the published descriptions in docs/ from the code."

    def add_arguments(self, parser: Any) -> None:
        parser.add_argument("--into", type=Path, default=Path("docs"))

    def handle(self, *args: Any, **options: Any) -> None:
        files = {
            "openapi.json": openapi_document(),
            "session.schema.json": session_schema(),
            "tape.schema.json": tape_schema(),
        }
        for name, made in files.items():
            path = options["into"] / name
            path.write_text(json.dumps(made, indent=1, ensure_ascii=False) + "\n", encoding="utf-8")
            self.stdout.write(f"wrote {path}")
