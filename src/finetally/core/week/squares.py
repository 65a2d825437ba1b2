"""Squares of loads for the leveller's model: exact, or in straight pieces, which are quicker to search."""

from __future__ import annotations

from typing import TYPE_CHECKING

if TYPE_CHECKING:
    from ortools.sat.python import cp_model
    from ortools.sat.python.cp_model import LinearExprT

PIECES, SUM_PIECES = 12, 40
"""Straight pieces that squares are taken in: of a day's load, and of the week's."""


def square(model: cp_model.CpModel, of: LinearExprT, most: int) -> LinearExprT:
    """The square of a whole number from 0 to `most`."""
    squared = model.new_int_var(0, most * most, "")
    model.add_multiplication_equality(squared, [of, of])
    return squared


def square_under(model: cp_model.CpModel, of: LinearExprT, most: int) -> LinearExprT:
    """At most the square: one of the tangents 2·a·x - a²."""
    squared = model.new_int_var(-most * most, most * most, "")
    tangents = []
    for number in range(PIECES + 1):
        at = most * number // PIECES
        tangent = model.new_bool_var("")
        model.add(squared <= 2 * at * of - at * at).only_enforce_if(tangent)
        tangents.append(tangent)
    model.add_exactly_one(tangents)
    return squared


def square_over(model: cp_model.CpModel, of: LinearExprT, most: int) -> LinearExprT:
    """At least the square: the chord (a + b)·x - a·b of the piece from a to b that x lies in."""
    squared = model.new_int_var(0, 2 * most * most, "")
    chords = []
    for number in range(SUM_PIECES):
        low, high = most * number // SUM_PIECES, most * (number + 1) // SUM_PIECES
        chord = model.new_bool_var("")
        model.add(of >= low).only_enforce_if(chord)
        model.add(of <= high).only_enforce_if(chord)
        model.add(squared >= (low + high) * of - low * high).only_enforce_if(chord)
        chords.append(chord)
    model.add_exactly_one(chords)
    return squared
