"""What kind of block each result is of, what it says was done; what was left out of what is logged."""

from __future__ import annotations

from typing import Any

from django.db import migrations, models


def have_worked_out_again(apps: Any, schema_editor: Any) -> None:
    """What was worked out without its format and movement is so once more after the start; factors stay alike."""
    apps.get_model("log", "Result").objects.exclude(key="").update(key="")


def nothing(apps: Any, schema_editor: Any) -> None:
    """Going back needs nothing."""


class Migration(migrations.Migration):

    dependencies = [
        ('log', '0003_watch'),
    ]

    operations = [
        migrations.AddField(
            model_name='loggedentry',
            name='blocks',
            field=models.JSONField(default=dict),
        ),
        migrations.AddField(
            model_name='loggedentry',
            name='differences',
            field=models.JSONField(default=list),
        ),
        migrations.AddField(
            model_name='loggedentry',
            name='figures',
            field=models.JSONField(default=dict, help_text='what was done then came to'),
        ),
        migrations.AddField(
            model_name='loggedentry',
            name='left_out',
            field=models.JSONField(default=list, help_text='blocks by number that were not done, without a run'),
        ),
        migrations.AddField(
            model_name='loggedrun',
            name='blocks',
            field=models.JSONField(default=dict),
        ),
        migrations.AddField(
            model_name='result',
            name='counted',
            field=models.JSONField(default=dict, help_text='reps and kilograms by movement that its score says'),
        ),
        migrations.AddField(
            model_name='result',
            name='format',
            field=models.CharField(blank=True, help_text='key of the format that its block is', max_length=60),
        ),
        migrations.AddField(
            model_name='result',
            name='movement',
            field=models.CharField(blank=True, help_text="key of what most of its block's work is", max_length=120),
        ),
        migrations.RunPython(have_worked_out_again, nothing),
    ]
