"""Runs of sessions as they happened, and the screens on the wall that show them."""
