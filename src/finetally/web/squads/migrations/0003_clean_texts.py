from typing import Any

from django.db import migrations

from finetally.core.session.cleaning import cleaned, cleaned_tree


def clean(apps: Any, schema_editor: Any) -> None:
    """Texts that came in before there was a rule for them: control characters, halves of characters."""
    for movement in apps.get_model("squads", "SquadMovement").objects.iterator():
        definition = cleaned_tree(movement.definition)
        if definition != movement.definition:
            movement.definition = definition
            movement.save(update_fields=["definition"])
    for name in ("Squad", "Person"):
        for one in apps.get_model("squads", name).objects.iterator():
            if cleaned(one.name) != one.name:
                one.name = cleaned(one.name)
                one.save(update_fields=["name"])


class Migration(migrations.Migration):
    dependencies = [("squads", "0002_squad_movements")]
    operations = [migrations.RunPython(clean, migrations.RunPython.noop)]
