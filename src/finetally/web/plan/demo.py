"""Eight weeks of the demo squad before the winter season: seven behind it, and one that is to be levelled.

Everything is made up. The week that today lies in is too high, too even, and works squat and lunge on three days
running.
"""

from __future__ import annotations

from datetime import date, time, timedelta

from django.db import transaction

from finetally.core.week.planned_load import other_training
from finetally.web.plan.entries import week_of
from finetally.web.plan.models import Day, Entry, Phase
from finetally.web.plan.summaries import inside, summarise, summary_json
from finetally.web.squads.actor import member
from finetally.web.squads.figuring_context import FiguringContext, context_of
from finetally.web.squads.models import Role, Squad
from finetally.web.training.demo import SQUAD, demo_documents
from finetally.web.training.models import Session
from finetally.web.training.use_cases import create_session, pin

EVENING = time(19, 0)
USUAL_WEEK = (
    (0, "Stretcher-carry readiness B"), (1, "Rope and knots"), (2, "Ridge day, rounds with rest"),
    (4, "Strength for the lift"), (5, "Long walk out"),
)  # fmt: skip
LATER_WEEK = (
    (0, "Four stations in the hall"),
    (1, "Rope and knots"),
    (2, "Ridge intervals"),
    (4, "Strength for the lift"),
    (5, "Long walk out"),
)
LAST_WEEKS = ((0, "Stretcher-carry readiness B"), *LATER_WEEK[1:])
THIS_WEEK = (
    (0, "Strength for the lift"), (1, "Ridge intervals"), (2, "Steep ground ladder"),
    (3, "Countdown on steep ground"), (4, "Rope and knots"), (5, "Stretcher-carry readiness B"),
    (6, "Long walk out"),
)  # fmt: skip
USUAL_INTENTS = ((0, "medium"), (1, "easy"), (2, "hard"), (4, "medium"), (5, "easy"))
THIS_INTENTS = ((2, "rest"),)
OTHER = {"Long walk out": (150.0, 1.5), "Rope and knots": (60.0, 2.0)}
RATED = (0.94, 1.05, 0.98, 1.1, 1.0)
"""What was rated beside what was planned, entry after entry: nobody's week goes as written."""


@transaction.atomic
def load_demo_plan(today: date | None = None) -> None:
    """Plan the demo squad's eight weeks around `today`; does nothing where there is a plan already."""
    squad = Squad.objects.get(name=SQUAD)
    if squad.entries.exists():
        return
    begins = week_of(squad, today or date.today())
    context = context_of(squad)
    sessions = {session.title: session for session in squad.sessions.select_related("head")}
    head = squad.memberships.filter(role=Role.HEAD_COACH).values_list("user_id", flat=True)[0]
    for document in demo_documents():
        # A demo that was set up by an earlier release has fewer sessions.
        if document["title"] not in sessions:
            sessions[document["title"]] = create_session(member(head), squad.pk, document)
    rated = 0
    for back in range(7, 0, -1):
        for number, title in USUAL_WEEK if back > 4 else LATER_WEEK if back > 2 else LAST_WEEKS:
            entry = _entry(squad, sessions, context, begins - timedelta(weeks=back) + timedelta(days=number), title)
            _rate(entry, rated)
            entry.save()
            rated += 1
    for number, title in THIS_WEEK:
        entry = _entry(squad, sessions, context, begins + timedelta(days=number), title)
        if today is None and entry.day < date.today():
            _rate(entry, rated)
            rated += 1
        entry.save()
    for back, intents in ((3, USUAL_INTENTS), (2, USUAL_INTENTS), (1, USUAL_INTENTS), (0, THIS_INTENTS)):
        for number, intent in intents:
            Day.objects.create(
                squad=squad, day=begins - timedelta(weeks=back) + timedelta(days=number), intent=intent
            )
    Phase.objects.create(
        squad=squad, begins=begins - timedelta(weeks=7), weeks=4, kind="hold", load_low=850, load_high=1050
    )
    Phase.objects.create(
        squad=squad, begins=begins - timedelta(weeks=3), weeks=4, kind="build", load_low=1050, load_high=1200
    )


def _rate(entry: Entry, number: int) -> None:
    entry.logged_minutes = round(float(entry.summary["minutes"]))
    entry.logged_effort = round(min(10.0, entry.summary["effort"] * RATED[number % len(RATED)]), 1)


def _entry(squad: Squad, sessions: dict[str, Session], context: FiguringContext, day: date, title: str) -> Entry:
    if title in OTHER:
        minutes, effort = OTHER[title]
        summary = summary_json(other_training(minutes, effort))
        return Entry(squad=squad, day=day, title=title, minutes=minutes, effort=effort, summary=summary)
    session = sessions[title]
    pin(session.head)
    document = inside(session.head.document if session.head else {}, context)
    entry = Entry(
        squad=squad, day=day, time=EVENING, title=title, session=session, revision=session.head, document=document
    )
    summarise(document, context).put(entry)
    return entry
