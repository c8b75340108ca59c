"""What the accounts library asks of this application.

Nobody makes an account unasked, and nobody learns who has one.
"""

from __future__ import annotations

from typing import Any

from allauth.account.adapter import DefaultAccountAdapter
from allauth.socialaccount.adapter import DefaultSocialAccountAdapter
from django.core import mail
from django.http import HttpRequest

from plumb_server.accounts.models import AddressChange


class AccountAdapter(DefaultAccountAdapter):  # type: ignore[misc]
    def is_open_for_signup(self, request: HttpRequest) -> bool:
        """By invitation only."""
        return False

    def clean_email(self, email: str) -> str:
        return str(super().clean_email(email)).lower()

    def send_mail(self, template_prefix: str, email: str, context: dict[str, Any]) -> None:
        """Send, without failing the request where the mail cannot be sent: what was done stays done."""
        message = self.render_mail(template_prefix, email, {"email": email, **context, "request": self.request})
        mail.get_connection(fail_silently=True).send_messages([message])

    def send_notification_mail(
        self, template_prefix: str, user: Any, context: dict[str, Any] | None = None, email: str | None = None
    ) -> None:
        """To the earlier address goes the link that undoes its change."""
        if template_prefix == "account/email/email_changed" and email:
            link = self.request.build_absolute_uri(f"/account/undo/{AddressChange.noted(user, email)}")
            context = {**(context or {}), "undo": link, "days": AddressChange.UNDONE_WITHIN.days}
        super().send_notification_mail(template_prefix, user, context, email)


class SocialAccountAdapter(DefaultSocialAccountAdapter):  # type: ignore[misc]
    def is_open_for_signup(self, request: HttpRequest, sociallogin: Any) -> bool:
        """A provider vouches for people who have an account here; it makes none."""
        return False
