import json
from pathlib import Path
from typing import Any

from django.core.management.base import BaseCommand

from finetally.core.floor.published import run_schema, sheet_schema
from finetally.core.formats.published import formats_schema, formats_table
from finetally.core.log.document import log_schema
from finetally.core.measures import published_measures
from finetally.core.methods.paragraphs import PARAGRAPHS
from finetally.core.schools import SCHOOLS_TOLD
from finetally.core.session.schema import session_schema
from finetally.core.unfold.published import tape_schema
from finetally.environment import settings_table
from finetally.web.api.api import openapi_document

THE_TABLE, THE_METHODS = "## The table", "## What the figures are made of"
"""Headings of pages in docs/: what follows them is written from the code."""


def methods_told() -> str:
    """The methods in a coach's words, with what the schools argue, as the page Methods has them."""
    lines: list[str] = []
    for paragraph in PARAGRAPHS:
        lines += [f"### {paragraph.heading}", "", *(f"{one}\n" for one in paragraph.says)]
        for school in SCHOOLS_TOLD:
            if school.paragraph == paragraph.key:
                lines += [f"**{school.label}.** Coaches differ:", ""]
                lines += [*(f"- *{view.label}*: {view.argues}" for view in school.views), ""]
    return "\n".join(lines).rstrip() + "\n"


class Command(BaseCommand):
    help = "Write the published descriptions in docs/, and what the pages have of the core, from the code."

    def add_arguments(self, parser: Any) -> None:
        parser.add_argument("--into", type=Path, default=Path("docs"))
        parser.add_argument("--pages", type=Path, default=Path("frontend/src/words"))

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
        # Beside the pages, not fetched by them: units are there without a network, too.
        path = options["pages"] / "measures.json"
        path.write_text(json.dumps(published_measures(), indent=2, ensure_ascii=False) + "\n", encoding="utf-8")
        self.stdout.write(f"wrote {path}")
        for name, heading, made in (
            ("formats.md", THE_TABLE, formats_table()),
            ("settings.md", THE_TABLE, settings_table()),
            ("methods-plain.md", THE_METHODS, methods_told()),
        ):
            path = options["into"] / name
            if path.exists():
                head = path.read_text("utf-8").partition(heading)[0]
                path.write_text(f"{head}{heading}\n\n{made}", encoding="utf-8")
                self.stdout.write(f"wrote {path}")
