"""Who sees which takes."""

from accounts.models import User
from django.db.models import QuerySet
from plans.errors import NotThere
from ringside.errors import RingsideError
from studios.access import studios_of

from takes.models import Take


def take_for(user: User, pk: int, *, lock: bool = False) -> Take:
    """A take somebody may see; NotThere for anybody else's."""
    rows: QuerySet[Take] = Take.objects.select_related("layout__session").filter(
        pk=pk,
        layout__deleted_at=None,
        layout__session__deleted_at=None,
        layout__session__studio__in=studios_of(user),
    )
    found = (rows.select_for_update(of=("self",)) if lock else rows).first()
    if found is None:
        raise NotThere
    return found


def check_whole(take: Take) -> None:
    """Refuse a take of which something has not come yet.

    Raises
    ------
    RingsideError
        Which names the first file that is missing.
    """
    missing = [f.name for f in take.files.all() if not f.whole]
    if missing:
        raise RingsideError(f"{missing[0]} has not come whole yet; send the rest of it first")
