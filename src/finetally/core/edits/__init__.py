"""One typed, invertible Edit, addressed by ids: the Bench, mends, recasts and undo all speak it."""
