"""The log: what was done, held against the plan, and what scores and ratings teach."""
