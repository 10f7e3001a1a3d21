"""Which of the locker's mics and stands hold a layout's places: a first suggestion.

Each mic without a model takes the first that suits its technique, can be set to its pattern
and is not used up; the two of a stereo pair take two alike. A close cardioid may take a tighter
mic. Mics of one technique near each other share a stand on a bar; what lies on the floor or in
the kick on a pillow needs none.
"""

from collections import Counter
from dataclasses import dataclass
from typing import Final

import numpy as np

from ringside.gear.airjet import in_jet
from ringside.gear.locker import Locker, MicModel, StandModel
from ringside.gear.stands import base_for
from ringside.plan.layout import Layout, Taken
from ringside.plan.mics import Mic, Pattern
from ringside.techniques.catalogue import TECHNIQUES

ON_A_BAR_M: Final = 0.45
TIGHTER: Final[tuple[Pattern, ...]] = ("cardioid", "supercardioid", "hypercardioid")


@dataclass(frozen=True)
class Outfit:
    """A layout with models and stands, and the mics that found none."""

    layout: Layout
    no_mic: tuple[str, ...]
    no_stand: tuple[str, ...]


def _patterns(mic: Mic) -> tuple[Pattern, ...]:
    if mic.role == "close" and mic.pattern in TIGHTER:
        return (mic.pattern, *(p for p in TIGHTER if p != mic.pattern))
    return (mic.pattern,)


def _fits(model: MicModel, mic: Mic, layout: Layout) -> Pattern | None:
    """The pattern a model would be set to for a place, or None."""
    if model.kind == "boundary":
        if mic.pattern != "omni" or mic.position_m[2] > 0.35:
            return None
        return mic.pattern if "omni" in model.patterns else model.patterns[0]
    if model.fragile and (in_jet(mic, layout) or mic.role == "close"):
        return None
    return next((p for p in _patterns(mic) if p in model.patterns), None)


def _ranked(
    models: tuple[MicModel, ...], left: Counter[str], wants: tuple[str, ...], mic: Mic,
    layout: Layout, count: int,
) -> list[tuple[MicModel, Pattern]]:  # fmt: skip
    liked_first = []
    for at, model in enumerate(models):
        pattern = _fits(model, mic, layout)
        if pattern is None or left[model.id] < count:
            continue
        liked = wants.index(model.kind) if model.kind in wants else len(wants)
        pair = 0 if count == 1 or model.matched else 1
        liked_first.append(((liked, pair, pattern != mic.pattern, at), model, pattern))
    return [(m, p) for _, m, p in sorted(liked_first, key=lambda r: r[0])]


def _couples(layout: Layout, kept: Taken) -> list[tuple[str, ...]]:
    """A technique's mics, the two of a stereo pair together."""
    pairs = [(p.left, p.right) for p in layout.stereo_pairs if p.left in kept.mics]
    paired = {m for p in pairs for m in p}
    mid_side = {p for p in pairs if layout.mic(p[0]).pattern != layout.mic(p[1]).pattern}
    whole = [p for p in pairs if p not in mid_side]
    singles = [(m,) for m in kept.mics if m not in paired]
    return [*whole, *((m,) for p in mid_side for m in p), *singles]


def outfit(layout: Layout, locker: Locker, only: frozenset[str] | None = None) -> Outfit:
    """Models and stands for the mics of techniques that have none.

    Parameters
    ----------
    only : frozenset of str, optional
        Techniques in use to look at; all of them when not given.

    Returns
    -------
    Outfit
        ``no_mic`` and ``no_stand`` name the mics the locker has nothing left for. A locker
        without mics (or stands) is not asked for any.
    """
    left = Counter({m.id: m.count for m in locker.mics})
    left.subtract(Counter(m.model for m in layout.mics if m.model))
    stands = Counter({s.id: s.count for s in locker.stands})
    stands.subtract(Counter(m.stand for m in layout.mics if m.stand))
    no_mic: list[str] = []
    no_stand: list[str] = []
    for kept in layout.techniques:
        if only is not None and kept.id not in only:
            continue
        if locker.mics:
            layout = _give_models(layout, kept, locker, left, no_mic)
        if locker.stands:
            layout = _give_stands(layout, kept, locker, stands, no_stand)
    return Outfit(layout, tuple(no_mic), tuple(no_stand))


def _give_models(
    layout: Layout, kept: Taken, locker: Locker, left: Counter[str], lacking: list[str]
) -> Layout:
    t = TECHNIQUES.get(kept.technique)
    wants: tuple[str, ...] = t.wants if t else ("condenser",)
    for group in _couples(layout, kept):
        bare = [layout.mic(m) for m in group if layout.mic(m).model is None]
        if not bare:
            continue
        ranked = _ranked(locker.mics, left, wants, bare[0], layout, len(bare))
        if not ranked:
            lacking.extend(m.id for m in bare)
            continue
        model, pattern = ranked[0]
        for mic in bare:
            left[model.id] -= 1
            layout = layout.with_mic(mic.model_copy(update={"model": model.id, "pattern": pattern}))
    return layout


def needs_stand(layout: Layout, kept: Taken, mic: Mic, held: list[Mic]) -> bool:
    """Whether a mic of a technique wants a stand of its own, given those already held.

    Parameters
    ----------
    layout : Layout
    kept : Taken
        The technique in use.
    mic : Mic
    held : list of Mic
        Mics that have a stand already.

    Returns
    -------
    bool
    """
    t = TECHNIQUES.get(kept.technique)
    if mic.lies or (t is not None and t.id == "kick-boundary"):
        return False
    at = np.array(mic.position_m)
    return not any(np.linalg.norm(at - np.array(m.position_m)) < ON_A_BAR_M for m in held)


def _give_stands(
    layout: Layout, kept: Taken, locker: Locker, left: Counter[str], lacking: list[str]
) -> Layout:
    held: list[Mic] = []
    for id_ in kept.mics:
        mic = layout.mic(id_)
        if mic.stand is None and needs_stand(layout, kept, mic, held):
            stand = _stand(layout, mic, locker.stands, left)
            if stand is None:
                lacking.append(id_)
            else:
                left[stand.id] -= 1
                layout = layout.with_mic(mic.model_copy(update={"stand": stand.id}))
        held.append(layout.mic(id_))
    return layout


def _stand(
    layout: Layout, mic: Mic, stands: tuple[StandModel, ...], left: Counter[str]
) -> StandModel | None:
    """The lightest stand left that holds it with a free spot for its base."""
    for stand in sorted(stands, key=lambda s: (s.weight_kg, s.high_m, s.id)):
        if left[stand.id] > 0 and base_for(mic.position_m, stand, layout) is not None:
            return stand
    return None
