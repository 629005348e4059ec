from django.db import migrations


class Migration(migrations.Migration):
    dependencies = [("shelf", "0001_initial")]

    operations = [migrations.RenameField("referenceswing", "school", "teaching_model")]
