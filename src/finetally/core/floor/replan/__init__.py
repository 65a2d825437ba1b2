"""What is changed of a session on the floor: for who is here, and while it runs."""
