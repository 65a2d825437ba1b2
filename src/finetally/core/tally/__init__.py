"""Tape → figures: one module per family (time, reps, balance, effort, load)."""
