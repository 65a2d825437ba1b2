"""What every clock is given to run: its steps, the order of visits, the recorder, and the rests between."""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import dataclass, field

from finetally.core.session.clocks import Amrap, RestClock
from finetally.core.session.problems import Path, refuse
from finetally.core.unfold.pace import TIME_EPS_S
from finetally.core.unfold.perform import LEFT, VisitPerformer
from finetally.core.unfold.resolve import Resolver
from finetally.core.unfold.steps import StepPlan
from finetally.core.unfold.tape import Overflow, PerformedVisit, Recorder, RunScore
from finetally.core.unfold.visits import Visit


@dataclass(slots=True)
class ClockResult:
    """What one run of a clock leaves besides its segments: a score, and what is left under its cap."""

    score: RunScore | None = None
    cap_slack_s: float = 0


@dataclass(slots=True)
class SideMemory:
    """The side each visit of the last forward run began with; a mirrored run keeps them."""

    sides: dict[int, int] = field(default_factory=dict)


@dataclass(slots=True)
class ClockRun:
    """One run of a clock over one list of steps."""

    recorder: Recorder
    performer: VisitPerformer
    resolver: Resolver
    steps: Sequence[StepPlan]
    order: Sequence[Visit]
    clock_path: Path
    mirrored: bool
    side_memory: SideMemory
    overflows: list[Overflow]

    def own_rest(self, clock: RestClock, visit: Visit) -> float:
        """Seconds of the step's own rest, else of the clock's."""
        plan = self.steps[visit.item]
        value, path = plan.step.rest_s, plan.path
        if value is None:
            value, path = clock.rest_s, self.clock_path
        if value is None:
            return 0.0
        return self.resolver.rest_in(value, visit.round_, path, "rest_s")

    def rest_between(self, clock: RestClock, before: Visit, belongs: Visit) -> float:
        """Seconds of rest at the boundary that `before` ends; per-round lists are read at that of `belongs`."""
        if before.leaves_group:
            group_rest = None if isinstance(clock, Amrap) else clock.group_rest_s
            if group_rest is not None:
                return self.resolver.rest_in(group_rest, belongs.round_, self.clock_path, "group_rest_s")
        elif before.ends_set and clock.round_rest_s is not None:
            return self.resolver.rest_in(clock.round_rest_s, belongs.round_, self.clock_path, "round_rest_s")
        return self.own_rest(clock, belongs)

    def side_of(self, index: int, plan: StepPlan) -> int:
        """The side visit `index` of the order begins with: its turn, or (mirrored) the forward run's."""
        if not plan.takes_turns:
            return LEFT
        if self.mirrored and index in self.side_memory.sides:
            return self.side_memory.sides[index]
        return self.performer.side_now(plan)

    def starts_set(self, before: Visit | None, visit: Visit, *, backwards: bool) -> bool:
        """Whether a round or set begins with `visit`, entered after `before`; `backwards`: last one first."""
        return before is None or (visit if backwards else before).ends_set

    def remember(self, index: int, side: int) -> None:
        """Keep the side of a forward visit for a mirrored run."""
        if not self.mirrored:
            self.side_memory.sides[index] = side

    def change_before(self, plan: StepPlan, previous: StepPlan | None) -> float:
        """Seconds of change-over from the previous visit's movement to this one's."""
        if previous is None:
            return 0
        return self.performer.pacer.change_over(
            plan.key == previous.key, bool(plan.kit - previous.kit), previous.on_floor, plan.on_floor
        )


class RoundCounter:
    """Rounds and reps into the next, counted as a self-paced window goes on."""

    def __init__(self) -> None:
        self.rounds = 0
        self.reps = 0

    def book(self, performed: PerformedVisit, *, ends_round: bool) -> None:
        """Count a visit; a finished round starts the reps anew."""
        self.reps += performed.called + performed.paced
        if ends_round:
            self.rounds += 1
            self.reps = 0

    def score(self) -> RunScore:
        """As published: whole rounds and reps into the next."""
        return {"rounds": self.rounds, "reps": self.reps}


def refuse_empty_round(run: ClockRun, key: str) -> None:
    """A round that takes no time would go on for ever. Raises DocumentError at the planned values.

    At the far ends of ranges nothing is raised: "0 to 10 reps" is a plan, and its low end is that nothing is done.
    """
    if run.resolver.at_plan:
        raise refuse((*run.clock_path, key), "a round that takes no time", "a dose above 0", "no_dose")


def at_end(left_s: float) -> bool:
    """Whether a window has no time left."""
    return left_s <= TIME_EPS_S
