"""One's own account: password, devices that are signed in, units, notices."""

from __future__ import annotations

from typing import Any

from django.db import transaction
from django.utils import timezone

from finetally.core.measures import Units
from finetally.core.session.problems import DocumentError
from finetally.web.accounts.again import wrong_password
from finetally.web.accounts.invitations import password_problems
from finetally.web.accounts.models import Device, Notice, OwnSetting
from finetally.web.accounts.tokens import token_hash


def change_password(user: Any, old: str, new: str, present: str | None) -> None:
    """Set a new password and sign out all devices but the present one. Raises DocumentError."""
    if not user.check_password(old):
        raise wrong_password("old")
    problems = password_problems(new, user.get_username())
    if problems:
        raise DocumentError(problems)
    with transaction.atomic():
        user.set_password(new)
        user.save()
        Device.objects.filter(user=user).exclude(session_key=present).delete()


def devices_of(user: Any) -> list[Device]:
    """Where an account is signed in, the latest first."""
    return list(Device.objects.filter(user=user, expire_date__gt=timezone.now()))


def sign_out_device(user: Any, number: str) -> None:
    """End one of one's own sign-ins, named by `device_number`; one that there is not is over already."""
    with transaction.atomic():
        for one in Device.objects.filter(user=user):
            if device_number(one) == number:
                one.delete()


def device_number(device: Device) -> str:
    """A name for a sign-in that opens nothing: its key is what the cookie holds."""
    return token_hash(device.session_key)[:16]


def units_of(user_id: int | None) -> Units:
    """What somebody reads masses and distances in; metric for whoever said nothing, and for nobody."""
    found = OwnSetting.objects.filter(user=user_id).values_list("units", flat=True).first() if user_id else None
    return "imperial" if found == "imperial" else "metric"


def set_units(user: Any, units: Units) -> None:
    """From now on everything is told to them in these, on all devices."""
    OwnSetting.objects.update_or_create(user=user, defaults={"units": units})


def notices_of(user: Any) -> list[Notice]:
    """What an account has not said to have read yet."""
    return list(Notice.objects.filter(user=user))


def read_notice(user: Any, notice_id: int) -> None:
    """Tell it no more."""
    Notice.objects.filter(user=user, pk=notice_id).delete()
