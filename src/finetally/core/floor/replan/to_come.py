"""What of a session has not begun while it runs: its entries, and the seconds of what has."""

from __future__ import annotations

from dataclasses import dataclass

from finetally.core.floor.replay import Played
from finetally.core.session.json_value import JsonObject


@dataclass(frozen=True, slots=True)
class ToCome:
    """`session`: as it stands, changes made. `first`: its first entry of those that have not begun, all to its end;
    as many as there are entries where all have. `blocks`: the blocks, by number, of which something is to come.
    `begun_s`: seconds that what has begun still lasts; a beat that only a tap ends as planned.
    """

    session: JsonObject
    first: int
    blocks: list[int]
    begun_s: float

    @property
    def rest(self) -> JsonObject:
        """The session of what has not begun."""
        entries = self.session.get("blocks")
        return {**self.session, "blocks": entries[self.first :] if isinstance(entries, list) else []}


def to_come(played: Played) -> ToCome:
    """What of a run has not begun at its `until`."""
    timer = played.timer
    queue = timer.queue
    laid = played.sheets[-1]
    entry_of = {beat.passage: int(laid.tape.blocks[beat.block].path[1]) for beat in laid.beats}
    block_of = {beat.passage: beat.block for beat in laid.beats}
    begun = queue.place + (timer.mode in ("playing", "paused"))
    coming = [] if played.over else queue.items[begun:]
    waiting = {entry_of[item.beat.passage] for item in coming if item.beat.passage in entry_of and not item.copy}
    running = {entry_of.get(item.beat.passage, -1) for item in queue.items[:begun]}
    first = len(laid.session.blocks)
    while first - 1 in waiting - running:
        first -= 1
    left = sum(item.s for item in coming if entry_of.get(item.beat.passage, -1) < first)
    here = queue.here
    if here is not None and timer.mode in ("playing", "paused"):
        told = timer.left_s(played.until)
        left += max(0.0, here.s - timer.ran_s(played.until)) if told is None else told
    blocks = {block_of[item.beat.passage] for item in queue.items[queue.place :] if item.beat.passage in block_of}
    return ToCome(played.session, first, [] if played.over else sorted(blocks), left)
