"""What the lists show is made anew when the rules that made it change."""

from django.db import transaction
from ringside.pairs.counts import RULES
from studios.errors import Unreadable

from plans.models import Layout
from plans.summary import summary_of

AT_A_TIME = 50


def renew_some(at_a_time: int = AT_A_TIME) -> int:
    """Sum up the next few again; how many were done. A layout that is saved meanwhile wins."""
    rows = list(Layout.objects.exclude(rules=RULES).order_by("-pk")[:at_a_time])
    for row in rows:
        with transaction.atomic():
            layout = Layout.objects.select_for_update().get(pk=row.pk)
            if layout.rules != RULES:
                _renew(layout)
    return len(rows)


def _renew(layout: Layout) -> None:
    try:
        summary = summary_of(layout.doc())
    except Unreadable as fault:
        summary = {"unreadable": str(fault)}
    Layout.objects.filter(pk=layout.pk).update(summary=summary, rules=RULES)
