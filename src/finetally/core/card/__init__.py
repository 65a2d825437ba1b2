"""The card: a session as it hangs on the wall, with the running clock and what has to be put out."""
