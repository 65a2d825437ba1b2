"""Jobs in the terms that the code has now: what a job locks has a name; kept answers with today's keys."""

from typing import Any

from django.db import migrations, models
from django.db.models import Q

KEYS = {
    "coupled": "acwr_coupled", "uncoupled": "acwr_uncoupled", "weighted": "acwr_ewma", "bent": "losses",
}  # fmt: skip
OPS = ("set", "insert", "remove", "move")


def renamed(value: Any, keys: dict[str, str]) -> Any:
    """The same value with every key renamed that has another name now; a key `kind.key` is of one kind."""
    if isinstance(value, list):
        return [renamed(one, keys) for one in value]
    if not isinstance(value, dict):
        return value
    own = {key: name for key, name in keys.items() if "." not in key}
    kind = kind_of(value)
    own.update({key.partition(".")[2]: name for key, name in keys.items() if kind and key.startswith(f"{kind}.")})
    return {own.get(key, key): renamed(one, keys) for key, one in value.items()}


def kind_of(value: dict[str, Any]) -> str:
    """What an object is, by the keys that only its kind has."""
    if value.get("op") in OPS:
        return "edit"
    if "breaks" in value and "first_better" in value:
        return "ranked"
    if "logged" in value and "totals" in value:
        return "load"
    return "version" if {"what", "edits"} <= set(value) and "op" not in value else ""


NEW = {
    **KEYS, "edit.place": "path", "edit.to_place": "to_path", "ranked.place": "rank", "load.bouts": "entries",
    "version.amount": "summary",
}  # fmt: skip
OLD = {
    **{name: key for key, name in KEYS.items()}, "edit.path": "place", "edit.to_path": "to_place",
    "ranked.rank": "place", "load.entries": "bouts", "version.summary": "amount",
}  # fmt: skip


def rename(apps: Any, keys: dict[str, str]) -> None:
    """Rewrite what jobs keep."""
    for job in apps.get_model("jobs", "Job").objects.iterator(chunk_size=20):
        answer, private = renamed(job.answer, keys), renamed(job.private, keys)
        if (answer, private) != (job.answer, job.private):
            job.answer, job.private = answer, private
            job.save(update_fields=["answer", "private"])


def forward(apps: Any, schema_editor: Any) -> None:
    """To today's names."""
    rename(apps, NEW)


def back(apps: Any, schema_editor: Any) -> None:
    """To the names of before."""
    rename(apps, OLD)


def one_open_job(field: str, name: str) -> models.UniqueConstraint:
    """Of what can be only one there is one open job."""
    open_jobs = Q(state__in=("waiting", "running"), stop_asked=False) & ~Q(**{field: ""})
    return models.UniqueConstraint(fields=[field], condition=open_jobs, name=name)


class Migration(migrations.Migration):
    dependencies = [("jobs", "0001_initial")]
    operations = [
        migrations.RunPython(forward, back),
        migrations.RemoveConstraint("job", "one_open_job_a_place"),
        migrations.RenameField("job", "place", "lock_name"),
        migrations.AddConstraint("job", one_open_job("lock_name", "one_open_job_a_lock")),
    ]
