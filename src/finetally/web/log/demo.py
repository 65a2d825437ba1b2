"""Seven weeks of the demo squad as logged: a run that went otherwise, scores, ratings, one note, one disputed
count.

Everything is made up: people make what the model makes at a pace of their own, a little otherwise every day. Two of
them are clearly not as quick, or as slow, as the planned paces have it.
"""

from __future__ import annotations

import math
import random
from datetime import datetime, timedelta
from typing import Any
from zoneinfo import ZoneInfo

from django.db import transaction

from finetally.core.floor.events import EVENT, MAX_RUN_S
from finetally.core.floor.replay import replay
from finetally.core.learn.pace import PaceModel
from finetally.core.log.pulse import curve_of, pulse_figures, simulated_watch
from finetally.core.session.reading import parse_session
from finetally.core.tally.measure import tally
from finetally.web.floor.models import FloorEvent, FloorRun
from finetally.web.floor.runs import as_run
from finetally.web.log.from_floor import take_from_floor
from finetally.web.log.learning import relearn
from finetally.web.log.models import LogNote, Rating, RatingWay, Result, ResultWay, WatchRecording
from finetally.web.log.settling import LogWish, figure_log, keep_log
from finetally.web.log.using import ScoredPlace, settle_used
from finetally.web.log.working_out import work_out
from finetally.web.plan.models import Attendance, Entry
from finetally.web.plan.summaries import summary_from_json
from finetally.web.squads.figuring_context import context_of
from finetally.web.squads.models import Person, Role, Squad
from finetally.web.squads.today import today_of
from finetally.web.training.demo import SQUAD

SCORED_SESSIONS = {"Stretcher-carry readiness B": 3, "Ridge day, rounds with rest": 1}
"""Sessions whose scores were noted, and the number of the block they are of."""
PACES = {"Osk Brannock": 0.84, "Hedda Quillfeather": 1.19}
"""Whose pace is clearly not the library's."""
OFFSETS = {"Ines Korrigan": -1.0, "Jonah Merribeck": 1.0}
"""Who rates otherwise than is estimated."""
NAMED = ("Osk Brannock", "Ines Korrigan")
"""Who agreed to be named beside their scores."""
RATES = 9
"""How many of the squad rate; the others are asked once and not chased."""
NOISE, SEED = 0.05, 8420
STRAP, MAX_HR, REST_HR = "Osk Brannock", 188.0, 54.0
PHONE, TABLET = "the-phone-on-the-box", "the-tablet-by-the-door"
IVO, CALF = "Callum Strathvane", "Bram Tullivant"
"""Of whom there are two counts, and who noted a pull in the calf."""


@transaction.atomic
def load_demo_log() -> None:
    """Log what is over in the demo squad's plan; does nothing where something is logged from a run already."""
    squad = Squad.objects.get(name=SQUAD)
    if squad.runs.exists():
        return
    squad.learning, squad.asks_health = "auto", True
    squad.health_why = "So that the next session spares what hurts."
    squad.save()
    squad.people.filter(name__in=NAMED).update(named_on=today_of(squad))
    logged = list(squad.entries.filter(logged_minutes__isnull=False).order_by("day"))
    maker = _Maker(squad)
    last_run = max(
        (one for one in logged if one.title in SCORED_SESSIONS and one.document), key=lambda one: one.day
    )
    for entry in logged:
        wish = LogWish(entry.logged_minutes, entry.logged_effort)
        if entry.title in SCORED_SESSIONS:
            wish = LogWish()
            if entry.pk == last_run.pk:
                maker.run(entry)
            maker.scores(entry)
            maker.ratings(entry)
        keep_log(entry, figure_log(entry, wish), wish, maker.coach)
        work_out(entry)
        # As it came in: each prediction knew what was logged before it, and no more.
        relearn(squad, [one.pk for one in maker.people])
    maker.notes(last_run)
    maker.pulse(last_run)


class _Maker:
    def __init__(self, squad: Squad) -> None:
        self._squad = squad
        self._random = random.Random(SEED)
        self._context = context_of(squad)
        self.people = list(squad.people.order_by("pk"))
        self.coach = squad.memberships.filter(role=Role.HEAD_COACH).values_list("user_id", flat=True)[0]
        self._usual = {one.pk: PACES.get(one.name, math.exp(self._random.gauss(0, 0.04))) for one in self.people}

    def scores(self, entry: Entry) -> None:
        """What everybody who came made in the entry's window."""
        block = SCORED_SESSIONS[entry.title]
        model = PaceModel(parse_session(entry.document), block, self._context.library, self._context.methods)
        away = set(self._random.sample([one.pk for one in self.people], 3))
        for person in self.people:
            pace = self._usual[person.pk] * math.exp(self._random.gauss(0, NOISE))
            score = model.score(pace, 0)
            if person.pk in away:
                Attendance.objects.update_or_create(entry=entry, person=person, defaults={"came": False})
            elif score is not None and not entry.results.filter(person=person).exists():
                told = {name: round(value) for name, value in score.items() if isinstance(value, int | float)}
                place = ScoredPlace(entry.pk, person.pk, "person", block, 0, 0)
                Result.objects.create(**place.fields(), score=told, way=ResultWay.TYPED, user_id=self.coach)

    def ratings(self, entry: Entry) -> None:
        """What those who rate found."""
        effort = summary_from_json(entry.summary).effort
        away = set(entry.attendance.filter(came=False).values_list("person", flat=True))
        for person in [one for one in self.people if one.pk not in away][:RATES]:
            felt = effort + OFFSETS.get(person.name, 0.2) + self._random.gauss(0, 0.5)
            rated = float(min(10, max(1, round(felt))))
            Rating.objects.create(
                entry=entry, person=person, effort=rated, way=RatingWay.TABLET, user_id=self.coach
            )
            minutes = summary_from_json(entry.summary).minutes
            Attendance.objects.update_or_create(
                entry=entry, person=person, defaults={"came": True, "minutes": minutes, "effort": rated}
            )

    def run(self, entry: Entry) -> None:
        """The last of them as it was run: longer rests, a wait, a set more, the end cut; and one count twice."""
        begun = datetime.combine(entry.day, entry.time or datetime.min.time(), ZoneInfo(self._squad.time_zone))
        run = FloorRun.objects.create(
            squad=self._squad, entry=entry, day=entry.day, title=entry.title, document=entry.document,
            begun_at=begun, user_id=self.coach, hold="blocks", given={"kit": self._squad.kit},
        )  # fmt: skip
        told: list[tuple[str, dict[str, Any]]] = [(PHONE, event) for event in self._played(run)]
        last = max(event["t"] for _, event in told)
        person = next(one for one in self.people if one.name == IVO)
        for device, rounds, reps in ((PHONE, 4, 0), (TABLET, 5, 0)):
            score = {"t": last, "do": "score", "block": 3, "rounds": rounds, "reps": reps}
            told.append((device, score))
        events = [
            FloorEvent(
                run=run, device=device, number=number, event=event, user_id=self.coach,
                person=person if event["do"] == "score" else None,
            )
            for number, (device, event) in enumerate(sorted(told, key=lambda one: one[1]["t"]))
        ]  # fmt: skip
        take_from_floor(run, FloorEvent.objects.bulk_create(events), {})
        run.ended_at = begun + timedelta(seconds=last)
        run.save()
        settle_used(ScoredPlace(entry.pk, person.pk, "person", 3, 0, 0))

    def _played(self, run: FloorRun) -> list[dict[str, Any]]:
        """Events of somebody who waits before each block, adds a set to the pyramid, and ends in the last hold."""
        events: list[dict[str, Any]] = [{"t": 0.0, "do": "start"}]
        waits = iter((35, 50, 25, 20))
        while True:
            read = as_run(run, [EVENT.validate_python(one) for one in events], until=MAX_RUN_S)
            played = replay(read, library=self._context.library)
            ended = played.played[-1].end if played.played else 0.0
            if played.over:
                break
            events.append({"t": ended + next(waits, 10), "do": "next"})
        pyramid = next(one for one in played.played if one.item.beat.block == 1 and one.item.beat.kind == "work")
        more = {"t": pyramid.end + 5, "do": "more", "s": 30}
        events = [{**one, "t": one["t"] + (30 if one["t"] > more["t"] else 0)} for one in events]
        return [*events, more, {"t": ended + 30 - 40, "do": "stop"}]

    def pulse(self, entry: Entry) -> None:
        """A strap's recording of somebody, made up from the breathing trace."""
        t = tally(parse_session(entry.document), library=self._context.library, methods=self._context.methods)
        samples = simulated_watch(t, MAX_HR, REST_HR)
        person: Person = next(one for one in self.people if one.name == STRAP)
        WatchRecording.objects.create(
            entry=entry, person=person, figures=pulse_figures(samples, MAX_HR, REST_HR),
            curve=curve_of(samples, MAX_HR), user_id=self.coach,
        )  # fmt: skip

    def notes(self, entry: Entry) -> None:
        """One note of pain, and one on the hall."""
        person: Person = next(one for one in self.people if one.name == CALF)
        LogNote.objects.create(
            entry=entry, person=person, kind="pain", text="A pull on the last carry.", place="calf", side="left",
            level=2, user_id=self.coach,
        )  # fmt: skip
        LogNote.objects.create(entry=entry, kind="kit", text="Two packs have a torn strap.", user_id=self.coach)
