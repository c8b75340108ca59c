"""People are known by their addresses, in lower case; keys for scripts, invitations, records that stay as they are."""

import django.db.models.deletion
from django.conf import settings
from django.db import migrations, models


FOR_GOOD = """
CREATE FUNCTION plumb_refuse_record() RETURNS trigger LANGUAGE plpgsql AS $$
BEGIN
    RAISE EXCEPTION 'a record stays as it is' USING ERRCODE = 'integrity_constraint_violation';
END $$;
CREATE TRIGGER record_is_for_good BEFORE UPDATE OR DELETE ON accounts_record
    FOR EACH ROW EXECUTE FUNCTION plumb_refuse_record();
CREATE TRIGGER never_emptied BEFORE TRUNCATE ON accounts_record
    FOR EACH STATEMENT EXECUTE FUNCTION plumb_refuse_record();
"""
NO_LONGER = """
DROP TRIGGER never_emptied ON accounts_record;
DROP TRIGGER record_is_for_good ON accounts_record;
DROP FUNCTION plumb_refuse_record();
"""


def by_address(apps, schema_editor):
    for user in apps.get_model("accounts", "User").objects.all():
        user.email = user.username.strip().lower()
        user.save(update_fields=["email"])


def by_name(apps, schema_editor):
    users = apps.get_model("accounts", "User").objects
    users.update(username=models.F("email"))


def known_addresses(apps, schema_editor):
    """Whoever signed in with an address so far is known by it."""
    addresses = apps.get_model("account", "EmailAddress").objects
    for user in apps.get_model("accounts", "User").objects.all():
        addresses.get_or_create(user=user, email=user.email, defaults={"primary": True, "verified": True})


class Migration(migrations.Migration):

    dependencies = [
        ('accounts', '0002_counts'),
        ('account', '0009_emailaddress_unique_primary_email'),
    ]

    operations = [
        migrations.AlterModelManagers(
            name='user',
            managers=[
            ],
        ),
        migrations.RunPython(by_address, migrations.RunPython.noop),
        migrations.AlterField('user', 'username', models.CharField(max_length=150, unique=True, null=True)),
        migrations.RunPython(migrations.RunPython.noop, by_name),
        migrations.RemoveField(
            model_name='user',
            name='username',
        ),
        migrations.AlterField(
            model_name='user',
            name='email',
            field=models.EmailField(max_length=254, unique=True, verbose_name='e-mail address'),
        ),
        migrations.CreateModel(
            name='ApiToken',
            fields=[
                ('id', models.BigAutoField(auto_created=True, primary_key=True, serialize=False, verbose_name='ID')),
                ('name', models.CharField(max_length=60)),
                ('digest', models.CharField(max_length=64, unique=True)),
                ('scope', models.CharField(choices=[('compute', 'solve and recheck documents'), ('read', 'also read reviews'), ('write', 'also change reviews')], max_length=10)),
                ('created_at', models.DateTimeField(auto_now_add=True)),
                ('expires_at', models.DateTimeField()),
                ('used_at', models.DateTimeField(null=True)),
                ('user', models.ForeignKey(on_delete=django.db.models.deletion.CASCADE, related_name='tokens', to=settings.AUTH_USER_MODEL)),
            ],
            options={
                'ordering': ['-created_at'],
            },
        ),
        migrations.CreateModel(
            name='Invitation',
            fields=[
                ('id', models.BigAutoField(auto_created=True, primary_key=True, serialize=False, verbose_name='ID')),
                ('email', models.EmailField(max_length=254)),
                ('digest', models.CharField(max_length=64, unique=True)),
                ('created_at', models.DateTimeField(auto_now_add=True)),
                ('expires_at', models.DateTimeField()),
                ('accepted_at', models.DateTimeField(null=True)),
                ('invited_by', models.ForeignKey(on_delete=django.db.models.deletion.PROTECT, related_name='+', to=settings.AUTH_USER_MODEL)),
            ],
            options={
                'ordering': ['-created_at'],
            },
        ),
        migrations.CreateModel(
            name='Record',
            fields=[
                ('id', models.BigAutoField(auto_created=True, primary_key=True, serialize=False, verbose_name='ID')),
                ('at', models.DateTimeField(auto_now_add=True, db_index=True)),
                ('kind', models.CharField(max_length=40)),
                ('email', models.CharField(blank=True, max_length=254)),
                ('address', models.CharField(blank=True, max_length=45)),
                ('detail', models.JSONField(default=dict)),
                ('user', models.ForeignKey(null=True, on_delete=django.db.models.deletion.PROTECT, related_name='records', to=settings.AUTH_USER_MODEL)),
            ],
            options={
                'ordering': ['-id'],
            },
        ),
        migrations.RunPython(known_addresses, migrations.RunPython.noop),
        migrations.RunSQL(FOR_GOOD, NO_LONGER),
    ]
