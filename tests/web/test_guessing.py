"""Whoever guesses: passwords and links, behind proxies, at many connections; and whom that must not keep out."""

from __future__ import annotations

import threading
import time
from typing import Any

import pytest
from django.test import Client

from finetally.web.accounts import guessing
from finetally.web.accounts.guessing import PasswordTurns, TooManyPasswordsError
from finetally.web.floor.models import WallScreen
from tests.web.conftest import World

RIGHT = "a-long-password"
NGINX = {"HTTP_X_FORWARDED_PROTO": "https"}


def sign_in(client: Client, name: str = "coach", password: str = "guess", **more: Any) -> Any:
    body = {"name": name, "password": password, **more}
    return client.post("/api/sign-in", body, content_type="application/json")


def behind(*addresses: str) -> Client:
    return Client(HTTP_X_FORWARDED_FOR=", ".join(addresses))


@pytest.mark.parametrize(
    ("proxies", "header", "address"),
    [
        (0, "198.51.100.9", "127.0.0.1"),
        (1, "198.51.100.9", "198.51.100.9"),
        (1, "203.0.113.1, 198.51.100.9", "198.51.100.9"),
        (1, "203.0.113.1,junk, 198.51.100.9:5044", "198.51.100.9"),
        (1, "[2001:db8:7:9:1:2:3:4]:443", "2001:db8:7:9::"),
        (1, "::ffff:198.51.100.9", "198.51.100.9"),
        (2, "203.0.113.1, 198.51.100.9, 10.0.0.1", "198.51.100.9"),
        (2, "198.51.100.9", "198.51.100.9"),
        (1, "junk", "127.0.0.1"),
        (1, "", "127.0.0.1"),
        (1, "198.51.100.9" + ", 203.0.113.1" * 5000, "203.0.113.1"),
    ],
)
def test_the_address_is_what_the_nearest_trusted_proxies_added(
    rf: Any, settings: Any, proxies: int, header: str, address: str
) -> None:
    settings.PROXIES = proxies
    request = rf.get("/", HTTP_X_FORWARDED_FOR=header) if header else rf.get("/")
    assert guessing.client_address(request) == address


def test_a_guesser_cannot_choose_an_address_behind_a_proxy(world: World, settings: Any) -> None:
    settings.PROXIES = 1
    answers = [sign_in(behind(f"203.0.113.{n}", "198.51.100.66")).status_code for n in range(11)]
    assert answers[-1] == 429
    assert sign_in(behind("198.51.100.7"), password=RIGHT).status_code == 200


def test_wrong_sign_ins_are_limited_by_address_alone_too(world: World) -> None:
    client = Client(REMOTE_ADDR="198.51.100.66")
    answers = [sign_in(client, name=f"name-{n}").status_code for n in range(guessing.WRONG_SIGN_INS + 1)]
    assert answers == [401] * guessing.WRONG_SIGN_INS + [429]
    assert sign_in(client, password=RIGHT).status_code == 429
    assert sign_in(Client(), password=RIGHT).status_code == 200


def test_the_wait_is_told_in_words(world: World) -> None:
    answers = [sign_in(Client()) for _ in range(10)]
    assert answers[-1].status_code == 429
    assert "Wait 5 minutes" in answers[-1].json()["detail"]
    assert answers[-1]["Content-Type"] == "application/problem+json"


def test_a_browser_that_was_signed_in_before_is_not_kept_out_by_guessers_beside_it(world: World) -> None:
    known = Client()
    assert sign_in(known, password=RIGHT).status_code == 200
    known.post("/api/sign-out", content_type="application/json")
    for number in range(guessing.WRONG_SIGN_INS + 12):
        sign_in(Client(), name="coach" if number < 12 else f"name-{number}")
    assert sign_in(Client(), password=RIGHT).status_code == 429
    assert sign_in(known, password=RIGHT).status_code == 200
    # It opens nothing, and is good for its own account alone: ten wrong ones are followed by the wait here, too.
    assert sign_in(known, name="head", password=RIGHT).status_code == 429
    assert [sign_in(known).status_code for _ in range(11)][-1] == 429
    assert sign_in(known, password=RIGHT).status_code == 429


def test_a_browser_that_others_use_too_is_not_remembered(world: World) -> None:
    shared = Client()
    assert sign_in(shared, password=RIGHT, shared=True).status_code == 200
    assert guessing.KNOWN_BROWSER not in shared.cookies


def test_passwords_of_one_address_leave_a_turn_for_others() -> None:
    turns = PasswordTurns()
    begun, over = threading.Barrier(2), threading.Event()

    def look() -> None:
        with turns.turn("198.51.100.66"):
            begun.wait(5)
            over.wait(5)

    first = threading.Thread(target=look)
    first.start()
    begun.wait(5)
    waiting = threading.Thread(target=lambda: turns.turn("198.51.100.66").__enter__())
    waiting.start()
    while not turns.waiting:
        time.sleep(0.005)
    with pytest.raises(TooManyPasswordsError), turns.turn("198.51.100.66"):
        pass
    with turns.turn("198.51.100.7"):
        pass
    over.set()
    first.join(5)
    waiting.join(5)
    assert [first.is_alive(), waiting.is_alive()] == [False, False]


def test_opening_screens_is_limited_and_pushes_no_screen_of_others_away(world: World) -> None:
    assert (
        Client(REMOTE_ADDR="198.51.100.7")
        .post("/api/floor/wall/screens", content_type="application/json")
        .status_code
        == 200
    )
    client = Client(REMOTE_ADDR="198.51.100.66")
    answers = [
        client.post("/api/floor/wall/screens", content_type="application/json").status_code
        for _ in range(guessing.SCREENS_OPENED + 200)
    ]
    assert answers[: guessing.SCREENS_OPENED] == [200] * guessing.SCREENS_OPENED
    assert set(answers[guessing.SCREENS_OPENED :]) == {429}
    assert WallScreen.objects.filter(squad=None).count() == guessing.SCREENS_OPENED + 1
