"""Accounts: invitations, passwords set anew, devices that are signed in, roles of members, notices."""
