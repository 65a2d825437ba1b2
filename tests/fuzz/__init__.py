"""Nonsense for every door: what the API's own description allows, and files that are nearly right."""
