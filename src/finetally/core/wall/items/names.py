"""Which movement is meant by the words of an item."""

from __future__ import annotations

from collections.abc import Iterator
from dataclasses import dataclass

from finetally.core.movements.by_dose import SaidDose, movement_by_dose
from finetally.core.movements.library import Library
from finetally.core.movements.names import EverydayNames, Spelling, canonical
from finetally.core.wall.items.item import Item
from finetally.core.wall.tokens.words import EASY_WORDS, FILLER, KIT_WORDS


@dataclass(frozen=True, slots=True)
class NamedMovement:
    """A movement: its key (the coach's words where nobody knows it), and whether it is known or was misspelt."""

    key: str
    words: str
    known: bool
    guessed: str = ""
    other: str = ""
    """The key of the movement that the same words may mean as well."""


class Names:
    """Resolves the words of items against a library; remembers the words of the unknown, one key for one name."""

    def __init__(self, library: Library, everyday: EverydayNames) -> None:
        self._library = library
        self._everyday = everyday
        self._spelling = Spelling(everyday)
        self._unknown: dict[tuple[str, ...], str] = {}

    def known(self, words: str) -> str | None:
        """The movement called so, without any guess."""
        parts = words.split()
        found = self._everyday.find(words)
        while found is None and len(parts) > 1 and parts[-1] in TRAILING:
            parts = parts[:-1]
            found = self._everyday.find(" ".join(parts))
        return found

    def of(self, item: Item, part: str | None, tool: str = "") -> NamedMovement | None:
        """The movement of an item in a part of the session; None where its words name none."""
        words = trimmed([t.text for t in item.words])
        if not words:
            whole = " ".join(t.text for t in item.words)
            found = self._everyday.find(whole) if whole else None
            if found is None and item.seconds is not None and any(t.kind == "SOFT" for t in item.words):
                found = self._everyday.find("easy movement")
            return NamedMovement(found, whole, True) if found is not None else None
        text = " ".join(words)
        told = item.load is not None or item.cal or tool or item.kit
        if text in ("row", "rows") and isinstance(item.reps, int | dict) and not told:
            machine, bent = self._everyday.find("row"), self._everyday.find("bent row")
            if machine is not None and bent is not None:
                # Reps of a row without a load: a machine has none to count, but many write it so.
                first, other = (bent, machine) if text == "rows" else (machine, bent)
                return NamedMovement(first, text, True, other=other)
        found = self._find(text, item, part, tool)
        if found is not None:
            return NamedMovement(found, text, True)
        mended = self._spelling.movement(text)
        if mended is not None:
            return NamedMovement(mended, text, True, guessed="misspelt")
        return NamedMovement(self._provisional(text), text, False)

    def _find(self, text: str, item: Item, part: str | None, tool: str) -> str | None:
        words = text.split()
        found = self._with_kit(text, item, tool) or self._by_load(text, item, tool)
        if found is not None:
            return found
        whole = self._everyday.find(" ".join(t.text for t in item.words)) if len(item.words) > len(words) else None
        found = whole or self._everyday.find(text)
        if found is not None:
            return found
        for form, of in self._other_forms(words, part):
            found = self._everyday.find(form)
            if found is not None and (of is None or found in of):
                return found
        return None

    def _with_kit(self, text: str, item: Item, tool: str) -> str | None:
        """A name with the kit that is told beside it."""
        forms = [f"sand{text}"] if text.startswith("bag ") else []
        for kit in [*item.kit, *([tool] if tool else [])]:
            forms.extend((f"{kit} {text}", f"{text} {kit}", f"{KIT_WORDS.get(kit, kit)} {text}"))
        return next((found for form in forms if (found := self._everyday.find(form)) is not None), None)

    def _by_load(self, text: str, item: Item, tool: str) -> str | None:
        """What a name means with its load or its sides; the blocks that only say how easy they are."""
        if text in EASY_BLOCKS and "easy-movement" in self._library:
            return "easy-movement"
        has_other_dose = item.cal or tool or item.kit
        dose = SaidDose(None if has_other_dose else item.reps, item.seconds, item.metres, item.load, item.sides)
        return movement_by_dose(text, dose, names=self._everyday, library=self._library)

    def _other_forms(self, words: list[str], part: str | None) -> Iterator[tuple[str, frozenset[str] | None]]:
        """Other forms of a name, in the order they are tried, and which movements each may mean (None: any)."""
        text = " ".join(words)
        if " on " in f" {text} ":
            before, _, after = text.partition(" on ")
            yield f"{after} {before}", None
            if after in ("spot", "the spot"):
                yield before, None
        if len(words) > 2 and words[0] in ("warm", "cool") and words[1] in ("up", "down"):
            # `warm up jog`
            yield " ".join(words[2:]), None
        kept = [w for w in words if w.rstrip("s") not in ("sprint", "interval")]
        if 0 < len(kept) < len(words):
            # `bike sprints`: the machine is meant, its reps are the sprints.
            yield " ".join(kept), MACHINE_KEYS
        if words[0] in ("stretch", "stretching") and len(words) > 1:
            yield f"{' '.join(words[1:])} stretch", None
        if part == "cool-down":
            yield f"{text} stretch", None
        while len(words) > 1 and words[-1] in TRAILING:
            words = words[:-1]
            yield " ".join(words), None

    def _provisional(self, text: str) -> str:
        return self._unknown.setdefault(canonical(text) or (text,), text[:120])


MACHINE_KEYS = frozenset({"row-machine", "bike-machine", "air-bike", "ski-machine", "treadmill-run"})
EASY_BLOCKS = frozenset(
    {"stretch", "stretching", "stretches", "mobility", "cool down", "cooldown", "warm up", "warmup", "easy stretch",
     "easy stretching", "general stretching"}
)  # fmt: skip
"""Words that say to move or stretch easily, in no way in particular."""

TRAILING = frozenset(
    {
        "tt",
        "trial",
        "test",
        "split",
        "practice",
        "metres",
        "meters",
        "distance",
        "practise",
        "drill",
        "drills",
        "shared",
        "faster",
        "slower",
        "back",
        "out",
        "home",
        "hard",
        "fast",
        "heavy",
        "easy",
        "slow",
        "unweighted",
        "only",
        "max",
        "total",
        "down",
        "together",
        "recovery",
        "alone",
    }
)
"""Words behind a name that say how, not what."""


def trimmed(words: list[str]) -> list[str]:
    """Words without what stands around a name at either end."""
    first, last = 0, len(words)
    while first < last and words[first] in FILLER:
        first += 1
    while last > first and words[last - 1] in FILLER - KEEP_AT_END:
        last -= 1
    return words[first:last]


KEEP_AT_END = frozenset({"up", "on", "in", "out", "over", "down", "through", "side", "position", "first"})


def said_easy(item: Item) -> bool:
    """Whether the words say that it is done easily."""
    return any(t.text in EASY_WORDS for t in item.words)
