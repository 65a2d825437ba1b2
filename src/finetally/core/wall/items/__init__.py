"""Movements on a line, each with its dose, its qualities and its name."""
