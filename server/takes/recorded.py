"""What was recorded, as it came: the files of a take, or of all takes of a studio, as one ZIP."""

from collections.abc import Generator, Iterable
from dataclasses import dataclass

from accounts.models import User
from plans.models import Layout
from studios.actions import studio_for
from studios.models import Studio

from takes.access import check_whole, take_for
from takes.files import opened, plain_name
from takes.models import Take, TakeFile
from takes.packing import Packed, Zipping


@dataclass(frozen=True, slots=True)
class Recorded:
    """How much there is of what was recorded: whole takes, and their bytes."""

    takes: int
    size: int


def recorded_in(user: User, studio_pk: int) -> Recorded:
    """How much was recorded in a studio, and came whole."""
    files = TakeFile.objects.filter(take__layout__session__studio=studio_for(user, studio_pk))
    sizes: dict[int, int] = {}
    cut: set[int] = set()
    for take, size, received in files.values_list("take_id", "size", "received"):
        sizes[take] = sizes.get(take, 0) + size
        if received < size:
            cut.add(take)
    return Recorded(len(sizes) - len(cut), sum(b for t, b in sizes.items() if t not in cut))


def sound_of_take(user: User, take_pk: int) -> tuple[Take, Packed]:
    """The files of a take as they came.

    Raises
    ------
    RingsideError
        When not all of them have come.
    TooManyPacked
        When others are being packed.
    """
    take = take_for(user, take_pk)
    check_whole(take)
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
    """The takes that came whole, each with its folder; as many queries as of a small studio."""
    sessions = _numbered(
        (0, pk) for pk in studio.sessions.order_by("pk").values_list("pk", flat=True)
    )
    layouts = Layout.objects.filter(session__studio=studio).order_by("pk")
    layout_of = _numbered(layouts.values_list("session_id", "pk"))
    takes = Take.objects.filter(layout__session__studio=studio).order_by("pk")
    every = list(takes.defer("plan", "truth").select_related("layout").prefetch_related("files"))
    take_of = _numbered((t.layout_id, t.pk) for t in every)
    return [
        (folder_of(sessions[t.layout.session_id], layout_of[t.layout_id], take_of[t.pk]), t)
        for t in every
        if all(f.whole for f in t.files.all())
    ]


def _numbered(rows: Iterable[tuple[int, int]]) -> dict[int, int]:
    """The number of each row among those of its own owner, by its key."""
    counts: dict[int, int] = {}
    made: dict[int, int] = {}
    for owner, pk in rows:
        counts[owner] = made[pk] = counts.get(owner, 0) + 1
    return made


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
