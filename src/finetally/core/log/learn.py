"""`learn`: what a log teaches of each person's pace and effort."""

from __future__ import annotations

from finetally.core.learn.learned import EffortSeen, Learned, PaceSeen, learned
from finetally.core.log.as_done import DoneSession
from finetally.core.log.document import Log, LogEntry, LogScore
from finetally.core.methods.given import NOTHING_GIVEN
from finetally.core.methods.value import DEFAULT_METHODS, Methods
from finetally.core.movements.library import Library
from finetally.core.session.json_value import JsonObject
from finetally.core.session.problems import DocumentError, Problem, refuse
from finetally.core.session.reading import parse_session
from finetally.core.unfold.tape import RunScore
from finetally.core.unfold.unfold import blocks_of


def learn(log: Log, *, library: Library, methods: Methods = DEFAULT_METHODS) -> dict[str, Learned]:
    """What the entries up to `as_of` teach, by person, in order of their first one.

    Each session is figured as it was done (options taken, what was played of it); scores are turned into pace
    factors, ratings are held against the estimated effort. Raises DocumentError that names the entry.
    """
    paces: dict[str, list[PaceSeen]] = {}
    efforts: dict[str, list[EffortSeen]] = {}
    own = methods.model_dump(mode="json", by_alias=True, exclude_unset=True)
    for number, entry in enumerate(log.entries):
        mine, rated = paces.setdefault(entry.person, []), efforts.setdefault(entry.person, [])
        if entry.date > log.as_of or not (entry.scores or entry.rated is not None):
            continue
        try:
            done = done_of(entry, own, library=library, methods=methods)
            mine += [PaceSeen(entry.date, one) for one in _factors(done, entry.scores)]
            if entry.rated is not None:
                rated.append(EffortSeen(entry.date, entry.rated, done.effort()))
        except DocumentError as error:
            place = f"entries[{number}]"
            raise DocumentError(
                Problem(f"{place}.{p.path}", p.found, p.allowed, p.code) for p in error.problems
            ) from None
    return {person: learned(paces[person], efforts[person], as_of=log.as_of, methods=methods) for person in paces}


def done_of(entry: LogEntry, own: JsonObject, *, library: Library, methods: Methods) -> DoneSession:
    """An entry's session as its person did it; `own`: the methods as a run's file has them."""
    given = entry.given.given() if entry.given is not None else NOTHING_GIVEN
    return DoneSession(
        parse_session(entry.session),
        library=library,
        methods=methods,
        given=given,
        run=entry.as_run(own),
        person=entry.person,
    )


def _factors(done: DoneSession, scores: list[LogScore]) -> list[float]:
    found = []
    blocks = len(blocks_of(done.session))
    for number, score in enumerate(scores):
        if score.block >= blocks:
            raise refuse(("scores", number, "block"), str(score.block), f"0 to {blocks - 1}", "block")
        factor = done.factor(score.block, score.index, run_score(score))
        if factor is not None:
            found.append(factor)
    return found


def run_score(score: LogScore) -> RunScore:
    """A score as windows have it."""
    if score.time_s is not None:
        return {"time_s": score.time_s}
    return {"rounds": score.rounds or 0, "reps": score.reps or 0}
