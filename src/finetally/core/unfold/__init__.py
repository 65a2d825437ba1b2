"""Document → tape: one module per clock, one for visiting orders, one for pace."""
