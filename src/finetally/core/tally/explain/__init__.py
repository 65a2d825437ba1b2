"""Figures opened to the arithmetic that made them, one level at a time; one module per family."""
