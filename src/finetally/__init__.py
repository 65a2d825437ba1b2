"""Fine Tally: measures planned strength and conditioning sessions."""

__version__ = "1.0.1"
