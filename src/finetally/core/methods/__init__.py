"""What figures are made with besides the session: the methods, and what is known about the day."""
