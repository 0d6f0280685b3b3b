"""Steps as compressed JSON."""

from django.db import migrations

from tumbrel.history.packed import packing


class Migration(migrations.Migration):
    """The document of a step, packed."""

    dependencies = [("bench", "0001_initial")]
    operations = packing("bench", "benchstep")
