from django.db import migrations, models

SCOPES = [
    "fit it",
    "take it off and fit it",
    "take it off",
    "change the element",
    "fit a backstop",
    "align it",
    "check it",
]


class Migration(migrations.Migration):
    dependencies = [("jobs", "0014_change_the_element")]

    operations = [
        migrations.RemoveConstraint(model_name="job", name="job_scope_known"),
        migrations.AddConstraint(
            model_name="job",
            constraint=models.CheckConstraint(condition=models.Q(("scope__in", SCOPES)), name="job_scope_known"),
        ),
    ]
