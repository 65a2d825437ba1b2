"""What the log teaches: a person's pace, used and put back; what is foreseen; what teaches nothing."""

from __future__ import annotations

from datetime import timedelta
from typing import Any

from finetally.web.log.models import LearnedPace, Result
from finetally.web.log.whose_pace import FEWEST_FOR_SPAN, told_span
from finetally.web.people.people import known_people
from finetally.web.plan.models import Entry
from finetally.web.squads.figuring_context import context_of
from finetally.web.squads.models import Person, Squad
from finetally.web.squads.today import today_of
from tests.web.conftest import World
from tests.web.logbooks import (
    PULL,
    START,
    a_run,
    an_entry,
    made,
    page,
    write,
)


def eight_logged(world: World, person: Person, rounds: int, reps: int) -> list[Entry]:
    """Four sessions with the same score each, a week apart, the last one a week ago."""
    found = []
    for weeks in (4, 3, 2, 1):
        entry = an_entry(world, today_of(world.squad) - timedelta(weeks=weeks))
        assert write(world, entry, made(person, rounds, reps)).status_code == 204
        found.append(entry)
    return found


def expected(world: World, entry: Entry, person: Person) -> Any:
    found = world.send("coach", "GET", f"/log/entries/{entry.pk}/expected").json()
    return next(one for one in found if one["person"] == str(person.public_id))


def test_from_four_scores_on_the_next_estimate_moves_and_can_be_put_back(world: World) -> None:
    person, coming = world.known.own, an_entry(world)
    Squad.objects.filter(pk=world.squad.pk).update(learning="auto")
    before = expected(world, coming, person)
    assert before["pace"]["source"] == "squad"
    quick = before["score"]["expected"]["rounds"] + 3
    summary = Entry.objects.get(pk=coming.pk).summary
    eight_logged(world, person, quick, 0)
    after = expected(world, coming, person)
    assert (after["pace"]["source"], after["pace"]["scores"]) == ("learned", 4)
    assert after["pace"]["factor"] < 1
    assert after["score"]["expected"]["rounds"] > before["score"]["expected"]["rounds"]
    told = world.send("coach", "GET", f"/log/people/{person.public_id}").json()
    assert told["learned"]["counts"] is True
    assert len(told["learned"]["why"]["pace"]) == 4
    # Figures of somebody go by it; planned copies never move.
    asked = {"document": PULL, "person": str(person.public_id), "squad": world.squad.pk}
    as_person = world.send("coach", "POST", "/figures", asked).json()["figures"]["blocks"][0]["scores"][0]
    assert as_person["rounds"] == after["score"]["expected"]["rounds"]
    assert Entry.objects.get(pk=coming.pk).summary == summary
    assert world.send("coach", "PUT", f"/log/people/{person.public_id}/learned", {"use": "no"}).status_code == 204
    assert expected(world, coming, person)["score"] == before["score"]


def test_three_scores_are_not_enough_and_asking_means_asking(world: World) -> None:
    person, coming = world.known.own, an_entry(world)
    Squad.objects.filter(pk=world.squad.pk).update(learning="ask")
    eight_logged(world, person, 12, 0)
    assert expected(world, coming, person)["pace"]["source"] == "squad"
    world.send("coach", "PUT", f"/log/people/{person.public_id}/learned", {"use": "yes"})
    assert expected(world, coming, person)["pace"]["source"] == "learned"
    Result.objects.filter(entry__day__lt=today_of(world.squad) - timedelta(weeks=3)).delete()
    write(world, an_entry(world, today_of(world.squad) - timedelta(days=2)), made(person, 12, 0))
    LearnedPace.objects.filter(person=person).update(scores=3)
    assert expected(world, coming, person)["pace"]["source"] == "squad"


def test_estimates_that_are_off_three_times_running_are_told(world: World) -> None:
    person, coming = world.known.own, an_entry(world)
    usual = expected(world, coming, person)["score"]["expected"]["rounds"]
    eight_logged(world, person, usual + 4, 0)
    [told] = [one for one in page(world, coming)["people"] if one["person"] == str(person.public_id)]
    assert len(told["off"]["factors"]) == 3
    assert told["off"]["fits"] < 0.9


def test_knee_push_ups_do_not_make_anybody_quicker(world: World) -> None:
    """More rounds with an easier option are the same pace, where the option is known."""
    person = world.known.own
    entry, plain = an_entry(world), an_entry(world, today_of(world.squad) - timedelta(days=1))
    write(world, entry, made(person, 8, 0, options={"p": "knees"}))
    write(world, plain, made(person, 8, 0))
    knees = Result.objects.get(entry=entry).factor
    pushed = Result.objects.get(entry=plain).factor
    assert knees is not None
    assert pushed is not None
    # The knees' pace is the quicker one: the same rounds are the less quick there.
    assert knees >= pushed


def test_a_window_that_was_cut_short_teaches_nothing_of_pace(world: World) -> None:
    entry, person = an_entry(world), world.known.own
    name = str(person.public_id)
    told = {"t": 205, "do": "score", "block": 0, "rounds": 3, "reps": 0, "person": name}
    a_run(world, entry, START, {"t": 200, "do": "skip", "what": "block"}, told, {"t": 300, "do": "stop"})
    world.send("coach", "PUT", f"/log/entries/{entry.pk}", {})
    assert Result.objects.get().factor is None


def test_a_run_that_ended_by_its_clock_is_whole_though_nobody_said_so(world: World) -> None:
    """After the start nothing was given: the window ran to its end all the same, and its score teaches."""
    entry = an_entry(world)
    a_run(world, entry, START)
    write(world, entry, made(world.known.own, 8, 0))
    assert Result.objects.get().factor is not None


def test_a_correction_keeps_what_was_expected_and_what_was_done_otherwise(world: World) -> None:
    entry, person = an_entry(world), world.known.own
    write(world, entry, made(person, 12, 0, options={"p": "knees"}))
    before = Result.objects.get()
    LearnedPace.objects.filter(person=person).update(pace_factor=0.5, scores=9, use="yes")
    write(world, entry, made(person, 11, 0))
    after = Result.objects.get()
    assert (after.predicted, after.options) == (before.predicted, {"p": "knees"})
    assert (after.pk, after.factor) != (before.pk, before.factor)


def test_who_does_not_plan_reads_the_span_rounded_and_not_of_a_few(world: World) -> None:
    for name, factor in (("Fitz Marlow", 0.712345678), ("Ila Thorn", 1.298765432)):
        world.squad.people.create(name=name, pace_factor=factor)
    methods = context_of(world.squad).methods
    few = list(known_people(world.squad))
    assert len(few) < FEWEST_FOR_SPAN
    assert told_span(few, methods, plans=False) == {}
    assert told_span(few, methods, plans=True)["quickest"].pace_factor == 0.712345678
    world.squad.people.create(name="Una Ferrow")
    enough = told_span(list(known_people(world.squad)), methods, plans=False)
    assert (enough["quickest"].pace_factor, enough["slowest"].pace_factor) == (0.71, 1.3)
