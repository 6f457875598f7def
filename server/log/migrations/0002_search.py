"""The words of the log, to be searched."""

from django.db import migrations


class Migration(migrations.Migration):

    dependencies = [("log", "0001_begin")]

    operations = [
        migrations.RunSQL(
            "CREATE VIRTUAL TABLE log_search USING fts5(words, tokenize = \"unicode61 remove_diacritics 2\", prefix = '2 3')",
            "DROP TABLE log_search",
        ),
    ]
