"""The sheet of a session: its beats, and what each of them says."""

from __future__ import annotations

from dataclasses import dataclass

from finetally.core.floor.beats import Beat, beats_of
from finetally.core.methods.given import NOTHING_GIVEN, Given
from finetally.core.methods.value import DEFAULT_METHODS, Methods
from finetally.core.movements.library import Library
from finetally.core.session.document import Session
from finetally.core.unfold.tape import Tape
from finetally.core.unfold.unfold import Unfolder

SHEET_VERSION = 1


@dataclass(frozen=True, slots=True)
class Sheet:
    """A session as beats, with the tape that they were cut from."""

    session: Session
    unfolder: Unfolder
    tape: Tape
    beats: list[Beat]
    apart: bool


def sheet(
    session: Session,
    *,
    library: Library,
    methods: Methods = DEFAULT_METHODS,
    given: Given = NOTHING_GIVEN,
    apart: bool = False,
) -> Sheet:
    """Lay a session out as beats; `apart`: tasks without a cap are done by each at their own pace.

    Raises DocumentError as `unfold` does.
    """
    unfolder = Unfolder(session, library, methods, given)
    tape = unfolder.lay_out()
    return Sheet(session, unfolder, tape, beats_of(tape, apart=apart), apart)
