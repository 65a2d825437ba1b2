"""Files in and out: sessions, board text, movements; a wrong file is refused whole, with its places."""

from __future__ import annotations

import csv
import io
import json
from typing import Any

import pytest

from finetally.core.session.ids import without_ids
from finetally.web.squads.models import SquadMovement
from finetally.web.training.models import Session
from tests.web.conftest import DOCUMENT, World

OWN = {"key": "wet-haul", "name": "long wet haul", "patterns": {"pull-level": 1}, "pace_s": 3, "met": 7}


@pytest.mark.parametrize("kind", ["json", "txt"])
def test_a_session_goes_out_and_comes_back_the_same(world: World, kind: str) -> None:
    path = f"/sessions/{world.session.pk}"
    document = world.send("coach", "GET", path).json()["document"]
    out = world.send("coach", "GET", f"{path}/export.{kind}")
    assert f'filename="ridge.{kind}"' in out["Content-Disposition"]
    back = world.send("coach", "POST", "/sessions/import", {"kind": kind, "text": out.content.decode()})
    assert back.status_code == 201
    assert back.json()["document"] == document
    figures = [
        world.send("coach", "POST", "/figures", {"document": one}).json()["figures"]
        for one in (document, back.json()["document"])
    ]
    assert figures[0] == figures[1]


WRONG_FILES = [
    ("/sessions/import", "json", '{"fine_tally": 1, "title": "x", "blocks": [{}]}', "blocks[0].clock"),
    ("/sessions/import", "txt", "Day\n10 burpees\n--- not for the wall ---\n{no\n", "line 4, column 1"),
    ("/movements", "csv", "key,patterns\nwet-haul,pull-level 1\nbad,squat 0.5\n", "line 3"),
    ("/movements", "csv", "key,patterns,pace_s\nwet-haul,pull-level 1,soon\n", "line 2, pace_s"),
    ("/movements", "csv", "name,patterns\nx,squat 1\n", "line 1"),
    ("/movements", "json", json.dumps([OWN, {**OWN, "key": "b", "met": -1}]), "[1], met"),
    ("/movements", "json", json.dumps([OWN, OWN]), "[1], key"),
]


@pytest.mark.parametrize(("path", "kind", "text", "place"), WRONG_FILES, ids=range(len(WRONG_FILES)))
def test_a_wrong_file_names_the_place_and_nothing_is_taken(
    world: World, path: str, kind: str, text: str, place: str
) -> None:
    sessions = Session.objects.count()
    answer = world.send("coach", "POST", path, {"kind": kind, "text": text})
    assert answer.status_code == 422
    assert [one["path"] for one in answer.json()["problems"]] == [place]
    assert Session.objects.count() == sessions
    assert SquadMovement.objects.count() == 0


def test_a_squads_own_movement_is_known_everywhere(world: World) -> None:
    document = {
        **DOCUMENT,
        "blocks": [{"clock": {"kind": "task"}, "steps": [{"movement": "wet-haul", "reps": 10}]}],
    }
    unknown = world.send("coach", "POST", "/figures", {"document": document}).json()["figures"]
    assert (unknown["movements"]["wet-haul"]["provisional"], unknown["patterns"]) == (True, {})
    taken = world.send("coach", "POST", "/movements", {"kind": "json", "text": json.dumps([OWN])})
    assert taken.json() == {"keys": ["wet-haul"]}
    made = world.send("coach", "POST", "/figures", {"document": document}).json()["figures"]
    assert made["patterns"]["pull-level"]["share"] == 1
    listed = world.send("athlete", "GET", "/movements").json()
    assert listed["own"] == ["wet-haul"]
    text = world.send("athlete", "POST", "/board/write", {"document": document}).json()["text"]
    assert "10 long wet haul" in text
    theirs = world.send("stranger", "POST", "/figures", {"document": document}).json()["figures"]
    assert theirs["effort"]["provisional"] == ["wet-haul"]


def test_what_could_stand_for_a_movement_knows_the_squads_own_and_the_files(world: World) -> None:
    def near(who: str, **more: Any) -> list[str]:
        answer = world.send(who, "POST", "/movements/near", {"movement": "bent-row", **more})
        assert answer.status_code == 200, answer.content
        return list(answer.json()["keys"])

    assert "wet-haul" not in near("coach")
    world.send("coach", "POST", "/movements", {"kind": "json", "text": json.dumps([OWN])})
    assert "wet-haul" in near("athlete")
    assert "wet-haul" not in near("stranger")
    own = {"key": "odd-row", "name": "odd row", "patterns": {"pull-level": 1}}
    assert "odd-row" in near("coach", definitions=[own])
    assert near("coach", movement="odd-row") == []
    assert "bent-row" in near("coach", movement="odd-row", definitions=[own])
    wrong = {"movement": "bent-row", "definitions": [{**own, "patterns": {"wriggle": 1}}]}
    assert world.send("coach", "POST", "/movements/near", wrong).status_code == 422


def test_the_library_as_a_table_reads_back(world: World) -> None:
    table = world.send("coach", "GET", "/movements.csv").content.decode()
    rows = list(csv.DictReader(io.StringIO(table)))
    assert len(rows) >= 160
    again = world.send("coach", "POST", "/movements", {"kind": "csv", "text": table})
    assert again.status_code == 200, again.content
    assert len(again.json()["keys"]) == len(rows)


def test_board_text_over_the_api(world: World) -> None:
    text = world.send("coach", "POST", "/board/write", {"document": DOCUMENT}).json()["text"]
    read = world.send("coach", "POST", "/board", {"text": text, "before": DOCUMENT}).json()
    assert without_ids(read["document"]) == DOCUMENT
    assert "wall" not in read["document"]
    broken = world.send("coach", "POST", "/board", {"text": "Day\n--- not for the wall ---\n{"}).json()
    assert (broken["document"], [p["line"] for p in broken["problems"]]) == (None, [3])


WALL = "Thursday, 40 min\n\nemom 12\n12 pushups\n10 gate vaults\n"


def test_any_words_are_read_and_what_is_told_stands_at_its_place(world: World) -> None:
    read = world.send("athlete", "POST", "/board", {"text": WALL}).json()
    assert read["document"]["wall"] == {"text": WALL}
    assert read["document"]["announced_s"] == 2400
    [assumed] = read["assumed"]
    assert (assumed["line"], assumed["column"], assumed["length"], assumed["chosen"]) == (3, 1, 7, 0)
    [name] = read["names"]
    assert (name["words"], name["line"], name["column"], name["length"]) == ("gate vaults", 5, 4, 11)
    [block] = read["outline"]
    assert [one["words"] for one in block["steps"]] == ["12 push-up", "10 gate vaults"]
    assert [one["code"] for one in block["steps"]] == ["PS", "??"]
    chosen = world.send("athlete", "POST", "/board", {"text": WALL, "settled": {assumed["id"]: 1}}).json()
    assert chosen["document"]["blocks"][0]["steps"][0]["chain"] is True
    assert chosen["document"]["wall"]["settled"] == {assumed["id"]: 1}


def test_the_words_as_typed_come_back_as_long_as_they_hold(world: World) -> None:
    document = world.send("coach", "POST", "/board", {"text": WALL}).json()["document"]
    body = {"document": document, "as_typed": True}
    typed = world.send("coach", "POST", "/board/write", body).json()
    assert (typed["text"], typed["as_typed"]) == (WALL, True)
    document["blocks"][0]["steps"][0]["reps"] = 15
    changed = world.send("coach", "POST", "/board/write", {"document": document, "as_typed": True}).json()
    assert changed["as_typed"] is False
    assert '10 "gate vaults"' in changed["text"]
    again = world.send("coach", "POST", "/board", {"text": changed["text"], "before": document}).json()
    assert (again["assumed"], "wall" in again["document"]) == ([], False)


def test_a_name_given_to_a_movement_is_understood_in_every_later_session(world: World) -> None:
    body = {"key": "box-jump", "words": "gate vault"}
    assert world.send("athlete", "POST", "/movements/names", body).status_code == 403
    assert world.send("coach", "POST", "/movements/names", body).status_code == 204
    assert world.send("coach", "POST", "/movements/names", {**body, "key": "no such"}).status_code == 404
    read = world.send("athlete", "POST", "/board", {"text": WALL}).json()
    assert read["names"] == []
    assert read["document"]["blocks"][0]["steps"][1]["movement"] == "box-jump"
    assert (
        "10 box jump" in world.send("coach", "POST", "/board/write", {"document": read["document"]}).json()["text"]
    )
    foreign = world.send("stranger", "POST", "/board", {"text": WALL}).json()
    assert [one["key"] for one in foreign["names"]] == ["gate vaults"]


def test_days_in_a_text_are_sessions_of_their_own(world: World) -> None:
    text = "Monday\n10 burpees\n\nTuesday, 30 min\n20 min jog\n\nThu 3/12\n3 rounds\n10 squats\n"
    sessions = world.send("coach", "POST", "/board", {"text": text}).json()["sessions"]
    assert [one.split("\n")[0] for one in sessions] == ["Monday", "Tuesday, 30 min", "Thu 3/12"]
    assert world.send("coach", "POST", "/board", {"text": WALL}).json()["sessions"] == []


def test_figures_can_be_held_against_a_plain_day(world: World) -> None:
    body: dict[str, Any] = {"document": DOCUMENT, "given": {"person": {"capacity_met": 15}}, "against": {}}
    made = world.send("coach", "POST", "/figures", body).json()
    assert made["deltas"]["effort.mean_uptake"] < 0
    assert "total_s" not in made["deltas"]
    same = world.send("coach", "POST", "/figures", {"document": DOCUMENT, "against": {}}).json()
    assert same["deltas"] == {}


def test_schools_are_tried_for_one_answer_and_kept_by_the_head_coach(world: World) -> None:
    body = {"document": {**DOCUMENT, "blocks": [
        {"clock": {"kind": "amrap", "window_s": 120}, "steps": [{"movement": "burpee", "reps": 5}]}]}}  # fmt: skip

    def density(**more: Any) -> float:
        figures = world.send("coach", "POST", "/figures", {**body, **more}).json()["figures"]
        return float(figures["headline"]["density"])

    plain = density()
    assert density(methods={"density": "by-the-clock"}) == 1 > plain
    assert density() == plain
    kept = world.send(
        "head", "PATCH", f"/squads/{world.squad.pk}/methods", {"methods": {"density": "by-the-clock"}}
    )
    assert kept.json()["methods"]["density"] == "by-the-clock"
    assert density() == 1
    world.send("head", "PATCH", f"/squads/{world.squad.pk}/methods", {"methods": {"density": None}})
    assert density() == plain


def test_a_muted_check_is_silent_and_an_unknown_one_is_refused(world: World) -> None:
    def codes() -> set[str]:
        checks = world.send("coach", "POST", "/figures", {"document": DOCUMENT}).json()["figures"]["checks"]
        return {check["code"] for check in checks}

    assert "no-warm-up" in codes()
    path = f"/squads/{world.squad.pk}/methods"
    assert world.send("head", "PATCH", path, {"methods": {"muted_checks": ["no-warm-up"]}}).status_code == 200
    assert "no-warm-up" not in codes()
    assert world.send("head", "PATCH", path, {"methods": {"muted_checks": ["no-fun"]}}).status_code == 422
    muted = f"/squads/{world.squad.pk}/muted-checks"
    assert world.send("head", "PUT", f"{muted}/no-cool-down").json() == {"muted": ["no-warm-up", "no-cool-down"]}
    assert world.send("head", "PUT", f"{muted}/no-cool-down").json() == {"muted": ["no-warm-up", "no-cool-down"]}
    assert world.send("head", "DELETE", f"{muted}/no-warm-up").json() == {"muted": ["no-cool-down"]}
    assert world.send("athlete", "GET", muted).json() == {"muted": ["no-cool-down"]}
    wrong = world.send("head", "PUT", f"{muted}/no-fun")
    assert (wrong.status_code, wrong.json()["problems"][0]["path"]) == (422, "muted_checks")


def test_a_version_says_what_it_changed(world: World) -> None:
    path = f"/sessions/{world.session.pk}"
    head = world.send("coach", "GET", path).json()
    changed = {**head["document"], "title": "Ridge two"}
    world.send("coach", "PUT", path, {"document": changed, "base": head["etag"], "tab": "t"})
    latest = world.send("coach", "GET", f"{path}/revisions").json()[0]
    made = world.send("coach", "GET", f"{path}/revisions/{latest['id']}/differences").json()
    assert [(d["kind"], d["path"], d["before"], d["after"]) for d in made["differences"]] == [
        ("changed", "title", "Ridge", "Ridge two")
    ]


def test_a_block_is_made_over_into_another_format(world: World) -> None:
    entry = {"id": "b9", "title": "Mine", "clock": {"kind": "task"}, "rest_after_s": 30,
             "steps": [{"id": "s1", "movement": "burpee", "reps": 8}, {"id": "s2", "movement": "swing", "reps": 12}]}  # fmt: skip
    made = world.send("coach", "POST", "/formats/make", {"key": "pairs-20-10", "entry": entry}).json()["entries"]
    assert [s["id"] for s in made[0]["steps"]] == ["s1", "s2"]
    assert (made[0]["title"], made[0]["rest_after_s"], made[0]["id"]) == ("Mine", 30, "b9")
    assert "reps" not in made[0]["steps"][0]
    back = world.send("coach", "POST", "/formats/make", {"key": "rounds-for-time", "entry": made[0]}).json()[
        "entries"
    ]
    assert back[0]["steps"][0]["reps"] == 10
    refused = world.send("coach", "POST", "/formats/make", {"key": "halving-triplet", "entry": entry})
    assert refused.status_code == 422
    assert "takes 3 movements" in refused.json()["detail"]


def test_the_card_is_one_page_of_pdf(world: World) -> None:
    for paper in ("a4", "letter"):
        job = world.send("athlete", "POST", "/card.pdf", {"document": DOCUMENT, "paper": paper}).json()
        assert (job["state"], job["answered"]) == ("done", True)
        pdf = world.send("athlete", "GET", f"/jobs/{job['id']}/file").content
        assert world.send("coach", "GET", f"/jobs/{job['id']}/file").status_code == 404
        assert pdf.startswith(b"%PDF-")
        assert pdf.count(b"/Type /Page\n") == 1
