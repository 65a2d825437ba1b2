"""Named formats: make a block from a few parameters, recognise a block. Adding one touches one table."""
