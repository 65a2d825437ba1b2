"""The movement library as a value: look-up by key, merging with a file's own definitions, nearest names."""

from __future__ import annotations

from collections.abc import Iterable, Iterator, Mapping
from types import MappingProxyType

from rapidfuzz import fuzz, process

from finetally.core.session.movement import MovementDef

LONGEST_NAME_CHARS = 80
"""Characters of what may still be a movement's name; what is longer resembles none."""


class Library(Mapping[str, MovementDef]):
    """Movements by key. Immutable; `with_definitions` makes another one in which the given ones win."""

    __slots__ = ("__weakref__", "_by_key")

    def __init__(self, movements: Iterable[MovementDef]) -> None:
        self._by_key = MappingProxyType({movement.key: movement for movement in movements})

    def __getitem__(self, key: str) -> MovementDef:
        return self._by_key[key]

    def get(self, key: str, default: MovementDef | None = None) -> MovementDef | None:  # type: ignore[override]
        """As a mapping has it, without the detour through an exception: it is asked for every step."""
        return self._by_key.get(key, default)

    def __hash__(self) -> int:
        """Libraries are told apart by identity: what is worked out of one is kept beside it."""
        return id(self)

    def __eq__(self, other: object) -> bool:
        return self is other

    def __iter__(self) -> Iterator[str]:
        return iter(self._by_key)

    def __len__(self) -> int:
        return len(self._by_key)

    def with_definitions(self, movements: Iterable[MovementDef] | None) -> Library:
        """The library with a file's own definitions on top; a partial one is laid over the library's."""
        if not movements:
            return self
        # Not dict(…), which asks a mapping proxy for each key by itself: thirty times as long.
        merged = self._by_key.copy()
        for movement in movements:
            base = merged.get(movement.key)
            if base is not None and not movement.patterns:
                # A definition without patterns only changes what it names.
                changed = {name: getattr(movement, name) for name in movement.model_fields_set}
                if movement.aliases and base.aliases:
                    changed["aliases"] = list(dict.fromkeys([*base.aliases, *movement.aliases]))
                movement = base.model_copy(update=changed)
            merged[movement.key] = movement
        made = Library(())
        made._by_key = MappingProxyType(merged)
        return made

    def nearest(self, key: str, count: int = 3) -> list[str]:
        """Up to `count` keys that read most like `key`, at least half like it; nothing for what is no name."""
        if len(key) > LONGEST_NAME_CHARS:
            return []
        found = process.extract(key.lower(), self._by_key.keys(), scorer=fuzz.ratio, limit=count, score_cutoff=50)
        return [name for name, _, _ in found]
