"""Who may see what: the one place where membership is asked."""

from typing import Any

from accounts.models import User
from django.db import transaction
from django.db.models import QuerySet

from studios.models import Membership, Studio


def studios_of(user: User) -> QuerySet[Studio]:
    """The studios somebody belongs to, oldest first."""
    return Studio.objects.filter(members=user).order_by("pk")


def roles_of(user: User) -> list[dict[str, Any]]:
    """Studio ids, names and roles of somebody."""
    rows = Membership.objects.filter(user=user).select_related("studio").order_by("studio_id")
    return [{"id": m.studio_id, "name": m.studio.name, "role": m.role} for m in rows]


@transaction.atomic
def open_studio(user: User, name: str) -> Studio:
    """A new studio with its owner."""
    studio = Studio.objects.create(name=name)
    Membership.objects.create(studio=studio, user=user, role=Membership.Role.OWNER)
    return studio
