"""Units as a setting of whoever reads: told to them everywhere, and nothing that is kept is changed by it."""

from __future__ import annotations

from typing import Any

import pytest

from finetally.core.card.card import Card
from finetally.web.accounts.models import OwnSetting
from tests.web.conftest import World
from tests.web.own_phones import entry_of_today, made_link, opened

CARRY: dict[str, Any] = {
    "fine_tally": 1,
    "title": "Carry",
    "blocks": [
        {
            "clock": {"kind": "task"},
            "steps": [{"movement": "farmer-carry", "metres": 40, "load": {"kg": 24, "count": 2}}],
        }
    ],
}


def set_units(world: World, who: str, units: str) -> Any:
    return world.send(who, "PUT", "/account/units", {"units": units})


def test_they_are_metric_until_somebody_sets_their_own(world: World) -> None:
    assert world.send("coach", "GET", "/me").json()["units"] == "metric"
    assert set_units(world, "coach", "imperial").json()["units"] == "imperial"
    assert world.send("coach", "GET", "/me").json()["units"] == "imperial"
    assert world.send("head", "GET", "/me").json()["units"] == "metric"
    assert set_units(world, "coach", "metric").json()["units"] == "metric"
    assert OwnSetting.objects.count() == 1


@pytest.mark.parametrize("wanted", [{"units": "stones"}, {"units": None}, {}])
def test_others_are_refused(world: World, wanted: dict[str, Any]) -> None:
    assert world.send("coach", "PUT", "/account/units", wanted).status_code == 422
    assert not OwnSetting.objects.exists()


def test_the_card_and_its_pdf_are_in_the_readers_own(world: World, monkeypatch: pytest.MonkeyPatch) -> None:
    set_units(world, "coach", "imperial")
    lines = {
        who: world.send(who, "POST", "/card", {"document": CARRY}).json()["card"]["blocks"][0]["lines"]
        for who in ("head", "coach")
    }
    assert "40 m farmer carry 2 x 24 kg" in lines["head"][0]
    assert "43.74 yd farmer carry 2 x 52.91 lb" in lines["coach"][0]
    drawn: list[Card] = []
    monkeypatch.setattr("finetally.card_pdf.card_pdf", lambda card, _paper: drawn.append(card) or b"")
    for who in ("head", "coach"):
        assert world.send(who, "POST", "/card.pdf", {"document": CARRY}).json()["state"] == "done"
    assert [(card["units"], card["blocks"][0]["lines"]) for card in drawn] == [
        ("metric", lines["head"]), ("imperial", lines["coach"]),
    ]  # fmt: skip


def test_figures_and_documents_stay_in_kilograms(world: World) -> None:
    asked = {"document": CARRY}
    before = world.send("coach", "POST", "/figures", asked).json()
    text = world.send("coach", "POST", "/board/write", asked).json()
    set_units(world, "coach", "imperial")
    assert world.send("coach", "POST", "/figures", asked).json() == before
    assert world.send("coach", "POST", "/board/write", asked).json() == text


def test_a_wall_is_in_those_of_whoever_runs_the_session(world: World) -> None:
    assert world.send("wall", "GET", "/floor/wall").json()["units"] == "metric"
    world.floor.run.user = world.users["coach"]
    world.floor.run.save()
    set_units(world, "coach", "imperial")
    assert world.send("wall", "GET", "/floor/wall").json()["units"] == "imperial"


def test_an_own_link_is_in_those_of_the_account_or_as_the_phone_says(world: World) -> None:
    person = world.known.own
    entry = entry_of_today(world)
    entry.document = CARRY
    entry.save()
    phone, _ = opened(made_link(world, person))
    page = phone.get("/api/checkin").json()
    assert page["units"] == "metric"
    assert "2 x 24 kg" in page["entries"][0]["text"]
    set_units(world, "athlete", "imperial")
    assert "2 x 52.91 lb" in phone.get("/api/checkin").json()["entries"][0]["text"]
    assert "2 x 24 kg" in phone.get("/api/checkin?units=metric").json()["entries"][0]["text"]
    assert phone.get("/api/checkin?units=stones").status_code == 422


def test_they_are_taken_out_with_all_else_and_go_with_the_account(world: World) -> None:
    set_units(world, "athlete", "imperial")
    path = f"/people/{world.known.own.public_id}/export"
    assert world.send("athlete", "POST", path).json()["units"] == "imperial"
    world.users["athlete"].delete()
    assert not OwnSetting.objects.exists()
