"""Accounts are made by whoever runs the server, not by whoever finds the address."""

from allauth.account.adapter import DefaultAccountAdapter
from django.http import HttpRequest


class InvitedOnly(DefaultAccountAdapter):  # type: ignore[misc]  # allauth ships no types
    """Sign-in for accounts that exist; no sign-up."""

    def is_open_for_signup(self, request: HttpRequest) -> bool:
        """Never."""
        return False
