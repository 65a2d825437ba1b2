"""Balance opened: a pattern's share → its work → the movements it comes from."""

from __future__ import annotations

from finetally.core.movements.patterns import PATTERN_BEAMS, SCHEMES
from finetally.core.tally.explain.node import Explanation, Term, TermUnit, UnknownFigureError, node, term
from finetally.core.tally.measure import Tally
from finetally.core.unfold.tape import PerformedVisit

MEASURE_UNITS: dict[str, TermUnit] = {"work-time": "s", "visits": "count", "effort-time": "load"}


def explain_balance(t: Tally, words: list[str]) -> Explanation:
    """Open patterns, and what stands under `balance`: rows, beams, planes, mobility. Raises UnknownFigureError."""
    figure = ".".join(words)
    if words[0] == "patterns" and len(words) == 3:
        return _weighed(t, figure, words[1], words[2])
    if words == ["balance", "mobility_s"]:
        return node(figure, t.balance.balance()["mobility_s"], "s", "sum", _work_terms(t, "mobility"))
    if words[:2] == ["balance", "planes"] and len(words) == 3:
        planes = t.balance.planes
        if words[2] in planes:
            total = sum(one.measure for one in planes.values())
            return _share(
                figure, words[2], planes[words[2]].measure, total, MEASURE_UNITS[t.methods.balance_by], None
            )
    if words[:2] == ["balance", "beams"] and len(words) == 4:
        return _beam(t, figure, words[2], words[3])
    if words[:2] == ["balance", "rows"] and len(words) == 4:
        return _row(t, figure, words[2], words[3], MEASURE_UNITS[t.methods.balance_by])
    raise UnknownFigureError(figure)


def _weighed(t: Tally, figure: str, name: str, field: str) -> Explanation:
    group = t.balance.patterns
    one = group.get(name)
    if one is None:
        raise UnknownFigureError(figure)
    if field == "work_s":
        return node(figure, one.work_s, "s", "sum", _work_terms(t, name))
    if field == "visits":
        return node(figure, one.visits, "count", "sum", _visit_terms(t, (name,)))
    if field == "share":
        total = sum(other.measure for other in group.values())
        unit = MEASURE_UNITS[t.methods.balance_by]
        return _share(figure, name, one.measure, total, unit, f"patterns.{name}.work_s")
    raise UnknownFigureError(figure)


def _beam(t: Tally, figure: str, name: str, field: str) -> Explanation:
    beam = t.balance.balance()["beams"].get(name)
    if beam is None or field not in ("left", "right", "left_share"):
        raise UnknownFigureError(figure)
    unit: TermUnit = "s" if name == "left-right" else MEASURE_UNITS[t.methods.balance_by]
    if field == "left_share":
        total = beam["left"] + beam["right"]
        return _share(figure, beam["left_name"], beam["left"], total, unit, f"balance.beams.{name}.left")
    value = beam["left"] if field == "left" else beam["right"]
    weights = next(
        (b.left_weights if field == "left" else b.right_weights for b in PATTERN_BEAMS if b.name == name), None
    )
    if weights is None:
        side = beam["left_name"] if field == "left" else beam["right_name"]
        return node(figure, value, unit, "sum", [term(f"work {side}", value, unit)])
    terms = [
        term(p if w == 1 else f"{w:g} × {p}", t.balance.patterns[p].measure * w, unit)
        for p, w in weights
        if p in t.balance.patterns
    ]
    return node(figure, value, unit, "sum", terms)


def _share(figure: str, label: str, part: float, total: float, unit: TermUnit, ask: str | None) -> Explanation:
    if not total:
        raise UnknownFigureError(figure)
    return node(figure, part / total, "share", "ratio", [term(label, part, unit, ask), term("all", total, unit)])


def _row(t: Tally, figure: str, name: str, field: str, unit: TermUnit) -> Explanation:
    scheme = SCHEMES[t.methods.balance]
    row = next((one for one in scheme if one.name == name), None)
    if row is None or field not in ("share", "work_s", "visits"):
        raise UnknownFigureError(figure)
    if field == "visits":
        present = [m for m in row.members if m in t.balance.patterns]
        terms = [term(m, t.balance.patterns[m].visits, "count", f"patterns.{m}.visits") for m in present]
        return node(figure, sum(one["value"] for one in terms), "count", "sum", terms)
    if field == "share":
        total = t.balance.measure(member for one in scheme for member in one.members)
        return _share(figure, name, t.balance.measure(row.members), total, unit, f"balance.rows.{name}.work_s")
    members = [(m, t.balance.patterns[m].work_s) for m in row.members if m in t.balance.patterns]
    terms = [term(member, value, "s", f"patterns.{member}.work_s") for member, value in members]
    return node(figure, sum(value for _, value in members), "s", "sum", terms)


def _weight(visit: PerformedVisit, pattern: str) -> float:
    return sum(weight for name, weight in visit.step.movement.patterns.items() if name == pattern)


def _work_terms(t: Tally, name: str) -> list[Term]:
    sums: dict[tuple[str, str], float] = {}
    for visit in t.tape.visits:
        weight = _weight(visit, name)
        if weight and t.counted[visit.block]:
            step = visit.step.key, visit.step.name
            sums[step] = sums.get(step, 0.0) + visit.seconds * weight
    return [term(name, value, "s") for (_, name), value in sums.items()]


def _visit_terms(t: Tally, names: tuple[str, ...]) -> list[Term]:
    sums: dict[tuple[str, str], int] = {}
    for visit in t.tape.visits:
        if t.counted[visit.block] and any(_weight(visit, name) > 0 for name in names):
            step = visit.step.key, visit.step.name
            sums[step] = sums.get(step, 0) + 1
    return [term(name, value, "count") for (_, name), value in sums.items()]
