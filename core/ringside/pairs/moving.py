"""One mic moved: the analysis, from what was known of the layout before.

What a mic hears depends on no other mic, so all the others keep what they heard, and of the pairs
only its own are added up anew; all are judged again, for it is part of what covers the others.
"""

from dataclasses import fields, replace

import numpy as np

from ringside.arrays import Ints
from ringside.hear.arrivals import Arrivals, arrivals
from ringside.hear.rays import Rays
from ringside.hear.scene import scene_with
from ringside.pairs.analysis import Analysis, Pairs, judge, pairs_of, share_in_mix
from ringside.plan.layout import Layout


def moved(before: Analysis, layout: Layout, mic: int) -> Analysis:
    """The analysis of a layout in which one mic has moved.

    Parameters
    ----------
    before : Analysis
        Of the layout as it was.
    layout : Layout
        As it is now; only this one mic differs, and only in where it stands and points.
    mic : int
        Its number.

    Returns
    -------
    Analysis
        That of the whole layout; but `screens` of its arrivals is left out.
    """
    scene = scene_with(before.scene, mic, layout.mics[mic])
    heard = _with_mic(before.arrivals, mic, heard_alone(before, layout, mic))
    was = before.pairs
    own = np.flatnonzero((was.first == mic) | (was.second == mic))
    anew = pairs_of(layout, scene, heard, own)
    pairs = Pairs(**{f.name: _put(was, anew, f.name, own) for f in fields(Pairs)})
    # It is part of all that is heard of a drum: what counts for the others is asked again.
    share = share_in_mix(scene, heard, was.first, was.second)
    pairs = judge(layout.thresholds, scene, replace(pairs, share=share))
    return Analysis(layout, scene, heard, pairs)


def heard_alone(before: Analysis, layout: Layout, mic: int) -> Arrivals:
    """What one mic hears where it is now, the others left out: that hangs on none of them.

    Parameters
    ----------
    before : Analysis
    layout : Layout
    mic : int
        As for `moved`.

    Returns
    -------
    Arrivals
        Of one mic, by source.
    """
    return arrivals(scene_with(before.scene, mic, layout.mics[mic], alone=True), layout.thresholds)


def _put(was: Pairs, anew: Pairs, name: str, rows: Ints) -> np.ndarray:
    """A field of all pairs, with some of them put anew."""
    every: np.ndarray = getattr(was, name).copy()
    every[rows] = getattr(anew, name)
    return every


def _with_mic(every: Arrivals, mic: int, one: Arrivals) -> Arrivals:
    """What all mics hear, with one of them heard anew."""
    new = {
        f.name: _row_put(getattr(every, f.name), mic, getattr(one, f.name))
        for f in fields(Arrivals)
        if f.name not in ("turner", "screens", "rays")
    }
    turner = every.turner.copy()
    turner[:, mic] = one.turner[:, 0]
    rays = _rays_with(every.rays, mic, one.rays)
    return replace(every, **new, turner=turner, screens=None, rays=rays)


def _row_put(every: np.ndarray, mic: int, one: np.ndarray) -> np.ndarray:
    new = every.copy()
    new[mic] = one[0]
    return new


def _rays_with(every: Rays, mic: int, one: Rays) -> Rays:
    """The straight rays in their places, what surfaces send to this mic after all the others."""
    count = len(every.several)
    keep = (every.mic != mic) | (np.arange(len(every.mic)) < count)

    def put(all_of: np.ndarray, of_one: np.ndarray) -> np.ndarray:
        new = np.concatenate([all_of[keep], of_one[1:]])
        new[mic] = of_one[0]
        return new

    return Rays(
        mic=put(every.mic, np.full(len(one.mic), mic)),
        time_s=put(every.time_s, one.time_s),
        weight=put(every.weight, one.weight),
        turn=put(every.turn, one.turn),
        several=_row_put(every.several, mic, one.several),
    )
