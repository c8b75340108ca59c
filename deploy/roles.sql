-- Once, as the superuser:
-- psql -v owner_password=... -v app_password=... -v backup_password=... -v base_password=... -f roles.sql
-- What the application's and the backup's roles may do is granted by `manage.py grant_roles`, as the owner, after each migration.
-- The owner creates databases and ends connections, for a restore is made in a new database that takes the place of the old one.
CREATE ROLE plumb_owner LOGIN CREATEDB PASSWORD :'owner_password';
GRANT pg_signal_backend TO plumb_owner;
CREATE ROLE plumb_app LOGIN PASSWORD :'app_password';
CREATE ROLE plumb_backup LOGIN PASSWORD :'backup_password';
-- base backups, for a return to a moment
CREATE ROLE plumb_base LOGIN REPLICATION PASSWORD :'base_password';
CREATE DATABASE plumb OWNER plumb_owner;
\connect plumb
ALTER SCHEMA public OWNER TO plumb_owner;
