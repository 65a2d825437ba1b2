from django.db import migrations


def take_over(apps, schema_editor):
    """What was kept as one number for each movement is a set of one rep, of which the day is not known."""
    Person, Maximum = apps.get_model("squads", "Person"), apps.get_model("people", "Maximum")
    Maximum.objects.bulk_create(
        Maximum(person=person, movement=movement, kg=kg, reps=1)
        for person in Person.objects.all()
        for movement, kg in person.one_rm.items()
    )


def give_back(apps, schema_editor):
    """The newest of each movement, those of one rep only: what an earlier release knew."""
    Maximum = apps.get_model("people", "Maximum")
    for one in Maximum.objects.filter(reps=1).order_by("day", "id").select_related("person"):
        person = type(one.person).objects.get(pk=one.person_id)
        person.one_rm = {**person.one_rm, one.movement: one.kg}
        person.save()


class Migration(migrations.Migration):

    dependencies = [
        ('people', '0001_initial'),
    ]

    operations = [
        migrations.RunPython(take_over, give_back),
    ]
