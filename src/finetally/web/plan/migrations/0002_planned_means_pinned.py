from typing import Any

from django.db import migrations

from finetally.core.session.cleaning import cleaned_tree, one_line


def pin(apps: Any, schema_editor: Any) -> None:
    """What a plan refers to is saved over no more."""
    planned = apps.get_model("plan", "Entry").objects.exclude(revision=None).values_list("revision_id", flat=True)
    apps.get_model("training", "Revision").objects.filter(pk__in=set(planned)).update(pinned=True)


def clean(apps: Any, schema_editor: Any) -> None:
    """Texts that came in before there was a rule for them."""
    for entry in apps.get_model("plan", "Entry").objects.iterator(chunk_size=100):
        before = (entry.title, entry.group, entry.document)
        entry.title, entry.group = one_line(entry.title), one_line(entry.group)
        entry.document = cleaned_tree(entry.document)
        if before != (entry.title, entry.group, entry.document):
            entry.save(update_fields=["title", "group", "document"])
    for link in apps.get_model("plan", "Link").objects.iterator():
        if one_line(link.name) != link.name:
            link.name = one_line(link.name)
            link.save(update_fields=["name"])


class Migration(migrations.Migration):
    dependencies = [("plan", "0001_initial"), ("training", "0004_clean_texts")]
    operations = [
        migrations.RunPython(pin, migrations.RunPython.noop),
        migrations.RunPython(clean, migrations.RunPython.noop),
    ]
