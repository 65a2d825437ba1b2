"""The table of checks, in the order in which they are shown."""

from __future__ import annotations

from collections.abc import Container

from finetally.core.checks import body, plan, room, sense, time
from finetally.core.checks.check import Check, CheckResult, Severity, result_of
from finetally.core.tally.measure import Tally

CHECKS: tuple[Check, ...] = (
    Check("session-too-long", "look", "The session takes {total}, {part} of it {block}: {question}", sense.session_too_long),
    Check("session-too-short", "look", "The session takes {total}: are its seconds minutes, or is a part not read?", sense.session_too_short),
    Check("rounds-unlikely", "look", "{rounds} rounds of {movement}: {question}", sense.rounds_unlikely),
    Check("set-unlikely", "look", "{reps} repetitions of {movement} with a load in one set: is {reps} the load, or the total?", sense.set_unlikely),
    Check("load-unlikely", "look", "{movement} with {weight}: is {less} meant, or pounds?", sense.load_unlikely),
    Check("announced-differs", "look", "{about} {told}, comes to {comes_to}: {by}.", time.announced_differs),
    Check("slot-overflow", "stop", "{block}: a start asks for {needed} and has {period}; the rest is cut.", time.slot_overflow),
    Check("dose-over-window", "look", "{movement}: the dose takes about {needed}, its window is {window}.", plan.dose_over_window),
    Check("filler-late", "look", "{movement} never begins: what stands before it takes up to the mark at {mark}.", plan.filler_late),
    Check("dose-falls-away", "look", "{movement} falls to nothing before the rounds are over.", plan.dose_falls_away),
    Check("rest-not-taken", "note", "{block}: {rest} is never taken.", plan.rest_never_taken),
    Check("score-from-nowhere", "look", "{block} goes on from the score of “{source}”, which makes none.", plan.score_from_nowhere),
    Check("cap-unlikely", "look", "{block} is not done by the cap of {cap}; {how}.", time.cap_unlikely),
    Check("change-eats-rest", "look", "{block}: from {from} to {to} takes about {change} s {effect}.", time.change_eats_rest),
    Check("rest-missing", "look", "{block} starts hard straight after {before}.", time.rest_missing),
    Check("long-dense", "look", "{block}: {minutes} at {density} work, {rest}.", time.long_dense),
    Check("uneven-sides", "look", "{movement}: {left} on the left, {right} on the right.", body.uneven_sides),
    Check("same-pattern-run", "look", "{block}: {first}, then {second} with {rest} s between: both hit {shared}{more}.", body.same_pattern_run),
    Check("unrehearsed", "look", "Nothing in the warm-up rehearses {patterns}.", body.unrehearsed),
    Check("no-warm-up", "look", "There is no warm-up.", body.no_warm_up),
    Check("no-cool-down", "note", "There is no cool-down.", body.no_cool_down),
    Check("cool-down-misses", "note", "The cool-down leaves out what worked most: {pattern}, {minutes} min.", body.cool_down_misses),
    Check("landings-high", "look", "{count} medium and high landings; the limit is {limit}.", body.landings_high),
    Check("skill-when-tired", "look", "{movement} takes skill and begins at {uptake} of capacity.", body.skill_when_tired),
    Check("named-otherwise", "note", "“{label}” says {claimed}; the numbers are {is}.", room.named_otherwise),
    Check("rep-rule-unclear", "note", "Nothing says how sides count for {movements}.", body.rep_rule_unclear),
    Check("kit-short", "stop", "{kit}: {needed} are needed at once, {there} are there.", room.kit_short),
    Check("station-full", "stop", "{station}: {people} people at once, room for {capacity}.", room.station_full),
    Check("space-short", "look", "{each} m² for each of {people} people; about {needed} m² is needed.", room.space_short),
    Check("not-judged", "note", "{movements}: how hard the load is cannot be told without a one-rep maximum or a reserve.", body.not_judged),
)  # fmt: skip


WEIGHT: dict[Severity, int] = {"stop": 0, "look": 1, "note": 2}


def check(t: Tally, muted: Container[str] = ()) -> list[CheckResult]:
    """Every finding of every check that is not muted, the weightiest first: one line a matter, with its places.

    What a block does on purpose is marked `accepted`.
    """
    found = [result_of(one, finding, t) for one in CHECKS if one.code not in muted for finding in one.find(t)]
    return sorted(found, key=lambda one: WEIGHT[one["severity"]])
