"""The app of accounts: it keeps records from the start."""

from __future__ import annotations

from django.apps import AppConfig


class AccountsConfig(AppConfig):
    name = "plumb_server.accounts"

    def ready(self) -> None:
        from allauth.headless.account import inputs

        from plumb_server.accounts import records  # noqa: F401

        # a password is what was typed, blanks at its ends and all
        for form in (
            inputs.LoginInput,
            inputs.ReauthenticateInput,
            inputs.ResetPasswordInput,
            inputs.ChangePasswordInput,
        ):
            for name, field in form.base_fields.items():
                if "password" in name:
                    field.strip = False
