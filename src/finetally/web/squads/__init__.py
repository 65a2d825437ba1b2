"""Squads, the people in them, and who may act."""
