"""Board text: the session as a coach writes it on the wall, read and written."""
