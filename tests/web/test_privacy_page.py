"""The page on what is kept, in plain words: what it says is what the code does."""

from __future__ import annotations

import pytest
from django.conf import settings

from finetally.web.accounts.devices import SHARED_FOR
from finetally.web.accounts.tokens import HEAD_INVITED_FOR, INVITED_FOR, RESET_FOR
from finetally.web.accounts.upkeep import ATTEMPTS_KEPT
from finetally.web.checkin.links import LONGEST, MOST_DEVICES
from finetally.web.people.measures import LEAST_REPS_OF_THE_YOUNG
from finetally.web.privacy.erasing import ENOUGH_TO_HIDE_AMONG
from finetally.web.squads.history import HISTORY_KEPT
from tests.conftest import REPOSITORY

PAGE = (REPOSITORY / "frontend/src/words/texts/privacy.ts").read_text("utf-8")


@pytest.mark.parametrize(
    "sentence",
    [
        f"A sign-in ends after {settings.SESSION_COOKIE_AGE // 86_400} days without use, on a shared device after {SHARED_FOR.seconds // 3600} hours.",
        f"Wrong passwords are remembered for {ATTEMPTS_KEPT.days} days",
        f"Invitations are good for {INVITED_FOR.days} days",
        "ten or more people" if ENOUGH_TO_HIDE_AMONG == 10 else "another number",
        "is kept for a year" if HISTORY_KEPT.days == 365 else "another time",
        "(for a head coach one), links for a new password for a day"
        if HEAD_INVITED_FOR.days == RESET_FOR.days == 1
        else "",
        f"ends with the season, after {LONGEST.days} days at most",
        "two at most" if MOST_DEVICES == 2 else "another number",
        f"sets of {'five' if LEAST_REPS_OF_THE_YOUNG == 5 else 'another number'} and more",
    ],
)
def test_what_the_page_says_is_so(sentence: str) -> None:
    assert sentence
    assert sentence in PAGE
