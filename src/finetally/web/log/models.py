"""LoggedEntry, LoggedRun, Result, Rating, LogNote, WatchRecording, LearnedPace, LogPart."""

from __future__ import annotations

from django.conf import settings
from django.db import models

from finetally.core.learn.learned import Learned
from finetally.web.floor.models import FloorRun
from finetally.web.plan.models import Entry
from finetally.web.squads.models import Person, Squad


class LoggedHow(models.TextChoices):
    """How it is known what was done."""

    RUN = "run", "from its run"
    PLANNED = "planned", "as planned"
    TYPED = "typed", "as typed"


class LoggedEntry(models.Model):
    """That an entry is logged: the planned figures and picture as they were then, and what was done of it.

    Nothing here is figured anew, whatever becomes of methods, movements or the core. `summary`: what the week takes
    of it (a load summary as done); its minutes and effort stand with the entry. `movements`: reps, sets, kilograms
    by movement, as figures have them; `blocks`: those of scored blocks. `run`: the one it is taken from, of several
    the longest. `effort_from`: ratings, the estimate of what was done, or typed.
    """

    entry = models.OneToOneField(Entry, on_delete=models.CASCADE, related_name="logged_as")
    how = models.CharField(max_length=10, choices=LoggedHow.choices)
    run = models.ForeignKey(FloorRun, on_delete=models.SET_NULL, null=True, blank=True, related_name="+")
    planned = models.JSONField(default=dict)
    picture = models.JSONField(default=dict)
    summary = models.JSONField(default=dict)
    movements = models.JSONField(default=dict)
    blocks = models.JSONField(default=dict)
    left_out = models.JSONField(default=list, help_text="blocks by number that were not done, without a run")
    figures = models.JSONField(default=dict, help_text="what was done then came to")
    differences = models.JSONField(default=list)
    estimated = models.FloatField(null=True, help_text="effort of what was done, as the model has it")
    effort_from = models.CharField(max_length=10, default="estimate")
    at = models.DateTimeField(auto_now_add=True)
    user = models.ForeignKey(settings.AUTH_USER_MODEL, on_delete=models.SET_NULL, null=True, related_name="+")

    def __str__(self) -> str:
        return f"{self.entry} as logged"


class LoggedRun(models.Model):
    """What a run came to: its figures as done, its picture, and what differed from the plan.

    `events`: how many events it was made of; more events make it anew, nothing else does.
    """

    run = models.OneToOneField(FloorRun, on_delete=models.CASCADE, related_name="logged_as")
    events = models.PositiveIntegerField()
    session_s = models.FloatField()
    figures = models.JSONField(default=dict)
    picture = models.JSONField(default=dict)
    differences = models.JSONField(default=list)
    summary = models.JSONField(default=dict)
    movements = models.JSONField(default=dict)
    blocks = models.JSONField(default=dict)

    def __str__(self) -> str:
        return f"{self.run} as logged"


class ResultWay(models.TextChoices):
    """How a result came in."""

    FLOOR = "floor", "on the floor"
    TYPED = "typed", "typed in"
    OWN = "own", "by the person"
    FILE = "file", "from a file"


class Result(models.Model):
    """A score in one self-paced window of an entry: a person's, a team's or the session's own, or a former
    member's.

    Counts that disagree (two devices, coach and athlete) stand beside each other; `used` says which one counts.
    `score`: rounds and reps, a time or a rung; empty with `unfinished`, which says where they stopped. `options`:
    what was done otherwise, by step id. `sets`: kilograms and reps of each set, where they were noted. `factor`:
    the pace factor of the score, `predicted` what was expected of it (`PredictedScore`), made when it was logged,
    by `key`.
    """

    entry = models.ForeignKey(Entry, on_delete=models.CASCADE, related_name="results")
    person = models.ForeignKey(Person, on_delete=models.CASCADE, null=True, blank=True, related_name="results")
    whose = models.CharField(max_length=20, default="person", help_text="person, session, team 2, former")
    block = models.PositiveIntegerField()
    section_pass = models.PositiveIntegerField(default=0)
    index = models.PositiveIntegerField(default=0)
    score = models.JSONField(default=dict)
    unfinished = models.CharField(max_length=80, blank=True)
    options = models.JSONField(default=dict)
    sets = models.JSONField(default=list)
    way = models.CharField(max_length=10, choices=ResultWay.choices)
    run = models.ForeignKey(FloorRun, on_delete=models.SET_NULL, null=True, blank=True, related_name="results")
    device = models.CharField(max_length=36, blank=True)
    used = models.BooleanField(default=True)
    chosen = models.BooleanField(default=False, help_text="a coach settled that it is this one")
    disputed = models.BooleanField(default=False, help_text="it differs from the used one, and nobody settled it")
    shape = models.CharField(max_length=16, blank=True, help_text="name of its block's shape")
    format = models.CharField(max_length=60, blank=True, help_text="key of the format that its block is")
    movement = models.CharField(max_length=120, blank=True, help_text="key of what most of its block's work is")
    factor = models.FloatField(null=True)
    predicted = models.JSONField(null=True)
    counted = models.JSONField(default=dict, help_text="reps and kilograms by movement that its score says")
    key = models.CharField(max_length=16, blank=True, help_text="of what factor and prediction were made from")
    user = models.ForeignKey(settings.AUTH_USER_MODEL, on_delete=models.SET_NULL, null=True, related_name="+")
    at = models.DateTimeField(auto_now_add=True)

    class Meta:
        ordering = ["block", "section_pass", "index", "id"]
        indexes = [models.Index(fields=["person", "shape"], name="results_of_a_shape")]

    def __str__(self) -> str:
        return f"{self.person or self.whose}: {self.score}"


class RatingWay(models.TextChoices):
    """How a rating came in."""

    TABLET = "tablet", "on the tablet that goes round"
    TABLE = "table", "in the coach's table"
    OWN = "own", "by the person"
    GROUP = "group", "one for the group"
    FILE = "file", "from a file"


class Rating(models.Model):
    """How hard somebody found it, 0 to 10; without a person the one figure for the group, which nobody learns from.

    `early`: within ten minutes of the end. `options`: what they did otherwise, by step id. `estimated`: the effort
    of what this person did, without their offset, made when it was logged, by `key`.
    """

    entry = models.ForeignKey(Entry, on_delete=models.CASCADE, related_name="ratings")
    person = models.ForeignKey(Person, on_delete=models.CASCADE, null=True, blank=True, related_name="ratings")
    effort = models.FloatField()
    way = models.CharField(max_length=10, choices=RatingWay.choices)
    early = models.BooleanField(default=False)
    options = models.JSONField(default=dict)
    estimated = models.FloatField(null=True)
    key = models.CharField(max_length=16, blank=True)
    user = models.ForeignKey(settings.AUTH_USER_MODEL, on_delete=models.SET_NULL, null=True, related_name="+")
    at = models.DateTimeField(auto_now=True)

    class Meta:
        ordering = ["id"]
        constraints = [
            models.UniqueConstraint(fields=["entry", "person"], name="one_rating_a_person"),
            models.UniqueConstraint(
                fields=["entry"], condition=models.Q(person=None), name="one_rating_for_the_group"
            ),
        ]

    def __str__(self) -> str:
        return f"{self.person or 'the group'}: {self.effort}"


class LogNote(models.Model):
    """Something to remember of an entry, or of a person in it; pain and dizziness stand until they are lifted.

    `text` of pain and dizziness is kept as long as the squad says, then emptied. `level`: 0 to 10.
    """

    entry = models.ForeignKey(Entry, on_delete=models.CASCADE, related_name="log_notes")
    person = models.ForeignKey(Person, on_delete=models.CASCADE, null=True, blank=True, related_name="log_notes")
    run = models.ForeignKey(FloorRun, on_delete=models.SET_NULL, null=True, blank=True, related_name="+")
    event = models.PositiveBigIntegerField(null=True, unique=True, help_text="the floor's event that it came with")
    kind = models.CharField(max_length=10)
    text = models.CharField(max_length=2000, blank=True)
    place = models.CharField(max_length=40, blank=True)
    side = models.CharField(max_length=5, blank=True)
    level = models.PositiveSmallIntegerField(null=True)
    lifted_on = models.DateField(null=True, blank=True)
    emptied = models.BooleanField(default=False)
    user = models.ForeignKey(settings.AUTH_USER_MODEL, on_delete=models.SET_NULL, null=True, related_name="+")
    at = models.DateTimeField(auto_now_add=True)

    class Meta:
        ordering = ["id"]

    def __str__(self) -> str:
        return f"{self.kind} at {self.entry}"


class WatchRecording(models.Model):
    """The pulse of somebody at an entry: its figures, and the curve until it is deleted; nothing else of a
    watch.
    """

    entry = models.ForeignKey(Entry, on_delete=models.CASCADE, related_name="recordings")
    person = models.ForeignKey(Person, on_delete=models.CASCADE, related_name="recordings")
    figures = models.JSONField()
    curve = models.JSONField(null=True)
    user = models.ForeignKey(settings.AUTH_USER_MODEL, on_delete=models.SET_NULL, null=True, related_name="+")
    at = models.DateTimeField(auto_now_add=True)

    class Meta:
        ordering = ["id"]
        constraints = [models.UniqueConstraint(fields=["entry", "person"], name="one_recording_a_person")]

    def __str__(self) -> str:
        return f"the pulse of {self.person} at {self.entry}"


class LearnedPace(models.Model):
    """What a person's scores and ratings teach, as of a day; made anew after each change of their log.

    `use`: used or put back by hand ("yes", "no"); empty: as the squad has it (`Squad.learning`).
    """

    person = models.OneToOneField(Person, on_delete=models.CASCADE, related_name="learned_pace")
    pace_factor = models.FloatField(default=1)
    spread = models.FloatField(default=0.1)
    scores = models.PositiveIntegerField(default=0)
    effort_offset = models.FloatField(default=0)
    ratings = models.PositiveIntegerField(default=0)
    as_of = models.DateField(null=True)
    use = models.CharField(max_length=3, blank=True)

    def __str__(self) -> str:
        return f"{self.person}: {self.pace_factor}"

    @property
    def value(self) -> Learned:
        """As the core has it."""
        return Learned(self.pace_factor, self.spread, self.scores, self.effort_offset, self.ratings)


class LogPart(models.Model):
    """A part of a log's file that is being brought in, packed. Deleted when its job has ended, or after a day.

    `asked`: all of the file has come, and its job waits or runs.
    """

    file = models.UUIDField()
    number = models.PositiveSmallIntegerField()
    squad = models.ForeignKey(Squad, on_delete=models.CASCADE, related_name="+")
    user = models.ForeignKey(settings.AUTH_USER_MODEL, on_delete=models.CASCADE, related_name="+")
    text = models.BinaryField()
    characters = models.PositiveIntegerField()
    asked = models.BooleanField(default=False)
    at = models.DateTimeField(auto_now_add=True)

    class Meta:
        constraints = [models.UniqueConstraint(fields=["file", "number"], name="a_part_once")]

    def __str__(self) -> str:
        return f"{self.file} {self.number}"
