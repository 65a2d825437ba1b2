"""Session, Revision, Shape, Summary. Documents are stored as written."""

from __future__ import annotations

import hashlib
import json
import uuid
from typing import Any

from django.conf import settings
from django.db import models

from finetally.web.squads.models import Squad


class Session(models.Model):
    """A session of a squad. Its document is that of the revision at its head.

    `title`, `tags` and `document_hash` are of that document, so that lists need not read it.
    """

    id = models.UUIDField(primary_key=True, default=uuid.uuid4, editable=False)
    squad = models.ForeignKey(Squad, on_delete=models.CASCADE, related_name="sessions")
    title = models.CharField(max_length=500)
    tags = models.JSONField(default=list, blank=True)
    document_hash = models.CharField(max_length=64, blank=True)
    head = models.ForeignKey("Revision", on_delete=models.PROTECT, null=True, related_name="+")
    archived_at = models.DateTimeField(null=True, blank=True)
    created_at = models.DateTimeField(auto_now_add=True)
    updated_at = models.DateTimeField(auto_now=True)

    class Meta:
        ordering = ["-updated_at"]

    def __str__(self) -> str:
        return self.title

    def describe(self, document: dict[str, Any]) -> None:
        """Take over what lists show of the document at its head. Not kept by that."""
        self.title = document["title"]
        self.tags = [one for one in document.get("tags") or [] if isinstance(one, str)]
        self.document_hash = hash_of(document)


def hash_of(document: dict[str, Any]) -> str:
    """The name of a document: the same document, the same name."""
    return hashlib.sha256(json.dumps(document, sort_keys=True).encode()).hexdigest()


class RevisionKind(models.TextChoices):
    """How a revision came about."""

    AUTOSAVE = "autosave"
    KEPT = "kept"
    CONFLICT = "conflict"


class Revision(models.Model):
    """A version of a session's document. Autosaves of one tab run together into one until it is pinned.

    `version` counts the saves that ran together, so that a save from an older state is told apart. A conflict keeps
    the state it was made from (`base`, an etag): saves from another state are another conflict.
    """

    session = models.ForeignKey(Session, on_delete=models.CASCADE, related_name="revisions")
    parent = models.ForeignKey("self", on_delete=models.SET_NULL, null=True, related_name="+")
    author = models.ForeignKey(settings.AUTH_USER_MODEL, on_delete=models.SET_NULL, null=True)
    kind = models.CharField(max_length=20, choices=RevisionKind.choices)
    pinned = models.BooleanField(default=False)
    tab = models.CharField(max_length=64, blank=True)
    version = models.PositiveIntegerField(default=1)
    base = models.CharField(max_length=64, blank=True, default="")
    document = models.JSONField()
    created_at = models.DateTimeField(auto_now_add=True)
    updated_at = models.DateTimeField(auto_now=True)

    class Meta:
        ordering = ["-id"]

    def __str__(self) -> str:
        return f"{self.session} {self.kind} {self.id}"

    @property
    def etag(self) -> str:
        """What a save must name as the state it starts from."""
        return f"{self.pk}.{self.version}"


class Shape(models.Model):
    """A block's shape under a name of the coach's own: a format of the table with its numbers."""

    squad = models.ForeignKey(Squad, on_delete=models.CASCADE, related_name="shapes")
    name = models.CharField(max_length=80)
    key = models.CharField(max_length=64)
    params = models.JSONField(default=dict)

    class Meta:
        ordering = ["name"]
        constraints = [models.UniqueConstraint(fields=["squad", "name"], name="one_shape_a_name")]

    def __str__(self) -> str:
        return self.name


class Summary(models.Model):
    """Figures of a document, kept by the hash of everything they were made from."""

    key = models.CharField(max_length=64, primary_key=True)
    figures = models.JSONField()
    made_at = models.DateTimeField(auto_now_add=True)

    def __str__(self) -> str:
        return self.key
