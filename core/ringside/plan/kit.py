"""What a drum kit is: drums with two faces, cymbals on tilted discs, a stool and a head.

Positions are metres in the frame of :mod:`ringside`; ``axis`` is the direction the batter
head (or the top of a cymbal) faces. The resonant face lies ``depth_m`` behind the batter.
"""

from math import hypot, pi, sqrt
from typing import Annotated, Literal, Self

from pydantic import AfterValidator, Field, field_validator, model_validator

from ringside.values import Flag, Key, Record, Title, Vector, length

DrumKind = Literal["kick", "snare", "rack", "floor", "hand drum"]
CymbalKind = Literal["hats", "crash", "ride", "splash", "china", "percussion"]
Damping = Literal["gel pads", "ring", "towel", "blanket", "pillow", "weight"]
Beater = Literal["felt", "wood", "plastic"]
Hand = Literal["right", "left"]
LOWEST_HZ = 20.0
HIGHEST_HZ = 1000.0
"""Hertz: the range a drum's fundamental is kept in."""


def _direction(v: Vector) -> Vector:
    n = sqrt(v[0] ** 2 + v[1] ** 2 + v[2] ** 2)
    if n < 1e-6:
        raise ValueError("expected a direction, got a vector of no length")
    if abs(n - 1) < 1e-12:  # already a direction: reading a file back must change no digit
        return v
    return (v[0] / n, v[1] / n, v[2] / n)


Direction = Annotated[
    Vector,
    AfterValidator(_direction),
    Field(description="A direction; any length above zero, kept at length one."),
]


class Head(Record):
    """A drum head as far as it changes the sound."""

    finish: Literal["clear", "coated", "mesh"] = "coated"
    plies: Annotated[int, Field(strict=True, ge=1, le=2)] = 1


class Port(Record):
    """A hole in the front head: its size and where its centre is on the head."""

    diameter_m: Annotated[float, length(0.03, 0.5, "Across the hole, metres.")]
    right_m: Annotated[float, length(-0.5, 0.5, "From the centre, drummer's right, metres.")] = 0.0
    up_m: Annotated[float, length(-0.5, 0.5, "From the centre, up, metres.")] = 0.0


class Drum(Record):
    """One drum: two heads on a shell."""

    id: Key
    name: Title
    kind: DrumKind
    diameter_m: Annotated[float, length(0.1, 1.0, "Head diameter, metres.")]
    depth_m: Annotated[float, length(0.03, 1.2, "Shell depth, head to head, metres.")]
    batter_m: Vector = Field(description="Centre of the batter head, metres.")
    axis: Direction
    reference: Literal["batter", "front"] = Field(
        default="batter",
        description="Where the tape is held: the strike spot of the batter, or the front head.",
    )
    fundamental_hz: Annotated[float, Field(strict=True, ge=LOWEST_HZ, le=HIGHEST_HZ)] | None = (
        Field(default=None, description="Known fundamental; null estimates it from kind and size.")
    )
    head: Head = Field(default=Head(), description="The head that is struck.")
    far_head: Head | None = Field(
        default=Head(finish="clear"), description="The other head; null when the drum has none."
    )
    port: Port | None = Field(default=None, description="The hole in the far head, if any.")
    damping: tuple[Damping, ...] = Field(default=(), max_length=6)
    beater: Beater | None = None
    wires_rad: Annotated[float, Field(strict=True, ge=-7, le=7)] | None = Field(
        default=None,
        description="Which way a snare's wires run, counter-clockwise from the drummer's right as"
        " seen from above; null is not known.",
    )

    @field_validator("damping", mode="after")
    @classmethod
    def _damped_once(cls, damping: tuple[Damping, ...]) -> tuple[Damping, ...]:
        for n, what in enumerate(damping):
            if what in damping[:n]:
                raise ValueError(f"has {what!r} twice; expected each at most once")
        return damping

    @model_validator(mode="after")
    def _possible(self) -> Self:
        if self.wires_rad is not None and self.kind != "snare":
            raise ValueError(f"{self.id!r} is no snare, so it has no wires to run any way")
        if self.port is not None:
            if self.far_head is None:
                raise ValueError(f"{self.id!r} has a port but no front head to cut it in")
            reach = hypot(self.port.right_m, self.port.up_m) + self.port.diameter_m / 2
            if reach > self.diameter_m / 2:
                raise ValueError(f"the port of {self.id!r} reaches over the edge of its head")
        if self.beater is not None and self.kind != "kick":
            raise ValueError(f"{self.id!r} is no kick, so it has no beater")
        return self


class Cymbal(Record):
    """A cymbal, pair of hats or percussion: a disc, struck on the edge near the stool."""

    id: Key
    name: Title
    kind: CymbalKind
    diameter_m: Annotated[float, length(0.1, 0.8, "Diameter, metres.")]
    centre_m: Vector = Field(description="The bell, metres.")
    axis: Direction


class Stool(Record):
    """The drummer's seat, and the zone of head, arms and sticks above it."""

    position_m: tuple[Annotated[float, Field(strict=True)], Annotated[float, Field(strict=True)]]
    height_m: Annotated[float, length(0.3, 1.0, "Seat height, metres.")] = 0.5
    zone_radius_m: Annotated[float, length(0.1, 1.5, "Radius kept free, metres.")] = 0.38
    zone_top_m: Annotated[float, length(0.5, 3.0, "Top of the zone kept free, metres.")] = 1.45
    sweep_m: Annotated[
        float, length(0.0, 0.4, "Kept free round each stick's way to its drum, metres.")
    ] = 0.08


class Rug(Record):
    """The rug the kit stands on, for the drawing."""

    centre_m: tuple[Annotated[float, Field(strict=True)], Annotated[float, Field(strict=True)]]
    width_m: Annotated[float, length(0.5, 10, "Across, metres.")]
    length_m: Annotated[float, length(0.5, 10, "Toward the audience, metres.")]


class Reading(Record):
    """One tape reading at the kit: between two centres, or from the floor up to one."""

    a: Key
    b: Key | None = Field(default=None, description="The other end; null is the floor.")
    metres: Annotated[float, length(0.01, 10.0, "What the tape read, metres.")]
    sure: Flag = Field(
        default=True, description="False once a part at one end was moved or changed by hand."
    )
    taken: Annotated[int, Field(strict=True, ge=1, le=1000)] = Field(
        default=1, description="How many times the tape read the same; metres is their mean."
    )


class Drawn(Record):
    """Where a part stood before it was measured: what the tape is weighed against."""

    id: Key
    at_m: Vector


class Kit(Record):
    """A whole kit. Snare and kick are the two reference drums: the first of each kind."""

    name: Title
    drums: tuple[Drum, ...] = Field(max_length=12)
    cymbals: tuple[Cymbal, ...] = Field(default=(), max_length=12)
    stool: Stool | None = None
    rug: Rug | None = None
    hand: Hand = Field(default="right", description="The hand the drummer leads with.")
    readings: tuple[Reading, ...] = Field(default=(), max_length=300)
    drawn: tuple[Drawn, ...] = Field(
        default=(), max_length=24, description="Kept while there are readings, one per part."
    )

    @field_validator("drawn", mode="after")
    @classmethod
    def _drawn_once(cls, drawn: tuple[Drawn, ...]) -> tuple[Drawn, ...]:
        ids = [d.id for d in drawn]
        for n, name in enumerate(ids):
            if name in ids[:n]:
                raise ValueError(f"gives the place of {name!r} twice; expected it once")
        return drawn

    @model_validator(mode="after")
    def _unique(self) -> Self:
        seen: set[str] = set()
        for part in self.parts:
            if part.id in seen:
                raise ValueError(f"two drums or cymbals are called {part.id!r}; rename one")
            seen.add(part.id)
        for kind in ("snare", "kick"):
            if not any(d.kind == kind for d in self.drums):
                raise ValueError(f"expected a {kind} among the drums: distances are measured to it")
        for r in self.readings:
            for end in (r.a, r.b):
                if end is not None and end not in seen:
                    raise ValueError(f"a tape reading names {end!r}, which is not in the kit")
            if r.a == r.b:
                raise ValueError(f"a tape reading goes from {r.a!r} to itself")
        for d in self.drawn:
            if d.id not in seen:
                raise ValueError(f"a drawn place names {d.id!r}, which is not in the kit")
        return self

    def part(self, part_id: str) -> Drum | Cymbal:
        """The drum or cymbal of that name.

        Parameters
        ----------
        part_id : str
            Its short name.

        Returns
        -------
        Drum or Cymbal

        Raises
        ------
        KeyError
            When there is none.
        """
        for p in self.parts:
            if p.id == part_id:
                return p
        raise KeyError(part_id)

    @property
    def parts(self) -> tuple[Drum | Cymbal, ...]:
        """Everything that sounds, drums first: the order of every report."""
        return (*self.drums, *self.cymbals)

    def first(self, kind: DrumKind) -> Drum:
        """The first drum of a kind; a kit always has a snare and a kick.

        Parameters
        ----------
        kind : DrumKind

        Returns
        -------
        Drum
        """
        return next(d for d in self.drums if d.kind == kind)

    @property
    def source_ids(self) -> tuple[str, ...]:
        """Names of everything that sounds, drums first."""
        return tuple(p.id for p in self.parts)


def reference_point(drum: Drum) -> Vector:
    """Where the tape is held on a drum, metres.

    Parameters
    ----------
    drum : Drum

    Returns
    -------
    tuple of float, shape (3,)
        Metres.
    """
    if drum.reference == "batter":
        return drum.batter_m
    b, a, d = drum.batter_m, drum.axis, drum.depth_m
    return (b[0] - d * a[0], b[1] - d * a[1], b[2] - d * a[2])


def centre_of(part: Drum | Cymbal) -> Vector:
    """Where a tape is held at a part of the kit: the batter's centre or the bell, metres.

    Parameters
    ----------
    part : Drum or Cymbal

    Returns
    -------
    tuple of float, shape (3,)
        Metres.
    """
    return part.batter_m if isinstance(part, Drum) else part.centre_m


def depth_of(part: Drum | Cymbal) -> float:
    """From the struck face to the far one, metres; a cymbal has none.

    Parameters
    ----------
    part : Drum or Cymbal

    Returns
    -------
    float
        Metres.
    """
    return part.depth_m if isinstance(part, Drum) else 0.0


def _port_flipped(port: Port | None) -> Port | None:
    return port and port.model_copy(update={"right_m": -port.right_m})


def mirrored(kit: Kit, name: str) -> Kit:
    """The same kit for a drummer who leads with the other hand: x mirrored about the snare.

    Parameters
    ----------
    kit : Kit
    name : str

    Returns
    -------
    Kit
    """

    def flip(v: Vector) -> Vector:
        return (-v[0], v[1], v[2])

    return Kit(
        name=name,
        drums=tuple(
            d.model_copy(
                update={
                    "batter_m": flip(d.batter_m),
                    "axis": flip(d.axis),
                    "port": _port_flipped(d.port),
                    "wires_rad": None if d.wires_rad is None else pi - d.wires_rad,
                }
            )
            for d in kit.drums
        ),
        cymbals=tuple(
            c.model_copy(update={"centre_m": flip(c.centre_m), "axis": flip(c.axis)})
            for c in kit.cymbals
        ),
        stool=kit.stool
        and kit.stool.model_copy(
            update={"position_m": (-kit.stool.position_m[0], kit.stool.position_m[1])}
        ),
        rug=kit.rug
        and kit.rug.model_copy(update={"centre_m": (-kit.rug.centre_m[0], kit.rug.centre_m[1])}),
        hand="right" if kit.hand == "left" else "left",
        readings=kit.readings,
        drawn=tuple(d.model_copy(update={"at_m": flip(d.at_m)}) for d in kit.drawn),
    )
