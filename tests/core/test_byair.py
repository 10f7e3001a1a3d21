"""What is kept of a layout's air is that layout's own, to the last digit, and nobody writes to it.

Nothing outside says what a kept answer should be: it is set against the one worked out afresh.
"""

from dataclasses import fields

import numpy as np
import pytest
from ringside.hear import byair
from ringside.hear.arrivals import Arrivals
from ringside.hear.rays import Rays
from ringside.pairs.analysis import analyse
from ringside.places.starts import starting_layout
from ringside.plan.hanging import with_tracks
from ringside.plan.layout import Air, Layout
from ringside.plan.room import Gobo, Room

PLAIN = with_tracks(starting_layout("five-piece", "turned pair")).model_copy(
    update={"room": Room(name="R", width_m=5, length_m=6, height_m=2.6, kit_x_m=2.2, kit_y_m=2)}
)


def same(one: object, other: object) -> bool:
    """Whether two records of arrays hold the same, to the last digit."""
    for f in fields(one):
        a, b = getattr(one, f.name), getattr(other, f.name)
        if isinstance(a, Rays):
            if not same(a, b):
                return False
        elif isinstance(a, np.ndarray) and not np.array_equal(a, b):
            return False
    return True


def mic(name: str, **more: object) -> Layout:
    mics = tuple(m.model_copy(update=more) if m.id == name else m for m in PLAIN.mics)
    return PLAIN.model_copy(update={"mics": mics})


def track(**more: object) -> Layout:
    first, *rest = PLAIN.channels
    return PLAIN.model_copy(update={"channels": (first.model_copy(update=more), *rest)})


def kit(**more: object) -> Layout:
    snare, *rest = PLAIN.kit.drums
    drums = (snare.model_copy(update=more), *rest)
    return PLAIN.model_copy(update={"kit": PLAIN.kit.model_copy(update={"drums": drums})})


def room(**more: object) -> Layout:
    return PLAIN.model_copy(update={"room": PLAIN.room.model_copy(update=more)})


CHANGED = {
    "a mic a millimetre off": mic("OL", position_m=(-0.5, 0.401, 1.7)),
    "aimed elsewhere": mic("OL", aim=(0.0, 0.6, -0.8)),
    "another pattern": mic("OL", pattern="omni"),
    "another role": mic("T1", role="room"),
    "a low cut": track(low_cut_hz=120.0),
    "warmer": PLAIN.model_copy(update={"air": Air(temperature_c=30)}),
    "a lower ceiling": room(height_m=2.1),
    "a gobo": room(
        gobos=(Gobo(name="G", x_m=2.2, y_m=2.3, width_m=2, height_m=1.5, turn_rad=0.7),)
    ),
    "another drum": kit(diameter_m=0.3),
    "another limit": PLAIN.model_copy(
        update={"thresholds": PLAIN.thresholds.model_copy(update={"head_plane_deg": 44.0})}
    ),
    "delayed": track(track_delay_samples=96),
    "flipped": track(track_flip=True),
}


@pytest.mark.parametrize("change", CHANGED)
def test_after_another_layout_it_is_told_as_if_that_had_never_been_asked(change):
    analyse(PLAIN)
    after = analyse(CHANGED[change]).arrivals
    byair._kept.cache_clear()
    alone = analyse(CHANGED[change]).arrivals
    assert same(after, alone)
    assert not same(alone, analyse(PLAIN).arrivals)  # the change is one that is heard


def test_what_only_the_track_changes_is_not_worked_out_again():
    byair._kept.cache_clear()
    for name in ("delayed", "flipped"):
        analyse(CHANGED[name])
    assert byair._kept.cache_info().misses == 1


def test_nobody_writes_to_what_others_are_given():
    found: Arrivals = analyse(PLAIN).arrivals
    with pytest.raises(ValueError, match="read-only"):
        found.path_m[0, 0] = 1.0
