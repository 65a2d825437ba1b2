"""What is kept about people: taken out as a file, and erased – from the database, from texts, and from restores."""
