"""Fit to time: ways to cut or fill a session to the minutes there are, each as edits with its figures."""

from __future__ import annotations

import itertools
import json
from collections.abc import Iterator

from typing_extensions import TypedDict

from finetally.core.compare.changes import ChangeKind, PlanChange, cuts_of, series_of
from finetally.core.edits.edit import apply_edits, edit_json
from finetally.core.methods.given import NOTHING_GIVEN, Given
from finetally.core.methods.value import DEFAULT_METHODS, Methods
from finetally.core.movements.library import Library
from finetally.core.session.json_value import JsonObject, JsonValue, objects
from finetally.core.session.problems import DocumentError
from finetally.core.session.reading import parse_session
from finetally.core.tally.measure import booked_s, tally, timetable_s
from finetally.core.unfold.pace import TIME_EPS_S
from finetally.core.unfold.resolve import AT_PLAN, Resolver
from finetally.core.unfold.unfold import unfold

MOST_WAYS = 3
MOST_TRIED = 6
"""Sets of parts that are taken out together and laid out; those that should come closest."""


class FitWay(TypedDict):
    """One way to fit: what is done, its edits, what the session then comes to, and the time left over."""

    kind: ChangeKind
    what: str
    edits: list[JsonObject]
    timetable_s: float
    left_s: float
    density: float | None
    rpe: float
    load: float


def fit_to_time(
    document: JsonObject,
    available_s: float,
    *,
    library: Library,
    methods: Methods = DEFAULT_METHODS,
    given: Given = NOTHING_GIVEN,
) -> list[FitWay]:
    """Up to three ways of different kinds to make the timetable fit `available_s`, the closest first.

    A way never goes over the time, and the session as it stands is none. Too long: what cuts, alone or two
    together (an exit and shorter rests) where one is not enough. Room left: what fills. Raises DocumentError
    for a document that cannot be figured.
    """
    finder = _Finder(available_s, library, methods, given)
    # Laid out whole this once: what is wrong with it is told with the document's own places.
    now = finder.laid_out(document)
    longer = now <= available_s
    found = list(finder.singles(document, now, longer=longer))
    if not longer and len({change.kind for change, _ in found}) < MOST_WAYS:
        found.extend(finder.doubles(document, now))
    best: dict[str, tuple[PlanChange, float]] = {}
    for change, length in found:
        # Which part is taken out makes a way of its own; rounds, windows and rests are one way each.
        key = change.what.partition(";")[0] if change.kind in ("exit", "skip") else change.kind
        if key not in best or best[key][1] < length - TIME_EPS_S:
            best[key] = (change, length)
    different: dict[str, PlanChange] = {}
    for change, _ in sorted(best.values(), key=lambda pair: available_s - pair[1]):
        different.setdefault(json.dumps(applied(document, change)), change)
    return [finder.figured(document, change) for change in [*different.values()][:MOST_WAYS]]


def applied(document: JsonObject, change: PlanChange) -> JsonObject:
    """The document with a change's edits made."""
    return apply_edits(document, change.edits)[0]


def _both(first: PlanChange, second: PlanChange) -> PlanChange:
    return PlanChange(first.kind, f"{first.what}; {second.what}", (*first.edits, *second.edits))


_EMPTY: JsonObject = {"fine_tally": 1, "title": "-", "blocks": []}
_NO_TIME: JsonObject = {
    "clock": {"kind": "intervals", "work_s": 0},
    "steps": [{"movement": "-"}],
    "part": "main",
}
"""What stands for all that follows an entry: something, in no time."""


class _Finder:
    def __init__(self, available_s: float, library: Library, methods: Methods, given: Given) -> None:
        self._available_s = available_s
        self._library = library
        self._methods = methods
        self._given = given
        self._lengths: dict[tuple[str, bool], float] = {}

    def length(self, document: JsonObject) -> float:
        """The timetable of a document, without any other figure.

        How long an entry lasts depends on no other but on whether one follows, so only entries that were not met
        before are laid out: a fit costs about as many entries as it tries changes, not as many sessions.
        """
        if self._given.until is not None:
            return self.laid_out(document)
        entries = [*objects(document["blocks"])]
        last = len(entries) - 1
        slack = {key: document[key] for key in ("slack_s",) if key in document}
        seconds = [self._entry(document, entry, follows=index < last) for index, entry in enumerate(entries)]
        return sum(seconds) + self.laid_out({**_EMPTY, **slack})

    def _entry(self, document: JsonObject, entry: JsonObject, *, follows: bool) -> float:
        key = (json.dumps(entry, sort_keys=True), follows)
        if key not in self._lengths:
            after = [_NO_TIME] if follows else []
            own: list[JsonValue] = [*objects(document.get("movements")), {"key": "-"}]
            self._lengths[key] = self.laid_out({**_EMPTY, "movements": own, "blocks": [entry, *after]})
        return self._lengths[key]

    def laid_out(self, document: JsonObject) -> float:
        """The timetable of a document that is laid out whole. Raises DocumentError."""
        session = parse_session(document)
        tape = unfold(session, library=self._library, methods=self._methods, given=self._given)
        return booked_s(tape, session, Resolver(AT_PLAN, self._given.scores))

    def _fits(self, document: JsonObject, change: PlanChange) -> float | None:
        """The length after a change if it fits; None if it does not, or cannot be made at all."""
        try:
            length = self.length(applied(document, change))
        except DocumentError:
            # A round more may ask for a list that is not long enough, or go over a limit: then it is no way.
            return None
        return length if length <= self._available_s + TIME_EPS_S else None

    def singles(
        self, document: JsonObject, now: float, *, longer: bool, cuts: bool = True
    ) -> Iterator[tuple[PlanChange, float]]:
        """Every single change that fits, with the seconds it comes to: of each series the one that comes closest.

        `now`: seconds that the document comes to.
        """
        for cut in cuts_of(document, self._given) if cuts and not longer else ():
            length = self._fits(document, cut)
            if length is not None:
                yield cut, length
        for series in series_of(document, longer=longer):
            closest = self._closest(document, series, longer=longer)
            if closest is not None and abs(closest[1] - now) > TIME_EPS_S:
                yield closest

    def _closest(
        self, document: JsonObject, series: list[PlanChange], *, longer: bool
    ) -> tuple[PlanChange, float] | None:
        """By halving: when cutting the first that fits, when filling the last that does."""
        low, high = 0, len(series)
        best: tuple[PlanChange, float] | None = None
        while low < high:
            middle = (low + high) // 2
            length = self._fits(document, series[middle])
            if length is not None:
                best = (series[middle], length)
            if (length is not None) is longer:
                low = middle + 1
            else:
                high = middle
        return best

    def doubles(self, document: JsonObject, now: float) -> Iterator[tuple[PlanChange, float]]:
        """Parts taken out that are not enough alone, and then the closest change of what is left.

        Each with the seconds it comes to; `now`: those that the document comes to.
        What a change saves hardly depends on the others, so each is measured once and those together that should
        come closest are laid out: at most MOST_TRIED of them, however many blocks there are.
        """
        cuts = [
            (cut, now - length) for cut in cuts_of(document, self._given) if (length := self._after(document, cut))
        ]
        short = [(cut, saved) for cut, saved in cuts if now - saved > self._available_s + TIME_EPS_S]
        most = self._savings(document, now)
        found = False
        for parts in (1, 2):
            together = [
                (sum(saved for _, saved in chosen), [cut for cut, _ in chosen])
                for chosen in itertools.combinations(short, parts)
            ]
            # Those first that take out least and may still be enough.
            together.sort(key=lambda pair: pair[0])
            enough = [cut for saved, cut in together if now - saved - most <= self._available_s + TIME_EPS_S]
            for chosen in enough[:MOST_TRIED]:
                for change, length in self._more(document, chosen):
                    found = True
                    yield change, length
            if found:
                return

    def _after(self, document: JsonObject, change: PlanChange) -> float | None:
        """The length after a change; None where it cannot be made."""
        try:
            return self.length(applied(document, change))
        except DocumentError:
            return None

    def _savings(self, document: JsonObject, now: float) -> float:
        """The most that any one series saves at its far end."""
        ends = (series[-1] for series in series_of(document, longer=False) if series)
        return max((now - length for end in ends if (length := self._after(document, end))), default=0.0)

    def _more(self, document: JsonObject, cuts: list[PlanChange]) -> Iterator[tuple[PlanChange, float]]:
        """The parts out, and the closest of each series of what is left."""
        try:
            less, gone = document, cuts[0]
            for number, cut in enumerate(cuts):
                # Places of later parts shift when an earlier one goes: the cut of the same name is looked up anew.
                again = cut if number == 0 else next(c for c in cuts_of(less, self._given) if c.what == cut.what)
                less = applied(less, again)
                gone = again if number == 0 else _both(gone, again)
            length = self.length(less)
        except (DocumentError, StopIteration):
            return
        if length <= self._available_s + TIME_EPS_S:
            yield gone, length
            return
        for more in self.singles(less, length, longer=False, cuts=False):
            yield _both(gone, more[0]), more[1]

    def figured(self, document: JsonObject, change: PlanChange) -> FitWay:
        """A way with what the session then comes to."""
        session = parse_session(applied(document, change))
        t = tally(session, library=self._library, methods=self._methods, given=self._given)
        timetable = timetable_s(t)
        return {
            "kind": change.kind,
            "what": change.what,
            "edits": [edit_json(one) for one in change.edits],
            "timetable_s": timetable,
            "left_s": self._available_s - timetable,
            "density": t.headline.figures(self._methods)["density"],
            "rpe": t.rpe,
            "load": t.load,
        }
