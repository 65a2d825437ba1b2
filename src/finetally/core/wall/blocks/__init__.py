"""From what was gathered to blocks of the document: clocks, steps, rests."""
