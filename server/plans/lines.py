"""How long the list of what to do is for a layout, kept beside its summary until it is changed."""

from collections.abc import Iterable

from accounts.models import User
from ringside.plan.layout import Layout as Doc
from ringside.worklist.build import LIST_RULES
from studios.access import studios_of
from studios.errors import Unreadable

from plans.models import Layout


def known(layout: Layout) -> int | None:
    """How many lines the list has; None where it was not asked for since the last change."""
    kept = layout.summary.get("list")
    if not isinstance(kept, dict) or kept.get("rules") != LIST_RULES:
        return None
    lines = kept.get("lines")
    return lines if isinstance(lines, int) else None


def asked_for(user: User, pks: Iterable[int]) -> list[Layout]:
    """The layouts of these that somebody may see; others are as if not there."""
    rows = Layout.objects.filter(
        pk__in=set(pks),
        session__studio__in=studios_of(user),
        session__deleted_at__isnull=True,
        deleted_at__isnull=True,
    )
    return list(rows)


def readable(layouts: Iterable[Layout]) -> list[tuple[Layout, Doc]]:
    """Those whose list is not known and that can be read."""
    found = []
    for layout in layouts:
        if known(layout) is None:
            try:
                found.append((layout, layout.doc()))
            except Unreadable:
                continue
    return found


def keep(layout: Layout, lines: int) -> None:
    """Kept, unless the layout was changed meanwhile, or has a take.

    What a take is measured to say comes later than the layout was changed last.
    """
    if layout.takes.exists():
        return
    layout.summary["list"] = {"lines": lines, "rules": LIST_RULES}
    Layout.objects.filter(pk=layout.pk, version=layout.version).update(summary=layout.summary)


def forget(layout: Layout) -> None:
    """No longer known."""
    if layout.summary.pop("list", None) is not None:
        Layout.objects.filter(pk=layout.pk, version=layout.version).update(summary=layout.summary)
