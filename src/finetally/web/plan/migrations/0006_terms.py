"""What an entry comes to is its load summary; edits that changes keep say `path`, as they do everywhere now."""

from typing import Any

from django.db import migrations, models

NEW = {"place": "path", "to_place": "to_path"}
OLD = {"path": "place", "to_path": "to_place"}


def rename(apps: Any, keys: dict[str, str]) -> None:
    """Rewrite the edits that undo what was taken."""
    for change in apps.get_model("plan", "Change").objects.iterator(chunk_size=100):
        for item in change.items:
            if "inverse" in item:
                item["inverse"] = [{keys.get(key, key): one for key, one in edit.items()} for edit in item["inverse"]]
        change.save(update_fields=["items"])


def forward(apps: Any, schema_editor: Any) -> None:
    """To today's names."""
    rename(apps, NEW)


def back(apps: Any, schema_editor: Any) -> None:
    """To the names of before."""
    rename(apps, OLD)


class Migration(migrations.Migration):
    dependencies = [("plan", "0005_entry_notes")]
    operations = [
        migrations.RunPython(forward, back),
        migrations.RenameField("entry", "amount", "summary"),
        migrations.AlterField(
            "entry",
            "figured_with",
            models.CharField(blank=True, help_text="methods and core of the summary", max_length=16),
        ),
    ]
