from typing import Any
from uuid import uuid4

from django.db import migrations, models


def give(apps: Any, schema_editor: Any) -> None:
    """Squads with movements of their own get a version; the others have none to ask for."""
    for squad in apps.get_model("squads", "Squad").objects.filter(movements__isnull=False).distinct():
        squad.movements_version = uuid4().hex
        squad.save(update_fields=["movements_version"])


class Migration(migrations.Migration):
    dependencies = [("squads", "0003_clean_texts")]
    operations = [
        migrations.AddField(
            "squad",
            "movements_version",
            models.CharField(
                blank=True,
                default="",
                help_text="another after every change of its own movements",
                max_length=32,
            ),
            preserve_default=False,
        ),
        migrations.RunPython(give, migrations.RunPython.noop),
    ]
