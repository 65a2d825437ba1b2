"""The doors that take whole documents and texts, tried with ones that are nearly right."""

from __future__ import annotations

import copy
import json
import random
from collections.abc import Callable, Iterator
from typing import Any

from finetally.core.board.writer import write_full
from finetally.core.movements.exchange import movements_csv, movements_json
from finetally.shipped import shipped_library
from tests.conftest import CASES, REPOSITORY
from tests.fuzz.watch import Watch
from tests.serving import Visitor

ODD: tuple[Any, ...] = (
    0, -1, 1, 2, 0.5, 1e-9, 1e-300, 59, 1000, 1001, 10_000, 86_400, 1e12, 1e308, -1e308, 10**30, 10**400, None, True, "",
    "²", "\x00", "\ud800", "\r\nX: y", "=1+1", "é" * 600, "x" * 5000, [], {}, [0], [1e308] * 3, [[[]]], {"low": 0, "high": 9},
    {"low": 5, "high": 1}, {"from": {"block": "b1", "take": "reps"}, "plan": 0}, {"to_failure": True},
    {"to_failure": True, "plan": 0}, {"kg": -1}, {"id": "b1"},
)  # fmt: skip
WORDS = (
    "restart", "reverse", "build-strip", "all", "each", "amrap", "task", "every", "rotation", "intervals", "push-up",
    "no-such-movement", "skip", "exit",
)  # fmt: skip
KEYS = (
    "cap_s", "then", "rounds", "repeat", "times", "reps", "seconds", "metres", "rest_s", "window_s", "period_s", "grow",
    "load", "sides", "pulse", "mirror", "fill", "chain", "options", "steps", "blocks", "movements", "set", "in", "at",
)  # fmt: skip


def seeds() -> list[dict[str, Any]]:
    """Whole sessions to spoil: the reference cases and the demo's."""
    cases = [json.loads(path.read_text("utf-8"))["session"] for path in sorted((CASES / "sessions").glob("*.json"))]
    demo = sorted((REPOSITORY / "src/finetally/data/demo").glob("*.json"))
    return [*cases, *(json.loads(path.read_text("utf-8")) for path in demo)]


def places(value: Any) -> Iterator[tuple[Any, Any]]:
    """Every place in a document: what holds it, and its key or index."""
    items = (
        list(value.items())
        if isinstance(value, dict)
        else list(enumerate(value))
        if isinstance(value, list)
        else []
    )
    for key, child in items:
        yield value, key
        yield from places(child)


def spoiled(document: dict[str, Any], rng: random.Random) -> dict[str, Any]:
    """A document with a few places changed: odd values, values from elsewhere, keys gone, doubled or new."""
    made = copy.deepcopy(document)
    for _ in range(rng.choice((1, 1, 2, 3))):
        all_places = list(places(made))
        holder, key = rng.choice(all_places)
        kind = rng.randrange(6)
        if kind == 0:
            holder[key] = copy.deepcopy(rng.choice(ODD))
        elif kind == 1:
            holder[key] = rng.choice(WORDS)
        elif kind == 2:
            other, there = rng.choice(all_places)
            holder[key] = copy.deepcopy(other[there])
        elif kind == 3 and isinstance(holder, list):
            holder.extend(copy.deepcopy(holder[key]) for _ in range(rng.choice((1, 5, 60))))
        elif kind == 4 and isinstance(holder, dict):
            holder[rng.choice(KEYS)] = copy.deepcopy(rng.choice(ODD))
        else:
            del holder[key]
    return made


def scratched(text: str, rng: random.Random) -> str:
    """A text with letters changed, lines doubled, parts cut out or blown up."""
    letters = list(text)
    for _ in range(rng.randint(1, 8)):
        at = rng.randrange(len(letters) + 1)
        kind = rng.randrange(5)
        if kind == 0:
            letters[at : at + 1] = rng.choice("0159:/-+,.\"“”()%'’ \n\t×{}[]=é²\x00\ud800")
        elif kind == 1:
            del letters[at : at + rng.randint(1, 30)]
        elif kind == 2:
            letters[at:at] = letters[at : at + rng.randint(1, 60)] * rng.choice((1, 3, 100))
        elif kind == 3:
            letters[at:at] = rng.choice(("9" * 5000, " " * 5000, "rest ", "1-" * 50, "together:\n", '"' * 9))
        else:
            letters[at:at] = [rng.choice("0123456789") for _ in range(rng.randint(1, 12))]
    return "".join(letters)


def try_files(watch: Watch, who: Visitor, rng: random.Random) -> None:
    """Spoiled sessions, texts and tables at every door that takes one, until the time is up."""
    library = shipped_library()
    documents = seeds()
    texts = [write_full(one, library=library) for one in documents]
    tables = [movements_csv(list(library.values())[:12]), movements_json(list(library.values())[:6])]
    doors: list[Callable[[dict[str, Any]], tuple[str, str, Any]]] = [
        lambda d: ("POST", "/figures", {"document": d}),
        lambda d: ("POST", "/figures", {"document": d, "given": rng.choice(GIVEN)}),
        lambda d: ("POST", "/fit", {"document": d, "available_s": rng.choice((1, 600, 1800, 86_400))}),
        lambda d: ("POST", "/explain", {"document": d, "figure": rng.choice(FIGURES)}),
        lambda d: ("POST", "/board/write", {"document": d, "full": rng.random() < 0.5}),
        lambda d: ("POST", "/card", {"document": d}),
        lambda d: ("POST", "/card.pdf", {"document": d}),
        lambda d: ("POST", "/compare/week", {"document": d}),
        lambda d: ("POST", "/compare", {"document": d, "hold": rng.choice(("total", "work", "reps", "load"))}),
        lambda d: ("POST", "/compare.xlsx", {"document": d}),
        lambda d: ("POST", "/sessions", {"document": d}),
        lambda d: ("POST", "/sessions/import", {"kind": "json", "text": json.dumps(d)}),
        lambda d: ("POST", "/board", {"text": scratched(rng.choice(texts), rng), "before": d}),
        lambda d: ("POST", "/figures", {"document": documents[0], "methods": spoiled(METHODS, rng)}),
    ]
    while not watch.over:
        method, path, body = rng.choice(doors)(spoiled(rng.choice(documents), rng))
        status = watch.send(who, method, path, body)
        if path == "/sessions" and status == 201:
            # What could be kept is looked at in lists and plans, too.
            watch.send(who, "GET", "/sessions")
        if rng.random() < 0.2:
            watch.send(who, "POST", "/board", {"text": scratched(rng.choice(texts), rng)})
        if rng.random() < 0.1:
            kind, table = rng.choice((("csv", tables[0]), ("json", tables[1])))
            watch.send(who, "POST", "/movements", {"kind": kind, "text": scratched(table, rng), "replace": True})
            watch.send(who, "GET", "/movements")


GIVEN: tuple[Any, ...] = (
    {"until": "b1"}, {"until": "²"}, {"start_station": 99}, {"options": "easier"}, {"person": {"pace_factor": 2000}},
    {"person": {"one_rm": {"push-up": 1e-300}}}, {"scores": {"b1": {"reps": 10_000}}}, {"person": 10**30},
)  # fmt: skip
FIGURES = (
    "total_s",
    "effort.rpe",
    "blocks.0.rpe",
    "blocks.²",
    "exits.0.load",
    "visits.0.estimated",
    "movements..kg",
    ".",
)
METHODS: dict[str, Any] = {
    "fatigue": 0.2, "fatigue_time_s": 300, "breathers": 0, "effort_scale": [[0.1, 0], [0.5, 5], [1, 10]],
    "counted_parts": ["main"], "change": {"step": 1}, "unknown": {"pace_s": 3}, "landings_limit": 100,
    "week_targets": {"pull": {"by": "minutes", "low": 10}}, "floor_on_s": 20, "muted_checks": ["no-warm-up"],
}  # fmt: skip
