"""One-use links that sign a phone in: made on a screen that is signed in, read by its camera."""

from datetime import timedelta

from django.utils import timezone

from accounts.models import PhoneLink, User
from accounts.words import digest_of, fresh_word

LASTS = timedelta(minutes=10)


def make_link(user: User, leads_to: str) -> tuple[PhoneLink, str]:
    """A fresh link and its word, which is told once and kept nowhere; older ones end with it."""
    now = timezone.now()
    user.phone_links.filter(used_at=None, ends_at__gt=now).update(ends_at=now)
    user.phone_links.filter(ends_at__lt=now - timedelta(days=1)).delete()
    word = fresh_word()
    link = PhoneLink.objects.create(
        user=user, digest=digest_of(word), leads_to=leads_to, ends_at=now + LASTS
    )
    return link, word


def use_link(word: str) -> PhoneLink | None:
    """The link of a word, used up by this; None when it was used, has ended or never was."""
    now = timezone.now()
    rows = PhoneLink.objects.filter(digest=digest_of(word), user__is_active=True)
    # One statement decides: of two phones at the same instant one is let in.
    if not rows.filter(used_at=None, ends_at__gt=now).update(used_at=now):
        return None
    return rows.select_related("user").get()
