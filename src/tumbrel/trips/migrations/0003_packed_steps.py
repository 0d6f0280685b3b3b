"""Steps as compressed JSON."""

from django.db import migrations

from tumbrel.history.packed import packing


class Migration(migrations.Migration):
    """The document of a step, packed."""

    dependencies = [("trips", "0002_variants")]
    operations = packing("trips", "tripstep")
