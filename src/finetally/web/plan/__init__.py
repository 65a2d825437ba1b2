"""The plan: what stands on which day, phases, and levelling a week."""
