"""The timer: what orders make of a queue of beats. The one definition; the browser's is held to it by shared cases.

Times are seconds since the start of the run; times within 1e-6 s are equal.
"""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import dataclass
from typing import Literal

from finetally.core.floor.beats import Beat
from finetally.core.floor.events import Event, Lap, More, SetLength, Simple, SkipOrAgain, Start
from finetally.core.floor.queue import BeatQueue, Holding, QueuedBeat, waits
from finetally.core.unfold.pace import TIME_EPS_S

TOO_SOON_S = 1.0
"""A `next` sooner after a change was meant for that change."""

BACK_TO_BEFORE_S = 3.0
"""`back` within so many seconds of a beat goes to the one before it."""

LATE_LAP_S = 3.0
"""A lap so long after the bell still belongs to the window."""

Mode = Literal["before", "playing", "paused", "waiting", "over"]
How = Literal["whole", "short", "long"]


@dataclass(frozen=True, slots=True)
class PlayedBeat:
    """A beat that was played: from when to when, how long of that it stood, and how that is against the plan.

    `added`: it had been played before. `by_clock`: it ended because its time was up.
    """

    item: QueuedBeat
    start: float
    end: float
    paused_s: float
    how: How
    added: bool
    by_clock: bool

    @property
    def seconds(self) -> float:
        """What was played of it, without pauses."""
        return self.end - self.start - self.paused_s


class Timer:
    """Plays beats. `advance` lets time run on, `apply` gives an event at its time."""

    def __init__(self, beats: Sequence[Beat], hold: Holding = "entries") -> None:
        self.queue = BeatQueue(beats)
        self.mode: Mode = "before"
        self.played: list[PlayedBeat] = []
        self.laps: dict[int, list[float]] = {}
        self.waited_s = 0.0
        self._hold = hold
        self._stopped = False
        self._began = 0.0
        self._stood_s = 0.0
        self._paused_at = 0.0
        self._plus_s = 0.0
        self._since = 0.0
        self._seen: set[tuple[int, int]] = set()

    # What is asked of it.

    def ran_s(self, t: float) -> float:
        """Seconds that the running beat has been played by `t`."""
        until = self._paused_at if self.mode == "paused" else t
        return max(0.0, until - self._began - self._stood_s)

    def left_s(self, t: float) -> float | None:
        """Seconds that are left of the running beat at `t`; None where only a tap ends it."""
        item = self.queue.here
        if item is None or item.beat.ends == "tap":
            return None
        return item.s + self._plus_s - self.ran_s(t)

    def waited_by(self, t: float) -> float:
        """Seconds waited by `t`, the running wait included."""
        return self.waited_s + (t - self._since if self.mode == "waiting" else 0.0)

    def paused_by(self, t: float) -> float:
        """Seconds stood by `t`, the running pause included."""
        running = self._stood_s if self.mode in ("playing", "paused") else 0.0
        standing = t - self._paused_at if self.mode == "paused" else 0.0
        return sum(one.paused_s for one in self.played) + running + standing

    # Time.

    def advance(self, t: float) -> None:
        """Let time run on to `t`: beats whose time is up end at that very moment, and the next begin then."""
        while self.mode == "playing":
            item = self.queue.here
            if item is None or item.beat.ends == "tap":
                return
            end = self._began + self._stood_s + item.s + self._plus_s
            if end > t + TIME_EPS_S:
                return
            self._finish(end, by_clock=True)

    def _begin(self, t: float) -> None:
        self.mode = "playing"
        self._began, self._stood_s, self._plus_s = t, 0.0, 0.0

    def _end_wait(self, t: float) -> None:
        self.waited_s += t - self._since

    def _finish(self, t: float, *, by_clock: bool = False) -> None:
        """The running beat ends; what is next begins, or waits, or the run is over."""
        item = self._record(t, by_clock=by_clock)
        self.queue.place += 1
        following = self.queue.here
        if following is None:
            self._over(t)
        elif waits(self._hold, item, following):
            self.mode, self._since = "waiting", t
        else:
            self._begin(t)

    def _record(self, t: float, *, by_clock: bool = False) -> QueuedBeat:
        item = self.queue.items[self.queue.place]
        seconds = t - self._began - self._stood_s
        key = (item.sheet, item.number)
        self.played.append(
            PlayedBeat(item, self._began, t, self._stood_s, _how(item, seconds), key in self._seen, by_clock)
        )
        self._seen.add(key)
        return item

    def _over(self, t: float) -> None:
        self.mode, self._since = "over", t

    # Events.

    def apply(self, event: Event) -> bool:
        """Take an event at its time (`advance` to it first); returns whether it did something."""
        if isinstance(event, Start):
            self._start(event.t)
            return False
        if isinstance(event, Lap):
            return self._lap(event.t)
        if isinstance(event, Simple | More | SetLength | SkipOrAgain):
            return self._order(event)
        return False

    def _start(self, t: float) -> None:
        if self.mode != "before":
            return
        if self.queue.here is None:
            self._over(t)
        else:
            self._begin(t)

    def _order(self, event: Simple | More | SetLength | SkipOrAgain) -> bool:
        late = event.on is not None and event.on != len(self.played)
        if late or self.mode == "before" or self._stopped:
            return False
        if event.do == "pause":
            return self._pause(event.t)
        ended = self.mode == "paused"
        if ended:
            self._stood_s += event.t - self._paused_at
            self.mode = "playing"
        return self._given(event) or ended

    def _pause(self, t: float) -> bool:
        if self.mode != "playing":
            return False
        self.mode, self._paused_at = "paused", t
        return True

    def _given(self, event: Simple | More | SetLength | SkipOrAgain) -> bool:
        t = event.t
        if isinstance(event, SetLength):
            return self._set(t, event.kind, event.s)
        if isinstance(event, More):
            return self._more(t, event.s)
        if isinstance(event, SkipOrAgain):
            if event.do == "again":
                return self._again(event)
            return self._skip_block(t) if event.what == "block" else self._skip_round(t)
        if event.do == "next":
            return self._next(t)
        if event.do == "back":
            return self._back(t)
        return event.do == "stop" and self._stop(t)

    def _next(self, t: float) -> bool:
        if self.mode == "waiting":
            self._end_wait(t)
            self._begin(t)
            return True
        if self.mode != "playing" or t - self._began < TOO_SOON_S - TIME_EPS_S:
            return False
        self._finish(t)
        return True

    def _end_if_done(self, t: float) -> None:
        left = self.left_s(t)
        if left is not None and left <= TIME_EPS_S:
            self._finish(t)

    def _more(self, t: float, seconds: float) -> bool:
        if self.mode != "playing" or self.left_s(t) is None or seconds == 0:
            return False
        self._plus_s += seconds
        self._end_if_done(t)
        return True

    def _set(self, t: float, kind: str, seconds: float) -> bool:
        here = self.queue.here
        if here is None or self.mode == "over" or not self.queue.set_length(here.beat.block, kind, seconds):
            return False
        now = self.queue.here
        if self.mode == "playing" and now is not None and now is not here:
            self._plus_s = 0.0
            self._end_if_done(t)
        return True

    def _skip_block(self, t: float) -> bool:
        here, queue = self.queue.here, self.queue
        if here is None or self.mode == "over":
            return False
        if self.mode == "waiting":
            queue.drop(queue.place, "block", here)
            self._wait_on(t)
        else:
            queue.drop(queue.place + 1, "block", here)
            self._finish(t)
        return True

    def _wait_on(self, t: float) -> None:
        """While waiting, something else is to come: waiting goes on; a talk begins, and nothing ends the run."""
        following = self.queue.here
        if following is None:
            self._end_wait(t)
            self._over(t)
        elif following.beat.kind == "talk":
            self._end_wait(t)
            self._begin(t)

    def _skip_round(self, t: float) -> bool:
        here, queue = self.queue.here, self.queue
        if here is None or here.set is None or self.mode == "over":
            return False
        if self.mode == "waiting":
            queue.drop(queue.place, "round", here)
            self._wait_on(t)
            return True
        after = queue.place + 1
        if here.beat.kind == "work":
            queue.drop(after, "round", here, keep_closing_rest=True)
            self._finish(t)
            return True
        if any(item.set == here.set for item in queue.items[after:]):
            queue.drop(after, "round", here)
        else:
            coming = queue.next_set(after, here.run, here.set)
            if coming is None:
                return False
            queue.drop(after, "round", coming)
        following = queue.items[after] if after < len(queue.items) else None
        if following is not None and following.run == here.run and following.beat.kind == "rest":
            self._finish(t)
        return True

    def _again(self, event: SkipOrAgain) -> bool:
        queue, t = self.queue, event.t
        running = self.mode == "playing"
        of = queue.here if running else self.played[-1].item if self.played else None
        at = queue.again(of, event.what) if of is not None else -1
        if of is None or at < 0:
            return False
        if running:
            return True
        queue.place = at
        if self.mode == "over":
            coming = queue.items[at]
            if event.what == "block" and waits(self._hold, of, coming):
                self.mode = "waiting"
            else:
                self._end_wait(t)
                self._begin(t)
        return True

    def _back(self, t: float) -> bool:
        queue = self.queue
        if self.mode == "playing":
            stay = self.ran_s(t) >= BACK_TO_BEFORE_S - TIME_EPS_S or queue.place == 0
            self._record(t)
            queue.place -= 0 if stay else 1
        else:
            if not self.played or queue.place == 0:
                return False
            self._end_wait(t)
            queue.place -= 1
        self._begin(t)
        return True

    def _stop(self, t: float) -> bool:
        if self.mode == "over":
            return False
        if self.mode == "waiting":
            self._end_wait(t)
        else:
            self._record(t)
            self.queue.place += 1
        self._over(t)
        self._stopped = True
        return True

    def _lap(self, t: float) -> bool:
        for index in range(len(self.played) - 1, -1, -1):
            one = self.played[index]
            if one.end < t - LATE_LAP_S - TIME_EPS_S:
                break
            if one.item.beat.self_paced and one.by_clock:
                self.laps.setdefault(index, []).append(one.seconds)
                return True
        here = self.queue.here
        if self.mode not in ("playing", "paused") or here is None or not here.beat.self_paced:
            return False
        self.laps.setdefault(len(self.played), []).append(self.ran_s(t))
        return True


def _how(item: QueuedBeat, seconds: float) -> How:
    """Against the planned seconds; what ends by tap is whole, what a cap ends is never short."""
    planned, ends = item.beat.s, item.beat.ends
    if ends == "tap" or abs(seconds - planned) <= TIME_EPS_S:
        return "whole"
    if seconds > planned:
        return "long"
    return "whole" if ends == "cap" else "short"
