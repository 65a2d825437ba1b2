import json
from pathlib import Path
from typing import Any

from django.core.management.base import BaseCommand

from finetally.core.floor.published import run_schema, sheet_schema
from finetally.core.formats.published import formats_schema, formats_table
from finetally.core.log.document import log_schema
from finetally.core.session.schema import session_schema
from finetally.core.unfold.published import tape_schema
from finetally.environment import settings_table
from finetally.web.api.api import openapi_document

TABLE_HEADING = "## The table"
"""What follows it in docs/formats.md and docs/settings.md is written from the code."""


class Command(BaseCommand):
    help = "Write the published descriptions in docs/ from the code."

    def add_arguments(self, parser: Any) -> None:
        parser.add_argument("--into", type=Path, default=Path("docs"))

    def handle(self, *args: Any, **options: Any) -> None:
        files = {
            "openapi.json": openapi_document(),
            "formats.schema.json": formats_schema(),
            "log.schema.json": log_schema(),
            "run.schema.json": run_schema(),
            "session.schema.json": session_schema(),
            "sheet.schema.json": sheet_schema(),
            "tape.schema.json": tape_schema(),
        }
        for name, schema in files.items():
            path = options["into"] / name
            path.write_text(json.dumps(schema, indent=1, ensure_ascii=False) + "\n", encoding="utf-8")
            self.stdout.write(f"wrote {path}")
        for name, made in {"formats.md": formats_table(), "settings.md": settings_table()}.items():
            path = options["into"] / name
            if path.exists():
                head = path.read_text("utf-8").partition(TABLE_HEADING)[0]
                path.write_text(f"{head}{TABLE_HEADING}\n\n{made}", encoding="utf-8")
                self.stdout.write(f"wrote {path}")
