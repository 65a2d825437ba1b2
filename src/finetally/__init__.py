"""Fine Tally: measures planned strength and conditioning sessions."""

__version__ = "0.5.0"
