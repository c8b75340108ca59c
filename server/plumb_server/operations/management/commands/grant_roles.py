"""`manage.py grant_roles`: what the application's role and the backup's may do; run by the owner, after each migration.

Three roles: the *owner* migrates and restores, the *application* reads and writes rows, the *backup* reads. The
application owns nothing: it cannot change or empty what is stored permanently, nor take the triggers away that see to
it.
"""

from __future__ import annotations

from typing import Any

from django.core.management.base import BaseCommand, CommandParser
from django.db import connection, transaction
from psycopg import sql

APPEND_ONLY = ("reviews_auditentry", "findings_message", "reports_report", "accounts_record")
"""Tables to which rows are added, and nothing else."""


class Command(BaseCommand):
    help = "Grant the application's role and the backup's role what they need, and nothing more."

    def add_arguments(self, parser: CommandParser) -> None:
        parser.add_argument("--application", default="plumb_app")
        parser.add_argument("--backup", default="plumb_backup")

    @transaction.atomic
    def handle(self, *args: Any, application: str, backup: str, **options: Any) -> None:
        app, reader = sql.Identifier(application), sql.Identifier(backup)
        database = sql.Identifier(str(connection.settings_dict["NAME"]))
        tables = sql.SQL(", ").join(sql.Identifier(table) for table in APPEND_ONLY)
        with connection.cursor() as cursor:
            for statement in (
                "REVOKE ALL ON DATABASE {database} FROM PUBLIC",
                "GRANT CONNECT ON DATABASE {database} TO {app}, {reader}",
                "REVOKE ALL ON SCHEMA public FROM PUBLIC",
                "GRANT USAGE ON SCHEMA public TO {app}, {reader}",
                "REVOKE ALL ON ALL TABLES IN SCHEMA public FROM {app}",
                "GRANT SELECT, INSERT, UPDATE, DELETE ON ALL TABLES IN SCHEMA public TO {app}",
                "REVOKE UPDATE, DELETE ON {tables} FROM {app}",
                "REVOKE ALL ON django_migrations FROM {app}",
                "GRANT SELECT ON django_migrations TO {app}",
                "GRANT USAGE, SELECT ON ALL SEQUENCES IN SCHEMA public TO {app}",
                "GRANT SELECT ON ALL TABLES IN SCHEMA public TO {reader}",
                "GRANT SELECT ON ALL SEQUENCES IN SCHEMA public TO {reader}",
            ):
                cursor.execute(sql.SQL(statement).format(database=database, app=app, reader=reader, tables=tables))
