"""Fine Tally: measures planned strength and conditioning sessions."""

__version__ = "0.4.0"
