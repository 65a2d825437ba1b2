"""Kinds of notes, those that are about somebody's health, and the caution that belongs to each."""

from __future__ import annotations

from collections.abc import Mapping
from typing import get_args

from finetally.core.floor.events import NoteKind

NOTE_KINDS: tuple[NoteKind, ...] = get_args(NoteKind)
HEALTH_KINDS: tuple[NoteKind, ...] = ("pain", "dizziness", "hurt")
"""Kinds of notes that are about somebody's health."""

CAUTIONS: Mapping[NoteKind, str] = {
    "pain": "Stop what hurts. If it stays or comes back, have it looked at by somebody licensed to do so.",
    "hurt": "Stop. Follow your first-aid rules; when in doubt call the emergency services.",
    "dizziness": (
        "Stop; tell somebody now. Pain or pressure in the chest, fainting, or dizziness that stays: call the "
        "emergency services. This note is no message to a physician."
    ),
}
"""What is said at once to whoever writes such a note; local rules go before it."""
