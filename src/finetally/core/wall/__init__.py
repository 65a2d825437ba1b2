"""The wall: whatever a coach writes becomes a session, with what was taken one of several ways told beside it."""
