"""The log: what was done of the plan, by whom, how it was felt, and what that teaches."""
