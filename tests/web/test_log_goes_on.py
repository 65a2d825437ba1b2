"""What goes on from the log: values of an earlier session's score, whose pace it is, targets by name, what was off."""

from __future__ import annotations

import json
from datetime import date, timedelta
from typing import Any
from uuid import uuid4

import pytest
from django.utils import timezone

from finetally.web.floor.models import FloorRun
from finetally.web.log.models import LearnedPace, LoggedEntry, Rating, Result
from finetally.web.log.off_course import kinds_off
from finetally.web.people.models import GroupPlace, Limit
from finetally.web.plan.models import Entry
from finetally.web.squads.models import Person, Squad
from finetally.web.squads.today import today_of
from tests.web.conftest import World
from tests.web.logbooks import PULL, START, a_run, an_entry, give, made, page, write

GOES_ON: dict[str, Any] = {
    "fine_tally": 1,
    "title": "Ridge pull, a week on",
    "blocks": [
        {
            "id": "again",
            "clock": {"kind": "task"},
            "rounds": {"from": {"block": "w", "take": "rounds"}, "plan": 2, "cap": 9},
            "steps": [{"movement": "burpee", "reps": 5}],
        }
    ],
}


def days_ago(world: World, days: int) -> date:
    return today_of(world.squad) - timedelta(days=days)


def called(world: World, entry: Entry) -> int:
    found: int = page(world, entry)["planned"]["reps"]["called"]
    return found


def two_more(world: World) -> list[Person]:
    return [world.squad.people.create(name=name) for name in ("Wren Ottaway", "Cato Brill")]


def test_a_value_goes_on_from_the_score_of_an_earlier_session(world: World) -> None:
    entry = an_entry(world, document=GOES_ON)
    assert called(world, entry) == 2 * 5
    first, second = two_more(world)
    own = world.known.own
    old, earlier = an_entry(world, days_ago(world, 14)), an_entry(world, days_ago(world, 7))
    write(world, old, made(own, 8, 0))
    # Of several people whoever stands in the middle; the newest session goes before an older one.
    write(world, earlier, made(own, 3, 0), made(first, 6, 2), made(second, 7, 0))
    assert called(world, entry) == 6 * 5
    # What the whole session made goes before anybody's own.
    write(world, earlier, {"person": None, "block": 0, "score": {"rounds": 5, "reps": 0}})
    assert called(world, entry) == 5 * 5
    # At most its cap.
    write(world, earlier, {"person": None, "block": 0, "score": {"rounds": 30, "reps": 0}})
    assert called(world, entry) == 9 * 5


def test_of_one_person_it_is_their_own_score_and_their_own_pace_also_when_it_is_run(world: World) -> None:
    own, (other, _) = world.known.own, two_more(world)
    Person.objects.filter(pk=own.pk).update(pace_factor=1.5)
    earlier = an_entry(world, days_ago(world, 7))
    write(world, earlier, made(own, 3, 0), made(other, 6, 0))
    entry = an_entry(world, document=GOES_ON)
    plain = page(world, entry)["planned"]["total_s"]
    sheet = world.send("coach", "GET", f"/floor/entries/{entry.pk}/sheet").json()
    assert (sheet["pace"]["source"], sheet["pace"]["factor"]) == ("squad", 1)
    Entry.objects.filter(pk=entry.pk).update(person=own)
    assert called(world, entry) == 3 * 5
    # Three rounds at half the pace again, instead of three (the middle of two) at the squad's.
    assert page(world, entry)["planned"]["total_s"] > 1.2 * plain
    sheet = world.send("coach", "GET", f"/floor/entries/{entry.pk}/sheet").json()
    assert (sheet["pace"]["source"], sheet["pace"]["factor"]) == ("set", 1.5)
    wish = {"entry": str(entry.pk), "begun": timezone.now().timestamp() - 60}
    run = world.send("coach", "PUT", f"/floor/runs/{uuid4()}", wish).json()["id"]
    given = FloorRun.objects.get(pk=run).given
    assert (given["scores"]["w"]["rounds"], given["person"]) == (3, {"pace_factor": 1.5})
    # What is told of the run, and taken out of the log, goes on from it, too.
    give(world, FloorRun.objects.get(pk=run), START, {"t": 50, "do": "next"})
    write(world, entry, made(own, 3, 0))
    assert page(world, entry)["runs"][0]["figures"]["reps"]["called"] == 3 * 5
    file = json.loads(world.send("coach", "GET", f"/log/file.json?person={own.public_id}").getvalue())
    assert file["entries"][-1]["given"]["scores"] == {"w": {"rounds": 3, "reps": 0}}


def test_the_bench_takes_it_too_and_says_nothing_comes_from_nowhere(world: World) -> None:
    asked = {"document": GOES_ON, "squad": world.squad.pk}

    def told() -> tuple[int, bool]:
        figures = world.send("coach", "POST", "/figures", asked).json()["figures"]
        return figures["reps"]["called"], any(one["code"] == "score-from-nowhere" for one in figures["checks"])

    assert told() == (2 * 5, True)
    write(world, an_entry(world, days_ago(world, 7)), made(world.known.own, 4, 0))
    assert told() == (4 * 5, False)
    answer = world.send("coach", "POST", "/figures", asked).json()
    assert answer["taken"] == {"w": {"rounds": 4, "reps": 0}}
    # What is typed in on the Bench goes before it.
    given = {"given": {"scores": {"w": {"rounds": 7}}}}
    sent = world.send("coach", "POST", "/figures", {**asked, **given}).json()["figures"]
    assert sent["reps"]["called"] == 7 * 5


def foreseen(world: World, who: str, **more: Any) -> Any:
    answer = world.send(who, "POST", "/log/foreseen", {"document": PULL, "squad": world.squad.pk, **more})
    assert answer.status_code == 200, answer.content
    return answer.json()


def test_only_who_agreed_is_named_beside_their_scores(world: World) -> None:
    own, (other, young) = world.known.own, two_more(world)
    entry = an_entry(world, days_ago(world, 12))
    write(world, entry, *(made(one, 5, 3) for one in (own, other, young)))
    write(world, an_entry(world, days_ago(world, 20)), made(own, 7, 0))
    assert foreseen(world, "athlete")["targets"] == []
    agree = {"agreed": True}
    assert world.send("athlete", "PUT", f"/people/{own.public_id}/named", agree).json()["named_on"]
    world.send("coach", "PUT", f"/people/{young.public_id}/named", agree)
    [one] = [target for target in foreseen(world, "athlete")["targets"] if target["name"] == own.on_the_wall]
    assert (one["last"]["rounds"], one["last"]["reps"], one["best"]["rounds"]) == (5, 3, 7)
    assert one["days_ago"] == 12
    # Whoever is under age never stands beside others, whatever was noted before.
    names = {target["name"] for target in foreseen(world, "coach")["targets"]}
    assert names == {own.on_the_wall, young.on_the_wall}
    Person.objects.filter(pk=young.pk).update(under_age=True)
    assert {target["name"] for target in foreseen(world, "coach")["targets"]} == {own.on_the_wall}
    refused = world.send("coach", "PUT", f"/people/{young.public_id}/named", agree).json()
    assert refused["problems"][0]["code"] == "cannot_under_age"
    sheet = world.send("coach", "GET", f"/floor/entries/{an_entry(world).pk}/sheet").json()
    assert {each["name"] for each in sheet["people"] if each["named"]} == {own.on_the_wall}
    world.send("athlete", "PUT", f"/people/{own.public_id}/named", {"agreed": False})
    assert foreseen(world, "athlete")["targets"] == []


def test_who_did_it_otherwise_last_time_is_told_to_those_who_plan(world: World) -> None:
    own, (other, _) = world.known.own, two_more(world)
    entry = an_entry(world, days_ago(world, 6))
    write(world, entry, made(own, 5, 0, options={"p": "knees"}), made(other, 6, 0))
    [told] = foreseen(world, "coach")["took"]
    assert (told["name"], told["options"]) == (own.on_the_wall, ["knees"])
    assert foreseen(world, "athlete")["took"] == []
    # Of a limit it is told as such, and not a second time.
    limit = Limit.objects.create(person=own, movement="push-up", first=days_ago(world, 1))
    assert foreseen(world, "coach")["took"] == []
    limit.delete()
    assert len(foreseen(world, "coach")["took"]) == 1
    # Once they did it as planned, it is told no more.
    write(world, an_entry(world, days_ago(world, 2)), made(own, 5, 0))
    assert foreseen(world, "coach")["took"] == []


def test_a_comparison_is_made_at_somebodys_pace(world: World) -> None:
    own, (quick, _) = world.known.own, two_more(world)
    Person.objects.filter(pk=own.pk).update(pace_factor=1.6)
    Person.objects.filter(pk=quick.pk).update(pace_factor=0.7)
    asked = {"document": PULL, "source": ["w"], "squad": world.squad.pk, "formats": []}

    def reps(pace_of: str | None) -> float:
        made = world.send("coach", "POST", "/compare", {**asked, "pace_of": pace_of}).json()
        found: float = made["comparison"]["columns"][0]["values"]["reps-per-min"]
        return found

    plain = reps(None)
    assert reps("slowest") == reps(str(own.public_id)) < plain < reps("quickest") == reps(str(quick.public_id))
    assert reps("middle") == plain


def test_a_movement_that_is_off_for_all_is_told_with_the_pace_that_fits(world: World) -> None:
    people = two_more(world)
    for days in (21, 14, 7):
        entry = an_entry(world, days_ago(world, days))
        write(world, entry, *(made(one, 3, 0) for one in people))
    told = Result.objects.filter(person__in=people)
    assert set(told.values_list("format", flat=True)) == {"rounds-against-the-clock"}
    # Most of the window's work is burpees.
    found = world.send("coach", "GET", f"/log?squad={world.squad.pk}").json()["off"]
    assert [(one["of"], one["key"], one["off"]["fits"] > 1.1) for one in found] == [
        ("movement", "burpee", True), ("format", "rounds-against-the-clock", True)
    ]  # fmt: skip
    [burpee, _] = kinds_off(world.squad)
    assert burpee.rep_s is not None
    assert burpee.fits_s == pytest.approx(burpee.rep_s * burpee.off["fits"])
    # One of them alone may be a person's own affair, and what was longer ago tells nothing.
    told.filter(person=people[0]).update(used=False)
    assert kinds_off(world.squad) == []
    assert world.send("athlete", "GET", f"/log?squad={world.squad.pk}").json()["off"] == []


def test_weeks_have_sets_landings_and_density_and_movements_when_they_were_last_done(world: World) -> None:
    own = world.known.own
    for days in (1, 9):
        entry = an_entry(world, days_ago(world, days))
        assert world.send("coach", "PUT", f"/log/entries/{entry.pk}", {}).status_code == 204
    kept = LoggedEntry.objects.get(entry=entry).movements
    told = world.send("coach", "GET", f"/log/people/{own.public_id}").json()
    week = told["weeks"][0]
    sessions = week["sessions"]
    assert week["sets"] == sessions * sum(one["visits"] for one in kept.values())
    assert week["rows"] == {row: sessions * n for row, n in rows_of(kept).items()}
    assert sum(week["landings"].values()) == sessions * sum(one["landings"] for one in kept.values()) > 0
    reps = sum(week["reps"].values())
    assert week["density"]["reps"] == pytest.approx(reps / week["minutes"])
    # Of other training no work is known: it makes nothing less dense.
    hike = {"day": str(entry.day), "title": "Walk", "minutes": 60, "effort": 2, "squad": world.squad.pk}
    walk = world.send("coach", "POST", "/plan/entries", hike).json()["id"]
    assert world.send("coach", "PUT", f"/log/entries/{walk}", {}).status_code == 204
    after = world.send("coach", "GET", f"/log/people/{own.public_id}").json()["weeks"][0]
    assert (after["minutes"], after["density"]) == (week["minutes"] + 60, week["density"])
    assert 0 < week["density"]["work"] < 1
    last = world.send("coach", "GET", f"/log/last-done?squad={world.squad.pk}").json()
    assert last["burpee"] == 1
    assert last.keys() == {key for key, one in kept.items() if one["visits"]}


def rows_of(kept: dict[str, Any]) -> dict[str, int]:
    rows: dict[str, int] = {}
    for one in kept.values():
        if one["visits"]:
            rows[one["row"]] = rows.get(one["row"], 0) + one["visits"]
    return rows


def test_sets_are_noted_without_a_score_and_stay_when_one_comes(world: World) -> None:
    own, entry = world.known.own, an_entry(world, days_ago(world, 1))
    sets = [{"kg": 60, "reps": 5}, {"kg": 65, "reps": 3}]
    write(world, entry, {"person": str(own.public_id), "block": 1, "sets": sets})
    [noted] = page(world, entry)["results"]
    assert (noted["sets"], noted["moved_kg"], noted["factor"]) == (sets, 495, None)
    assert page(world, entry)["blocks"] == ["Window", "Swings"]
    # Sets alone are no count, and dispute none.
    a_run(world, entry, START, {"t": 400, "do": "score", "block": 1, "rounds": 4, "person": str(own.public_id)})
    told = {bool(one["sets"]): one for one in page(world, entry)["results"]}
    assert [(told[sets]["used"], told[sets]["disputed"]) for sets in (True, False)] == [
        (False, False),
        (True, False),
    ]
    FloorRun.objects.all().delete()
    write(world, entry, {"person": str(own.public_id), "block": 1, "sets": []})
    Result.objects.filter(entry=entry).delete()
    write(world, entry, made(own, 5, 0, options={"p": "knees"}, sets=sets))
    [step] = page(world, entry)["options"]
    assert (step["step"], step["labels"], step["block"]) == ("p", ["knees"], 0)
    write(world, entry, {"person": str(own.public_id), "block": 0, "unfinished": "round 4, burpees", "sets": sets})
    [now] = page(world, entry)["results"]
    assert (now["unfinished"], now["sets"], now["factor"]) == ("round 4, burpees", sets, None)


def test_teams_by_pace_take_what_was_learned(world: World) -> None:
    Squad.objects.filter(pk=world.squad.pk).update(learning="auto")
    Person.objects.filter(squad=world.squad).exclude(pk=world.known.own.pk).update(user=None)
    people = two_more(world) + [world.squad.people.create(name=name) for name in ("Pim Hale", "Sol Vane")]
    for one, factor in zip(people, (0.6, 0.7, 1.4, 1.5), strict=True):
        LearnedPace.objects.create(person=one, pace_factor=factor, scores=6)
    entry = an_entry(world)
    for _ in range(5):
        world.send("coach", "PUT", f"/plan/entries/{entry.pk}/teams", {"count": 2, "by": "pace"})
        teams = dict(entry.team_places.values_list("person__name", "team"))
        # The two quickest are never in one team, nor the two slowest.
        assert teams["Wren Ottaway"] != teams["Cato Brill"]
        assert teams["Pim Hale"] != teams["Sol Vane"]


def test_what_a_score_counts_stands_apart_from_what_is_figured(world: World) -> None:
    own, (other, _) = world.known.own, two_more(world)
    entry = an_entry(world, days_ago(world, 1))
    write(world, entry, made(own, 5, 3))
    assert world.send("coach", "PUT", f"/log/entries/{entry.pk}", {}).status_code == 204

    def week(person: Person) -> dict[str, int]:
        found: dict[str, int] = world.send("coach", "GET", f"/log/people/{person.public_id}").json()["weeks"][-1]
        return found

    sessions = week(other)["sessions"]
    before, counted = week(other)["reps"], week(own)["reps"]
    # Five rounds of five burpees and ten push-ups, and three burpees more; the swings are guessed as before.
    assert counted["counted"] == 5 * 15 + 3
    assert before.get("counted", 0) == 0
    kept = LoggedEntry.objects.get(entry=entry)
    figured = kept.blocks["0"]["movements"]
    assert set(kept.blocks) == {"0"}
    for kind in ("called", "paced", "estimated"):
        assert counted[kind] == before[kind] - sum(one[kind] for one in figured.values())
    movements = world.send("coach", "GET", f"/log/people/{own.public_id}").json()["movements"]
    assert {one["key"]: one["reps"]["counted"] for one in movements}["push-up"] == 50
    assert sessions == week(own)["sessions"]
    # Of a window that was not finished nothing is counted.
    write(world, entry, {"person": str(own.public_id), "block": 0, "unfinished": "round 3"})
    assert week(own)["reps"] == before


def test_a_week_is_settled_without_whom(world: World) -> None:
    own, (other, _) = world.known.own, two_more(world)
    entries = [an_entry(world, days_ago(world, days)) for days in (1, 2)]
    # Who was noted as away before stays so.
    world.send("coach", "PUT", f"/log/entries/{entries[1].pk}", {"away": [str(other.public_id)]})
    world.send("coach", "DELETE", f"/log/entries/{entries[1].pk}")
    body = {"entries": [str(one.pk) for one in entries], "away": [str(own.public_id)]}
    assert len(world.send("coach", "POST", "/log/settle", body).json()["entries"]) == 2
    away = [
        {one["name"] for one in page(world, entry)["people"] if not one["came"]} & {own.name, other.name}
        for entry in entries
    ]
    assert away == [{own.name}, {own.name, other.name}]


def quickest(world: World, entry: Entry) -> float:
    told = world.send("coach", "GET", f"/floor/entries/{entry.pk}/sheet").json()["foreseen"]["scores"]
    factor: float = next(one["pace"]["factor"] for one in told if one["whom"] == "quickest")
    return factor


def test_the_floor_says_what_is_foreseen(world: World) -> None:
    entry = an_entry(world)
    told = world.send("coach", "GET", f"/floor/entries/{entry.pk}/sheet").json()["foreseen"]["scores"]
    assert [one["whom"] for one in told] == ["slowest", "middle", "quickest"]
    # Of a group it is the group's own span: the quick ones of another one play no part.
    quick = world.squad.people.create(name="Fitz Marlow", pace_factor=0.6)
    assert quickest(world, entry) == 0.6
    Entry.objects.filter(pk=entry.pk).update(group=world.known.group)
    GroupPlace.objects.create(group=world.known.group, person=world.known.own, since=days_ago(world, 9))
    assert not world.known.group.places.filter(person=quick).exists()
    assert quickest(world, entry) == 1
    Entry.objects.filter(pk=entry.pk).update(group=None)
    Entry.objects.filter(pk=entry.pk).update(person=world.known.own)
    [one] = world.send("coach", "GET", f"/floor/entries/{entry.pk}/sheet").json()["foreseen"]["scores"]
    assert (one["whom"], one["pace"]["source"]) == ("person", "squad")


def test_what_was_left_out_is_not_in_what_was_done(world: World) -> None:
    own, entry = world.known.own, an_entry(world, days_ago(world, 1))
    path = f"/log/entries/{entry.pk}"
    assert world.send("coach", "PUT", path, {"left_out": [1]}).status_code == 204
    told = page(world, entry)
    assert (told["how"], told["left_out"]) == ("typed", [1])
    # The swings, half a minute on and half off four times, come last: of the rest after them nothing is planned.
    [gone] = told["differences"]
    assert (gone["kind"], gone["title"], gone["seconds"]) == ("skipped", "Swings", -210)
    assert told["minutes"] == pytest.approx((told["planned"]["total_s"] - 210) / 60, abs=0.01)
    assert told["done"]["work_s"] == told["planned"]["work_s"] - 120
    kept = LoggedEntry.objects.get(entry=entry)
    assert "swing" not in kept.movements
    # Rated, it is held against what was done; logged again with other minutes it stays left out.
    world.send("coach", "PUT", f"{path}/rating", {"person": str(own.public_id), "effort": 7})
    assert Rating.objects.get(entry=entry).estimated == pytest.approx(told["done"]["effort"], abs=0.01)
    world.send("coach", "PUT", path, {"minutes": 9})
    assert page(world, entry)["left_out"] == [1]
    # The file holds what was done, so that whoever learns from it comes to the same.
    write(world, entry, made(own, 5, 0))
    file = json.loads(world.send("coach", "GET", f"/log/file.json?person={own.public_id}").getvalue())
    [one] = [each for each in file["entries"] if each["date"] == str(entry.day)]
    assert len(one["session"]["blocks"]) == 1
    assert one["scores"] == [{"block": 0, "index": 0, "rounds": 5, "reps": 0}]
    # A run says itself what was left out.
    run = a_run(world, entry, START, {"t": 30, "do": "stop"})
    assert world.send("coach", "PUT", path, {}).status_code == 204
    assert (page(world, entry)["left_out"], page(world, entry)["how"]) == ([], "run")
    run.delete()
    world.send("coach", "PUT", path, {"left_out": [1]})
    world.send("coach", "PUT", path, {"left_out": []})
    assert (page(world, entry)["done"], page(world, entry)["how"]) == (None, "planned")


@pytest.mark.parametrize(("left_out", "allowed"), [([7], "0 to 1"), ([0, 1], "fewer")])
def test_no_block_that_is_not_there_is_left_out_and_never_all(
    world: World, left_out: list[int], allowed: str
) -> None:
    entry = an_entry(world, days_ago(world, 1))
    answer = world.send("coach", "PUT", f"/log/entries/{entry.pk}", {"left_out": left_out})
    assert answer.status_code == 422
    assert answer.json()["problems"][0]["path"] == "left_out"
    assert allowed in str(answer.json()["problems"][0])
    assert not page(world, entry)["logged"]
