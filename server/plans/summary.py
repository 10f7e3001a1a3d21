"""What the list of sessions shows of a layout without analysing it again."""

from dataclasses import asdict
from typing import Any

from ringside.pairs.analysis import analyse
from ringside.pairs.counts import counts
from ringside.plan.layout import Layout


def summary_of(layout: Layout) -> dict[str, Any]:
    """Verdict counts and a sketch in metres, stored beside each layout when it is saved."""
    return {
        "counts": asdict(counts(analyse(layout))),
        "drums": [
            {"x": d.batter_m[0], "y": d.batter_m[1], "r": d.diameter_m / 2, "kind": d.kind,
             "depth": d.depth_m, "ax": d.axis[0], "ay": d.axis[1]}
            for d in layout.kit.drums
        ],
        "cymbals": [
            {"x": c.centre_m[0], "y": c.centre_m[1], "r": c.diameter_m / 2}
            for c in layout.kit.cymbals
        ],
        "mics": [
            {"id": m.id, "x": m.position_m[0], "y": m.position_m[1], "role": m.role}
            for m in layout.mics
        ],
    }  # fmt: skip
