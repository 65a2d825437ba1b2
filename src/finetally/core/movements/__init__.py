"""Movements: their patterns and families, and the library as a value (its file is read at the edge)."""
