"""What keeps an installation going: backups, roles of the database, tidying."""
