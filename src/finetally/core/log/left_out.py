"""A session of which some blocks were not done, where no run says so."""

from __future__ import annotations

from collections.abc import Collection

from finetally.core.log.page import DoneDifference
from finetally.core.session.ids import with_ids
from finetally.core.session.json_value import JsonObject, JsonValue
from finetally.core.session.problems import refuse
from finetally.core.session.reading import parse_session
from finetally.core.tally.measure import Tally
from finetally.core.unfold.unfold import blocks_of


def without_blocks(document: JsonObject, numbers: Collection[int]) -> JsonObject:
    """A session's document without some of its blocks, by their numbers in the file; all parts keep their ids.

    Raises DocumentError for a number that no block has, and where no block would be left.
    """
    whole = with_ids(document)
    blocks = blocks_of(parse_session(whole))
    wrong = [number for number in numbers if not 0 <= number < len(blocks)]
    if wrong:
        raise refuse(("left_out",), str(wrong[0]), f"0 to {len(blocks) - 1}", "block")
    if len(set(numbers)) == len(blocks):
        raise refuse(("left_out",), "all blocks", "fewer: what was not done at all is not logged", "block")
    gone = {of.path for number, of in enumerate(blocks) if number in numbers}
    entries: list[JsonValue] = []
    kept = whole["blocks"]
    for index, entry in enumerate(kept if isinstance(kept, list) else []):
        if isinstance(entry, dict) and isinstance(inner := entry.get("blocks"), list):
            stays = [one for at, one in enumerate(inner) if ("blocks", index, "blocks", at) not in gone]
            if stays:
                entries.append({**entry, "blocks": stays})
        elif ("blocks", index) not in gone:
            entries.append(entry)
    return {**whole, "blocks": entries}


def left_out_of(planned: Tally, numbers: Collection[int]) -> list[DoneDifference]:
    """What was not done, block by block, with the seconds that were planned for it."""
    found: list[DoneDifference] = []
    for number, of in enumerate(planned.tape.blocks):
        if number in numbers:
            runs = [run for run in planned.tape.runs if run.block == number]
            skipped: DoneDifference = {
                "kind": "skipped", "of": "", "block": number, "title": of.block.title or of.part,
                "seconds": -sum(run.end - run.start for run in runs), "count": len(runs),
            }  # fmt: skip
            found.append(skipped)
    return found
