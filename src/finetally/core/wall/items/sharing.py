"""What is told once on a line and holds for several of its movements."""

from __future__ import annotations

from collections.abc import Callable
from dataclasses import replace
from itertools import pairwise

from finetally.core.wall.items.doses import BARE_METRES_FROM
from finetally.core.wall.items.item import SOFT_WORDS, Item
from finetally.core.wall.items.qualities import take_dose
from finetally.core.wall.items.read import STARTING, longest, name_text
from finetally.core.wall.parts import single
from finetally.core.wall.tokens.rules import Fact, Scanned


def shared_doses(items: list[Item]) -> None:
    """`skips, high knees, heel kicks 20 m each`, `hamstrings and quads 30 s`: the last dose is of all of them."""
    for at, item in enumerate(items):
        before = []
        for one in reversed(items[:at]):
            if one.dosed or not one.words or one.label == "heading":
                break
            before.append(one)
        if not item.dosed or not item.after_dose or not before:
            if item.each_word and item.sides is None and item.reps is not None:
                item.sides = "each"
            continue
        if item.each_word or item.joined or (item.sides == "each" and item.seconds is not None):
            for one in before[:1] if item.joined and not item.each_word else before:
                take_dose(one, item)
                one.sides = item.sides


def back_again(scanned: Scanned, items: list[Item]) -> None:
    """`10 squats, 20 push-ups, then back up`, `1-2-3 and back down`: the same way back, the turning point once."""
    if not any(t.kind == "BACKDOWN" for t in scanned.tokens):
        return
    for item in items:
        item.words = [t for t in item.words if t.kind not in ("BACKDOWN", "THEN")]
        item.notes = [n for n in item.notes if "back" not in n]
    items[:] = [i for i in items if not i.empty]
    listed = False
    for item in items:
        if isinstance(item.reps, list):
            listed, item.reps = True, [*item.reps, *reversed(item.reps[:-1])]
    if not listed and len(items) > 1 and all(i.dosed and i.words and i.sets is None for i in items):
        items.extend(replace(i) for i in reversed(items[:-1]))


def long_head(scanned: Scanned, items: list[Item]) -> None:
    """`5 min: cat cow, thread the needle`: how long all of it takes."""
    if len(items) < 3 or items[0].words or items[0].seconds is None or items[0].sets is not None:
        return
    colon = next((t for t in scanned.tokens if t.kind == "COLON"), None)
    if colon is None or scanned.has(*STARTING) or any(not i.words for i in items[1:]):
        return
    if any(t.start < colon.start for i in items[1:] for t in i.words):
        return
    scanned.facts.insert(0, Fact("forlong", {"total": single(items.pop(0).seconds)}, 0, 0))


def sets_of_all(scanned: Scanned, items: list[Item], known: Callable[[str], bool]) -> bool:
    """`3 sets of 12: leg press, leg curl`: the sets and the dose in front of the colon are those of all."""
    if len(items) < 3 or items[0].sets is None or not items[0].dosed or known(name_text(items[0])):
        return False
    if any(i.dosed or not i.words for i in items[1:]) or not any(t.kind == "COLON" for t in scanned.tokens):
        return False
    first = items.pop(0)
    for item in items:
        item.reps, item.seconds, item.metres, item.sets = first.reps, first.seconds, first.metres, first.sets
        item.failure, item.sides = first.failure, item.sides or first.sides
    return True


def repeated_window(scanned: Scanned, items: list[Item]) -> None:
    """`5 x 3 min: 10 pull-ups, 15 push-ups`: a window again and again, and what is done in it."""
    if len(items) < 2 or items[0].words or items[0].sets is None or items[0].seconds is None:
        return
    if (
        all(i.words and i.dosed for i in items[1:])
        and any(t.kind == "COLON" for t in scanned.tokens)
        and not scanned.has("windows", "every", "amrap")
    ):
        first = items.pop(0)
        scanned.facts.insert(0, Fact("amrap", {"window": single(first.seconds), "repeat": first.sets}, 0, 0))


def one_each(scanned: Scanned, items: list[Item]) -> None:
    """`12/12/12 press-up, row, squat x 3`: as many equal numbers as movements are one for each."""
    reps = items[0].reps if items else None
    if not isinstance(reps, list) or len(items) != len(reps) or len(set(reps)) != 1 or len(items) < 2:
        return
    times = items[-1].label == "times"
    if any(i.dosed for i in items[1 : -1 if times else None]) or any(not i.words for i in items):
        return
    if times:
        scanned.facts.append(Fact("rounds", {"n": single(items[-1].reps)}, 0, 0))
    for item in items:
        item.reps, item.label = reps[0], ""


def times_behind_windows(scanned: Scanned, items: list[Item]) -> None:
    """`20 s each: high knees, squats x 2`: behind the last of several that have the window, rounds of all."""
    if len(items) < 2 or items[-1].label != "times" or not scanned.has("each", "windows") or scanned.has("rounds"):
        return
    if any(i.dosed for i in items[:-1]) or not isinstance(items[-1].reps, int):
        return
    scanned.facts.append(Fact("rounds", {"n": items[-1].reps}, 0, 0))
    items[-1].reps, items[-1].label = None, ""


def odd_and_even(scanned: Scanned, items: list[Item]) -> None:
    """`10 x 1 min: odd squats, even plank`: starts, whose lines are told by their numbers."""
    turns = any(t.kind in ("ODD", "EVEN") for t in scanned.tokens)
    if not turns or len(items) < 2 or items[0].words or not isinstance(items[0].seconds, int) or not items[0].sets:
        return
    head = items.pop(0)
    scanned.facts.append(Fact("every", {"period": head.seconds, "n": head.sets}, 0, 0))


def windows_in_time(scanned: Scanned, items: list[Item]) -> None:
    """`run 20 min: 1 min fast / 2 min slow`: the longer time is the length of all windows."""
    fact = next((f for f in scanned.facts if f.kind == "windows"), None)
    named = [i for i in items if i.words]
    if (
        fact is None
        or fact.value.get("n")
        or fact.value.get("total")
        or len(named) != 1
        or named[0].reps is not None
    ):
        return
    work, rest, total = fact.value.get("work"), fact.value.get("rest"), named[0].seconds
    if not isinstance(work, int) or not isinstance(rest, int) or not isinstance(total, int):
        return
    if total >= 2 * (work + rest):
        fact.value["total"], named[0].seconds = total, None


def rest_letters(scanned: Scanned, items: list[Item]) -> None:
    """`3 x 10 rows, 45" r`: a rest told by its letter, where no left stands beside a right."""
    last = items[-1] if len(items) > 1 else None
    if last is None or last.seconds is None or [t.kind for t in last.words] != ["R"]:
        return
    if any(t.kind == "LEFT" for t in scanned.tokens):
        return
    items.pop()
    scanned.facts.append(Fact("rest", {"s": last.seconds, "where": "plain"}, len(scanned.tokens) - 1, 0))


def growing_for(scanned: Scanned, items: list[Item]) -> None:
    """`2-4-6-8… burpees + pull-ups, 8 min`: a list that goes on, for so long."""
    if len(items) < 2 or not items[0].ladder or not isinstance(items[0].reps, list) or not items[-1].after_dose:
        return
    last = items[-1]
    if last.reps is not None or not isinstance(last.seconds, int) or any(i.dosed for i in items[1:-1]):
        return
    scanned.facts.append(Fact("growlist", {"list": items[0].reps, "window": last.seconds}, 0, 0))
    items[0].reps = last.seconds = None


def load_of_all(scanned: Scanned, items: list[Item]) -> None:
    """`Barbell complex: 6 deadlift, 6 row, 6 press, 40 kg`: nothing is put down, so one load is that of all."""
    loads = [i.load for i in items if i.load is not None]
    if len(loads) != 1 or isinstance(loads[0], list) or not any(t.text == "complex" for t in scanned.tokens):
        return
    for item in items:
        item.load = loads[0] if item.dosed else item.load


def sets_of_line(scanned: Scanned, items: list[Item]) -> str:
    """`3 sets of 10 squats and 10 push-ups`: whether sets in front of a line may be those of all of it.

    `all` where it says sets, `ask` for `3 x 10 squats, 10 push-ups`, else nothing.
    """
    named = [i for i in items if i.label != "heading"]
    if len(named) < 2 or named[0].sets is None or named[0].behind or scanned.has(*STARTING):
        return ""
    if any(not i.words or not i.dosed or i.failure for i in named) or named[0].after_dose:
        return ""
    if any(i.sets is not None or i.load is not None for i in named[1:]) or any(
        t.kind in ("THEN", "THENS") for t in scanned.tokens
    ):
        return ""
    if any(longest(i.seconds) >= LONG_DOSE_S for i in named[1:]):
        return ""
    if any(t.kind == "SOFT" or t.text in SOFT_WORDS for i in named[1:] for t in i.words):
        return ""
    return "all" if any(t.kind == "SET" for t in scanned.tokens) else "ask"


LONGEST_LADDER = 50
"""Rungs that numbers from one to another are spelt out to."""
LONG_DOSE_S = 120
"""What takes so long is done once: `5 min bike, 10 squats x 3`."""


def rests_within(scanned: Scanned, items: list[Item]) -> None:
    """`10 burpees, rest 1 min, 20 squats`: a rest between two movements of a line is taken there."""
    for before, after in pairwise([i for i in items if i.words]):
        sets = before.sets is not None and after.sets is not None
        if not all(i.dosed and (i.sets is None or sets) and i.label != "heading" for i in (before, after)):
            continue
        told = [
            f
            for f in scanned.facts
            if f.kind == "rest"
            and f.value["where"] == "plain"
            and before.first < scanned.tokens[f.first].start < after.first
        ]
        if len(told) == 1 and before.rest_after is None:
            if sets:
                before.loose_time = told[0].value["s"]
            else:
                before.rest_after = told[0].value["s"]
            scanned.facts.remove(told[0])


def same_machine(scanned: Scanned, items: list[Item]) -> None:
    """`row 2k easy, 500 m hard, 200 easy`: metres behind metres of a machine are of the same one."""
    for before, item in pairwise(items):
        if before.metres is None or not before.words or any(t.kind not in ("HARD", "SOFT") for t in item.words):
            continue
        bare = isinstance(item.reps, int) and item.reps >= BARE_METRES_FROM and bool(item.words)
        if item.metres is None and not (bare and item.seconds is None):
            continue
        if item.metres is None:
            item.metres, item.reps = item.reps, None
        item.notes.extend(t.text for t in item.words)
        item.words = [t for t in before.words if t.kind not in ("HARD", "SOFT")]


def ladder_words(item: Item) -> None:
    """`burpee ladder 1-10`: the word says what the numbers are, and belongs to no name."""
    listed = any(isinstance(v, list) for v in (item.reps, item.seconds, item.metres))
    ladder = any(t.kind == "LADDER" for t in item.words)
    if ladder and isinstance(item.reps, list) and len(item.reps) == 3 and item.reps[0] == item.reps[2]:
        # `pyramid 1-10-1`
        low, high = int(item.reps[0]), int(item.reps[1])
        if low + 2 < high <= LONGEST_LADDER:
            item.reps = [*range(low, high), *range(high, low - 1, -1)]
    if (listed or item.ranged is not None) and any(t.kind == "LADDER" for t in item.words):
        item.ladder = True
        item.words = [t for t in item.words if t.kind != "LADDER"]


FIRST_SHARED = (long_head, same_machine, one_each, times_behind_windows, windows_in_time, odd_and_even)
"""What is looked for before anything else of a line is decided, in this order."""
