"""`again` and `skip` of rounds, read literally from the floor's contract, against the timer: mirrored repeats too."""

from __future__ import annotations

import random
from dataclasses import dataclass, replace
from typing import Any

import pytest

from finetally.core.floor.document import read_run
from finetally.core.floor.replay import replay
from finetally.core.floor.sheet import Sheet, sheet
from finetally.core.session.reading import parse_session
from finetally.shipped import shipped_library
from tests.core.helpers import BARE, session, step

BLOCKS = 40


@dataclass(eq=False)
class Item:
    number: int
    kind: str
    ends: str
    s: float
    set: int | None


class LiteralTimer:
    """One block without holding: beats in a list, each rule one sentence of the contract."""

    def __init__(self, made: Sheet) -> None:
        self.items = [Item(n, one.kind, one.ends, one.s, one.set) for n, one in enumerate(made.beats)]
        self.place, self.began, self.over, self.fresh = 0, 0.0, False, 10_000
        self.played: list[tuple[int, float, float]] = []

    def advance(self, t: float) -> None:
        while not self.over and self.items[self.place].ends == "clock":
            end = self.began + self.items[self.place].s
            if end > t + 1e-6:
                return
            self.end(end)

    def end(self, t: float) -> None:
        self.played.append((self.items[self.place].number, round(self.began, 3), round(t, 3)))
        self.place += 1
        self.began, self.over = t, self.place == len(self.items)

    def without(self, gone: list[Item]) -> None:
        self.items = [one for one in self.items if not any(one is each for each in gone)]

    def skip(self, t: float) -> None:
        if self.over or self.items[self.place].set is None:
            return
        here, later = self.items[self.place], self.items[self.place + 1 :]
        left = [one for one in later if one.set == here.set]
        if here.kind == "work":
            # It ends now, what is left of its set leaves but for a rest at the set's end.
            self.without(left[:-1] if left and left[-1].kind == "rest" else left)
            self.end(t)
            return
        if not left:
            following = next((one for one in later if one.set is not None), None)
            if following is None:
                return
            left = [one for one in later if one.set == following.set]
        self.without(left)
        # A rest that a rest of the same run would now follow ends at once.
        if self.place + 1 < len(self.items) and self.items[self.place + 1].kind == "rest":
            self.end(t)

    def again(self, t: float) -> None:
        of = self.items[self.place - self.over]
        if of.set is None:
            return
        places = [n for n, one in enumerate(self.items) if one.set == of.set]
        self.fresh += 1
        copies = [replace(self.items[n], set=self.fresh) for n in places]
        before = self.items[places[0] - 1] if places[0] else None
        if copies[-1].kind == "work" and before is not None and before.kind == "rest":
            # The rest that stood before the round is put between, and belongs to the round before it.
            copies.insert(0, replace(before, set=of.set))
        at = places[-1] + 1
        self.items[at:at] = copies
        if self.over:
            self.place, self.began, self.over = at, t, False


def drawn(dice: random.Random) -> dict[str, Any]:
    """A block whose second repeat is played backwards; steps rest as long as they like."""
    steps = [step(key) for key in ("burpee", "air-squat", "push-up")[: dice.randint(1, 3)]]
    clock: dict[str, Any] = {"kind": dice.choice(["intervals", "intervals", "task"])}
    for one in steps:
        if dice.random() < 0.5:
            one["rest_s"] = dice.choice([0, 5, 10])
    if clock["kind"] == "intervals":
        clock |= {
            "work_s": 20,
            "rest_s": dice.choice([0, 10]),
            **dice.choice([{}, {"rest_first": True}, {"closing_rest": True}]),
        }
    else:
        steps = [{**one, "reps": 5} for one in steps]
        clock["rest_s"] = 10
    if dice.random() < 0.5:
        clock["round_rest_s"] = dice.choice([15, 30])
    more = {"rest_between_repeats_s": 40} if dice.random() < 0.3 else {}
    return {"clock": clock, "rounds": dice.randint(1, 3), "repeat": 2, "mirror": True, "steps": steps, **more}


@pytest.mark.parametrize("seed", range(20))
def test_rounds_come_again_and_leave_as_the_contract_says(seed: int) -> None:
    dice = random.Random(seed)
    for _ in range(BLOCKS):
        document = session(drawn(dice))
        made = sheet(parse_session(document), library=shipped_library(), methods=BARE)
        t, literal, events = 0.0, LiteralTimer(made), [{"t": 0.0, "do": "start"}]
        for _ in range(dice.randint(1, 8)):
            t += dice.choice([3, 7, 12, 25, 40])
            what = dice.choice(["again", "skip"])
            events.append({"t": t, "do": what, "what": "round"})
            literal.advance(t)
            literal.again(t) if what == "again" else literal.skip(t)
        literal.advance(t + 3_000)
        run = {
            "fine_tally_run": 1,
            "session": document,
            "methods": BARE.model_dump(exclude_unset=True),
            "events": events,
        }
        played = replay(read_run({**run, "hold": "never", "until": t + 3_000}), library=shipped_library()).played
        assert [(one.item.number, round(one.start, 3), round(one.end, 3)) for one in played] == literal.played, (
            events
        )


def test_a_mirrored_repeat_goes_on_to_its_closing_rest_after_a_round_came_again() -> None:
    block = {
        "clock": {"kind": "intervals", "work_s": 20, "closing_rest": True}, "repeat": 2, "mirror": True,
        "steps": [step("burpee", rest_s=10), step("air-squat", rest_s=0)],
    }  # fmt: skip
    # 20 + 10 + 20, and back: 20 + 10 + 20, then the rest of the burpee, which comes last there.
    events = [
        {"t": 0, "do": "start"}, {"t": 85, "do": "again", "what": "round"}, {"t": 90, "do": "skip", "what": "round"},
    ]  # fmt: skip
    run = {"fine_tally_run": 1, "session": session(block), "events": events, "hold": "never", "until": 400}
    played = replay(read_run(run), library=shipped_library())
    # The skipped window ends at 90, its closing rest at 100; the round once more takes 20 + 10 + 20 + 10.
    assert played.over
    assert played.played[-1].end == 160
