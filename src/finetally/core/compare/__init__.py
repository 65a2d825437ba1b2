"""Comparing: what differs between two documents, and other ways to spend the same time."""
