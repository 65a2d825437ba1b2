"""Reps, sides, metres, volume and landings opened: session → movement → visits → the arithmetic of one."""

from __future__ import annotations

from collections.abc import Callable

from finetally.core.tally.explain.node import Explanation, Term, TermUnit, UnknownFigureError, grouped, node, term
from finetally.core.tally.measure import Tally
from finetally.core.tally.reps import kilograms
from finetally.core.unfold.pace import TIME_EPS_S, Pacer, whole_units
from finetally.core.unfold.tape import Identity, PerformedVisit

Reader = Callable[[PerformedVisit], float]

FIELDS: dict[str, TermUnit] = {
    "called": "reps",
    "paced": "reps",
    "estimated": "reps",
    "left": "reps",
    "right": "reps",
    "left_s": "s",
    "right_s": "s",
    "metres": "m",
    "metres_estimated": "m",
    "work_s": "s",
}

VOLUMES = {"volume_kg": "kg", "volume_called_kg": "kg_called"}


def explain_rate(t: Tally, words: list[str]) -> Explanation:
    """Open `rates.reps_per_min` and `rates.kg_per_min`: over the parts that count, talk left out.

    Raises UnknownFigureError.
    """
    figure = ".".join(words)
    minutes = (t.headline.total - t.headline.talk) / 60
    if minutes <= 0 or words[-1] not in ("reps_per_min", "kg_per_min"):
        raise UnknownFigureError(figure)
    counted = [visit for visit in t.tape.visits if t.counted[visit.block]]
    unit: TermUnit = "reps" if words[-1] == "reps_per_min" else "kg"
    if unit == "reps":
        amount = float(sum(visit.reps for visit in counted))
    else:
        amount = sum(_kg(t, visit, called=False) for visit in counted)
    terms = [term("all reps" if unit == "reps" else "volume load", amount, unit), term("minutes", minutes, "min")]
    return node(figure, amount / minutes, "ratio", "ratio", terms)


def explain_reps(t: Tally, words: list[str]) -> Explanation:
    """Open `reps.<kind>`, `movements.<key>.<field>`, `volume_kg`, `landings`, one grade, `visits.<n>.<field>`.

    Raises UnknownFigureError.
    """
    figure = ".".join(words)
    if words[0] == "visits":
        return _visit(t, figure, words)
    if words[0] == "movements" and len(words) >= 3:
        return _movement(t, figure, ".".join(words[1:-1]), words[-1])
    if words == ["landings"]:
        low, medium, high = (t.reps.landings[grade] for grade in ("low", "medium", "high"))
        graded = (("low", low), ("medium", medium), ("high", high))
        terms = [term(grade, count, "count", f"landings.{grade}") for grade, count in graded if count]
        return node(figure, low + medium + high, "count", "sum", terms)
    if figure in VOLUMES:
        field = VOLUMES[figure]
    elif words[0] == "reps" and len(words) == 2:
        field = words[1]
    elif words[0] == "landings" and len(words) == 2 and words[1] in t.reps.landings:
        field = f"landings_{words[1]}"
    else:
        raise UnknownFigureError(figure)
    read, unit = _reader(t, field)
    terms = _by_movement(t, field, read, unit)
    return node(figure, sum(one["value"] for one in terms), unit, "sum", terms)


def _reader(t: Tally, field: str) -> tuple[Reader, TermUnit]:
    if field == "visits":
        return (lambda visit: 1), "count"
    if field in ("kg", "kg_called"):
        return (lambda visit: _kg(t, visit, called=field == "kg_called")), "kg"
    if field.startswith("landings_"):
        grade = field.removeprefix("landings_")
        return (lambda visit: _landings(visit, grade)), "count"
    if field == "contained":
        return (lambda visit: visit.reps * sum(c.reps for c in visit.step.movement.contains or ())), "reps"
    if field == "work_s":
        return (lambda visit: visit.seconds), "s"
    if field not in FIELDS:
        raise UnknownFigureError(field)
    return (lambda visit: float(getattr(visit, field))), FIELDS[field]


def _kg(t: Tally, visit: PerformedVisit, *, called: bool) -> float:
    kg = kilograms(visit.load, visit.step.key, t.given.person) or 0.0
    return (visit.called if called else visit.reps) * kg


def _landings(visit: PerformedVisit, grade: str) -> float:
    movement = visit.step.movement
    return visit.reps * (movement.landings or 0) if (movement.landing_grade or "medium") == grade else 0


def _by_movement(t: Tally, field: str, read: Reader, unit: TermUnit) -> list[Term]:
    sums: dict[tuple[str, str], float] = {}
    for visit in t.tape.visits:
        value = read(visit)
        if value:
            step = visit.step.key, visit.step.name
            sums[step] = sums.get(step, 0.0) + value
    # Contained reps are booked under the composite here: that is where they come from.
    asked = "contains" if field == "contained" else field
    return [term(name, value, unit, f"movements.{key}.{asked}") for (key, name), value in sums.items()]


def _starts(t: Tally) -> dict[int, dict[str, Identity]]:
    found: dict[int, dict[str, Identity]] = {}
    for segment in t.tape.segments:
        if segment.visit is not None:
            found.setdefault(segment.visit, segment.at.as_dict())
    return found


def _movement(t: Tally, figure: str, key: str, field: str) -> Explanation:
    if key not in t.reps.movements:
        raise UnknownFigureError(figure)
    if field == "contained":
        return _contained(t, figure, key)
    read, unit = _reader(t, "contained" if field == "contains" else field)
    starts = _starts(t)
    again = field in ("estimated", "kg", "kg_called") or field.startswith("landings_")
    items = []
    for index, visit in enumerate(t.tape.visits):
        value = read(visit)
        if visit.step.key == key and value:
            ask = f"visits.{index}.{field}" if again else None
            items.append((visit.step.name, value, starts.get(index, {}), ask))
    return node(figure, sum(item[1] for item in items), unit, "sum", grouped(items, unit))


def _contained(t: Tally, figure: str, key: str) -> Explanation:
    starts = _starts(t)
    items = []
    for index, visit in enumerate(t.tape.visits):
        for inside in visit.step.movement.contains or ():
            if inside.movement == key:
                items.append((f"in {visit.step.name}", visit.reps * inside.reps, starts.get(index, {}), None))
    return node(figure, sum(item[1] for item in items), "reps", "sum", grouped(items, "reps"))


def _worked_before(t: Tally, index: int) -> float:
    """Working seconds of the same run of the clock before a visit: what its fatigue went by."""
    begun = next(s.at for s in t.tape.segments if s.visit == index)
    key = (begun.section_pass, begun.section, begun.block, begun.repeat, begun.station)
    worked, last_visit = 0.0, -1
    for segment in t.tape.segments:
        at = segment.at
        if segment.visit is None or (at.section_pass, at.section, at.block, at.repeat, at.station) != key:
            continue
        if segment.visit >= index:
            break
        if at.visit is not None and last_visit >= 0 and _left_station(t, segment.visit, last_visit):
            worked = 0.0
        worked += segment.seconds
        last_visit = segment.visit
    if last_visit >= 0 and _left_station(t, index, last_visit):
        worked = 0.0
    return worked


def _left_station(t: Tally, index: int, last: int) -> bool:
    """Whether another station was worked between two visits: then the clock began anew."""
    if index - last <= 1:
        return False
    places = {s.at.station for s in t.tape.segments if s.visit is not None and last <= s.visit <= index}
    return len(places) > 1


def _estimated(t: Tally, figure: str, index: int, field: str) -> Explanation:
    """Whole reps that the time holds; side by side where the sides had different times."""
    visit = t.tape.visits[index]
    rep_s = (visit.step.pace_s or 0.0) * Pacer(t.methods).fatigue(_worked_before(t, index))
    one_rep = term("one rep, fatigue in", rep_s, "s")
    sides = {"estimated_left": visit.left_s, "estimated_right": visit.right_s}
    if field in sides:
        return node(
            figure, whole_units(sides[field] / rep_s), "reps", "floor", [term("time", sides[field], "s"), one_rep]
        )
    if not visit.per_side:
        return node(figure, visit.estimated, "reps", "floor", [term("time", visit.seconds, "s"), one_rep])
    if abs(visit.left_s - visit.right_s) < TIME_EPS_S:
        terms = [term("time a side", visit.left_s, "s"), one_rep, term("sides", 2, "count")]
        return node(figure, visit.estimated, "reps", "floor", terms)
    parts = [
        term(name.removeprefix("estimated_"), whole_units(seconds / rep_s), "reps", f"visits.{index}.{name}")
        for name, seconds in sides.items()
    ]
    return node(figure, visit.estimated, "reps", "sum", parts)


def _visit(t: Tally, figure: str, words: list[str]) -> Explanation:
    if len(words) != 3 or not words[1].isdecimal() or int(words[1]) >= len(t.tape.visits):
        raise UnknownFigureError(figure)
    index, field = int(words[1]), words[2]
    visit = t.tape.visits[index]
    if field.startswith("estimated") and visit.step.pace_s is not None:
        return _estimated(t, figure, index, field)
    if field in ("kg", "kg_called"):
        reps = visit.called if field == "kg_called" else visit.reps
        kg = kilograms(visit.load, visit.step.key, t.given.person) or 0.0
        count = (visit.load.count or 1) if visit.load is not None and visit.load.kg is not None else 1
        terms = [
            term("reps", reps, "reps"),
            term("load", kg / count, "kg"),
            term("implements", count, "count"),
        ]
        return node(figure, reps * kg, "kg", "product", terms)
    if field.startswith("landings_"):
        each = visit.step.movement.landings or 0
        terms = [term("reps", visit.reps, "reps"), term("landings a rep", each, "count")]
        return node(figure, visit.reps * each, "count", "product", terms)
    raise UnknownFigureError(figure)
