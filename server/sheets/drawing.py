"""The plan drawing of the set-up sheet: black on white SVG, to scale, drummer at the foot."""

from math import atan2, degrees

from django.utils.html import escape
from ringside.places.partner import ring_of
from ringside.plan.kit import Cymbal, Drum
from ringside.plan.layout import Layout

SCALE = 100.0
MARGIN_M = 0.25
# Written as attributes, not classes: the PDF's drawing knows no style sheet.
DRUM = 'fill="none" stroke="#000" stroke-width="1.4"'
CYMBAL = 'fill="none" stroke="#555" stroke-width="0.7"'
SEAT = 'fill="#eee" stroke="#555" stroke-width="0.7"'
DASHED = 'fill="none" stroke="#000" stroke-width="0.8" stroke-dasharray="4 3"'
NAME = 'text-anchor="middle" font-size="9" font-weight="700"'
SMALL = 'text-anchor="middle" font-size="7" fill="#333"'
GAP = 12.0
"""Units between the middles of two labels, at least."""


def _bounds(layout: Layout) -> tuple[float, float, float, float]:
    xs, ys = [], []
    for part in layout.kit.parts:
        c = part.batter_m if isinstance(part, Drum) else part.centre_m
        reach = max(part.diameter_m / 2, part.depth_m if isinstance(part, Drum) else 0)
        xs += [c[0] - reach, c[0] + reach]
        ys += [c[1] - reach, c[1] + reach]
    for m in layout.mics:
        xs.append(m.position_m[0])
        ys.append(m.position_m[1])
    if layout.kit.stool:
        xs.append(layout.kit.stool.position_m[0])
        ys.append(layout.kit.stool.position_m[1] - 0.2)
    return min(xs) - MARGIN_M, max(xs) + MARGIN_M, min(ys) - MARGIN_M, max(ys) + MARGIN_M


def _part(part: Drum | Cymbal) -> str:
    """A drum as its shell seen from above, a cymbal as a thin disc with a bell."""
    r = part.diameter_m / 2 * SCALE
    if isinstance(part, Cymbal):
        x, y = part.centre_m[0] * SCALE, -part.centre_m[1] * SCALE
        return (
            f'<circle cx="{x:.1f}" cy="{y:.1f}" r="{r:.1f}" {CYMBAL}/>'
            f'<circle cx="{x:.1f}" cy="{y:.1f}" r="3" {CYMBAL}/>'
        )
    x, y = part.batter_m[0] * SCALE, -part.batter_m[1] * SCALE
    if abs(part.axis[2]) > 0.5:
        return f'<circle cx="{x:.1f}" cy="{y:.1f}" r="{r:.1f}" {DRUM}/>'
    turn = degrees(atan2(part.axis[1], part.axis[0]))
    return (
        f'<rect x="{-part.depth_m * SCALE:.1f}" y="{-r:.1f}" width="{part.depth_m * SCALE:.1f}"'
        f' height="{2 * r:.1f}" {DRUM}'
        f' transform="translate({x:.1f} {y:.1f}) rotate({-turn:.1f})"/>'
    )


def _rings(layout: Layout) -> str:
    from numpy import linspace, pi

    out = ""
    for pair in layout.stereo_pairs:
        answer = ring_of(layout, pair.left)
        if answer.ring is None:
            continue
        spots = answer.ring.at(linspace(0, 2 * pi, 97))
        path = " ".join(f"{p[0] * SCALE:.1f},{-p[1] * SCALE:.1f}" for p in spots)
        out += f'<polyline points="{path}" {DASHED}/>'
    return out


def _labels(layout: Layout) -> list[tuple[str, float, float, float, float]]:
    """Mic name, capsule, and a label pushed off the labels already set."""
    done: list[tuple[str, float, float, float, float]] = []
    for m in layout.mics:
        x, y = m.position_m[0] * SCALE, -m.position_m[1] * SCALE
        options = [(x + dx, y + dy) for dx, dy in OFFSETS]
        spot = next((p for p in options if _free(p, done)), options[0])
        done.append((m.id, x, y, *spot))
    return done


OFFSETS = ((0, -6), (0, 12), (11, 3), (-11, 3), (12, -7), (-12, -7), (12, 12), (-12, 12))


def _free(p: tuple[float, float], done: list[tuple[str, float, float, float, float]]) -> bool:
    return all(abs(p[0] - q[3]) > GAP * 1.4 or abs(p[1] - q[4]) > GAP * 0.8 for q in done)


def plan_svg(layout: Layout) -> str:
    """The plan as an SVG element; classes are coloured by the sheet's style."""
    x0, x1, y0, y1 = (v * SCALE for v in _bounds(layout))
    stool = layout.kit.stool
    parts = "".join(_part(p) for p in layout.kit.parts)
    seat = ""
    if stool:
        sx, sy = stool.position_m[0] * SCALE, -stool.position_m[1] * SCALE
        seat = (
            f'<circle cx="{sx:.1f}" cy="{sy:.1f}" r="15" {SEAT}/>'
            f'<text x="{sx:.1f}" y="{sy + 3:.1f}" {SMALL}>stool</text>'
        )
    mics = "".join(
        f'<circle cx="{x:.1f}" cy="{y:.1f}" r="2.4" fill="#000"/>'
        f'<text x="{lx:.1f}" y="{ly:.1f}" {NAME}>{escape(name)}</text>'
        for name, x, y, lx, ly in _labels(layout)
    )
    return (
        f'<svg xmlns="http://www.w3.org/2000/svg" role="img" aria-label="Plan of the kit from'
        f' above, drummer at the foot" viewBox="{x0:.1f} {-y1:.1f} {x1 - x0:.1f} {y1 - y0:.1f}">'
        f"{_rings(layout)}{parts}{seat}{mics}</svg>"
    )
