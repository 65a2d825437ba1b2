"""Check-ins: links with which people without an account say who comes, what they did, how it was."""
