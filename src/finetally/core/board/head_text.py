"""What a block's head says on the wall: its clock's phrases, and those of the block, each said once."""

from __future__ import annotations

from collections.abc import Iterator, Sequence
from typing import Any, NamedTuple

from finetally.core.board.phrases import CLOCKS, LED_KINDS, OF_CLOCK, Phrase, PhraseKey
from finetally.core.board.values import count_text, quoted, time_text
from finetally.core.session.clocks import Clock, Intervals, Task
from finetally.core.session.document import Block, Call


class Head(NamedTuple):
    """A block, and the clock that is spoken of: its own, or the one inside a rotation."""

    block: Block
    clock: Clock

    def value(self, key: PhraseKey) -> Any:
        """What stands where a phrase says; None where nothing is said, or the clock has no such thing."""
        return getattr(self.clock, key[1], None) if key[0] == "clock" else getattr(self.block, key[0], None)


def said_phrases(phrases: Sequence[Phrase], head: Head, said: set[PhraseKey]) -> Iterator[str]:
    """The phrases that say what is set and was not said yet; marks it as said."""
    for phrase in phrases:
        value = head.value(phrase.key)
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
            words = worded(phrase, head, one=text == "1")
            yield f"{words} {text}" if phrase.leads else f"{text} {words}"


def worded(phrase: Phrase, head: Head, *, one: bool) -> str:
    """A phrase's words as they fit the block: sets where it builds, pairs where it goes in pairs."""
    block = head.block
    if phrase.name == "rest" and head.clock.self_paced:
        # A rest in the head of doses is one between rounds to whoever reads a wall.
        return "rest after each"
    if phrase.name == "round_rest" and block.visit not in (None, "rounds"):
        return "between sets"
    if phrase.name == "group_rest" and block.group in (2, 3):
        return "between pairs" if block.group == 2 else "between threes"
    return phrase.words.replace("times over", "time over").removesuffix("s") if one else phrase.words


def clock_phrases(head: Head, said: set[PhraseKey]) -> Iterator[str]:
    """What is said of the clock itself, and of the pulse it runs under."""
    clock = head.clock
    if isinstance(clock, Intervals):
        on_off = _on_off(clock)
        if on_off and not said & {("clock", "work_s"), ("clock", "rest_s")}:
            said.update({("clock", "work_s"), ("clock", "rest_s")})
            yield on_off
        if clock.work_s is not None:
            said.add(("clock", "kind"))
    if clock.kind in LED_KINDS:
        said.add(("clock", "kind"))
    yield from said_phrases(CLOCKS, head, said)
    yield from said_phrases(OF_CLOCK, head, said)
    if isinstance(clock, Task) and clock.pulse is not None:
        yield f"{time_text(clock.pulse.work_s)} on / {time_text(clock.pulse.rest_s)} off"


def _on_off(clock: Intervals) -> str | None:
    """Work and rest as one phrase, where both are plain numbers and there is a rest."""
    work, rest = clock.work_s, clock.rest_s
    if isinstance(work, int | float) and isinstance(rest, int | float) and rest:
        return f"{time_text(work)} on / {time_text(rest)} off"
    return None


def call_text(call: Call) -> Iterator[str]:
    """What is called out when; nothing of a call whose words or whose time no phrase says."""
    say = quoted(call.say)
    if say is None:
        return
    if call.half:
        yield f"call {say} half-way"
    elif call.at_s is not None:
        yield f"call {say} at {time_text(call.at_s, as_clock=True)}"
    elif call.before_end_s is not None:
        yield f"call {say} {time_text(call.before_end_s)} before the end"
