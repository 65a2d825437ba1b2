"""Rules of the document that span several keys: ids, list lengths, doses, slots."""

from __future__ import annotations

from collections.abc import Iterator, Sequence

from finetally.core.session.clocks import InnerClock, Rotation
from finetally.core.session.document import Block, Section, Session
from finetally.core.session.limits import MAX_ALL_BLOCKS, MAX_ALL_STEPS
from finetally.core.session.problems import Path, Problem, path_text
from finetally.core.session.step import Step
from finetally.core.session.values import CountRange, CountValue, FromScore

RESTS = ("rest_s", "round_rest_s", "group_rest_s")
DOSE_KEYS = ("reps", "seconds", "metres")
LISTED = (*DOSE_KEYS, "load", "rest_s")


def blocks_with_paths(session: Session) -> Iterator[tuple[Path, Block]]:
    """Every block of the file in its order, with its path in the document."""
    for index, entry in enumerate(session.blocks):
        if isinstance(entry, Section):
            for inner, block in enumerate(entry.blocks):
                yield ("blocks", index, "blocks", inner), block
        else:
            yield ("blocks", index), entry


def step_lists(path: Path, block: Block) -> Iterator[tuple[Path, Sequence[Step], InnerClock, CountValue | None]]:
    """The step lists of a block: its own, or one for each station; with the clock and `rounds` they run on."""
    if isinstance(block.clock, Rotation):
        for index, station in enumerate(block.clock.stations):
            rounds = station.rounds if station.rounds is not None else block.rounds
            yield (*path, "clock", "stations", index, "steps"), station.steps, block.clock.inner, rounds
    elif block.steps is not None:
        yield (*path, "steps"), block.steps, block.clock, block.rounds


def rule_problems(session: Session) -> list[Problem]:
    """Every breach of a rule that the models alone cannot see."""
    problems = list(_size_problems(session))
    if problems:
        return problems
    problems = list(_id_problems(session))
    for path, block in blocks_with_paths(session):
        if not isinstance(block.clock, Rotation) and block.steps is None:
            problems.append(_bad((*path, "steps"), "nothing", "this key is required", "missing"))
        for steps_path, steps, clock, rounds in step_lists(path, block):
            clock_path = (*path, "clock", "inner") if isinstance(block.clock, Rotation) else (*path, "clock")
            problems.extend(_length_problems(clock_path, clock, steps_path, steps, rounds))
            problems.extend(_dose_problems(steps_path, steps, clock))
            problems.extend(_bad((*clock_path, *place), *breach) for place, *breach in clock.breaches())
    return problems


def _bad(path: Path, found: str, allowed: str, code: str) -> Problem:
    return Problem(path_text(path), found, allowed, code)


def _size_problems(session: Session) -> Iterator[Problem]:
    """More blocks or steps in the whole file than any session has."""
    blocks = list(blocks_with_paths(session))
    steps = sum(len(own) for path, block in blocks for _, own, _, _ in step_lists(path, block))
    for found, most, what in ((len(blocks), MAX_ALL_BLOCKS, "blocks"), (steps, MAX_ALL_STEPS, "steps")):
        if found > most:
            yield _bad(("blocks",), f"{found} {what}", f"up to {most} in one session", "too_many")


def _id_problems(session: Session) -> Iterator[Problem]:
    seen: set[str] = set()
    for path, identity in ids_with_paths(session):
        if identity in seen:
            yield _bad((*path, "id"), repr(identity), "an id that is used once in the file", "duplicate_id")
        seen.add(identity)


def ids_with_paths(session: Session) -> Iterator[tuple[Path, str]]:
    """Every id of the file with the path of what carries it."""
    for path, identity in _carriers(session):
        if identity is not None:
            yield path, identity


def _carriers(session: Session) -> Iterator[tuple[Path, str | None]]:
    """Everything that may carry an id, with its path: sections, then block by block with stations and steps."""
    for index, entry in enumerate(session.blocks):
        if isinstance(entry, Section):
            yield ("blocks", index), entry.id
    for path, block in blocks_with_paths(session):
        yield path, block.id
        if isinstance(block.clock, Rotation):
            for index, station in enumerate(block.clock.stations):
                yield (*path, "clock", "stations", index), station.id
        for steps_path, steps, _, _ in step_lists(path, block):
            for index, step in enumerate(steps):
                yield (*steps_path, index), step.id


def round_lists(
    clock_path: Path, clock: InnerClock, steps_path: Path, steps: Sequence[Step]
) -> Iterator[tuple[Path, int]]:
    """Every per-round list and its length."""
    for key in ("work_s", *RESTS):
        value = getattr(clock, key, None)
        if isinstance(value, list):
            yield (*clock_path, key), len(value)
    for index, step in enumerate(steps):
        fields = step.__dict__
        for key in LISTED:
            value = fields[key]
            if type(value) is list:
                yield (*steps_path, index, key), len(value)
        for number, option in enumerate(step.options or ()):
            for key in ("reps", "load"):
                value = getattr(option, key)
                if isinstance(value, list):
                    yield (*steps_path, index, "options", number, key), len(value)


def _length_problems(
    clock_path: Path, clock: InnerClock, steps_path: Path, steps: Sequence[Step], rounds: CountValue | None
) -> Iterator[Problem]:
    lengths = list(round_lists(clock_path, clock, steps_path, steps))
    if not lengths:
        return
    if rounds is None:
        expected, source = lengths[0][1], path_text(lengths[0][0])
    elif isinstance(rounds, int):
        expected, source = rounds, "rounds"
    elif isinstance(rounds, CountRange):
        expected, source = rounds.high, "the most rounds"
    else:
        expected, source = (rounds.cap or rounds.plan), "the most rounds"
    slack = isinstance(rounds, CountRange | FromScore)
    for place, length in lengths:
        if length < expected or (length > expected and not slack):
            yield _bad(place, f"a list of {length}", f"{expected} values, as many as {source}", "list_length")


def _dose_problems(steps_path: Path, steps: Sequence[Step], clock: InnerClock) -> Iterator[Problem]:
    for index, step in enumerate(steps):
        path = (*steps_path, index)
        if step.tempo is not None and sum(step.tempo) <= 0:
            yield _bad((*path, "tempo"), "a sum of 0", "four numbers with a sum above 0", "tempo")
        yield from _load_problems(path, step)
        if step.fill:
            dosed = [key for key in DOSE_KEYS if getattr(step, key) is not None]
            if dosed:
                yield _bad((*path, dosed[0]), "a dose with fill", "fill without a dose", "fill_dose")
            if clock.slotted and step.chain:
                yield _bad((*path, "chain"), "true", "fill only as the last step of its slot", "fill_last")
        elif not clock.windowed and all(getattr(step, key) is None for key in DOSE_KEYS):
            yield _bad(path, "no dose", "reps, seconds or metres (or fill, where the clock has it)", "no_dose")
    if clock.slotted and steps and steps[-1].chain:
        yield _bad((*steps_path, len(steps) - 1, "chain"), "true", "a next step to join to this one", "chain_end")
    if clock.fillers is not None:
        yield from _fill_problems(steps_path, steps, clock.fillers)


def _load_problems(path: Path, step: Step) -> Iterator[Problem]:
    """Loads that say no weight at all."""
    for number, load in enumerate(step.load if isinstance(step.load, list) else [step.load]):
        if load is not None and load.kg is None and load.pct_1rm is None and load.bodyweight is None:
            at = (*path, "load", number) if isinstance(step.load, list) else (*path, "load")
            yield _bad(at, "no weight", "one of kg, pct_1rm, bodyweight", "load")


def _fill_problems(steps_path: Path, steps: Sequence[Step], room: int) -> Iterator[Problem]:
    """More fillers than a clock has room for: a task has for none, an amrap for one."""
    fills = [index for index, step in enumerate(steps) if step.fill]
    allowed = "one fill step in a block" if room else "fill in every or amrap"
    for index in fills[room:]:
        yield _bad((*steps_path, index, "fill"), "true", allowed, "fill_clock")
    if fills and len(fills) == len(steps):
        yield _bad(steps_path, "only fill", "at least one step with a dose", "no_dose")
