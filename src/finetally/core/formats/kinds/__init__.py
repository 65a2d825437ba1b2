"""Every named format in a file of its own, or with its nearest kin. A file that is put here takes part."""
