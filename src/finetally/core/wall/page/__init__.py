"""Which line belongs to which block: heads, sets, movements, rests, talk."""
