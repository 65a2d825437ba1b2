"""What scores and ratings teach: a person's pace, and how sure of it one can be."""
