"""Effort and load opened: load → effort → blocks → windows → uptake or reserve."""

from __future__ import annotations

from collections.abc import Callable, Mapping

from finetally.core.tally.explain.node import Explanation, Term, UnknownFigureError, node, term
from finetally.core.tally.explain.times import block_label
from finetally.core.tally.measure import Tally

FELT = "felt by its end, as the effort was typed"
BLIND = "The breathing estimate sees neither load nor tempo."


def explain_effort(t: Tally, words: list[str]) -> Explanation:
    """Open `effort.<name>`, `blocks.<n>.rpe` and what lies below it. Raises UnknownFigureError."""
    figure = ".".join(words)
    if words[0] == "effort" and len(words) == 2:
        if words[1] not in SESSION:
            raise UnknownFigureError(figure)
        return SESSION[words[1]](t, figure)
    if words[0] == "blocks" and len(words) >= 3 and words[1].isdecimal():
        number = int(words[1])
        if number < len(t.tape.blocks):
            return _block(t, figure, number, words[2:])
    raise UnknownFigureError(figure)


def _load(t: Tally, figure: str) -> Explanation:
    minutes = (t.tape.total_s if t.methods.load_minutes == "session" else t.headline.total) / 60
    terms = [term("effort", t.rpe, "effort", "effort.rpe"), term("minutes", minutes, "min", "effort.minutes")]
    return node(figure, t.load, "load", "product", terms, "effort × minutes (Foster 2001)")


def _minutes(t: Tally, figure: str) -> Explanation:
    whole = t.methods.load_minutes == "session"
    seconds = t.tape.total_s if whole else t.headline.total
    scope = "total_s" if whole else "headline.total_s"
    terms = [term("seconds", seconds, "s", scope), term("seconds a minute", 60, "s")]
    return node(figure, seconds / 60, "min", "ratio", terms)


def _mean_uptake(t: Tally, figure: str) -> Explanation:
    total = t.tape.total_s
    if total <= 0:
        return node(figure, 0.0, "share", "given", note="nothing to figure yet")
    area = sum(b.integral for b in t.trace)
    terms = [term("uptake added up", area, "s·capacity"), term("total", total, "s", "total_s")]
    return node(figure, area / total, "share", "ratio", terms, BLIND)


def _peak_uptake(t: Tally, figure: str) -> Explanation:
    values = _by_block(t, "peak_uptake")
    terms = [term(block_label(t, n), value, "share") for n, value in sorted(values.items())]
    return node(figure, max(values.values(), default=0.0), "share", "max", terms, BLIND)


def _added_up(name: str) -> Callable[[Tally, str], Explanation]:
    """A figure in seconds that is the sum of its blocks'."""

    def opened(t: Tally, figure: str) -> Explanation:
        values = _by_block(t, name)
        terms = [term(block_label(t, n), value, "s") for n, value in sorted(values.items())]
        return node(figure, sum(values.values()), "s", "sum", terms, BLIND)

    return opened


def _by_block(t: Tally, name: str) -> dict[int, float]:
    values: dict[int, float] = {}
    for segment, uptake in zip(t.tape.segments, t.trace, strict=True):
        n = segment.block
        if name == "peak_uptake":
            values[n] = max(values.get(n, 0.0), uptake.start, uptake.end)
        elif name == "above_80_s":
            values[n] = values.get(n, 0.0) + uptake.above_s
        else:
            values[n] = values.get(n, 0.0) + (uptake.gap_s if segment.kind == "work" else 0.0)
    return values


def _rpe(t: Tally, figure: str) -> Explanation:
    if t.session.rpe is not None:
        return node(figure, t.rpe, "effort", "given", note="typed for the session")
    if not t.given.person.effort_offset:
        return _estimate(t, figure)
    estimate = t.effort.estimate(t.counted) or 0.0
    terms = [
        term("estimate", estimate, "effort", "effort.estimate"),
        term("from rated sessions", t.rpe - estimate, "effort"),
    ]
    return node(figure, t.rpe, "effort", "sum", terms)


def _estimate(t: Tally, figure: str) -> Explanation:
    terms = [
        term(block_label(t, n), t.effort.blocks[n], "effort", f"blocks.{n}.rpe", weight=t.effort.clock_s[n])
        for n, yes in enumerate(t.counted)
        if yes and t.effort.clock_s[n] > 0
    ]
    value = t.effort.estimate(t.counted) or 0.0
    return node(figure, value, "effort", "rms", terms, "weighted by the clocks' lengths")


def _block(t: Tally, figure: str, n: int, words: list[str]) -> Explanation:
    effort, prefix = t.effort, f"blocks.{n}."
    breathed, worked = effort.rms[n]
    scale = t.methods.effort_scale
    if words == ["rpe"]:
        typed = t.tape.blocks[n].block.rpe
        if typed is not None:
            return node(figure, float(typed), "effort", "given", note="typed for the block")
        from finetally.core.tally.effort import scaled

        terms: list[Term] = [
            term("breathing", scaled(breathed, scale), "effort", f"{prefix}breathing_rpe"),
            term("windows", min(10.0, worked), "effort", f"{prefix}window_rpe"),
            term("least", 1.0, "effort"),
        ]
        return node(figure, effort.blocks[n], "effort", "max", terms)
    if words == ["breathing_rpe"]:
        from finetally.core.tally.effort import scaled

        terms = [term("uptake, RMS over the clock", breathed, "share", f"{prefix}rms_uptake")]
        return node(figure, scaled(breathed, scale), "effort", "lookup", terms, BLIND)
    if words == ["rms_uptake"]:
        return _uptake(t, figure, n)
    if words == ["window_rpe"]:
        return _windows(t, figure, n)
    if len(words) == 2 and words[0] == "window" and words[1].isdecimal():
        return _window(t, figure, int(words[1]))
    raise UnknownFigureError(figure)


def _clock_segments(t: Tally, n: int) -> list[int]:
    found = []
    for run in t.tape.runs:
        if run.block == n:
            for index in range(run.first_segment, run.last_segment):
                if run.clock_start - 1e-9 <= t.tape.segments[index].start < run.clock_end - 1e-9:
                    found.append(index)
    return found


def _uptake(t: Tally, figure: str, n: int) -> Explanation:
    segments = t.tape.segments
    terms = []
    for kind in ("work", "rest", "change"):
        chosen = [i for i in _clock_segments(t, n) if segments[i].kind == kind]
        seconds = sum(segments[i].seconds for i in chosen)
        if seconds > 0:
            rms = (sum(t.trace[i].square for i in chosen) / seconds) ** 0.5
            terms.append(term(f"during {kind}", rms, "share", weight=seconds))
    return node(figure, t.effort.rms[n][0], "share", "rms", terms, BLIND)


def _windows(t: Tally, figure: str, n: int) -> Explanation:
    groups: dict[tuple[str, float], Term] = {}
    for index in _clock_segments(t, n):
        segment = t.tape.segments[index]
        if segment.visit is None:
            continue
        step = t.tape.visits[segment.visit].step
        value = t.effort.windows[index]
        alike = (step.key, round(value, 9))
        found = groups.get(alike)
        if found is None:
            ask = f"blocks.{n}.window.{index}"
            found = groups[alike] = term(step.name, value, "effort", ask, weight=0.0)
            found["count"], found["each"], found["at"] = 0, value, []
        found["count"] += 1
        found["weight"] += segment.seconds
        found["at"].append(segment.at.as_dict())
    worked = t.effort.rms[n][1]
    return node(figure, worked, "effort", "rms", groups.values(), "weighted by work time")


def _window(t: Tally, figure: str, index: int) -> Explanation:
    if index >= len(t.tape.segments) or t.tape.segments[index].visit is None:
        raise UnknownFigureError(figure)
    segment, breathed = t.tape.segments[index], t.trace[index]
    judged = t.effort.judged[segment.visit or 0]
    value = t.effort.windows[index]
    felt = t.effort.felt[index]
    at = [segment.at.as_dict()]
    if judged.effort is not None:
        reserve = judged.reserve if judged.reserve is not None else 0.0
        terms = [
            term(f"resisted: 10 − {reserve:.1f} in reserve", judged.effort, "effort", at=at),
            term(FELT, felt, "effort"),
        ]
        return node(figure, value, "effort", "max", terms, "reserve and effort: Zourdos 2016")
    share = breathed.integral / segment.seconds
    uptake = term("mean uptake in the window", share, "share", at=at)
    if felt and value == felt:
        least = term(FELT, felt, "effort")
        return node(figure, value, "effort", "max", [least], "above what the breathing tells")
    return node(figure, value, "effort", "lookup", [uptake], BLIND)


SESSION: Mapping[str, Callable[[Tally, str], Explanation]] = {
    "load": _load,
    "minutes": _minutes,
    "rpe": _rpe,
    "estimate": _estimate,
    "mean_uptake": _mean_uptake,
    "peak_uptake": _peak_uptake,
    "above_80_s": _added_up("above_80_s"),
    "oxygen_gap_s": _added_up("oxygen_gap_s"),
}
"""How each figure of `effort` opens, by its name there."""
