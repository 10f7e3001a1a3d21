"""Layouts in which little is as usual, and what the core decides in them, for `reference`."""

from itertools import product

import numpy as np
from ringside.edits.apply import apply
from ringside.edits.kit import OtherHand
from ringside.errors import RingsideError
from ringside.fitting.clear import DIRECTIONS, RADII_M
from ringside.hear.bands import bands
from ringside.hear.barriers import barrier_loss_db, barriers
from ringside.hear.mirrors import share_at
from ringside.hear.nearfield import curvature_m
from ringside.hear.sums import ripple_db
from ringside.pairs.analysis import analyse
from ringside.pairs.onebyone import order_of, school_order
from ringside.pairs.stereo import picture, place_percent, recording_angle_deg
from ringside.places.clearance import words_for_all
from ringside.places.starts import starting_layout
from ringside.plan.air import absorption_db_m, speed_of_sound
from ringside.plan.drumframe import face_of
from ringside.plan.handsizes import HandSizes
from ringside.plan.kit import centre_of
from ringside.plan.kits import KITS
from ringside.plan.layout import Layout, StereoPair
from ringside.plan.mics import Mic
from ringside.plan.room import Door, Gobo, Notch, Room, Space
from ringside.survey.readings import read
from ringside.survey.report import tape_report
from ringside.techniques.catalogue import TECHNIQUES, lacking, targets_in
from ringside.techniques.taking import checked, settle

from tests.core.tracks import with_each

CROOKED = Room(
    name="Crooked", width_m=5.2, length_m=6.6, height_m=2.4, kit_x_m=2.5, kit_y_m=2.0,
    kit_turn_rad=0.3, notch=Notch(corner="front left", width_m=1.2, length_m=1.9),
    spaces=(Space(id="hall", name="Hall", x_m=5.4, y_m=1.0, width_m=1.6, length_m=5.0,
                  height_m=2.2),),
    doors=(Door(wall="right", at_m=3.0, leads_to="hall", open=True), Door(wall="back", at_m=1.0)),
    gobos=(Gobo(name="Screen", x_m=3.6, y_m=2.6, turn_rad=1.1, height_m=1.5),
           Gobo(name="Card", x_m=2.2, y_m=2.4, width_m=0.3, height_m=0.3, from_m=0.75,
                thickness_m=0.02, turn_rad=0.5)),
)  # fmt: skip
ROOMS = [
    Room(name=f"{wide} m", width_m=wide, length_m=deep, height_m=high, kit_x_m=wide / 2 - 0.1,
         kit_y_m=1.4)
    for wide, deep, high in ((9.0, 11.0, 4.2), (4.4, 5.0, 2.5), (3.0, 3.4, 2.1))
]  # fmt: skip


def left_handed(layout):
    return apply(layout, OtherHand(do="hand")).layout


def near_things():
    """Mics of each pattern close to floor, walls, screen, doorway and heads, one delayed."""
    start = starting_layout("five-piece", "turned pair")
    patterns = ("omni", "wide cardioid", "cardioid", "supercardioid", "figure-8")
    ways = ((0, 0, -1), (0, 0, 1), (0.6, 0, -0.8), (-1, 0, 0), (0.2, 0.98, 0))
    more, dice = [], np.random.default_rng(5)
    for n, (pattern, way) in enumerate(zip(patterns * 2, (*ways, *ways[::-1]), strict=True)):
        z = (0.02, 0.06, 0.15, 0.35, 2.3)[n % 5]
        x, y = dice.uniform(-1.8, 1.8, 2).round(3)
        more.append(
            Mic(id=f"N{n}", name=f"Near {n}", role="room" if n % 3 else "close", pattern=pattern,
                position_m=(float(x), float(y), z), aim=way)
        )  # fmt: skip
    layout = start.model_copy(update={"mics": (*start.mics, *more), "room": CROOKED})
    ways = {f"N{n}": {"preamp_flip": n % 4 == 1, "track_delay_samples": (0, 0, 72)[n % 3]}
            for n in range(len(more))}  # fmt: skip
    return Layout.model_validate(with_each(layout, ways).model_dump())


def of_scene(layout):
    """All that is worked out of a scene: rays, signs, levels, verdicts, who is in whose way."""
    an = analyse(layout)
    a, p = an.arrivals, an.pairs
    above = np.array([m.position_m for m in layout.mics]) + (0.02, 0.0, 0.04)
    return {
        "of mics": [a.path_m, a.time_s * 1e3, a.after_gain_db, a.sign, a.raw_sign, a.doubt,
                    a.near_db, a.surface_db, a.face_side, a.turner[1]],
        "of pairs": [p.verdict, p.sign, p.body_db, p.flipped_body_db, p.band_high_hz, p.share],
        "dips": np.minimum(p.dip_hz, 20_000),
        "worst": [p.worst, an.worst_source, p.kind],
        "in the way": words_for_all(above, layout),
        "orders": [order_of(layout), *(school_order(layout, s) for s in ("kick", "overheads"))],
    }  # fmt: skip


def numbers_of(t, layout):
    """A technique's own numbers, then each of them at its least and most."""
    yield {}
    for n in t.numbers:
        yield from ({n.id: n.low}, {n.id: n.high})


def of_techniques(layout, groups=None):
    """Where every technique puts its mics, its numbers at their ends as well, and what it says."""
    found = {}
    for t in TECHNIQUES.values():
        if lacking(t, layout) or (groups and t.group not in groups):
            continue
        for target in targets_in(t, layout) if t.over else [None]:
            for given in numbers_of(t, layout):
                try:
                    numbers, laid = settle(layout, t, target, checked(t, given), HandSizes())
                except RingsideError as error:
                    found[f"{t.id} {target} {given}"] = str(error)
                    continue
                found[f"{t.id} {target} {given}"] = [
                    [(q.id, np.round(q.at, 4), np.round(q.way, 3)) for q in laid.puts],
                    [*laid.notes, *laid.told],
                    {k: round(v, 3) for k, v in numbers.items()},
                ]
    return found


def of_pairs():
    """The picture of two mics by their spacing, angle, pattern and whose view it is."""
    start, told = starting_layout("five-piece", "square pair"), []
    for pattern in ("cardioid", "figure-8", "omni"):
        for apart in (0.0, 0.17, 0.5, 1.2, 3.0):
            for half in (0.3, 0.9):
                for side in (1, -1):
                    mics = tuple(
                        Mic(id=i, name=i, role="overhead", pattern=pattern,
                            position_m=(0.1 + s * apart / 2, 0.3, 2.0),
                            aim=(s * np.sin(half), 0.2, -np.cos(half)))
                        for i, s in (("L", -side), ("R", side))
                    )  # fmt: skip
                    pair = StereoPair(name="P", left="L", right="R")
                    an = analyse(start.model_copy(update={
                        "channels": (), "mics": mics, "stereo_pairs": (pair,),
                        "outlook": "audience" if half > 0.5 else "drummer"}))  # fmt: skip
                    told.append(picture(an, pair))
    return told


def of_walk(kit, seed, most=40):
    """A kit taped as it is asked for, by a hand that is not quite steady, with one slip."""
    dice = np.random.default_rng(seed)
    at = {p.id: np.add(centre_of(p), dice.normal(0, 0.03, 3)) for p in kit.parts}
    asked = []
    for n in range(most):
        report = tape_report(kit)
        if (ask := report.next) is None:
            break
        metres = at[ask.a][2] if ask.b is None else np.linalg.norm(at[ask.a] - at[ask.b])
        kit = read(kit, ask.a, ask.b, float(metres) + dice.normal(0, 0.004) + 0.1 * (n == 9))
        asked.append(ask.words)
    report = tape_report(kit)
    return [asked, report.words, [r.state for r in report.readings], report.parts, report.guarded]


def grid(function, *ranges):
    """Every combination, as text of nine figures: what a formula's smallest term still changes."""
    return [f"{float(function(*v)):.9g}" for v in product(*ranges)]


def behind_screens():
    """What the screens of the crooked room take from straight lines every way through it."""
    dice = np.random.default_rng(9)
    mics = dice.uniform((-2.5, -1.8, 0.05), (2.5, 3.0, 2.2), (30, 3))
    ends = dice.uniform((-2.5, -1.8, 0.05), (2.5, 3.0, 2.2), (8, 3))
    stand = barriers(CROOKED, mics, ends[None] - mics[:, None])
    return [stand.loss_db(f, 343.0).round(4) for f in (100.0, 1000.0, 8000.0)], stand.detour_m()


def of_formulas():
    """Formulas over the range they are used in."""
    close = np.array([0.01, 0.03, 0.1, 0.3, 1.0, 4.0])
    parts = [p for make in KITS.values() for p in make().parts]
    tilted = [
        face_of(KITS["five-piece"]().first("floor").model_copy(update={"axis": (c, 0, s)}), "over")
        for s, c in ((0.52, 0.854), (0.48, 0.877), (0.9, 0.436))
    ]
    return {
        "speed": grid(speed_of_sound, (0.0, 12.0, 20.0, 29.0), (0.0, 35.0, 90.0)),
        "air": grid(absorption_db_m, (63.0, 1e3, 8e3), (5.0, 20.0), (20.0, 70.0)),
        "edge": [f"{v:.7g}" for v in barrier_loss_db(np.linspace(-0.4, 12, 63))],
        "screens": behind_screens(),
        "near share": grid(share_at, np.linspace(0, 0.7, 36), (0.0, 0.4)),
        "curvature": grid(curvature_m, close, (0.05, 0.2, 0.28)),
        "place": grid(place_percent, np.linspace(-20, 20, 17), np.linspace(-1.5, 1.5, 13)),
        "ripple": grid(ripple_db, (0.0, 0.1, 0.5, 0.9, 1.0)),
        "angles": [
            recording_angle_deg((a, b), ((-w, 0.0, -1.0), (w, 0.0, -1.0)), (d, 0.0, 0.0), 343.0)
            for a, b in ((0.5, 0.5), (1.0, 1.0), (0.0, 0.0), (0.37, 0.5))
            for w in (0.0, 0.4, 1.0)
            for d in (0.01, 0.17, 0.5)
        ],
        "bands": [bands(p) for p in parts],
        "hours": [[f.twelve, f.three, f.out] for f in tilted],
        "spread": DIRECTIONS[:6],
        "reach": RADII_M,
    }


SCENES = {
    "formulas": of_formulas,
    "near things": lambda: of_scene(near_things()),
    "near things, left-handed": lambda: of_scene(left_handed(near_things())),
    "techniques": lambda: of_techniques(Layout(name="x", kit=KITS["five-piece"](), room=ROOMS[1])),
    "techniques, left-handed": lambda: of_techniques(
        Layout(name="x", kit=KITS["left-handed five-piece"](), room=CROOKED)
    ),
    "rooms": lambda: [
        of_techniques(Layout(name="x", kit=KITS["four-piece"](), room=r), ("Room",)) for r in ROOMS
    ],
    "two mics": of_pairs,
    "walks": lambda: [of_walk(KITS[k](), n) for n, k in enumerate(("five-piece", "eight-piece"))],
}
