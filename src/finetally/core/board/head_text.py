"""What a block's head says on the wall: its clock's phrases, and those of the block, each said once."""

from __future__ import annotations

from collections.abc import Iterator, Sequence
from typing import Any

from finetally.core.board.phrases import (
    CLOCKS,
    OF_CLOCK,
    Phrase,
    PhraseKey,
)
from finetally.core.board.values import count_text, quoted, time_text


def value_of(block: dict[str, Any], key: PhraseKey) -> Any:
    here: Any = block
    for part in key:
        here = here.get(part) if isinstance(here, dict) else None
    return here


def said_phrases(phrases: Sequence[Phrase], block: dict[str, Any], said: set[PhraseKey]) -> Iterator[str]:
    """The phrases that say what is set and was not said yet; marks it as said."""
    for phrase in phrases:
        value = value_of(block, phrase.key)
        if value is None or phrase.key in said:
            continue
        if phrase.kind == "word":
            if value == phrase.value and type(value) in (type(phrase.value), float):
                said.add(phrase.key)
                yield phrase.words
            continue
        text = time_text(value, as_clock=phrase.leads) if phrase.kind == "time" else count_text(value)
        if text is not None:
            said.add(phrase.key)
            words = worded(phrase, block, one=text == "1")
            yield f"{words} {text}" if phrase.leads else f"{text} {words}"


def slots_of_clock(block: dict[str, Any]) -> int:
    return sum(1 for step in block["steps"][:-1] if step.get("chain") is not True) + 1


def worded(phrase: Phrase, block: dict[str, Any], *, one: bool) -> str:
    """A phrase's words as they fit the block: sets where it builds, pairs where it goes in pairs."""
    if phrase.name == "rest" and block["clock"]["kind"] in ("task", "amrap"):
        # A rest in the head of doses is one between rounds to whoever reads a wall.
        return "rest after each"
    if phrase.name == "round_rest" and block.get("visit") not in (None, "rounds"):
        return "between sets"
    if phrase.name == "group_rest" and block.get("group") in (2, 3):
        return "between pairs" if block["group"] == 2 else "between threes"
    return phrase.words.replace("times over", "time over").removesuffix("s") if one else phrase.words


def clock_phrases(block: dict[str, Any], said: set[PhraseKey]) -> Iterator[str]:
    clock = block["clock"]
    work, rest = clock.get("work_s"), clock.get("rest_s")
    if clock["kind"] == "intervals":
        if not said & {("clock", "work_s"), ("clock", "rest_s")} and is_plain(work) and is_plain(rest) and rest:
            said.update({("clock", "work_s"), ("clock", "rest_s")})
            yield f"{time_text(work)} on / {time_text(rest)} off"
        if work is not None:
            said.add(("clock", "kind"))
    if clock["kind"] in ("every", "amrap"):
        said.add(("clock", "kind"))
    yield from said_phrases(CLOCKS, block, said)
    yield from said_phrases(OF_CLOCK, block, said)
    pulse = clock.get("pulse")
    if isinstance(pulse, dict) and time_text(pulse.get("work_s")) and time_text(pulse.get("rest_s")):
        yield f"{time_text(pulse['work_s'])} on / {time_text(pulse['rest_s'])} off"


def is_plain(value: Any) -> bool:
    return isinstance(value, int | float) and not isinstance(value, bool)


def call_text(call: dict[str, Any]) -> Iterator[str]:
    say = quoted(call.get("say", ""))
    if say is None:
        return
    if call.get("half"):
        yield f"call {say} half-way"
    elif time_text(call.get("at_s")):
        yield f"call {say} at {time_text(call['at_s'], as_clock=True)}"
    elif time_text(call.get("before_end_s")):
        yield f"call {say} {time_text(call['before_end_s'])} before the end"
