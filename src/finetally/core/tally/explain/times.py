"""Time figures opened: session → parts and blocks → steps → windows."""

from __future__ import annotations

from finetally.core.tally.explain.node import Explanation, Term, UnknownFigureError, grouped, node, term
from finetally.core.tally.measure import Tally, timetable_s
from finetally.core.tally.times import TimeTotals, add_up, counts_by_clock, over_told, told_ends

SEGMENT_KINDS = ("work", "rest", "change", "talk")
LABELS = {"work": "work", "rest": "rest", "change": "change-over", "talk": "talk"}


def block_label(t: Tally, number: int) -> str:
    """What a block is called: the coach's title, else its part and number."""
    of = t.tape.blocks[number]
    return of.block.title or f"{of.part}, block {number + 1}"


class Scope:
    """Blocks that a time figure goes over: the session, the parts that count, a part, or one block."""

    def __init__(self, t: Tally, words: list[str]) -> None:
        blocks = t.tape.blocks
        self.block: int | None = None
        if not words:
            self.prefix, chosen = "", [True] * len(blocks)
        elif words == ["headline"]:
            self.prefix, chosen = "headline.", t.counted
        elif len(words) == 2 and words[0] == "parts" and any(of.part == words[1] for of in blocks):
            self.prefix, chosen = f"parts.{words[1]}.", [of.part == words[1] for of in blocks]
        elif len(words) == 2 and words[0] == "blocks" and words[1].isdecimal() and int(words[1]) < len(blocks):
            self.block = int(words[1])
            self.prefix, chosen = f"blocks.{words[1]}.", [n == self.block for n in range(len(blocks))]
        else:
            raise UnknownFigureError(".".join(words))
        self.chosen = chosen
        self.clocked: TimeTotals = add_up(t.clocked, chosen)


def explain_time(t: Tally, words: list[str]) -> Explanation:
    """Open `<scope>.total_s`, `…work_s` and its kin, `…density`, `…work_to_rest`, `timetable_s`.

    Raises UnknownFigureError.
    """
    *scope_words, name = words
    if name == "over_told_s" and not scope_words and t.session.announced_s is not None:
        return _over_told(t, told_ends(t.session.announced_s, t.resolver))
    if name == "timetable_s" and not scope_words:
        return _timetable(t)
    if len(scope_words) == 4 and scope_words[0] == "blocks" and scope_words[2:] == ["work_s", "step"]:
        return _step_work(t, scope_words[1], name)
    scope = Scope(t, scope_words)
    figure = scope.prefix + name
    if name in ("density", "work_to_rest"):
        return _ratio(t, scope, name, figure)
    if name in ("density_work_s", "density_pause_s", "density_all_s"):
        return _school(t, scope, name, figure)
    if name == "total_s":
        terms = [
            term(LABELS[kind], _of(scope.clocked, kind), "s", f"{scope.prefix}{kind}_s") for kind in SEGMENT_KINDS
        ]
        return node(figure, scope.clocked.total, "s", "sum", terms)
    kind = name.removesuffix("_s")
    if kind not in SEGMENT_KINDS:
        raise UnknownFigureError(figure)
    value = _of(scope.clocked, kind)
    if scope.block is None:
        terms = [
            term(block_label(t, n), _of(t.clocked[n], kind), "s", f"blocks.{n}.{name}")
            for n, yes in enumerate(scope.chosen)
            if yes
        ]
        return node(figure, value, "s", "sum", terms)
    return node(figure, value, "s", "sum", _block_terms(t, scope.block, kind))


def _of(clocked: TimeTotals, kind: str) -> float:
    return float(getattr(clocked, kind))


def _timetable(t: Tally) -> Explanation:
    caps = sum(run.cap_slack_s for run in t.tape.runs)
    slack = timetable_s(t) - t.tape.total_s - caps
    terms = [
        term("total", t.tape.total_s, "s", "total_s"),
        term("left under caps", caps, "s"),
        term("kept free", slack, "s"),
    ]
    return node("timetable_s", timetable_s(t), "s", "sum", terms)


def _over_told(t: Tally, ends: tuple[float, float]) -> Explanation:
    comes_to = timetable_s(t)
    over = over_told(ends, comes_to)
    # Of a range that was told, the end that is nearer; within it nothing is over and nothing is left.
    terms = [term("timetable", comes_to, "s", "timetable_s"), term("told", over - comes_to, "s")]
    return node("over_told_s", over, "s", "sum", terms)


def _ratio(t: Tally, scope: Scope, name: str, figure: str) -> Explanation:
    made = scope.clocked.figures(t.methods)
    value = made["density"] if name == "density" else made["work_to_rest"]
    if value is None:
        raise UnknownFigureError(figure)
    other = "density_all_s" if name == "density" else "density_pause_s"
    label = "work, rest and change-over" if name == "density" else "rest and change-over"
    work, pause = _by_school(t, scope.clocked)
    terms = [
        term("work", work, "s", f"{scope.prefix}density_work_s"),
        term(label, work + pause if name == "density" else pause, "s", scope.prefix + other),
    ]
    school = "self-paced windows whole as work" if t.methods.density == "by-the-clock" else None
    return node(figure, value, "share" if name == "density" else "ratio", "ratio", terms, school)


def _by_school(t: Tally, clocked: TimeTotals) -> tuple[float, float]:
    moved = clocked.by_clock_s if t.methods.density == "by-the-clock" else 0.0
    return clocked.work + moved, clocked.rest + clocked.change - moved


def _school(t: Tally, scope: Scope, name: str, figure: str) -> Explanation:
    clocked, prefix = scope.clocked, scope.prefix
    moved = clocked.by_clock_s if t.methods.density == "by-the-clock" else 0.0
    work, pause = _by_school(t, clocked)
    parts: dict[str, tuple[float, list[Term]]] = {
        "density_work_s": (work, [term("work", clocked.work, "s", f"{prefix}work_s")]),
        "density_pause_s": (
            pause,
            [
                term("rest", clocked.rest, "s", f"{prefix}rest_s"),
                term("change-over", clocked.change, "s", f"{prefix}change_s"),
            ],
        ),
    }
    if moved:
        parts["density_work_s"][1].append(term("pauses inside self-paced windows", moved, "s"))
        parts["density_pause_s"][1].append(term("pauses inside self-paced windows", -moved, "s"))
    if name == "density_all_s":
        terms = [
            term("work", work, "s", f"{prefix}density_work_s"),
            term("rest and change-over", pause, "s", f"{prefix}density_pause_s"),
        ]
        return node(figure, work + pause, "s", "sum", terms)
    value, terms = parts[name]
    return node(figure, value, "s", "sum", terms)


def _block_terms(t: Tally, number: int, kind: str) -> list[Term]:
    if kind == "work":
        sums: dict[str, tuple[str, float]] = {}
        for segment in t.tape.segments:
            if segment.block == number and segment.visit is not None:
                step = t.tape.visits[segment.visit].step
                key = _step_key(step.path)
                sums[key] = (step.name, sums.get(key, ("", 0.0))[1] + segment.seconds)
        return [
            term(label, value, "s", f"blocks.{number}.work_s.step.{key}") for key, (label, value) in sums.items()
        ]
    items = []
    for segment in t.tape.segments:
        if segment.block == number and segment.kind == kind:
            by_clock = counts_by_clock(segment, t.tape.blocks[number].work_clock.pauses)
            label = "breather" if segment.taken else "inside the window" if by_clock else LABELS[kind]
            items.append((label, segment.seconds, segment.at.as_dict(), None))
    return grouped(items, "s")


def _step_key(path: tuple[str | int, ...]) -> str:
    """A step by its place: indices only, joined with a dash."""
    return "-".join(str(part) for part in path if isinstance(part, int))


def _step_work(t: Tally, number: str, key: str) -> Explanation:
    items = []
    for segment in t.tape.segments:
        if str(segment.block) == number and segment.visit is not None:
            step = t.tape.visits[segment.visit].step
            if _step_key(step.path) == key:
                items.append((step.name, segment.seconds, segment.at.as_dict(), None))
    figure = f"blocks.{number}.work_s.step.{key}"
    if not items:
        raise UnknownFigureError(figure)
    return node(figure, sum(item[1] for item in items), "s", "sum", grouped(items, "s"))
