"""Fine Tally: measures planned strength and conditioning sessions."""

__version__ = "0.1.0"
