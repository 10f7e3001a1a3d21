"""Set-ups every engineer knows, with the answer a practitioner expects (common practice).

Each is built from techniques on the five-piece starting kit, analysed like any layout, and
told with the numbers found. docs/worked-cases.md is written from here and a test holds both
the page and the expected answers to what is computed.
"""

from collections.abc import Callable
from dataclasses import dataclass, field
from typing import Any, Final

from ringside.pairs.analysis import Analysis, analyse
from ringside.pairs.flips import best_flips
from ringside.pairs.pictures import pictures
from ringside.pairs.verdicts import VERDICT_WORDS, Verdict
from ringside.plan.hanging import with_channels, with_flips
from ringside.plan.kits import five_piece
from ringside.plan.layout import Layout, VerdictWord
from ringside.plan.room import Room
from ringside.plan.spoken import spoken, the
from ringside.techniques.taking import take


@dataclass(frozen=True)
class Case:
    """A set-up, the answer expected of it, and what was computed."""

    id: str
    title: str
    put_up: str
    expected: str
    found: list[str]
    values: dict[str, Any] = field(default_factory=dict)


def _kit(*techniques: tuple[str, str | None], room: Room | None = None) -> Layout:
    layout = Layout(name="Worked case", kit=five_piece(), room=room)
    for id_, target in techniques:
        layout = take(layout, id_, target).layout
    return layout


def _hall() -> Room:
    return Room(name="Hall", width_m=9.0, length_m=12.0, height_m=4.5, kit_x_m=4.5, kit_y_m=3.0)


@dataclass(frozen=True, kw_only=True, slots=True)
class PairFound:
    """What was computed of a pair on a drum."""

    verdict: VerdictWord
    delay_ms: float
    sign: int
    body_db: float
    flipped_body_db: float


def _pair(an: Analysis, a: str, b: str, source: str) -> PairFound:
    row, turned = an.pair_index(a, b)
    k = an.scene.sources.ids.index(source)
    p = an.pairs
    return PairFound(
        verdict=VERDICT_WORDS[Verdict(int(p.verdict[row, k]))],
        delay_ms=(-1 if turned else 1) * float(p.delay_s[row, k]) * 1e3,
        sign=int(p.sign[row, k]),
        body_db=float(p.body_db[row, k]),
        flipped_body_db=float(p.flipped_body_db[row, k]),
    )


def _told(a: str, b: str, source: str, v: PairFound) -> str:
    sign = {1: "the same way", -1: "opposite ways", 0: "unsure which way"}[v.sign]
    return (
        f"{a} with {b} on the {source}: {v.verdict}; {abs(v.delay_ms):.2f} ms apart, pushed"
        f" {sign}; body {v.body_db:+z.1f} dB as wired, {v.flipped_body_db:+z.1f} dB flipped."
    )


def _unflipped(layout: Layout) -> Layout:
    """The layout with every preamp switch off."""
    off = tuple(c.model_copy(update={"preamp_flip": False}) for c in layout.channels)
    return with_channels(layout, off)


def snare_top_bottom() -> Case:
    """Top and bottom of the snare."""
    layout = _kit(("snare-centre", None), ("snare-bottom", None))
    wired = _unflipped(layout)
    before = _pair(analyse(wired), "ST", "SB", "snare")
    after = _pair(analyse(with_flips(wired, {"SB"})), "ST", "SB", "snare")
    return Case(
        "snare", "Snare, top and bottom", "One mic over the batter head, one under the wires.",
        "Hollow until one of the two is flipped; never equal in time, and nobody calls it late.",
        [f"As wired: {_told('ST', 'SB', 'snare', before)}",
         f"SB flipped: {_told('ST', 'SB', 'snare', after)}"],
        {"before": before, "after": after},
    )  # fmt: skip


def kick_in_out() -> Case:
    """Inside and outside the kick."""
    an = analyse(_kit(("kick-inside", None), ("kick-outside", None)))
    v = _pair(an, "KI", "KO", "kick")
    return Case(
        "kick", "Kick, in and out", "One mic inside, one a fist from the front head.",
        "Both are pushed by the same stroke: no flip. The outer one is later, and on its low end"
        " that does not matter.",
        [_told("KI", "KO", "kick", v)], {"pair": v},
    )  # fmt: skip


def overheads() -> Case:
    """A spaced pair mirrored across the snare."""
    an = analyse(_kit(("pair-straight", None)))
    snare, kick = (_pair(an, "OL", "OR", s) for s in ("snare", "kick"))
    seen = pictures(an).pairs[0]
    snare_at = next(s for s in seen.sources if s.source == "snare")
    return Case(
        "overheads", "Overhead pair, straight down",
        "Two mics over the cymbals, as far from the snare as each other.",
        "Together on the snare, which sits in the middle and stays in mono. The kick is nearer"
        " to one of them, and its attack is smeared.",
        [_told("OL", "OR", "snare", snare), _told("OL", "OR", "kick", kick), snare_at.words,
         f"In mono the snare keeps {snare_at.fold_body_db:+z.1f} dB of body."],
        {"snare": snare, "kick": kick, "snare_at": snare_at},
    )  # fmt: skip


def over_and_side() -> Case:
    """One over the snare, one low beside the floor tom."""
    an = analyse(_kit(("over-and-side", None)))
    a, b = (m.id for m in an.layout.mics)
    v = _pair(an, a, b, "snare")
    row, _ = an.pair_index(a, b)
    tape = abs(float(an.pairs.tape_difference_m[row, an.scene.sources.ids.index("snare")]))
    return Case(
        "over-and-side", "Over-and-side pair",
        "One over the snare, one low beyond the floor tom, both as far from the snare by tape.",
        "Equal by tape, and yet the two see the snare from different sides: the side mic looks"
        " along the head, so its sign has to be heard. The hardest pair to get right.",
        [f"By tape they differ by {tape * 1000:.1f} mm.", _told(a, b, "snare", v)],
        {"pair": v, "tape_m": tape},
    )  # fmt: skip


def front_mono() -> Case:
    """One mic in front of the kit beside close mics."""
    an = analyse(_kit(("kick-inside", None), ("snare-centre", None), ("one-front", None)))
    front = next(m.id for m in an.layout.mics if m.id not in ("KI", "ST"))
    signs = an.arrivals.sign[[m.id for m in an.layout.mics].index(front)]
    ids = an.scene.sources.ids
    kick, snare = int(signs[ids.index("kick")]), int(signs[ids.index("snare")])
    pairs = {s: _pair(an, m, front, s) for m, s in (("KI", "kick"), ("ST", "snare"))}
    words = {1: "pushed", -1: "pulled", 0: "unsure"}
    return Case(
        "front", "One mic in front", "A mono mic a good metre in front of the kick.",
        "The kick's front head pushes it first; the snare's batter head pulls it, or is seen"
        " along the plane of the head. No one switch suits both: keep the fuller kick and listen"
        " to the snare.",
        [f"By the kick {front} is {words[kick]}, by the snare {words[snare]}.",
         _told("KI", front, "kick", pairs["kick"]), _told("ST", front, "snare", pairs["snare"])],
        {"pushed": {"kick": kick, "snare": snare}, **pairs},
    )  # fmt: skip


def floor_pair() -> Case:
    """Two capsules a card's thickness off the floor."""
    an = analyse(_kit(("floor-pair", None), room=_hall()))
    a, b = (m.id for m in an.layout.mics)
    v = _pair(an, a, b, "snare")
    added = float(an.arrivals.surface_db[0, an.scene.sources.ids.index("kick")])
    gap = float(an.scene.images.gap[0])
    dip = an.scene.speed / (4 * gap)
    return Case(
        "floor", "Floor pair", "Two capsules a card's thickness off a hard floor.",
        "The floor's image arrives with the sound itself: up to 6 dB more, no comb below the"
        " hearing's limit, and equal on the snare.",
        [f"The floor adds {added:+z.1f} dB; the first dip, c/(4h), lies at {dip / 1000:.0f} kHz.",
         _told(a, b, "snare", v)],
        {"added_db": added, "dip_hz": dip, "pair": v},
    )  # fmt: skip


def crossed_rooms() -> Case:
    """Crossed figure-8 in the room."""
    an = analyse(_kit(("room-crossed-8", None), room=_hall()))
    seen = pictures(an).pairs[0]
    v = _pair(an, seen.left, seen.right, "snare")
    snare_at = next(s for s in seen.sources if s.source == "snare")
    return Case(
        "crossed", "Crossed figure-8 pair in the room",
        "Two figure-8 at one point, looking 45° either side of the snare–kick line.",
        "Both hear the kit at once: together, safe in mono, snare in the middle, and a recording"
        " angle of 70 to 76°.",
        [_told(seen.left, seen.right, "snare", v), snare_at.words,
         f"Recording angle {seen.recording_deg:.0f}°."],
        {"pair": v, "snare_at": snare_at, "recording_deg": seen.recording_deg},
    )  # fmt: skip


def twins() -> Case:
    """Two mics taped together on one snare."""
    an = analyse(_kit(("snare-two", None)))
    a, b = (m.id for m in an.layout.mics)
    v = _pair(an, a, b, "snare")
    return Case(
        "twins", "Two mics on one snare, capsules aligned",
        "Taped together, both capsules as far from the centre of the head.",
        "Together in everything: same sign, no delay, the full 6 dB.",
        [_told(a, b, "snare", v)], {"pair": v},
    )  # fmt: skip


def all_bottoms() -> Case:
    """Toms miked from below only, overheads carry the tops."""
    toms = [(("tom-bottom"), t) for t in ("rack-1", "rack-2", "floor")]
    layout = _kit(("pair-turned", None), *toms)
    bottoms = [m.id for m in layout.mics if m.job]
    plain = _unflipped(layout)
    an = analyse(plain)
    job = {m.id: m.job for m in layout.mics}
    ids = [m.id for m in plain.mics]
    signs = {
        m: int(an.arrivals.raw_sign[ids.index(m), an.scene.sources.ids.index(str(job[m]))])
        for m in bottoms
    }
    tops = {
        m: [int(x) for x in an.arrivals.raw_sign[[ids.index("OL"), ids.index("OR")],
                                             an.scene.sources.ids.index(str(job[m]))]]
        for m in bottoms
    }  # fmt: skip
    turned = analyse(with_flips(plain, set(bottoms)))
    same = [
        int(turned.pairs.raw_sign[turned.pair_index(m, o)[0],
                              turned.scene.sources.ids.index(str(job[m]))])
        for m in bottoms for o in ("OL", "OR")
    ]  # fmt: skip
    best = best_flips(an).best
    return Case(
        "bottoms", "All-bottoms kit",
        "Every tom miked from below only; the overheads carry the tops.",
        "Each bottom mic is pushed where the overheads are pulled: all bottoms are flipped."
        " By body alone the travel to the overheads can ask for another set; both are told.",
        [f"Bottoms are pushed ({', '.join(f'{m} {s:+d}' for m, s in signs.items())}), overheads"
         f" pulled. With all bottoms flipped {sum(s == 1 for s in same)} of {len(same)} pairs"
         " with an overhead are pushed the same way by the straight sound.",
         f"By body over all drums: flip {', '.join(best.flip) or 'none'},"
         f" {best.mean_db:+z.1f} dB on average."],
        {"signs": signs, "tops": tops, "same": same, "best": best},
    )  # fmt: skip


def wall_mic() -> Case:
    """A mic that faces a wall."""
    layout = _kit(("wall-mic", None), room=_hall())
    an = analyse(layout)
    mic = layout.mics[0]
    names = an.scene.sources.names
    by_wall = [spoken(n) for n, led in zip(names, an.arrivals.by_surface[0], strict=True) if led]
    unsure = [
        spoken(names[k]) for k in range(len(names))
        if an.scene.sources.drum[k] and an.arrivals.sign[0, k] == 0
    ]  # fmt: skip
    return Case(
        "wall", "A mic that faces the wall", "A cardioid a hand off a wall, its back to the kit.",
        "It hears the wall, not the kit behind it: later by twice the gap, without the attack. What"
        " the wall sends along the plane of a head is as unsure as the straight sound would be.",
        [f"{mic.id} hears by the wall: {', '.join(by_wall)}.",
         f"Unsure which way: {', '.join(unsure) or 'none'}."],
        {"by_wall": by_wall, "unsure": unsure},
    )  # fmt: skip


def room_omnis() -> Case:
    """Spaced omnis and a spot."""
    an = analyse(_kit(("snare-centre", None), ("room-omnis", None), room=_hall()))
    left, right = (_pair(an, "ST", m, "snare") for m in ("WL", "WR"))
    between = _pair(an, "WL", "WR", "snare")
    return Case(
        "omnis", "Spaced omnis with a snare mic", "Two omnis three metres out, one close mic.",
        "Late on purpose: some nine milliseconds behind the spot are heard as distance, and nobody"
        " moves them. What counts is polarity and how far behind they are.",
        [_told("ST", "WL", "snare", left), _told("WL", "WR", "snare", between)],
        {"left": left, "right": right, "between": between},
    )  # fmt: skip


def mid_side() -> Case:
    """Mid and side in the room."""
    layout = _kit(("room-mid-side", None), room=_hall()).model_copy(update={"outlook": "audience"})
    an, (mid, side) = analyse(layout), (m.id for m in layout.mics)
    turned = analyse(with_flips(layout, {side}))
    v, w = (_pair(x, mid, side, "snare") for x in (an, turned))
    seen = [next(s for s in pictures(x).pairs[0].sources if s.source == "floor")
            for x in (an, turned)]  # fmt: skip
    return Case(
        "mid-side", "Mid-side in the room", "A cardioid and a figure-8 across it, at one point.",
        "Judged as decoded, left and right: together, and mono is the mid alone. Turning the side"
        " over changes left and right over and costs no body.",
        [f"{mid} with {side}: {v.verdict}; with {side} flipped: {w.verdict}.",
         f"As wired: {seen[0].words} Flipped: {seen[1].words}"],
        {"wired": v, "turned": w, "floor": [s.percent for s in seen]},
    )  # fmt: skip


def near_coincident() -> Case:
    """Cardioids 17 cm and 110 degrees apart."""
    layout = _kit(("pair-near", None))
    an = analyse(layout)
    a, b = layout.stereo_pairs[0].left, layout.stereo_pairs[0].right
    v = {s: _pair(an, a, b, s) for s in ("snare", "hats", "floor")}
    return Case(
        "near", "Near-coincident pair", "Cardioids 17 cm and 110° apart over the kit.",
        "A few tenths of a millisecond at the sides are how it tells left from right: late on"
        " nothing, and safe in mono.",
        [f"{a} with {b} on {the(layout.kit.part(s).name)}: {x.verdict};"
         f" {abs(x.delay_ms):.2f} ms apart."
         for s, x in v.items()],
        v,
    )  # fmt: skip


def near_floor() -> Case:
    """A mic lowered to the floor."""
    layout = _kit(("room-mono", None), room=_hall())
    mic = layout.mics[0]
    x, y, _ = mic.position_m
    added = {}
    for height in (0.02, 0.2, 0.3, 0.45, 0.6, 0.8):
        at = mic.model_copy(update={"position_m": (x, y, height), "pattern": "omni"})
        heard = analyse(layout.with_mic(at)).arrivals
        added[height] = float(heard.surface_db[0, 0])
    rows = ", ".join(f"{h * 100:.0f} cm {db:+z.1f} dB" for h, db in added.items())
    return Case(
        "fade", "A room mic lowered to the floor", "An omni in front of the kick, lower and lower.",
        "At the floor its image adds 6 dB of kick; a step up it is the room's, not the mic's. In"
        " between it fades, without a jump.",
        [f"What the floor adds to the kick: {rows}."], {"added": added},
    )  # fmt: skip


CASES: Final[tuple[Callable[[], Case], ...]] = (
    snare_top_bottom, kick_in_out, overheads, over_and_side, front_mono, floor_pair,
    crossed_rooms, twins, all_bottoms, wall_mic, room_omnis, mid_side, near_coincident, near_floor,
)  # fmt: skip


def cases() -> list[Case]:
    """All of them, computed now."""
    return [make() for make in CASES]
