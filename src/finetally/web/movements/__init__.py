"""A squad's movements: its own, where each is used, names that nobody knows yet, files in and out."""
