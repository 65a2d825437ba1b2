"""Squad, Person, SquadMovement, ReadingHabit, Membership, Record."""

from __future__ import annotations

import json
import logging
from functools import lru_cache
from typing import Any
from uuid import uuid4

from django.conf import settings
from django.db import models, transaction
from pydantic import ValidationError

from finetally.core.methods.value import Methods
from finetally.core.people.listing import short_name

log = logging.getLogger(__name__)


def methods_value(kept: dict[str, Any]) -> Methods:
    """Methods as they were kept, perhaps by an older release: a setting that is out of bounds now is left out."""
    return _methods_value(json.dumps(kept, sort_keys=True))


@lru_cache(maxsize=256)
def _methods_value(text: str) -> Methods:
    """Held by what they say, so that a squad's requests read them once; a frozen value."""
    kept: dict[str, Any] = json.loads(text)
    try:
        return Methods.model_validate(kept)
    except ValidationError as error:
        wrong = {str(one["loc"][0]) if one["loc"] else "" for one in error.errors(include_url=False)}
        # A rule over several settings names none: then nothing of them can be told to be right.
        good = {} if "" in wrong else {name: value for name, value in kept.items() if name not in wrong}
        log.warning("methods out of bounds are left out: %s", ", ".join(sorted(wrong)) or "all")
        return Methods.model_validate(good)


class Squad(models.Model):
    """A group that trains together, with its own methods, kit and calendar."""

    name = models.CharField(max_length=200)
    time_zone = models.CharField(max_length=64, default="UTC")
    week_start = models.PositiveSmallIntegerField(default=0, help_text="0 is Monday")
    methods = models.JSONField(default=dict, blank=True, help_text="only what differs from the defaults")
    kit = models.JSONField(default=dict, blank=True, help_text="how many there are of each kit")
    emergency = models.TextField(blank=True, help_text="what to do and whom to call, in the squad's own words")
    learning = models.CharField(max_length=4, blank=True, help_text="auto, ask; empty: not yet asked")
    asks_health = models.BooleanField(default=False, help_text="pain and dizziness may be noted")
    health_why = models.CharField(max_length=200, blank=True, help_text="why, in one line for those who are asked")
    asks_freshness = models.BooleanField(default=False, help_text="check-ins ask how fresh one is, 1 to 5")
    notes_months = models.PositiveSmallIntegerField(default=12, help_text="months that health notes are kept")
    adult_from = models.PositiveSmallIntegerField(default=16, help_text="age under which people are under age")
    movements_version = models.CharField(
        max_length=32, blank=True, help_text="another after every change of its own movements"
    )

    def __str__(self) -> str:
        return self.name

    def methods_value(self) -> Methods:
        """The squad's methods as the core takes them; what a newer rule refuses stands at its default."""
        return methods_value(self.methods)


class Person(models.Model):
    """Somebody who trains in a squad, with or without an account. Known outside by a random id.

    `capacity`: as its test and result, so that it says where it is from; both or neither. `pace_factor`,
    `effort_offset`: set or learned. `guardian`: who agreed that more is kept of somebody under age, and when.
    `named_on`: since when they agree to be named beside their scores where others read; None: they do not.
    """

    squad = models.ForeignKey(Squad, on_delete=models.CASCADE, related_name="people")
    user = models.ForeignKey(settings.AUTH_USER_MODEL, on_delete=models.SET_NULL, null=True, blank=True)
    public_id = models.UUIDField(default=uuid4, unique=True, editable=False)
    name = models.CharField(max_length=200)
    short_name = models.CharField(max_length=20, blank=True, help_text="for the wall; empty: the first name")
    body_kg = models.FloatField(null=True, blank=True)
    capacity_met = models.FloatField(null=True, blank=True)
    capacity_test = models.CharField(max_length=20, blank=True)
    capacity_result = models.FloatField(null=True, blank=True)
    capacity_on = models.DateField(null=True, blank=True)
    pace_factor = models.FloatField(null=True, blank=True)
    effort_offset = models.FloatField(default=0)
    under_age = models.BooleanField(default=False)
    guardian = models.CharField(max_length=120, blank=True)
    guardian_on = models.DateField(null=True, blank=True)
    named_on = models.DateField(null=True, blank=True)

    class Meta:
        ordering = ["name"]

    def __str__(self) -> str:
        return self.name

    @property
    def on_the_wall(self) -> str:
        """The name that others read: short."""
        return self.short_name or short_name(self.name)

    @property
    def is_named(self) -> bool:
        """Whether others may read whose score it is. Nobody under age ever stands beside others."""
        return self.named_on is not None and not self.under_age

    @property
    def keeps_little(self) -> bool:
        """Whether body mass, maxima from tests and notes of health are not kept: under age, no guardian agreed."""
        return self.under_age and self.guardian_on is None


class SquadMovement(models.Model):
    """A movement that a squad defined or imported; it wins over the shipped one with the same key."""

    squad = models.ForeignKey(Squad, on_delete=models.CASCADE, related_name="movements")
    key = models.CharField(max_length=120)
    definition = models.JSONField()
    updated_at = models.DateTimeField(auto_now=True)

    class Meta:
        ordering = ["key"]
        constraints = [models.UniqueConstraint(fields=["squad", "key"], name="one_movement_a_key")]

    def __str__(self) -> str:
        return self.key

    def save(self, *args: Any, **options: Any) -> None:
        """Keep it, and let the squad know."""
        with transaction.atomic():
            super().save(*args, **options)
            self._told()

    def delete(self, *args: Any, **options: Any) -> tuple[int, dict[str, int]]:
        """Take it away, and let the squad know."""
        with transaction.atomic():
            gone = super().delete(*args, **options)
            self._told()
        return gone

    def _told(self) -> None:
        # By chance and not by counting: a version that was rolled back, or restored over, never comes twice.
        version = uuid4().hex
        Squad.objects.filter(pk=self.squad_id).update(movements_version=version)
        if "squad" in self._state.fields_cache:
            self.squad.movements_version = version


class ReadingHabit(models.Model):
    """How a squad has a kind of place in its texts read: what was chosen there so many times running."""

    squad = models.ForeignKey(Squad, on_delete=models.CASCADE, related_name="reading_habits")
    rule = models.CharField(max_length=40)
    reading = models.PositiveSmallIntegerField()
    times = models.PositiveIntegerField(default=1)
    at = models.DateTimeField(auto_now=True)

    class Meta:
        ordering = ["rule"]
        constraints = [models.UniqueConstraint(fields=["squad", "rule"], name="one_habit_a_rule")]

    def __str__(self) -> str:
        return f"{self.rule}: {self.reading}"


class Role(models.TextChoices):
    """What a member may do: head coaches all, coaches plan, athletes look."""

    HEAD_COACH = "head-coach", "head coach"
    COACH = "coach", "coach"
    ATHLETE = "athlete", "athlete"


class Membership(models.Model):
    """A user's role in a squad."""

    user = models.ForeignKey(settings.AUTH_USER_MODEL, on_delete=models.CASCADE, related_name="memberships")
    squad = models.ForeignKey(Squad, on_delete=models.CASCADE, related_name="memberships")
    role = models.CharField(max_length=20, choices=Role.choices)

    class Meta:
        constraints = [models.UniqueConstraint(fields=["user", "squad"], name="one_role_a_squad")]

    def __str__(self) -> str:
        return f"{self.user} in {self.squad}: {self.role}"


class Act(models.TextChoices):
    """What is written into a squad's history; `%s` is what it was done to."""

    PLANNED = "planned", "put %s on the plan"
    ENTRY_CHANGED = "entry-changed", "changed %s in the plan"
    ENTRY_DROPPED = "entry-dropped", "took %s off the plan"
    ENTRY_RESTORED = "entry-restored", "restored %s on the plan"
    DAY_SET = "day-set", "said what %s is meant to be"
    PHASE_ADDED = "phase-added", "added the phase %s"
    PHASE_DROPPED = "phase-dropped", "took the phase %s away"
    AWAY_ADDED = "away-added", "noted %s as away"
    AWAY_DROPPED = "away-dropped", "took the time away %s back"
    LEVELLED = "levelled", "took %s of a levelling"
    UNDONE = "undone", "undid %s of a levelling"
    ATTENDED = "attended", "noted who came to %s"
    RUN = "run", "ran %s"
    LOGGED = "logged", "logged %s"
    UNLOGGED = "unlogged", "took the log of %s back"
    RESULT_SET = "result-set", "wrote down a score at %s"
    RESULT_CHOSEN = "result-chosen", "settled a count at %s"
    RATED = "rated", "wrote down ratings of %s"
    NOTED = "noted", "wrote a note at %s"
    NOTE_LIFTED = "note-lifted", "lifted a note at %s"
    PACE_USED = "pace-used", "used the learned pace of %s"
    PACE_PUT_BACK = "pace-put-back", "put the learned pace of %s back"
    WALL_PAIRED = "wall-paired", "let a screen on the wall show the runs of the day%s"
    SPLIT = "split", "split %s into teams"
    PERSON_ADDED = "person-added", "added %s"
    PERSON_CHANGED = "person-changed", "changed what is known of %s"
    PERSON_ERASED = "person-erased", "erased %s"
    LIMIT_SET = "limit-set", "set a limit for %s"
    LIMIT_ENDED = "limit-ended", "ended a limit of %s"
    GROUP_CHANGED = "group-changed", "changed the group %s"
    LIST_TAKEN = "list-taken", "took in a list of %s"
    LIST_UNDONE = "list-undone", "undid the import of %s"
    INVITED = "invited", "invited %s"
    INVITATION_ENDED = "invitation-ended", "ended an invitation for %s"
    JOINED = "joined", "joined as %s"
    ROLE_CHANGED = "role-changed", "changed the role of %s"
    MEMBER_REMOVED = "member-removed", "took %s out of the squad"
    LEFT = "left", "left the squad%s"
    RESET_MADE = "reset-made", "made a link to set the password of %s anew"
    METHODS_CHANGED = "methods-changed", "changed the methods: %s"
    CHECK_MUTED = "check-muted", "had the check %s told no more"
    CHECK_HEARD = "check-heard", "had the check %s told again"
    MOVEMENTS_CHANGED = "movements-changed", "changed the squad's movements: %s"
    FOUNDED = "founded", "founded the squad %s"
    SQUAD_CHANGED = "squad-changed", "changed the squad's %s"
    LINK_MADE = "link-made", "made the calendar link %s"
    LINK_ENDED = "link-ended", "ended the calendar link %s"
    HABIT_FORGOTTEN = "habit-forgotten", "had the habit forgotten of reading %s"
    EXPORTED = "exported", "took out %s"
    OWN_LINK_MADE = "own-link-made", "made a check-in link for %s"
    OWN_LINK_ENDED = "own-link-ended", "ended the check-in link of %s"


class Record(models.Model):
    """Who did what, when; for the head coaches, for a year. Says nothing of anybody's health.

    `person`: who it was done to, named as they are now; `about`: what it was done to, where it is no person.
    """

    squad = models.ForeignKey(Squad, on_delete=models.CASCADE, related_name="records")
    at = models.DateTimeField(auto_now_add=True)
    user = models.ForeignKey(settings.AUTH_USER_MODEL, on_delete=models.SET_NULL, null=True)
    act = models.CharField(max_length=20, help_text="an Act")
    person = models.ForeignKey(Person, on_delete=models.SET_NULL, null=True)
    about = models.CharField(max_length=200, blank=True)
    own = models.BooleanField(default=False, help_text="the person did it, by their own link")

    class Meta:
        ordering = ["-id"]
        indexes = [models.Index(fields=["squad", "-id"], name="history_of_a_squad")]

    def __str__(self) -> str:
        return f"{self.at} {self.act} {self.about}"
