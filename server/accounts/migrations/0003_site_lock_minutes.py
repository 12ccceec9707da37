from django.db import migrations, models


class Migration(migrations.Migration):
    dependencies = [("accounts", "0002_site_proof_hours")]

    operations = [
        migrations.AddField(
            model_name="site",
            name="lock_minutes",
            field=models.PositiveSmallIntegerField(
                default=30,
                help_text="a device nobody used for so long asks who is there; none where it never does",
                null=True,
            ),
        ),
    ]
