"""Where coaches differ: both arguments of each school, and a sample session that shows the difference at once."""

from __future__ import annotations

from collections.abc import Callable
from dataclasses import dataclass

from typing_extensions import TypedDict

from finetally.core.figures import Figures, figures
from finetally.core.methods.paragraphs import ParagraphKey
from finetally.core.methods.value import Methods
from finetally.core.movements.library import Library
from finetally.core.session.json_value import JsonObject, JsonValue
from finetally.core.session.reading import parse_session
from finetally.core.tally.explain.node import TermUnit


class SchoolLine(TypedDict):
    """A figure of the sample: its label, value and unit."""

    label: str
    value: float
    unit: TermUnit


@dataclass(frozen=True, slots=True)
class SchoolView:
    """One side: what the setting is then, its name, and what those argue who take it."""

    value: JsonValue
    label: str
    argues: str


@dataclass(frozen=True, slots=True)
class SchoolTold:
    """A setting in which coaches differ: its sides, and a session whose figures show by how much.

    `shows`: the lines that are shown of the sample's figures.
    """

    key: str
    label: str
    paragraph: ParagraphKey
    views: tuple[SchoolView, ...]
    sample: JsonObject
    shows: Callable[[Figures], list[SchoolLine]]


def sample_lines(school: SchoolTold, view: SchoolView, library: Library, methods: Methods) -> list[SchoolLine]:
    """What the sample comes to in one school, all else as the squad has it."""
    session = parse_session(school.sample)
    taken = methods.model_validate({**methods.model_dump(by_alias=True), school.key: view.value})
    return school.shows(figures(session, library=library, methods=taken))


FigureReader = tuple[str, TermUnit, Callable[[Figures], float | None]]


def _lines(*readers: FigureReader) -> Callable[[Figures], list[SchoolLine]]:
    """Some figures, each with its label and unit."""
    return lambda made: [
        {"label": label, "value": read(made) or 0.0, "unit": unit} for label, unit, read in readers
    ]


def _rows(made: Figures) -> list[SchoolLine]:
    """The rows of balance that anything was done of."""
    rows = made["balance"]["rows"]
    return [
        {"label": name, "value": row["share"], "unit": "share"} for name, row in rows.items() if row["share"]
    ]  # fmt: skip


def _session(title: str, *blocks: JsonObject) -> JsonObject:
    return {"fine_tally": 1, "title": title, "blocks": [*blocks]}


def _step(movement: str, **more: JsonValue) -> JsonObject:
    return {"movement": movement, **more}


_ROUNDS: JsonObject = _session(
    "Seven minutes of rounds",
    {
        "clock": {"kind": "amrap", "window_s": 420},
        "steps": [_step("burpee", reps=5, effort="hard"), _step("air-squat", reps=10, effort="hard")],
    },
)
_SHORT: JsonObject = _session(
    "Eight times twenty on, ten off",
    {"clock": {"kind": "intervals", "work_s": 20, "rest_s": 10}, "rounds": 8, "steps": [_step("air-squat")]},
)
_WHOLE: JsonObject = _session(
    "Warm-up, main part, finisher, cool-down",
    {
        "part": "warm-up",
        "clock": {"kind": "intervals", "work_s": 60},
        "rounds": 8,
        "steps": [_step("march", effort="easy")],
    },
    {
        "clock": {"kind": "intervals", "work_s": 40, "rest_s": 20},
        "rounds": 12,
        "steps": [_step("swing", effort="hard")],
    },
    {
        "part": "finisher",
        "clock": {"kind": "intervals", "work_s": 20, "rest_s": 10},
        "rounds": 8,
        "steps": [_step("burpee", effort="all-out")],
    },
    {
        "part": "cool-down",
        "clock": {"kind": "intervals", "work_s": 60},
        "rounds": 5,
        "steps": [_step("walk", effort="easy")],
    },
)
_HEAVY: JsonObject = _session(
    "Five sets of ten at 65 %",
    {
        "clock": {"kind": "task"},
        "rounds": 5,
        "steps": [_step("barbell-back-squat", reps=10, load={"pct_1rm": 65}, rest_s=120)],
    },
)
_MIXED: JsonObject = _session(
    "A heavy set, a long carry, a jump",
    {
        "clock": {"kind": "task"},
        "rounds": 4,
        "steps": [
            _step("goblet-squat", reps=6, effort="hard"),
            _step("farmer-carry", seconds=60, effort="steady"),
            _step("squat-jump", reps=5, effort="all-out"),
        ],
    },
)

DENSITY: FigureReader = ("Density", "share", lambda made: made["headline"]["density"])
TOTAL: FigureReader = ("Length", "s", lambda made: made["total_s"])
EFFORT: FigureReader = ("Effort", "effort", lambda made: made["effort"]["rpe"])
LOAD: FigureReader = ("Load", "load", lambda made: made["effort"]["load"])

SCHOOLS_TOLD: tuple[SchoolTold, ...] = (
    SchoolTold(
        "density",
        "Work of a self-paced window",
        "density",
        (
            SchoolView(
                "at-pace",
                "at pace",
                "Rest is rest, whether anyone prescribed it. Whoever plans seven minutes of rounds wants to "
                "know how much of them is work, and where the breath is caught.",
            ),
            SchoolView(
                "by-the-clock",
                "by the clock",
                "The window was set as work. What people take inside of it is theirs, and windows compare "
                "between people only if they count whole.",
            ),
        ),
        _ROUNDS,
        _lines(DENSITY),
    ),
    SchoolTold(
        "closing_rest",
        "The rest after the last window",
        "density",
        (
            SchoolView(
                False,
                "is not taken",
                "After the last window the block is over: nobody stands on the clock for ten more seconds, and "
                "the next thing begins.",
            ),
            SchoolView(
                True,
                "is taken",
                "Rounds are rounds, each with its rest: the clock on the wall shows four minutes, and that is "
                "what was announced.",
            ),
        ),
        _SHORT,
        _lines(TOTAL, DENSITY),
    ),
    SchoolTold(
        "counted_parts",
        "Parts that count",
        "density",
        (
            SchoolView(
                ["main", "finisher"],
                "main part and finisher",
                "Warm-up and cool-down serve the session; counted in, they would make every session look "
                "easier the better it is prepared.",
            ),
            SchoolView(
                ["main"],
                "the main part alone",
                "The main part is what the day is for. A finisher is a spice: counted in, four minutes of it "
                "would decide how hard the day was.",
            ),
            SchoolView(
                ["warm-up", "main", "finisher", "cool-down"],
                "all of them",
                "People do the whole session, and the body counts all of it.",
            ),
        ),
        _WHOLE,
        _lines(DENSITY, EFFORT, LOAD),
    ),
    SchoolTold(
        "load_minutes",
        "Minutes of the load",
        "load",
        (
            SchoolView(
                "session",
                "of the whole session",
                "That is how the method was published: whoever rates a session rates its whole length.",
            ),
            SchoolView(
                "counted",
                "of the parts that count",
                "A long easy warm-up would make a short hard day weigh as much as a long one.",
            ),
        ),
        _WHOLE,
        _lines(LOAD),
    ),
    SchoolTold(
        "one_rm",
        "Possible reps at a share of the maximum",
        "effort",
        (
            SchoolView(
                "epley",
                "Epley",
                "Reps = 30 × (1/share − 1), Epley 1985: simple, and close for the middle of the range where "
                "most sets are.",
            ),
            SchoolView(
                "brzycki",
                "Brzycki",
                "Reps = 37 − 36 × share, Brzycki 1993: at lighter shares it allows fewer reps, so that long "
                "sets count as harder than they do by the other one.",
            ),
        ),
        _HEAVY,
        _lines(EFFORT, LOAD),
    ),
    SchoolTold(
        "balance",
        "Rows of balance",
        "balance",
        (
            SchoolView(
                "eight-rows",
                "eight rows",
                "Eight rows are what a week is balanced by on the floor: a jump is no squat, and a carry is "
                "travel.",
            ),
            SchoolView(
                "force-directions",
                "force directions",
                "Level or overhead, bracing or twisting: which way the force goes decides what gets better, "
                "and what wears.",
            ),
            SchoolView(
                "six-roots",
                "six roots",
                "Fewer rows are easier to hold in mind: gait and trunk are one thing, as the trunk carries the "
                "gait.",
            ),
        ),
        _MIXED,
        _rows,
    ),
    SchoolTold(
        "balance_by",
        "What balance is weighed by",
        "balance",
        (
            SchoolView(
                "work-time",
                "work time",
                "Time is what every kind of work has: a minute of carrying stands beside a minute of squats.",
            ),
            SchoolView(
                "visits",
                "sets",
                "Strength is counted in sets: five heavy seconds are a set, as thirty light ones are.",
            ),
            SchoolView(
                "effort-time",
                "effort × time",
                "An easy minute and an all-out one are not the same work: hard time weighs more.",
            ),
        ),
        _MIXED,
        _rows,
    ),
)
