"""Places that are read by habit: rules whose readings are the same wherever they are met, in a coach's words.

What depends on the place itself (which of two movements, a misspelt name) is never a habit.
"""

from __future__ import annotations

from collections.abc import Mapping
from dataclasses import dataclass

CHOSEN_TO_BE_A_HABIT = 2
"""What a squad chose so often is its habit, read first from then on."""


@dataclass(frozen=True, slots=True)
class HabitRule:
    """A kind of place that could be meant otherwise: what stands there, and its readings in the core's order."""

    says: str
    readings: tuple[str, ...]


HABIT_RULES: Mapping[str, HabitRule] = {
    "rest-below": HabitRule("a rest under the last line", ("before what follows", "between the rounds")),
    "closing-rest": HabitRule("the rest after the last window", ("not taken", "taken too")),
    "sets-order": HabitRule("sets of several movements", ("all sets of one, then of the next", "round by round")),
    "sets-of-line": HabitRule("a number of sets before several movements", ("rounds of the line", "sets of the first")),
    "times-behind": HabitRule("a number of times behind several movements", ("rounds of the line", "sets of the last")),
    "starts-order": HabitRule("starts over several lines", ("the lines take turns", "every start does all the lines")),
    "start-length": HabitRule("how long a start is worked", ("the whole start", "40 s of it")),
    "window-each": HabitRule("windows over a line of several movements", ("one a window", "all windows of one first")),
    "windows-each": HabitRule("windows over several lines", ("one window for each", "rounds of them")),
    "window-holds": HabitRule("what a window holds", ("all the lines", "one line each")),
    "windows-in-turn": HabitRule("a number of windows over several lines", ("windows in turn", "rounds of them")),
    "tabata-order": HabitRule("two movements in eight windows", ("eight of the one, then of the next", "taking turns")),
    "own-seconds": HabitRule("seconds of a one-sided movement", ("each side", "in all")),
    "stretch-window": HabitRule("a window of a one-sided stretch", ("each side has it", "it is for both sides")),
    "ladder-down": HabitRule("reps from more to fewer (10-1)", ("a ladder down", "a range")),
    "ladder-up": HabitRule("reps from 1 on (1-10)", ("a ladder up", "a range")),
    "wide-range": HabitRule("reps far apart (8-20)", ("a range", "a ladder")),
    "amrap-length": HabitRule("rounds against the clock without a length", ("10 minutes", "5 minutes", "20 minutes")),
    "death-by": HabitRule("rising reps a minute without an end", ("10 minutes", "15 minutes", "20 minutes")),
    "buy-in": HabitRule("what comes before rounds against the clock", ("within the minutes", "before the minutes")),
    "rounds-in-total": HabitRule("a total that rounds do not fill", ("the rounds that fit", "one round more")),
    "easy-rest": HabitRule("an easy part behind a hard one", ("the rest", "a movement of its own")),
    "partners": HabitRule("work of two people", ("one works all the time", "one works half the time")),
}  # fmt: skip
