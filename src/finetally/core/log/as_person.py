"""A run as one person's: with the options that they took, from when they came until they left."""

from __future__ import annotations

from finetally.core.floor.document import Run
from finetally.core.floor.events import Event, OptionTaken, Presence, Simple


def as_person(run: Run, person: str) -> tuple[Run, float]:
    """The run up to when somebody left for good, with their options; and the second at which they came.

    Who is never noted as here or away was there all the time. A person's absence between is not taken out.
    """
    events = sorted(run.events, key=lambda event: event.t)
    presence = [one for one in events if isinstance(one, Presence) and one.person == person]
    begun = next((one.t for one in events if one.do == "start"), 0.0)
    since = 0.0
    late = next((one for one in presence if one.do == "here"), None)
    if late is not None and (presence[0] is late or presence[0].t <= begun) and late.t > begun:
        since = late.t
    taken = {one.step: one.label for one in events if isinstance(one, OptionTaken) and one.person == person}
    given = run.given
    if taken:
        options = {**given.options, **taken} if isinstance(given.options, dict) else taken
        given = given.model_copy(update={"options": options})
    left = presence[-1].t if presence and presence[-1].do == "away" else None
    if left is None:
        return run.model_copy(update={"given": given}), since
    kept: list[Event] = [one for one in events if one.t <= left]
    kept.append(Simple(t=left, do="stop"))
    return run.model_copy(update={"given": given, "events": kept, "until": left}), since


def was_there(run: Run, person: str) -> bool:
    """Whether somebody was there at all, as far as the run's events say."""
    begun = next((one.t for one in run.events if one.do == "start"), 0.0)
    presence = [one for one in run.events if isinstance(one, Presence) and one.person == person]
    return not presence or any(one.do == "here" for one in presence) or presence[0].t > begun
