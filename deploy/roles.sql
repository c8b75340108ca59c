-- Once, as the superuser: psql -v owner_password=... -v app_password=... -v backup_password=... -f roles.sql
-- What the application's and the backup's roles may do is granted by `manage.py grant_roles`, as the owner, after each migration.
CREATE ROLE plumb_owner LOGIN PASSWORD :'owner_password';
CREATE ROLE plumb_app LOGIN PASSWORD :'app_password';
CREATE ROLE plumb_backup LOGIN PASSWORD :'backup_password';
CREATE DATABASE plumb OWNER plumb_owner;
REVOKE ALL ON DATABASE plumb FROM PUBLIC;
GRANT CONNECT ON DATABASE plumb TO plumb_app, plumb_backup;
\connect plumb
ALTER SCHEMA public OWNER TO plumb_owner;
