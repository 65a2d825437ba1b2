"""Scores and notes of runs that were kept before there was a log become results and notes of it."""

from django.db import migrations

SCORED = ("rounds", "reps", "rung", "time_s")
KINDS = ("pain", "dizziness", "form", "kit", "hurt", "free")


def from_runs(apps, schema_editor):
    events = apps.get_model("floor", "FloorEvent").objects.filter(event__do__in=("score", "note"))
    results, notes = apps.get_model("log", "Result"), apps.get_model("log", "LogNote")
    last = {}
    for event in events.exclude(run__entry=None).select_related("run").order_by("id").iterator():
        told, run = event.event, event.run
        if told["do"] == "note":
            kind = told.get("kind", "free")
            notes.objects.create(
                entry_id=run.entry_id, person_id=event.person_id, run_id=run.pk, event=event.pk,
                kind=kind if kind in KINDS else "free", text=str(told.get("text", ""))[:2000], user_id=event.user_id,
            )
            continue
        score = {name: told[name] for name in SCORED if told.get(name) is not None}
        whose = str(told.get("person") or ("person" if event.person_id else "session"))
        place = (int(told["block"]), int(told.get("pass", 0)), int(told.get("index", 0)))
        key = (run.entry_id, event.person_id, whose, *place)
        before = last.get((key, event.device, run.pk))
        if before is not None:
            before.delete()
        if score:
            # The latest that was told of a window is used, as it is from now on.
            for one in results.objects.filter(
                entry_id=run.entry_id, person_id=event.person_id, whose=whose, block=place[0], section_pass=place[1],
                index=place[2],
            ):
                one.used, one.disputed = False, one.score != score
                one.save()
            last[key, event.device, run.pk] = results.objects.create(
                entry_id=run.entry_id, person_id=event.person_id, whose=whose, block=place[0], section_pass=place[1],
                index=place[2], score=score, way="floor", run_id=run.pk, device=event.device, user_id=event.user_id,
            )


class Migration(migrations.Migration):
    dependencies = [("log", "0001_log"), ("floor", "0001_runs")]
    operations = [migrations.RunPython(from_runs, migrations.RunPython.noop)]
