"""The week: what days make together, what clashes, and how it could be levelled."""
