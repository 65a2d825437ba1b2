"""What the methods say in a coach's words, a paragraph for each family of estimates (formulas: docs/methods.md)."""

from __future__ import annotations

from dataclasses import dataclass
from typing import Literal, get_args

ParagraphKey = Literal["pace", "density", "effort", "load", "balance", "learning", "checks", "safety"]
PARAGRAPH_KEYS: tuple[ParagraphKey, ...] = get_args(ParagraphKey)


@dataclass(frozen=True, slots=True)
class Paragraph:
    """A paragraph of the methods: its heading, and sentences in a coach's words with their sources."""

    key: ParagraphKey
    heading: str
    says: tuple[str, ...]


PARAGRAPHS: tuple[Paragraph, ...] = (
    Paragraph(
        "pace",
        "Pace of self-paced work",
        (
            "A rep takes the seconds that its movement takes, times the pace of whoever does it, times how "
            "tired the block has made them by then. Metres go the same way by speed.",
            "Tiredness grows towards its most, quickly at first and then slowly; how much, and how quickly, "
            "stands below.",
            "Going over to another movement takes its seconds, more for kit that was not at hand, for getting "
            "down to the floor and up from it. Nothing of that counts as work.",
            "Whoever paces themselves takes breathers: a share of each bout, the larger the harder it is.",
            "These are assumptions of the house; scores in the log mend them for each person.",
        ),
    ),
    Paragraph(
        "density",
        "Density, work and rest",
        (
            "Density is work divided by the whole time of the parts that count, which are main part and "
            "finisher unless the squad says otherwise.",
            "Of a self-paced window only what the reps take is work, or all of it: that is a school, see below.",
            "Reps a minute and kilograms a minute stand beside it, as some coaches mean those by density.",
        ),
    ),
    Paragraph(
        "effort",
        "Effort",
        (
            "Effort is estimated from 0 to 10. A trace of breathing follows the work second by second: it "
            "rises towards what the movement asks with one time constant and falls in rest with a longer one "
            "(Whipp and Wasserman 1972; Barstow and Molé 1991). What movements ask, in MET, is from the "
            "Compendium of Physical Activities (Ainsworth 2011; Herrmann 2024).",
            "Breathing knows nothing of heavy loads: sets against resistance go by the reps left in reserve, "
            "from the share of the maximum (Epley 1985 or Brzycki 1993; Zourdos 2016).",
            "A typed word (easy, steady, hard, all-out) is felt over the work that it stands at, and fades in "
            "rest.",
            "A block is at least as hard as its breathing and its windows; a session is the mean of its blocks "
            "(quadratic, so that hard ones weigh more) over the parts that count.",
            "Four all-out bouts of twenty on, ten off were measured at some 74 % of capacity (Emberts and "
            "Porcari 2013); the model is held to that.",
        ),
    ),
    Paragraph(
        "load",
        "Load, weeks and ratios",
        (
            "A session’s load is its effort times its minutes (Foster 2001). Planned values give way to what "
            "was logged.",
            "Monotony is the mean of the seven days divided by their spread, strain is load times monotony "
            "(Foster 1998). Both have no value where all days are alike.",
            "The last week against the last four is a gauge of change, and no prediction of injury; coaches "
            "and researchers dispute it (Lolli 2019; Impellizzeri 2020). It needs four weeks behind it, at "
            "least half of them logged, and four training days a week.",
            "A day is hard from an effort, or a load, that the squad sets. A clash is the same pattern or "
            "joint in the main work of two days that are too close.",
        ),
    ),
    Paragraph(
        "balance",
        "Balance of movement patterns",
        (
            "Each movement works one or several patterns, with weights; a session’s shares are weighed by work "
            "time, by sets, or by effort times time, and shown in rows of one scheme or another: both are "
            "schools.",
            "Beams weigh two sides against each other: push and pull, knee and hip, upper and lower, left and "
            "right.",
            "Work of movements that nobody has assigned a pattern to is a row of its own, and in no share.",
        ),
    ),
    Paragraph(
        "learning",
        "What estimates learn from the log",
        (
            "Each score has a pace that would have made it; each rating differs from the estimate by so much. "
            "Newer ones weigh more, and a few weigh little against what was assumed before.",
            "From four scores on a learned pace is used, as the squad has it, and can be put back. Eight of "
            "ten sessions should lie in the interval that stands beside an estimate.",
            "An easier option, a window and a session cut short make nobody quicker and nothing easier.",
        ),
    ),
    Paragraph(
        "checks",
        "Checks",
        (
            "A check names a place and a number, and where there is one a mend. It can be told no more, for "
            "the squad, or accepted at one block.",
            "Landings are counted by grade; the limit of medium and hard ones is 80, 100 or 120 by level (NSCA).",
        ),
    ),
    Paragraph(
        "safety",
        "What no figure knows",
        (
            "All of this is general information. It does not replace a physician, a physiotherapist or the "
            "rules of the place you train at: local rules and licensed practice come first.",
            "Health screening first; stop on pain, dizziness or discomfort in the chest; form before speed "
            "once tired; small steps in load.",
        ),
    ),
)

_BY_FIRST_WORD: dict[str, ParagraphKey] = {
    "effort": "effort", "balance": "balance", "patterns": "balance", "reps": "pace", "movements": "pace",
    "visits": "pace", "rates": "density", "volume_kg": "pace", "volume_called_kg": "pace", "landings": "checks",
}  # fmt: skip
_BY_LAST_WORD: dict[str, ParagraphKey] = {
    "load": "load", "density": "density", "work_to_rest": "density", "rpe": "effort", "breathing_rpe": "effort",
    "rms_uptake": "effort", "window_rpe": "effort", "window": "effort",
}  # fmt: skip


def paragraph_of(figure: str) -> ParagraphKey:
    """The paragraph that says how a figure, by its dotted name, is estimated; times go by the pace of the work."""
    words = figure.split(".")
    return _BY_LAST_WORD.get(words[-1]) or _BY_FIRST_WORD.get(words[0]) or "pace"
