"""People of a squad: their groups, limits, maxima and tests; lists of them; teams for a day."""
