"""Running a session: the tape as beats, what events make of them, and the figures of what was done."""
