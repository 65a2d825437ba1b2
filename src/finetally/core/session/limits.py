"""Upper bounds of everything that a document can make grow, each with its reason."""

MAX_BYTES = 5_000_000
MAX_WATCH_BYTES = 10_000_000
"""A year of sessions written out is under 3 MB; more is not a session."""

MAX_NODES = 400_000
"""Values in one file: a session of 5,000 steps with options, loads and lists has under 200,000."""

MAX_LABEL = 500
"""Characters of a line: a title, a name, a key."""

MAX_DEPTH = 24
"""The deepest legal place (section, block, station, step, option, load) is 14 levels down."""

MAX_DURATION_S = 86_400
"""One day: nothing a coach plans in one piece is longer."""

MAX_METRES = 50_000
"""A long march with packs; paced metre by metre, so it bounds the work of one visit."""

MAX_REPS = 10_000
"""Reps of one dose; paced rep by rep, so it bounds the work of one visit."""

MAX_COUNT = 1_000
"""Rounds, laps, repeats, periods, passes: far above any plan, low enough to answer at once."""

MAX_STEPS = 500
"""Steps of one block, and stations of one rotation."""

MAX_BLOCKS = 200
"""Blocks of one session, and of one section."""

MAX_ALL_BLOCKS = 1_000
"""Blocks of one file, those in sections together: a section of every block of the longest session."""

MAX_ALL_STEPS = 5_000
"""Steps of one file: ten for each of five hundred blocks."""

MAX_SEGMENTS = 50_000
"""Segments of one tape: a day in windows of under two seconds."""

MAX_VISITS = 50_000
"""Visits of one session, those that take no time among them: as many as segments."""

MAX_PLANNED_VISITS = 100_000
"""Visits planned in all blocks together, whether a cap lets them happen or not; bounds what is held in memory."""

MAX_PACED_UNITS = 300_000
"""Reps and metres paced one by one over a whole session; keeps the slowest legal file under a second."""

MAX_TEXT = 20_000
"""Characters of one note."""

MAX_PROBLEMS = 100
"""Problems told at once: more are read by nobody."""
