"""Sessions with their revisions and figures."""
