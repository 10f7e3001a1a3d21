"""What can be done to the kit of a layout: change, add, take away, swap, mirror, measure.

Every edit makes a new layout. The close mics of a drum follow it in drum terms: the same
height over (or under, or inside) the head, the same way in from the rim, the same bearing,
turned with the head. What was measured at the kit before is marked as no longer sure where
an end of it moved.
"""

from typing import Annotated, Literal

from pydantic import Field

from ringside.edits.edited import Edited, checked
from ringside.edits.following import Part, followed, moved
from ringside.plan.hanging import without_mics
from ringside.plan.kit import Kit, mirrored
from ringside.plan.layout import Layout
from ringside.survey.readings import forget, read, solved
from ringside.techniques.taking import rematched
from ringside.values import Key, Record, Vector


class SwapKit(Record):
    """Another kit; mics of drums by the same name (or kind and order) follow."""

    do: Literal["swap"]
    kit: Kit

    def on(self, layout: Layout) -> Edited:
        """The layout on the other kit.

        Parameters
        ----------
        layout : Layout

        Returns
        -------
        Edited
        """
        return _swap(layout, self.kit)


class OtherHand(Record):
    """Mirrored for a drummer who leads with the other hand, mics with it."""

    do: Literal["hand"]

    def on(self, layout: Layout) -> Edited:
        """The layout turned round.

        Parameters
        ----------
        layout : Layout

        Returns
        -------
        Edited
        """
        return _other_hand(layout)


class TakeReading(Record):
    """A tape reading; the kit is solved anew from all of them."""

    do: Literal["reading"]
    a: Key
    b: Key | None = None
    metres: Annotated[float, Field(strict=True, allow_inf_nan=False)]

    def on(self, layout: Layout) -> Edited:
        """The layout with the kit where all readings say.

        Parameters
        ----------
        layout : Layout

        Returns
        -------
        Edited
        """
        kit = read(layout.kit, self.a, self.b, self.metres)
        return _measured(layout, kit, f"Measured {self.a} to {self.b or 'the floor'}")


class Measured(Record):
    """A tape reading as it was written down."""

    a: Key
    b: Key | None = None
    metres: Annotated[float, Field(strict=True, allow_inf_nan=False)]


class TakeReadings(Record):
    """Tape readings that were taken elsewhere, all at once."""

    do: Literal["readings"]
    readings: Annotated[tuple[Measured, ...], Field(min_length=1, max_length=300)]

    def on(self, layout: Layout) -> Edited:
        """The layout with the kit where all readings say.

        Parameters
        ----------
        layout : Layout

        Returns
        -------
        Edited
        """
        kit = layout.kit
        for r in self.readings:
            kit = read(kit, r.a, r.b, r.metres)
        count = len(self.readings)
        return _measured(layout, kit, f"Took in {count} reading{'s' if count > 1 else ''}")


class ForgetReading(Record):
    """Without the reading between two ends."""

    do: Literal["forget"]
    a: Key
    b: Key | None = None

    def on(self, layout: Layout) -> Edited:
        """The layout with the kit where the readings left say.

        Parameters
        ----------
        layout : Layout

        Returns
        -------
        Edited
        """
        kit = forget(layout.kit, self.a, self.b)
        return _measured(layout, kit, f"Forgot {self.a} to {self.b or 'the floor'}")


def _counterparts(old: Kit, new: Kit) -> dict[str, Part]:
    """For each old part the new one it becomes: the same name and kind, or kind and order."""
    twin_of = {p.id: new.part(p.id) for p in old.parts if p.id in new.source_ids}
    twin_of = {k: p for k, p in twin_of.items() if p.kind == old.part(k).kind}
    spare = [p for p in new.parts if p not in twin_of.values()]
    for part in old.parts:
        twin = next((p for p in spare if p.kind == part.kind), None)
        if part.id not in twin_of and twin is not None:
            twin_of[part.id] = twin
            spare.remove(twin)
    return twin_of


def _swap(layout: Layout, kit: Kit) -> Edited:
    twin_of = _counterparts(layout.kit, kit)
    ends = {p.id: (p, twin_of[p.id]) for p in layout.kit.parts if p.id in twin_of}
    gone = {m.id for m in layout.mics if m.role == "close" and m.job and m.job not in twin_of}
    left = without_mics(layout, gone)
    new_id = {was: part.id for was, part in twin_of.items()}
    mics = tuple(
        m.model_copy(update={"job": new_id.get(m.job or "")}) for m in followed(left.mics, ends)
    )
    done = checked(
        left,
        kit=kit,
        mics=mics,
        decisions=tuple(
            d.model_copy(update={"source": new_id[d.source]})
            for d in left.decisions
            if d.source in new_id
        ),
        techniques=tuple(
            t.model_copy(update={"target": new_id.get(t.target or "", t.target)})
            for t in left.techniques
        ),
    )
    words = f"Took the kit {kit.name}"
    if gone:
        words += f"; {', '.join(sorted(gone))} had no drum left"
    return Edited(done, words, moved(layout, mics))


def _turned(numbers: dict[str, float]) -> dict[str, float]:
    """A technique's numbers on the mirrored kit: only the hour of a clock changes side."""
    return {k: (12.0 - v) % 12.0 if k == "clock" else v for k, v in numbers.items()}


def _other_hand(layout: Layout) -> Edited:
    def flip(v: Vector) -> Vector:
        return (-v[0] + 0.0, v[1], v[2])

    hand = "left" if layout.kit.hand == "right" else "right"
    name = layout.kit.name.removeprefix("Left-handed ")
    name = name[:1].upper() + name[1:]
    if hand == "left":
        name = f"Left-handed {name[:1].lower()}{name[1:]}"[:80]
    mics = tuple(
        m.model_copy(update={"position_m": flip(m.position_m), "aim": flip(m.aim)})
        for m in layout.mics
    )
    pairs = tuple(
        p.model_copy(update={"left": p.right, "right": p.left}) for p in layout.stereo_pairs
    )
    taken = tuple(t.model_copy(update={"numbers": _turned(t.numbers)}) for t in layout.techniques)
    done = checked(
        layout, kit=mirrored(layout.kit, name), mics=mics, stereo_pairs=pairs, techniques=taken
    )
    done = rematched(done)
    return Edited(done, f"Turned round for a {hand}-handed drummer", moved(layout, mics))


def _measured(layout: Layout, kit: Kit, words: str) -> Edited:
    now = solved(kit)
    ends = {p.id: (p, now.part(p.id)) for p in layout.kit.parts}
    mics = followed(layout.mics, ends)
    return Edited(checked(layout, kit=now, mics=mics), words, moved(layout, mics))
