"""From a text to its lines: bullets, labels, tables, settings, several sessions, what is in the written form."""
