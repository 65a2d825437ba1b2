"""A log's file that comes in parts: kept until the job that brings it in has ended, read as a stream."""

from __future__ import annotations

import io
import zlib
from collections.abc import Iterator
from datetime import timedelta
from typing import Any
from uuid import UUID

import ijson
from django.db import transaction
from django.db.models import Sum
from django.http import Http404
from django.utils import timezone
from ijson.common import JSONError, ObjectBuilder
from pydantic import ValidationError

from finetally.core.log.document import DEEPER_IN_LOG, Log, LogEntry, log_problems
from finetally.core.session.limits import MAX_DEPTH, MAX_PROBLEMS
from finetally.core.session.problems import DocumentError, Problem, refuse
from finetally.core.session.reading import JsonMap, clean_value
from finetally.web.log.models import LogPart
from finetally.web.squads.actor import Actor, Right
from finetally.web.squads.use_cases import squad_for

PART_CHARACTERS = 1_000_000
"""Characters of one part."""
MOST_LOG_CHARACTERS = 200_000_000
"""Characters of one file, those that this server writes included: larger ones are taken out in spans of days."""
MOST_ENTRIES = 200_000
"""Entries of one file: ten years of 40 people with ten sessions a week."""
PARTS_KEPT_FOR = timedelta(days=1)
DEEPEST_LOG = MAX_DEPTH + DEEPER_IN_LOG
MOST_VALUES = 200_000
"""Values of one entry: its session and its run."""


def keep_part(actor: Actor, squad_id: int | None, file: UUID, number: int, text: str) -> int:
    """Keep a part of a file; the same number again replaces it. Returns how many characters the file has now.

    For those who plan. A new file drops what is left of an earlier one of the same account. Raises DocumentError
    for one that is too long or somebody else's.
    """
    squad = squad_for(actor, squad_id, Right.PLAN)
    user_id = actor.user_id
    if user_id is None:
        raise Http404
    with transaction.atomic():
        if LogPart.objects.filter(file=file).exclude(squad=squad, user_id=user_id).exists():
            raise refuse(("file",), "a file that somebody else brings", "one of your own", "file")
        if number == 0:
            LogPart.objects.filter(squad=squad, user_id=user_id, asked=False).exclude(file=file).delete()
        kept = {
            "text": zlib.compress(text.encode("utf-8", "replace"), 1), "characters": len(text), "squad": squad,
            "user_id": user_id,
        }  # fmt: skip
        LogPart.objects.update_or_create(file=file, number=number, defaults=kept)
        total: int = LogPart.objects.filter(file=file).aggregate(sum=Sum("characters"))["sum"]
        if total > MOST_LOG_CHARACTERS:
            found = f"a file of over {MOST_LOG_CHARACTERS // 1_000_000} MB"
            raise refuse(("text",), found, "fewer days: export it as several files", "too_large")
    return total


def forget_parts() -> int:
    """Drop parts of files that nobody went on with for a day. Returns how many."""
    with transaction.atomic():
        dropped, _ = LogPart.objects.filter(at__lt=timezone.now() - PARTS_KEPT_FOR).delete()
    return dropped


class _Parts(io.RawIOBase):
    """The parts of a file, one after the other."""

    def __init__(self, file: UUID) -> None:
        self._file, self._number, self._rest = file, 0, b""

    def readable(self) -> bool:
        return True

    def readinto(self, buffer: Any) -> int:
        while not self._rest:
            part = (
                LogPart.objects.filter(file=self._file, number=self._number).values_list("text", flat=True).first()
            )
            if part is None:
                return 0
            self._number += 1
            self._rest = zlib.decompress(bytes(part))
        taken, self._rest = self._rest[: len(buffer)], self._rest[len(buffer) :]
        buffer[: len(taken)] = taken
        return len(taken)


def stream_of(file: UUID) -> io.BufferedReader:
    """The bytes of a file that was brought in parts."""
    return io.BufferedReader(_Parts(file), 65_536)


def entries_in(stream: io.BufferedReader) -> Iterator[LogEntry]:
    """The entries of a log's file, read one by one.

    Raises DocumentError with every place at its end; at once for what is no JSON, too deep or too large.
    """
    problems: list[Problem] = []
    head: dict[str, Any] = {}
    for number, value in enumerate(_values(stream, head)):
        if number >= MOST_ENTRIES:
            raise refuse(("entries",), f"over {MOST_ENTRIES:,} entries", f"up to {MOST_ENTRIES:,}", "too_large")
        try:
            yield LogEntry.model_validate(clean_value(value, DEEPEST_LOG))
        except ValidationError as error:
            problems += log_problems(error, "entries", number)
        except DocumentError as error:
            at = f"entries[{number}]"
            problems += [Problem(f"{at}.{p.path}", p.found, p.allowed, p.code) for p in error.problems]
        if len(problems) >= MAX_PROBLEMS:
            break
    try:
        if not problems:
            Log.model_validate({"entries": [], **head})
    except ValidationError as error:
        problems += log_problems(error)
    if problems:
        raise DocumentError(problems[:MAX_PROBLEMS])


def _values(stream: io.BufferedReader, head: dict[str, Any]) -> Iterator[Any]:
    """Each value of `entries`, as it was read; what else stands at the top goes into `head`."""
    building: ObjectBuilder | None = None
    key = ""
    count = around = 0
    for depth, event, value in _events(stream):
        if building is None:
            key = value if event == "map_key" else key
            around = depth - event.startswith("start_")
            is_file = around == 0 and event == "start_map"
            is_list = around == 1 and key == "entries" and event == "start_array"
            if is_file or is_list or event == "map_key" or event.startswith("end_"):
                continue
            building, count = ObjectBuilder(map_type=JsonMap), 0
        building.event(event, value)
        count += 1
        if count > MOST_VALUES:
            raise refuse((key,), f"over {MOST_VALUES:,} values", "an entry with fewer", "too_large")
        if depth == around:
            made, building = building.value, None
            # In the list of entries, or beside it.
            if around == 2:
                yield made
            else:
                head[key] = made


def _events(stream: io.BufferedReader) -> Iterator[tuple[int, str, Any]]:
    """What stands in a stream of JSON: how deep, what, its value. Raises DocumentError."""
    depth = 0
    try:
        # Without the paths that the library would make: those of deep nesting take the square of its depth.
        for event, value in ijson.basic_parse(_without_mark(stream), use_float=True):
            depth += event.startswith("start_") - event.startswith("end_")
            if depth > DEEPEST_LOG:
                raise refuse((), "very deep nesting", f"{DEEPEST_LOG} levels", "too_deep")
            yield depth, event, value
    except (JSONError, UnicodeDecodeError, OverflowError) as error:
        found = " ".join(str(error).split())[:80]
        raise refuse((), f"no JSON ({found})", "one JSON object", "not_json") from None


def _without_mark(stream: io.BufferedReader) -> io.BufferedReader:
    """The stream behind the mark that some programs put before UTF-8."""
    if stream.peek(3).startswith(b"\xef\xbb\xbf"):
        stream.read(3)
    return stream
