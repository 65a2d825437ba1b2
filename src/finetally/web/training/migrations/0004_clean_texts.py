from typing import Any

from django.db import migrations

from finetally.core.session.cleaning import cleaned, cleaned_tree


def clean(apps: Any, schema_editor: Any) -> None:
    """Texts that came in before there was a rule for them: control characters, halves of characters."""
    for revision in apps.get_model("training", "Revision").objects.iterator(chunk_size=100):
        document = cleaned_tree(revision.document)
        if document != revision.document:
            revision.document = document
            revision.save(update_fields=["document"])
    for session in apps.get_model("training", "Session").objects.iterator():
        if cleaned(session.title) != session.title:
            session.title = cleaned(session.title)
            session.save(update_fields=["title"])


class Migration(migrations.Migration):
    dependencies = [("training", "0003_conflict_base")]
    operations = [migrations.RunPython(clean, migrations.RunPython.noop)]
