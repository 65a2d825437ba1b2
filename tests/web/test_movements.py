"""A squad's movements: where they are used, what a definition touches, names that nobody knew, and who was quicker."""

from __future__ import annotations

import json
from datetime import date
from typing import Any

from finetally.core.session.reading import parse_session
from finetally.shipped import shipped_library
from finetally.web.plan.models import Entry
from finetally.web.squads.models import Squad
from finetally.web.training.models import Session
from tests.web.conftest import World

VAULT = {"key": "gate-vault", "name": "gate vault", "patterns": {"jump": 1.0}, "pace_s": 4.0, "met": 7}


def document(*movements: str, title: str = "Gates", **more: Any) -> dict[str, Any]:
    steps = [{"movement": one, "reps": 5} for one in movements]
    block = {"clock": {"kind": "task"}, "rounds": 3, "steps": steps}
    return {"fine_tally": 1, "title": title, "blocks": [block], **more}


def made(world: World, *movements: str, **more: Any) -> str:
    body = {"document": document(*movements, **more), "squad": world.squad.pk}
    return str(world.send("coach", "POST", "/sessions", body).json()["id"])


def planned(world: World, session: str, day: str, *, logged: bool = False) -> Entry:
    key = world.send("coach", "POST", "/plan/entries", {"session": session, "day": day}).json()["id"]
    if logged:
        Entry.objects.filter(pk=key).update(logged_minutes=30, logged_effort=6)
    return Entry.objects.get(pk=key)


def one(world: World, key: str) -> Any:
    answer = world.send("coach", "GET", f"/movements/one?key={key}&squad={world.squad.pk}")
    assert answer.status_code == 200, answer.content
    return answer.json()


def shipped(key: str, **more: Any) -> dict[str, Any]:
    """A shipped movement as the squad would define it: whole, with what is different."""
    return {**shipped_library()[key].model_dump(mode="json", exclude_unset=True), **more}


def file_of(*definitions: Any, **more: Any) -> dict[str, Any]:
    return {"kind": "json", "text": json.dumps(list(definitions)), **more}


def test_a_movement_is_shown_with_its_chain_and_its_use(world: World) -> None:
    session = made(world, "push-up", "push-up", "air-squat")
    made(world, "push-up", title="Own", movements=[{"key": "push-up", "pace_s": 3}])
    planned(world, session, "2026-12-07")
    planned(world, session, "2026-12-01", logged=True)
    shown = one(world, "push-up")
    assert (shown["own"], shown["ships"], shown["over"]) == (False, True, [])
    assert "hands-raised-push-up" in shown["chain"]["columns"][shown["chain"]["place"] - 1]
    assert [(each["title"], each["times"]) for each in shown["use"]["sessions"]] == [("Gates", 2)]
    assert (shown["use"]["planned"], shown["use"]["kept"], shown["use"]["logged"]) == (0, 1, 1)
    assert world.send("coach", "GET", "/movements/one?key=no-such").status_code == 404


def test_a_file_says_what_it_would_change_before_it_is_taken(world: World) -> None:
    made(world, "push-up")
    same = shipped("air-squat")
    file = file_of(VAULT, shipped("push-up", pace_s=2.5), same, squad=world.squad.pk)
    shown = world.send("coach", "POST", "/movements/preview", file).json()
    assert [(each["key"], each["fate"]) for each in shown] == [
        ("gate-vault", "new"), ("push-up", "changes"), ("air-squat", "same"),
    ]  # fmt: skip
    assert shown[1]["changes"] == [{"field": "pace_s", "was": "2", "becomes": "2.5"}]
    assert [each["title"] for each in shown[1]["use"]["sessions"]] == ["Gates"]
    assert one(world, "push-up")["own"] is False, "nothing was taken"
    wrong = world.send("coach", "POST", "/movements/preview", file_of({**VAULT, "met": -1}))
    assert wrong.json()["problems"][0]["path"] == "[0], met"


def test_an_own_definition_says_what_it_changes_and_can_be_taken_back(world: World) -> None:
    world.send("coach", "POST", "/movements", file_of(shipped("push-up", pace_s=2.5)))
    shown = one(world, "push-up")
    assert (shown["own"], shown["over"]) == (True, [{"field": "pace_s", "was": "2", "becomes": "2.5"}])
    world.send("coach", "DELETE", f"/movements/push-up?squad={world.squad.pk}")
    assert one(world, "push-up")["movement"]["pace_s"] == 2


def test_whoever_saw_other_movements_is_told(world: World) -> None:
    seen = world.send("coach", "GET", "/movements").json()["version"]
    assert world.send("coach", "POST", "/movements", file_of(VAULT, version=seen)).status_code == 200
    late = world.send("coach", "POST", "/movements", file_of({**VAULT, "met": 9}, version=seen, replace=True))
    assert late.status_code == 409
    assert one(world, "gate-vault")["movement"]["met"] == 7


def test_a_changed_definition_moves_sessions_and_nothing_that_was_planned_or_logged(world: World) -> None:
    session = made(world, "push-up")
    plan, log = planned(world, session, "2026-12-07"), planned(world, session, "2026-12-01", logged=True)
    before = world.send("coach", "GET", f"/sessions/{session}").json()
    work = {"document": before["document"], "squad": world.squad.pk}
    was = world.send("coach", "POST", "/figures", work).json()["figures"]["total_s"]
    world.send("coach", "POST", "/movements", file_of(shipped("push-up", pace_s=6)))
    assert world.send("coach", "POST", "/figures", work).json()["figures"]["total_s"] > was
    for entry in (plan, log):
        summary = entry.summary
        entry.refresh_from_db()
        assert entry.summary == summary


def test_a_name_that_is_defined_is_figured_where_it_was_planned_unknown(world: World) -> None:
    session = made(world, "gate-vault")
    plan, log = planned(world, session, "2026-12-07"), planned(world, session, "2026-12-01", logged=True)
    kept = log.summary
    world.send("coach", "POST", "/movements", file_of({**VAULT, "pace_s": 9}))
    was = plan.summary
    for entry in (plan, log):
        entry.refresh_from_db()
    assert plan.summary["minutes"] > was["minutes"]
    assert log.summary == kept


def test_names_that_nobody_knows_stand_in_one_list(world: World) -> None:
    first = made(world, "gate-run", "gate-run", "push-up")
    made(world, "gate-run", title="Again")
    made(world, "old-thing", title="Defines it", movements=[{"key": "old-thing", "patterns": {"squat": 1.0}}])
    planned(world, first, "2026-12-07")
    [name] = world.send("coach", "GET", f"/movements/unknown?squad={world.squad.pk}").json()
    assert (name["key"], name["times"], len(name["use"]["sessions"])) == ("gate-run", 3, 2)
    assert name["use"]["planned"] == 1


def test_a_name_is_settled_in_sessions_and_plan_and_for_later_texts(world: World) -> None:
    session = made(world, "gate-run", "push-up")
    plan, log = planned(world, session, "2026-12-07"), planned(world, session, "2026-12-01", logged=True)
    before = world.send("coach", "GET", f"/sessions/{session}/revisions").json()
    body = {"name": "gate-run", "key": "jog", "squad": world.squad.pk}
    told = world.send("coach", "POST", "/movements/settle", body)
    assert told.json() == {"sessions": 1, "planned": 1, "left": 0}
    assert world.send("coach", "GET", f"/movements/unknown?squad={world.squad.pk}").json() == []
    now = world.send("coach", "GET", f"/sessions/{session}").json()["document"]
    assert [step["movement"] for step in now["blocks"][0]["steps"]] == ["jog", "push-up"]
    after = world.send("coach", "GET", f"/sessions/{session}/revisions").json()
    assert len(after) == len(before) + 1, "a version of its own, to be put back"
    for entry, name in ((plan, "jog"), (log, "gate-run")):
        entry.refresh_from_db()
        assert entry.document is not None
        assert parse_session(entry.document).blocks[0].steps[0].movement == name  # type: ignore[union-attr, index]
    text = {"text": "Day\nMain: 3 rounds\n  200 m gate run", "squad": world.squad.pk}
    read = world.send("coach", "POST", "/board", text).json()
    assert read["names"] == []
    assert read["document"]["blocks"][0]["steps"][0]["movement"] == "jog"


def test_only_what_nobody_knows_is_settled_and_only_as_what_is_known(world: World) -> None:
    for name, key, status in (("push-up", "jog", 422), ("gate-run", "no-such", 404)):
        body = {"name": name, "key": key, "squad": world.squad.pk}
        assert world.send("coach", "POST", "/movements/settle", body).status_code == status


def test_no_other_squad_is_looked_through(world: World) -> None:
    vale = Squad.objects.get(name="Vale")
    stranger = {"document": document("gate-run"), "squad": vale.pk}
    assert world.send("stranger", "POST", "/sessions", stranger).status_code == 201
    Entry.objects.create(squad=vale, day=date(2026, 12, 7), title="x", document=document("gate-run"))
    assert world.send("coach", "GET", f"/movements/unknown?squad={world.squad.pk}").json() == []
    world.send("coach", "POST", "/movements/settle", {"name": "gate-run", "key": "jog", "squad": world.squad.pk})
    kept = Session.objects.get(squad=vale, title="Gates").head
    assert kept is not None
    assert kept.document["blocks"][0]["steps"][0]["movement"] == "gate-run"
