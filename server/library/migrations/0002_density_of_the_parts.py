"""The density of a mix follows from its parts: own resins lose the one that was kept beside them."""

from django.db import migrations


def drop_density(apps, schema_editor):
    rows = apps.get_model("library", "OwnRow")
    for row in rows.objects.filter(kind="resin"):
        if row.body.pop("density_g_ml", None) is not None:
            row.save(update_fields=["body"])


class Migration(migrations.Migration):
    dependencies = [("library", "0001_initial")]

    operations = [migrations.RunPython(drop_density, migrations.RunPython.noop)]
