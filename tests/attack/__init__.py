"""What an attacker would try, against a real server of its own."""
