"""Balance opened: a pattern's share → its work → the movements it comes from."""

from __future__ import annotations

from finetally.core.tally.explain.node import Explanation, Term, Unit, UnknownFigureError, node, term
from finetally.core.tally.measure import Tally

UNITS: dict[str, Unit] = {"work-time": "s", "visits": "count", "effort-time": "load"}


def explain_balance(t: Tally, words: list[str]) -> Explanation:
    """Open `patterns.<p>.share` and `.work_s`, `balance.rows.<row>.share`, `balance.beams.<name>.left_share`."""
    figure = ".".join(words)
    unit = UNITS[t.methods.balance_by]
    patterns = t.balance.patterns
    if words[0] == "patterns" and len(words) == 3 and words[1] in patterns:
        if words[2] == "work_s":
            return node(figure, patterns[words[1]].work_s, "s", "sum", _work_terms(t, words[1]))
        if words[2] == "share":
            total = sum(one.measure for one in patterns.values())
            return _share(figure, words[1], patterns[words[1]].measure, total, unit, f"patterns.{words[1]}.work_s")
    if words[:2] == ["balance", "beams"] and len(words) == 4:
        beam = t.balance.balance()["beams"].get(words[2])
        if beam is not None and beam["left_share"] is not None and words[3] == "left_share":
            measure: Unit = "s" if words[2] == "left-right" else unit
            return _share(figure, beam["left_name"], beam["left"], beam["left"] + beam["right"], measure, None)
    if words[:2] == ["balance", "rows"] and len(words) == 4:
        return _row(t, figure, words[2], words[3], unit)
    raise UnknownFigureError(figure)


def _share(figure: str, label: str, part: float, total: float, unit: Unit, ask: str | None) -> Explanation:
    if not total:
        raise UnknownFigureError(figure)
    return node(figure, part / total, "share", "ratio", [term(label, part, unit, ask), term("all", total, unit)])


def _row(t: Tally, figure: str, name: str, field: str, unit: Unit) -> Explanation:
    from finetally.core.movements.patterns import SCHEMES

    scheme = SCHEMES[t.methods.balance]
    row = next((one for one in scheme if one.name == name), None)
    if row is None or field not in ("share", "work_s"):
        raise UnknownFigureError(figure)
    if field == "share":
        total = t.balance.measure(member for one in scheme for member in one.members)
        return _share(figure, name, t.balance.measure(row.members), total, unit, f"balance.rows.{name}.work_s")
    members = [(m, t.balance.patterns[m].work_s) for m in row.members if m in t.balance.patterns]
    terms = [term(member, value, "s", f"patterns.{member}.work_s") for member, value in members]
    return node(figure, sum(value for _, value in members), "s", "sum", terms)


def _work_terms(t: Tally, pattern: str) -> list[Term]:
    sums: dict[str, float] = {}
    for done in t.tape.visits:
        weight = done.step.movement.patterns.get(pattern, 0)  # type: ignore[call-overload]
        if weight and t.counted[done.block]:
            sums[done.step.key] = sums.get(done.step.key, 0.0) + done.seconds * weight
    return [term(key, value, "s") for key, value in sums.items()]
