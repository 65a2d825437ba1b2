"""Ways of writing that are put into the usual order before the rules read a line."""

from __future__ import annotations

from itertools import pairwise

from finetally.core.wall.tokens.rules import DOSE_KINDS, ENDS
from finetally.core.wall.tokens.token import Token


def bracketed_rounds(tokens: list[Token]) -> list[Token]:
    """`6 x (200 m run, 10 burpees)`: the bracket holds what is done six times."""
    for i in range(len(tokens) - 2):
        kinds = [t.kind for t in tokens[i : i + 3]]
        if kinds[0] != "NUM" or kinds[2] != "LPAR":
            continue
        end = next((k for k in range(i + 3, len(tokens)) if tokens[k].kind == "RPAR"), None)
        inside = [t.kind for t in tokens[i + 3 : end]]
        if kinds == ["NUM", "X", "LPAR"] and end is not None and inside in ONE_DOSE:
            # `4 x (12 reps) squats`
            return [*tokens[: i + 2], *tokens[i + 3 : end], *tokens[end + 1 :]]
        rounds = kinds[0] == "NUM" and kinds[1] in ("ROUND", "SET", "TIMES") and kinds[2] == "LPAR"
        if kinds == ["NUM", "X", "LPAR"] or (rounds and end is not None and _several(tokens[i + 3 : end])):
            tokens[i + 1].kind, tokens[i + 2].kind = "ROUND", "COLON"
            if end is not None:
                tokens[end].kind = "SEP" if any(t.kind not in ENDS for t in tokens[end + 1 :]) else "CLOSED"
            break
    return tokens


ONE_DOSE = (["NUM"], ["NUM", "REPS"], ["RANGE"], ["RANGE", "REPS"])


def _several(inside: list[Token]) -> bool:
    """Whether a bracket holds several doses with a name each."""
    kinds = [t.kind for t in inside]
    doses = [k for k, kind in enumerate(kinds[:-1]) if kind in DOSE_KINDS and kinds[k + 1] == "W"]
    return len(doses) > 1


def bracketed_work(tokens: list[Token]) -> list[Token]:
    """`12 min AMRAP (8 rows, 8 burpees)`: the bracket holds what is done in it."""
    for i in range(1, len(tokens) - 2):
        if tokens[i].kind != "LPAR" or not {t.kind for t in tokens[max(0, i - 2) : i]} & {"AMRAP", "EVERYT"}:
            continue
        end = next((k for k in range(i + 1, len(tokens)) if tokens[k].kind == "RPAR"), None)
        if end is not None and _several(tokens[i + 1 : end]):
            tokens[i].kind = "COLON"
            tokens[end].kind = "SEP" if any(t.kind not in ENDS for t in tokens[end + 1 :]) else "CLOSED"
    return tokens


def sets_on_starts(tokens: list[Token]) -> list[Token]:
    """`10 x 3 EMOM`: ten starts of three."""
    for i in range(len(tokens) - 3):
        if [t.kind for t in tokens[i : i + 4]] == ["NUM", "X", "NUM", "EVERYT"]:
            sets, times, reps, starts = tokens[i : i + 4]
            return [*tokens[:i], reps, starts, times, sets, *tokens[i + 4 :]]
    return tokens


BOUTS = frozenset({"block", "blocks", "bout", "bouts", "effort", "efforts", "goes", "blast", "blasts"})


def clusters(tokens: list[Token]) -> list[Token]:
    """`1+1+1 x 5`: five sets of what the parts come to."""
    for i, token in enumerate(tokens):
        if token.kind != "SUM":
            continue
        token.kind = "NUM"
        if [t.kind for t in tokens[i + 1 : i + 3]] == ["X", "NUM"]:
            return [*tokens[:i], tokens[i + 2], tokens[i + 1], token, *tokens[i + 3 :]]
    return tokens


def bouts(tokens: list[Token]) -> list[Token]:
    """`6 efforts of 20 s`, `3 blocks of tabata`: sets by another name."""
    for number, word, of in zip(tokens, tokens[1:], tokens[2:], strict=False):
        if number.kind == "NUM" and word.text in BOUTS and of.kind in ("OF", "X", "COLON"):
            word.kind = "SET"
    return tokens


SINGLES = {"single": 1, "singles": 1, "doubles": 2, "triples": 3}


def two_sides(tokens: list[Token]) -> list[Token]:
    """`plank 1:00, side plank :30/:30`: a name with two like times behind other doses has one for each side."""
    for i in range(1, len(tokens) - 2):
        times = [t.kind for t in tokens[i : i + 3]] == ["TIME", "SLASH", "TIME"]
        if not times or tokens[i].value != tokens[i + 2].value or tokens[i - 1].kind != "W":
            continue
        dosed = any(t.kind in ("TIME", "NUM", "DIST") for t in tokens[:i])
        if dosed and tokens[i + 3 : i + 4] and tokens[i + 3].kind == "X":
            continue
        if dosed:
            side = Token("LRTIME", tokens[i].text, tokens[i].value, tokens[i].start, tokens[i + 2].end)
            return [*tokens[:i], side, *tokens[i + 3 :]]
    return tokens


def heavy_singles(tokens: list[Token]) -> list[Token]:
    """`6 singles @ 85%`: six sets of one; without a load they are turns of a rope."""
    if not any(t.kind == "LOAD" for t in tokens):
        return tokens
    for i in range(len(tokens) - 1):
        number, word = tokens[i : i + 2]
        if number.kind == "NUM" and word.text in SINGLES:
            times = Token("X", "x", "x", word.start, word.start)
            reps = Token("NUM", str(SINGLES[word.text]), float(SINGLES[word.text]), word.start, word.end)
            return [*tokens[: i + 1], times, reps, *tokens[i + 2 :]]
    return tokens


HEAVIEST_REPS, LIGHTEST_WAVE_KG, MOST_IN_A_ROW = 20, 30, 6


def bare_waves(tokens: list[Token]) -> list[Token]:
    """`100x5, 110x5, 120x3`: what is lifted, and how often; the first number is no count of sets."""
    kinds = [t.kind for t in tokens]
    for shape, kg, often in ((["NUM", "X", "NUM"], 0, 2), (["NUM", "AT", "NUM"], 2, 0)):
        found = [i for i in range(len(kinds) - 2) if kinds[i : i + 3] == shape]
        if len(found) < 2 or any(b - a > 4 for a, b in pairwise(found)):
            continue
        if any(tokens[i + kg].value < LIGHTEST_WAVE_KG or tokens[i + often].value > HEAVIEST_REPS for i in found):
            continue
        first, last = found[0], found[-1] + 3
        start, end = tokens[first].start, tokens[last - 1].end
        reps = Token("LIST", "", [int(tokens[i + often].value) for i in found], start, end)
        loads = Token("LOADLIST", "bare", [{"kg": tokens[i + kg].value} for i in found], end, end)
        return [*tokens[:first], reps, loads, *tokens[last:]]
    return tokens


def sets_in_a_row(tokens: list[Token]) -> list[Token]:
    """`1x10 1x8 2x6`: sets one by one are a list of reps."""
    kinds = [t.kind for t in tokens]
    found = [i for i in range(len(kinds) - 2) if kinds[i : i + 3] == ["NUM", "X", "NUM"]]
    row = [i for i in found if tokens[i].value <= MOST_IN_A_ROW and float(tokens[i].value).is_integer()]
    if len(row) < 3 or row != found or any(set(kinds[a + 3 : b]) - {"SEP"} for a, b in pairwise(row)):
        return tokens
    if any(tokens[i].value < 1 or tokens[i + 2].value > HEAVIEST_REPS for i in row):
        return tokens
    first, last = row[0], row[-1] + 3
    reps = [int(tokens[i + 2].value) for i in row for _ in range(int(tokens[i].value))]
    return [*tokens[:first], Token("LIST", "", reps, tokens[first].start, tokens[last - 1].end), *tokens[last:]]


def in_sets(tokens: list[Token]) -> list[Token]:
    """`100 swings in sets of 20`: five sets of twenty."""
    for i in range(len(tokens) - 3):
        if [t.kind for t in tokens[i : i + 4]] != ["STAY", "SET", "OF", "NUM"]:
            continue
        size, total = tokens[i + 3], next((t for t in tokens[:i] if t.kind == "NUM"), None)
        if total is None or size.value < 1 or total.value % size.value or total.value <= size.value:
            return tokens
        at = tokens.index(total)
        sets = Token("NUM", total.text, total.value // size.value, total.start, total.end)
        times = Token("X", "x", "x", total.end, total.end)
        reps = Token("NUM", size.text, size.value, total.end, total.end)
        return [*tokens[:at], sets, times, reps, *tokens[at + 1 : i], *tokens[i + 4 :]]
    return tokens


def bracketed_names(tokens: list[Token]) -> list[Token]:
    """`10 to 1 (push-ups + sit-ups)`: the bracket holds what the numbers count."""
    if len(tokens) < 4 or tokens[0].kind not in ("LIST", "RANGE", "GROWING") or tokens[1].kind != "LPAR":
        return tokens
    end = next((k for k in range(2, len(tokens)) if tokens[k].kind == "RPAR"), None)
    if end is not None and all(t.kind in ("W", "PLUS", "SEP", "AND", "SLASH", "ALT") for t in tokens[2:end]):
        tokens[1].kind, tokens[end].kind = "COLON", "SEP"
    return tokens


def bracketed_list(tokens: list[Token]) -> list[Token]:
    """`Press ladder (1,2,3) x 5`: the numbers in the bracket are the ladder."""
    for i in range(len(tokens) - 3):
        if [t.kind for t in tokens[i : i + 4]] == ["LADDER", "LPAR", "LIST", "RPAR"]:
            return [*tokens[: i + 1], tokens[i + 2], *tokens[i + 4 :]]
    return tokens


def mixed_waves(tokens: list[Token]) -> list[Token]:
    """`8 @ 50, 6 @ 60, 4 @ 70 kg`: the unit that stands once is that of all."""
    kinds = [t.kind for t in tokens]
    places = [
        i + 2
        for i in range(len(kinds) - 2)
        if kinds[i : i + 2] == ["NUM", "AT"] and kinds[i + 2] in ("NUM", "LOAD")
    ]
    loads = [i for i in places if kinds[i] == "LOAD" and "kg" in tokens[i].value["load"]]
    if len(loads) != 1 or len(places) < 2 or loads[0] != places[-1]:
        return tokens
    for i in places[:-1]:
        load = {**tokens[loads[0]].value["load"], "kg": tokens[i].value}
        tokens[i] = Token("LOAD", tokens[i].text, {"load": load, "other": None}, tokens[i].start, tokens[i].end)
    return tokens


def waves(tokens: list[Token]) -> list[Token]:
    """`60 kg x 5, 80 kg x 3` and `5 @ 60 kg, 3 @ 80 kg`: sets with a load each become two lists."""
    kinds = [t.kind for t in tokens]
    for shape in (("LOAD", "X", "NUM"), ("NUM", "AT", "LOAD"), ("LOAD", "FOR", "NUM")):
        found = [i for i in range(len(kinds) - 2) if tuple(kinds[i : i + 3]) == shape]
        if len(found) < 2 or any(b - a > 4 for a, b in pairwise(found)):
            continue
        number = shape.index("NUM")
        reps = [int(tokens[i + number].value) for i in found]
        loads = [tokens[i + shape.index("LOAD")].value["load"] for i in found]
        first, last = found[0], found[-1] + 3
        start, end = tokens[first].start, tokens[last - 1].end
        made = [Token("LIST", "", reps, start, end), Token("LOADLIST", "", loads, end, end)]
        return [*tokens[:first], *made, *tokens[last:]]
    return tokens


HABITS = (
    clusters, sets_on_starts, bracketed_rounds, bracketed_work, bouts, two_sides, heavy_singles,
    bracketed_list, bracketed_names, in_sets, sets_in_a_row, mixed_waves, bare_waves, waves,
)  # fmt: skip
"""All of them, in the order in which they are tried."""
