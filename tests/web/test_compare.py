"""Side by side over the API: answers, refusals with their places, files, shapes."""

from __future__ import annotations

import csv
import io
import json
from typing import Any

import pytest
from openpyxl import load_workbook

from finetally.web.training.models import Shape
from tests.web.conftest import DOCUMENT, World

ASK: dict[str, Any] = {
    "document": DOCUMENT,
    "formats": ["even-intervals", "rounds-against-the-clock", "pairs-20-10"],
}


def test_a_comparison_says_what_is_held_and_what_cannot_be(world: World) -> None:
    answer = world.send("coach", "POST", "/compare", ASK).json()
    made = answer["comparison"]
    assert (made["hold"], made["target"], made["source"]) == ("total", 230, [0])
    plan, even, rounds, pairs = made["columns"][: made["shown"]]
    assert plan["values"]["total"] == 230
    assert even["held"] + even["left"] == pytest.approx(230)
    assert rounds["causes"][0]["measure"] == "in-a-row"
    assert "in a row" in rounds["why"]
    assert "movements" in pairs["why"]
    assert answer["holding"]["pairs-20-10"] == pairs["why"]


@pytest.mark.parametrize(
    ("path", "change", "place"),
    [
        ("/compare", {"formats": ["waltz"]}, "formats[0]"),
        ("/compare", {"wishes": [{"row": "beauty", "way": "high"}]}, "wishes[0].row"),
        ("/compare", {"axes": ["load", "beauty"]}, "axes[1]"),
        ("/compare", {"source": ["nowhere"]}, "source"),
        ("/compare", {"target": -5}, "target"),
        ("/compare", {"document": None}, "source"),
        (
            "/compare/sweep",
            {"format": "even-intervals", "param": "work_s", "low": 5, "high": 900, "step": 1},
            "param",
        ),
        ("/compare/sweep", {"format": "waltz", "param": "work_s", "low": 5, "high": 9, "step": 1}, "format"),
    ],
)
def test_a_wrong_question_is_refused_with_its_place(
    world: World, path: str, change: dict[str, Any], place: str
) -> None:
    answer = world.send("coach", "POST", path, {**ASK, **change})
    assert answer.status_code == 422
    assert answer.json()["problems"][0]["path"] == place


def test_numbers_of_a_wrong_kind_are_no_fault_of_the_server(world: World) -> None:
    sweep = {**ASK, "format": "even-intervals", "param": "work_s", "low": 20, "high": 30, "step": 5}
    for params in ({"rounds": "many"}, {"order": 7}, {"rest_s": [1]}):
        answer = world.send("coach", "POST", "/compare/sweep", {**sweep, "params": params})
        assert answer.status_code == 200, params
        assert all(point["column"]["why"] for point in answer.json()["points"])
    ladder = {**sweep, "format": "rep-ladder", "param": "start", "low": 1, "high": 3, "step": 1}
    answer = world.send("coach", "POST", "/compare/sweep", {**ladder, "params": {"end": 10**9, "by": 1}})
    assert all("from 1 to 1000" in point["column"]["why"] for point in answer.json()["points"])
    answer = world.send("coach", "POST", "/compare/sweep", {**ladder, "params": {"end": 1000, "by": 7}})
    assert all("not reached" in point["column"]["why"] for point in answer.json()["points"])


def test_the_files_hold_the_same_numbers(world: World) -> None:
    columns = world.send("coach", "POST", "/compare", ASK).json()["comparison"]["columns"]
    table = list(csv.reader(io.StringIO(world.send("coach", "POST", "/compare.csv", ASK).content.decode())))
    columns = columns[: len(ASK["formats"]) + 1]
    assert table[0][2:] == [column["name"] for column in columns]
    work = next(row for row in table if row[0] == "Work")
    assert [float(cell) if cell else None for cell in work[2:]] == [one["values"].get("work") for one in columns]
    book = load_workbook(io.BytesIO(world.send("coach", "POST", "/compare.xlsx", ASK).content))
    sheet = {row[0]: row for row in book.active.iter_rows(values_only=True)}
    assert sheet["Density"][2] == pytest.approx(columns[0]["values"]["density"], abs=1e-3)


def test_no_title_becomes_a_formula(world: World) -> None:
    ids = []
    for title in ("=1+1", "@cmd"):
        made = world.send("coach", "POST", "/sessions", {"document": {**DOCUMENT, "title": title}}).json()
        ids.append(made["id"])
    text = world.send("coach", "POST", "/compare/sessions.csv", {"sessions": ids}).content.decode()
    assert text.splitlines()[0] == ",unit,'=1+1,'@cmd"


def test_sessions_of_other_squads_do_not_exist(world: World) -> None:
    ids = [str(world.session.pk), str(world.foreign.pk)]
    assert world.send("head", "POST", "/compare/sessions", {"sessions": ids}).status_code == 404


def test_a_recast_is_used_and_what_is_no_block_is_refused(world: World) -> None:
    made = world.send("coach", "POST", "/compare", ASK).json()["comparison"]
    body = {"document": DOCUMENT, "source": made["source"], "entries": made["columns"][1]["entries"]}
    edits = world.send("coach", "POST", "/compare/use", body).json()["edits"]
    assert [edit["op"] for edit in edits] == ["remove", "insert"]
    answer = world.send("coach", "POST", "/compare/use", {**body, "entries": [{"clock": 3}]})
    assert answer.status_code == 422


def test_a_shape_is_kept_replaced_and_dropped(world: World) -> None:
    shape = {"name": "Short bursts", "key": "even-intervals", "params": {"work_s": 15, "rest_s": 45}}
    blind = world.send("coach", "POST", "/shapes", shape)
    assert (blind.status_code, blind.json()["type"]) == (409, "about:changed")
    first = world.send("coach", "POST", "/shapes", {**shape, "replaces": world.shape.pk}).json()
    again = {**shape, "params": {"work_s": 10}, "replaces": first["id"]}
    assert first["id"] == world.send("coach", "POST", "/shapes", again).json()["id"]
    assert [one["params"] for one in world.send("athlete", "GET", "/shapes").json()] == [{"work_s": 10}]
    assert world.send("athlete", "DELETE", f"/shapes/{first['id']}").status_code == 403
    assert world.send("stranger", "DELETE", f"/shapes/{first['id']}").status_code == 404
    assert world.send("coach", "DELETE", f"/shapes/{first['id']}").status_code == 204
    assert not Shape.objects.filter(pk=first["id"]).exists()


def test_a_squad_keeps_so_many_shapes_and_no_more(world: World) -> None:
    kept = [Shape(squad=world.squad, name=f"Shape {n}", key="even-intervals", params={}) for n in range(39)]
    Shape.objects.bulk_create(kept)
    one_more = world.send("coach", "POST", "/shapes", {"name": "One more", "key": "even-intervals"})
    assert one_more.status_code == 422
    assert one_more.json()["problems"][0]["code"] == "too_many"
    world.send("coach", "DELETE", f"/shapes/{world.shape.pk}")
    assert world.send("coach", "POST", "/shapes", {"name": "One more", "key": "even-intervals"}).status_code == 201


@pytest.mark.parametrize(
    ("change", "place"),
    [
        ({"key": "waltz"}, "key"),
        ({"name": "  "}, "name"),
        ({"params": {"tempo": 3}}, "params.tempo"),
        ({"key": "rising-windows", "params": {"slot_s": 31}}, "params"),
    ],
)
def test_a_shape_that_makes_nothing_is_refused(world: World, change: dict[str, Any], place: str) -> None:
    shape = {"name": "Odd", "key": "even-intervals", "params": {}}
    answer = world.send("coach", "POST", "/shapes", {**shape, **change})
    assert answer.status_code == 422
    assert answer.json()["problems"][0]["path"] == place


def test_a_step_is_added_as_the_core_says(world: World) -> None:
    def made(**body: Any) -> Any:
        return json.loads(world.send("coach", "POST", "/formats/step", body).content)["step"]

    assert made(movement="push-up", clock="amrap") == {"movement": "push-up", "reps": 10}
    assert made(movement="push-up", clock="intervals") == {"movement": "push-up"}
    own = {"key": "log-sit", "patterns": {"brace": 1}, "sides": "each"}
    step = made(movement="log-sit", clock="task", definitions=[own])
    assert step == {"movement": "log-sit", "seconds": 30, "sides": "each"}


def test_movements_typed_as_on_a_wall_are_compared(world: World) -> None:
    body = {"text": "10 push-ups, goblet squat 16 kg\n8 rows each side\nplonk the wotsit", "target": 720}
    answer = world.send("coach", "POST", "/compare", body).json()
    read, made = answer["read"], answer["comparison"]
    assert read["steps"][:2] == [
        {"movement": "push-up", "reps": 10},
        {"movement": "goblet-squat", "load": {"kg": 16}},
    ]
    assert read["steps"][2]["reps"] == 8
    assert read["unknown"] == ["plonk the wotsit"]
    assert made["target"] == 720
    assert made["movements"][:2] == ["push-up", "goblet-squat"]
    assert {one["key"] for one in made["columns"]} >= {"rep-ladder", "minute-starts"}
    nothing = world.send("coach", "POST", "/compare", {"text": "???", "target": 720})
    assert nothing.status_code == 422
    assert nothing.json()["problems"][0]["path"] == "text"


def test_ready_sentences_are_wishes_that_can_be_asked(world: World) -> None:
    matters = world.send("coach", "GET", "/compare/tables").json()["matters"]
    assert len(matters) == 6
    for one in matters:
        body = {
            "text": "push-ups\nswings 16 kg\nsplit squats each side",
            "target": 720,
            "wishes": one["wishes"],
            "people": 12,
        }
        made = world.send("coach", "POST", "/compare", body).json()["comparison"]
        ranked = made["pick"]["ranked"]
        assert len(ranked) > 5
        assert ranked[0]["score"] >= ranked[-1]["score"]


def test_a_shape_of_the_squad_is_ranked_and_shown_by_its_number(world: World) -> None:
    key = f"shape:{world.shape.pk}"
    body = {"text": "push-ups\nswings\nair squats", "target": 720, "formats": [key, "even-intervals"]}
    shown = world.send("coach", "POST", "/compare", body).json()["comparison"]["columns"][0]
    assert (shown["key"], shown["name"]) == (key, world.shape.name)
    # Another squad's shape is no format at all.
    answer = world.send("stranger", "POST", "/compare", body)
    assert answer.status_code == 422
    assert answer.json()["problems"][0]["path"] == "formats[0]"


def test_formats_are_put_on_the_free_days_of_a_week(world: World) -> None:
    body = {"text": "push-ups\nair squats\nswings 16 kg", "target": 720, "day": "2031-03-05"}
    placing = world.send("coach", "POST", "/compare/week", body).json()["placing"]
    assert placing["begins"] == "2031-03-03"
    assert [one["why"] for one in placing["days"]] == [None] * 7
    assert len(placing["formats"]) >= 5
    for one in placing["formats"]:
        assert [day["day"] for day in one["days"]] == [day["day"] for day in placing["days"]]
        assert all(day["week_load"] == pytest.approx(one["load"]) for day in one["days"])
    past = world.send("coach", "POST", "/compare/week", {**body, "day": "2001-03-05"}).json()["placing"]
    assert {one["why"] for one in past["days"]} == {"over"}
    assert all(one["days"] == [] for one in past["formats"])


@pytest.mark.parametrize(
    ("path", "body", "place"),
    [
        ("/formats/step", {"movement": "", "clock": "task"}, "movement"),
        ("/formats/make", {"key": "even-intervals", "movements": [""]}, "movements[0]"),
        ("/formats/make", {"key": "even-intervals", "movements": ["x" * 121]}, "movements[0]"),
        ("/compare", {"movements": ["push-up", ""]}, "movements[1]"),
        ("/formats/make", {"key": "even-intervals", "movements": ["swing"], "params": {"rounds": 0}}, "params.rounds"),
        ("/formats/make", {"key": "even-intervals", "movements": ["swing"], "params": {"tempo": 1}}, "params.tempo"),
        ("/formats/make", {"key": "rising-windows", "movements": ["swing"], "params": {"slot_s": 31}}, "params"),
        ("/formats/make", {"key": "rep-ladder", "movements": ["swing"], "params": {"start": 1, "end": 1000, "by": 1, "back": True}}, "params"),
    ],
)  # fmt: skip
def test_what_no_format_makes_is_refused_with_its_place(
    world: World, path: str, body: dict[str, Any], place: str
) -> None:
    answer = world.send("coach", "POST", path, body)
    assert answer.status_code == 422
    assert answer.json()["problems"][0]["path"] == place
