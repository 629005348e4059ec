from django.db import migrations


class Migration(migrations.Migration):
    dependencies = [("people", "0001_initial")]

    operations = [migrations.RenameField("student", "school", "teaching_model")]
