"""What lists show of a session's document stands beside it."""

from __future__ import annotations

import hashlib
import json
from typing import Any

from django.db import migrations, models

AT_ONCE = 100


def fill(apps: Any, editor: Any) -> None:
    """Tags and the document's name, from the document at each session's head; a few at a time."""
    session_model = apps.get_model("training", "Session")
    keys = list(session_model.objects.values_list("pk", flat=True))
    for first in range(0, len(keys), AT_ONCE):
        found = session_model.objects.filter(pk__in=keys[first : first + AT_ONCE]).select_related("head")
        for session in found:
            document = session.head.document if session.head else {}
            text = json.dumps(document, sort_keys=True)
            tags = [one for one in document.get("tags") or [] if isinstance(one, str)]
            # Not saved as a whole: when it was last changed stays.
            session_model.objects.filter(pk=session.pk).update(
                tags=tags, document_hash=hashlib.sha256(text.encode()).hexdigest()
            )


class Migration(migrations.Migration):
    """Two fields, filled."""

    dependencies = [("training", "0004_clean_texts")]
    operations = [
        migrations.AddField("session", "tags", models.JSONField(blank=True, default=list)),
        migrations.AddField("session", "document_hash", models.CharField(blank=True, max_length=64)),
        migrations.RunPython(fill, migrations.RunPython.noop),
    ]
