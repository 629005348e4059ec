"""Who is seen in a lesson's pictures goes by another name once two cards are one."""

from typing import TYPE_CHECKING

from django.dispatch import receiver

from tropometer.server.lessons.models import SentSheet
from tropometer.server.people.merging import cards_merging

if TYPE_CHECKING:
    from tropometer.server.people.models import Student


@receiver(cards_merging)
def rename_who_is_seen(sender: object, into: "Student", other: "Student", **_: object) -> None:
    """In every version, so that whoever is erased later goes out of all of them."""
    seen = [{"student_id": str(other.pk)}]
    for sheet in SentSheet.objects.filter(document__frames__contains=seen):
        for frame in sheet.document["frames"]:
            if frame.get("student_id") == str(other.pk):
                frame["student_id"] = str(into.pk)
        sheet.save(update_fields=["document"])
