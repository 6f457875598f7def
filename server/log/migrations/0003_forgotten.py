from django.db import migrations


class Migration(migrations.Migration):
    """What is deleted is found no more, whoever deletes it."""

    dependencies = [("log", "0002_search")]

    operations = [
        migrations.RunSQL(
            "CREATE TRIGGER log_entry_forgotten AFTER DELETE ON log_entry "
            "BEGIN DELETE FROM log_search WHERE rowid = old.id; END",
            "DROP TRIGGER log_entry_forgotten",
        )
    ]
