"""Checks: one small function each, one table; they look at a tally and say what would bite, where, and how much."""
