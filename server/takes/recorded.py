"""What was recorded, as it came: the files of a take, or of all takes of a studio, as one ZIP."""

from collections.abc import Generator, Iterable
from dataclasses import dataclass

from accounts.models import User
from plans.models import Layout
from studios.actions import studio_for
from studios.models import Studio

from takes.access import take_for
from takes.files import opened, plain_name
from takes.models import Take, TakeFile
from takes.packing import Packed, Zipping


@dataclass(frozen=True, slots=True)
class Recorded:
    """How much there is of what was recorded: whole takes, and their bytes."""

    takes: int
    size: int


def takes_by_layout(layouts: Iterable[Layout]) -> list[tuple[Layout, list[Take]]]:
    """The takes of layouts, oldest first."""
    every = [(one, one.takes.order_by("pk").prefetch_related("files")) for one in layouts]
    return [(layout, list(takes)) for layout, takes in every]


def recorded_in(user: User, studio_pk: int) -> Recorded:
    """How much was recorded in a studio, and came whole."""
    every = [t for _, t in _whole(studio_for(user, studio_pk))]
    return Recorded(len(every), sum(f.size for t in every for f in t.files.all()))


def sound_of_take(user: User, take_pk: int) -> tuple[Take, Packed]:
    """The files of a take as they came.

    Raises
    ------
    TooManyPacked
        When others are being packed.
    """
    take = take_for(user, take_pk)
    return take, _packed([("", take)])


def sound_of_studio(user: User, studio_pk: int) -> Packed:
    """All that was recorded in a studio and came whole, in the folders its archive names.

    Raises
    ------
    TooManyPacked
        When others are being packed.
    """
    return _packed(_whole(studio_for(user, studio_pk)))


def folder_of(session: int, layout: int, take: int) -> str:
    """Where the files of a take lie, by the numbers of its session, layout and itself."""
    return f"sessions/{session:06}/{layout:03}/takes/{take:03}/"


def _whole(studio: Studio) -> list[tuple[str, Take]]:
    """The takes that came whole, each with its folder."""
    return [
        (folder_of(n, m, t), take)
        for n, session in enumerate(studio.sessions.order_by("pk"), 1)
        for m, (_, takes) in enumerate(takes_by_layout(session.layouts.order_by("pk")), 1)
        for t, take in enumerate(takes, 1)
        if all(f.whole for f in take.files.all())
    ]


def _packed(takes: Iterable[tuple[str, Take]]) -> Packed:
    every = [(folder, list(take.files.all())) for folder, take in takes]

    def parts() -> Generator[bytes, None, None]:
        zipping = Zipping()
        for folder, files in every:
            for name, file in _names(files):
                if _still_there(file):
                    with opened(file) as sound:
                        yield from zipping.file(f"{folder}{name}", sound)
        yield zipping.end()

    return Packed(parts)


def _names(files: Iterable[TakeFile]) -> list[tuple[str, TakeFile]]:
    """Each by its own name; the second of one name in a folder of its number."""
    made: list[tuple[str, TakeFile]] = []
    for file in files:
        name = plain_name(file.name)
        taken = {n.casefold() for n, _ in made}
        made.append((name if name.casefold() not in taken else f"{file.number + 1}/{name}", file))
    return made


def _still_there(file: TakeFile) -> bool:
    """It was not deleted while others were packed."""
    return TakeFile.objects.filter(pk=file.pk).exists()
