"""What is told once on a line and holds for several of its movements."""

from __future__ import annotations

from collections.abc import Callable
from dataclasses import replace
from itertools import pairwise

from finetally.core.wall.doses import BARE_METRES_FROM
from finetally.core.wall.item import Item
from finetally.core.wall.qualities import take_dose
from finetally.core.wall.read import STARTING, name_text
from finetally.core.wall.rules import Fact, Scanned


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
    listed = [i for i in items if isinstance(i.reps, list)]
    for item in listed:
        item.reps = [*item.reps, *reversed(item.reps[:-1])]
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
    scanned.facts.insert(0, Fact("forlong", {"total": items.pop(0).seconds}, 0, 0))


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
        scanned.facts.insert(0, Fact("amrap", {"window": first.seconds, "repeat": first.sets}, 0, 0))


def rests_within(scanned: Scanned, items: list[Item]) -> None:
    """`10 burpees, rest 1 min, 20 squats`: a rest between two movements of a line is taken there."""
    for before, after in pairwise(items):
        if not all(i.words and i.dosed and i.sets is None and i.label != "heading" for i in (before, after)):
            continue
        told = [
            f
            for f in scanned.facts
            if f.kind == "rest"
            and f.value["where"] == "plain"
            and before.first < scanned.tokens[f.first].start < after.first
        ]
        if len(told) == 1 and before.rest_after is None:
            before.rest_after = told[0].value["s"]
            scanned.facts.remove(told[0])


def same_machine(items: list[Item]) -> None:
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
    if (listed or item.ranged is not None) and any(t.kind == "LADDER" for t in item.words):
        item.ladder = True
        item.words = [t for t in item.words if t.kind != "LADDER"]
