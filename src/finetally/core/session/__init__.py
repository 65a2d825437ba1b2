"""The session document: models, values, ids, validation, JSON Schema. It knows nothing of movements' values."""
