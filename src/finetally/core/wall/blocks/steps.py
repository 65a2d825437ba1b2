"""From an item to a step of the document: dose, sides, load, and all the small print."""

from __future__ import annotations

import math

from finetally.core.movements.library import Library
from finetally.core.movements.sides import one_sided_hold
from finetally.core.session.limits import MAX_DURATION_S, MAX_METRES, MAX_REPS
from finetally.core.session.values import FAILURE_PLAN
from finetally.core.wall.assumptions import Assumptions
from finetally.core.wall.blocks.draft import Draft
from finetally.core.wall.items.item import LADDER_RATIO, Item
from finetally.core.wall.items.names import NamedMovement, Names, trimmed
from finetally.core.wall.parts import Amount, Dose, LoadPart, OptionPart, StepPart
from finetally.core.wall.tokens.token import Token
from finetally.core.wall.tokens.words import EASY_WORDS, KIT_WORDS

UNKNOWN_PACE_S, UNKNOWN_SPEED_MPS = 3.0, 2.0
CARRYING_EASY = frozenset({"walk", "jog", "march"})
"""What is done easily between harder windows."""


def span(value: Dose | None) -> float:
    """The planned seconds of a time that may be a range (its middle) or a list (its first); 0 of nothing."""
    if isinstance(value, dict):
        return (value["low"] + value["high"]) / 2
    if isinstance(value, list):
        return float(value[0]) if value else 0.0
    return float(value or 0)


def bounded(value: Amount, most: float) -> Amount:
    """An amount, both ends of a range, of at most `most` of its unit."""
    if isinstance(value, dict):
        return {"low": min(value["low"], most), "high": min(value["high"], most)}
    return min(value, most)


def bounded_dose(value: Dose, most: float) -> Dose:
    """A dose of at most `most` of its unit; a list is as long as one can be."""
    return [min(one, most) for one in value][:200] if isinstance(value, list) else bounded(value, most)


class StepMaker:
    """Makes steps; remembers the names that nobody knows."""

    def __init__(self, library: Library, names: Names, assumed: Assumptions) -> None:
        self._library = library
        self._names = names
        self._assumed = assumed
        self.unknown: list[str] = []
        self.places: list[tuple[str, str, int]] = []
        """Every new name: its key, its words, its line."""
        self.rows: list[tuple[str, int]] = []
        """Every movement and the line it stands on."""
        self._named: dict[int, NamedMovement | None] = {}

    def named(self, item: Item, draft: Draft) -> NamedMovement | None:
        """The movement of an item."""
        found = self._named.get(id(item))
        if found is None:
            found = self._named[id(item)] = self._names.of(
                item, "cool-down" if draft.stretching else draft.part, draft.tool
            )
            if found is not None and not found.known:
                self._new_name(found, item)
            if found is not None and found.other:
                readings = [self._library[key].name or key for key in (found.key, found.other)]
                if self._assumed.pick("which-movement", item.row, found.words, readings) == 1:
                    found = self._named[id(item)] = NamedMovement(found.other, found.words, True)
            if found is not None and found.guessed:
                name = self._library[found.key].name or found.key
                readings = [name, "a movement of its own"]
                if self._assumed.pick("misspelt", item.row, found.words, readings, length=len(found.words)) == 1:
                    found = self._named[id(item)] = NamedMovement(found.words[:120], found.words, False)
                    self._new_name(found, item)
        return found

    def _new_name(self, named: NamedMovement, item: Item) -> None:
        self.places.append((named.key, named.words, item.row))
        if named.key not in self.unknown:
            self.unknown.append(named.key)

    def key(self, item: Item, draft: Draft) -> str:
        """The movement's key; for words that name nothing, the words."""
        found = self.named(item, draft)
        if found is not None:
            self.rows.append((found.key, item.row))
            return found.key
        words = " ".join(t.text for t in item.words).strip() or "work"
        if words not in self.unknown:
            self.unknown.append(words)
        return words[:120]

    def known(self, item: Item) -> bool:
        """Whether the words of an item name a movement."""
        return self._names.known(" ".join(trimmed([t.text for t in item.words]))) is not None

    def nameless(self, draft: Draft) -> Item:
        """An item for a block that names no movement: it goes by the block's own words."""
        if draft.part in ("warm-up", "cool-down") and "easy-movement" in self._library:
            return Item(words=[Token("W", "easy movement", "easy movement", 0, 0)], row=draft.line)
        words = (draft.words or draft.title or "work").lower()
        return Item(words=[Token("W", words, words, 0, len(words))], row=draft.line)

    def easy_words(self, item: Item) -> bool:
        """Whether an item says that something is done easily: `easy`, `walk`, `jog back`."""
        words = {t.text for t in item.words}
        return bool(words & (EASY_WORDS | CARRYING_EASY | {"recovery", "rest"}))

    def easy_movement(self, item: Item) -> str | None:
        """The movement of an easy part, if it names one."""
        for token in item.words:
            found = self._names.known(token.text)
            if found in CARRYING_EASY:
                return found
        return None

    def one_sided_stretch(self, item: Item, draft: Draft) -> bool:
        """Whether an item is a stretch or hold that each side has for itself."""
        named = self.named(item, draft)
        if named is None or item.seconds is not None:
            return False
        return one_sided_hold(self._library.get(named.key), named.words)

    # Steps
    def windowed(self, item: Item, draft: Draft, work: Amount, *, per_side: bool) -> StepPart:
        """A step under a head's window."""
        if item.reps is not None and item.label == "times" and not item.after_dose:
            item.reps = None
        step = self._base(item, draft)
        if item.reps is not None:
            step["reps"] = self._reps(item, item.reps, draft)
        if item.seconds is not None:
            self._seconds(step, item, item.seconds, draft)
        elif per_side and (draft.sides_each or self.one_sided_stretch(item, draft)):
            step["seconds"] = work
            step["sides"] = "each"
        elif item.sides == "each" and not item.shared:
            step["sides"] = "each"
        elif item.sides in ("left", "right"):
            step["sides"] = item.sides
        self._small_print(step, item, draft)
        return step

    def dosed(self, item: Item, draft: Draft, *, rounds: int | None) -> StepPart:
        """A step with its own dose."""
        step = self._base(item, draft)
        if item.failure:
            step["reps"] = {"to_failure": True}
        elif item.reps is not None:
            step["reps"] = self._reps(item, item.reps, draft)
        if item.seconds is not None:
            self._seconds(step, item, item.seconds, draft)
        if item.metres is not None:
            metres = item.metres
            if draft.lengths:
                metres = draft.lengths * span(metres)
            if item.pace is not None and isinstance(metres, int | float):
                # A told pace says how long the distance takes; the distance stands in the note.
                step["seconds"] = bounded(round(metres * item.pace), MAX_DURATION_S)
                item.notes.insert(0, f"{metres:g} m")
            else:
                step["metres"] = bounded_dose(metres, MAX_METRES)
        self._sides(step, item, draft)
        self._small_print(step, item, draft)
        return step

    def _base(self, item: Item, draft: Draft) -> StepPart:
        return {"movement": self.key(item, draft)}

    def _reps(self, item: Item, reps: Dose, draft: Draft) -> Dose:
        if item.pair is not None:
            return self._paired(item, draft)
        if item.ranged is None or (item.sets is not None and not item.ladder):
            return bounded_dose(reps, MAX_REPS)
        a, b = item.ranged
        listed = list(range(a, b + (1 if b >= a else -1), 1 if b >= a else -1))[:200]
        said = " ".join([f"{a}-{b}", *(t.text for t in item.words)])
        if draft.amraps or draft.every or draft.windows:
            return bounded_dose(reps, MAX_REPS)
        if a > b:
            picked = self._assumed.pick("ladder-down", item.row, said, [f"{a}, {a - 1} … {b}", f"from {b} to {a}"])
            return listed if picked == 0 else {"low": b, "high": a}
        if a == 1 and b > 3:
            return (
                listed
                if self._assumed.pick("ladder-up", item.row, said, [f"1, 2 … {b}", f"from 1 to {b}"]) == 0
                else reps
            )
        if b > LADDER_RATIO * a and a > 0 and (draft.rounds is None or draft.rounds == 1):
            picked = self._assumed.pick("wide-range", item.row, said, [f"from {a} to {b}", f"{a}, {a + 1} … {b}"])
            return reps if picked == 0 else listed
        return bounded_dose(reps, MAX_REPS)

    def _paired(self, item: Item, draft: Draft) -> int:
        first, second = item.pair or (0, 0)
        if first == second and not item.sides:
            item.sides = "each"
        elif first != second:
            item.other_reps = int(second)
            said = f"{first:g}/{second:g} {' '.join(t.text for t in item.words)}"
            self._assumed.pick("two-doses", item.row, said, [f"{first:g}, or {second:g}"])
        return int(first)

    def _seconds(self, step: StepPart, item: Item, dose: Dose, draft: Draft) -> None:
        seconds = bounded_dose(dose, MAX_DURATION_S)
        step["seconds"] = seconds
        movement = self._library.get(step["movement"])
        stretch = self.one_sided_stretch_of(step["movement"])
        sided = movement is not None and movement.sides == "each"
        if item.sides in ("left", "right"):
            step["sides"] = item.sides
            return
        if item.sides == "each" and not item.shared:
            step["sides"] = "each"
            return
        if (
            draft.part == "cool-down"
            and movement is None
            and step["movement"].lower().rstrip("s").endswith("stretch")
        ):
            said = [f"{span(seconds):g} s each side", f"{span(seconds):g} s in all"]
            if self._assumed.pick("own-seconds", item.row, step["movement"], said) == 0:
                step["sides"] = "each"
            return
        if not sided:
            return
        in_all = item.shared or (item.minutes and not stretch)
        said = [f"{span(seconds):g} s each side", f"{span(seconds):g} s in all"]
        name = (movement.name if movement is not None else None) or step["movement"]
        if item.shared or self._assumed.pick("own-seconds", item.row, name, said, first=1 if in_all else 0) == 1:
            half = span(seconds) / 2
            step["seconds"] = int(half) if half.is_integer() else half
            step["sides"] = "each"

    def one_sided_stretch_of(self, key: str) -> bool:
        """Whether a known movement is a stretch or a loosening of one side."""
        movement = self._library.get(key)
        return movement is not None and movement.sides == "each" and set(movement.patterns) == {"mobility"}

    def _sides(self, step: StepPart, item: Item, draft: Draft) -> None:
        if "sides" in step or "seconds" in step:
            return
        movement = self._library.get(step["movement"])
        own = movement.sides if movement is not None else None
        if item.shared:
            if own == "each":
                step["sides"] = "alternate"
            return
        if item.sides is not None:
            step["sides"] = item.sides
        elif draft.rounds_a_side and "reps" in step:
            step["sides"] = "each"

    def _moves(self, key: str, tool: str) -> bool:
        """Whether a movement is done with a tool; an unknown one under the tool's heading is."""
        movement = self._library.get(key)
        return movement is None or KIT_WORDS.get(tool, tool) in (movement.kit or ())

    def _small_print(self, step: StepPart, item: Item, draft: Draft) -> None:
        """What a step has beside its dose: load, tempo, reserve, rest, options, a note."""
        percent = item.load.get("pct_1rm") if isinstance(item.load, dict) and "reps" not in step else None
        if percent is not None and ("metres" in step or "seconds" in step):
            # `5 x 60 m @ 95 %`: of the speed, not of what is lifted.
            item.notes.append(f"{percent:g} %")
        elif item.load is not None:
            step["load"] = item.load
        elif draft.tool_load is not None and self._moves(step["movement"], draft.tool):
            step["load"] = draft.tool_load
        if item.tempo is not None:
            step["tempo"] = item.tempo
        if item.reserve is not None:
            step["reserve"] = item.reserve
        if item.rest_after is not None:
            step["rest_s"] = item.rest_after
        options = _options(item)
        if options:
            step["options"] = options
        notes = [n for n in item.notes if n.strip(" ,.;:-/()") and n != "load without a unit"]
        if notes:
            step["note"] = "; ".join(notes)[:500]
        if "load without a unit" in item.notes:
            self._assumed.pick("load-unit", item.row, " ".join(t.text for t in item.words), ["kilograms"])

    def bare_seconds(self, step: StepPart) -> float:
        """Seconds that a step takes at its own pace, without fatigue or change-over."""
        movement = self._library.get(step["movement"])
        sides = step.get("sides") or (movement.sides if movement is not None else None)
        factor = 2 if sides == "each" else 1
        if "seconds" in step:
            return span(step["seconds"]) * factor
        if "metres" in step:
            return span(step["metres"]) / ((movement.speed_mps if movement else None) or UNKNOWN_SPEED_MPS) * factor
        reps = step.get("reps")
        if isinstance(reps, dict) and "to_failure" in reps:
            return FAILURE_PLAN * ((movement.pace_s if movement else None) or UNKNOWN_PACE_S) * factor
        return math.floor(span(reps)) * ((movement.pace_s if movement else None) or UNKNOWN_PACE_S) * factor


def _load_words(load: LoadPart) -> str:
    return f"{load['kg']:g} kg" if "kg" in load else f"{load.get('pct_1rm', 0):g} %"


def _options(item: Item) -> list[OptionPart]:
    """The lighter or shorter version that stands behind a slash."""
    options: list[OptionPart] = []
    if item.other_load is not None:
        options.append({"label": _load_words(item.other_load), "level": "easier", "load": item.other_load})
    if item.other_reps is not None:
        options.append({"label": f"{item.other_reps}", "level": "easier", "reps": item.other_reps})
    return options
