"""Every pair of mics on every drum: differences, sums, and one of five verdicts.

Shapes: P pairs of mics in the order of `numpy.triu_indices`, S sources. Differences are
the second mic minus the first: above zero, the second is later.

Verdicts, in the order they are asked:

- no matter: after gain the two are too far apart in level for a comb to be heard, or both
  hear the drum only as bleed that a third mic covers;
- ask the ear: the sign of one is unsure (near a head's plane, in a null, or where a
  reflection may lead), and they do not see the head alike;
- hollow: flipping one gains `hollow_gain_db` of body or more (a cymbal has no body to
  lose, so it is only ever late);
- late: a dip lies inside the band this pair is judged in;
- together: none of these.

The band depends on what the two are for. A stereo pair makes one picture and is judged up
to the drum's attack; two mics with the same job up to its punch; others can never be
equal in time and are judged by body alone.

The worst verdict of a pair is taken over what the two are put up for: the job of each,
or snare and kick when both hear the whole kit. The rest is there to be opened.
"""

from dataclasses import dataclass, replace
from functools import cached_property, lru_cache

import numpy as np
from numpy.typing import NDArray

from ringside.arrays import Floats, Ints, Mask
from ringside.errors import RingsideError
from ringside.hear.arrivals import Arrivals, Doubt, Rays, arrivals
from ringside.hear.scene import Scene, scene_of
from ringside.hear.sums import first_dip_hz, likeness, sum_db
from ringside.pairs.verdicts import WEIGHT, verdicts
from ringside.plan.layout import Layout
from ringside.plan.thresholds import Thresholds


@dataclass(frozen=True, kw_only=True)
class Pairs:
    """Pairs by sources, (P, S) unless said."""

    first: Ints  # (P,) index of the first mic
    second: Ints  # (P,)
    tape_difference_m: Floats
    delay_s: Floats
    level_difference_db: Floats  # after gain
    ratio: Floats  # quieter over louder, after gain
    sign: Ints  # +1 equal, -1 opposite, 0 unsure
    raw_sign: Ints  # +1 or -1, with no doubt counted
    alike: Floats  # likeness of the two over the body band, signs apart, -1 to 1
    dip_hz: Floats  # the first dip inside the band judged, or the first of all
    band_high_hz: Floats  # top of the band judged
    body_db: Floats
    flipped_body_db: Floats
    under_db: Floats  # how far the louder of the two is under the drum's own mic
    verdict: NDArray[np.int8]
    counts: Mask  # the sources that the pair's worst is taken over

    @property
    def worst(self) -> NDArray[np.int8]:
        """The verdict of each pair that wants most attention, (P,)."""
        return np.asarray(np.where(self.counts, self.verdict, 0).max(axis=1))


@dataclass(frozen=True)
class Analysis:
    """A layout with everything computed from it."""

    layout: Layout
    scene: Scene
    arrivals: Arrivals
    pairs: Pairs

    @cached_property
    def worst_source(self) -> Ints:
        """The source that gives a pair its worst verdict; the loudest of several, (P,)."""
        p, a = self.pairs, self.arrivals.after_gain_db
        loud = np.maximum(a[p.first], a[p.second])
        rank = p.verdict * 1000.0 + np.maximum(loud, -900)
        return np.asarray(np.where(p.counts, rank, -np.inf).argmax(axis=1))

    def find(self, a: str, b: str, source: str | None = None) -> tuple[int, bool, int]:
        """Row of a pair, whether it was named the other way round, and the source by number.

        Without a source the pair's worst. Raises RingsideError for names that are not there.

        Parameters
        ----------
        a : str
            Short name of a mic.
        b : str
            Short name of the other.
        source : str or None
            Short name of a drum or cymbal; the worst one of the pair where it is left
            out.

        Returns
        -------
        (int, bool, int)
            Row, whether turned round, number of the source.
        """
        ids = [m.id for m in self.layout.mics]
        if a == b or a not in ids or b not in ids:
            raise RingsideError(f"expected two mics of this layout, got {a!r} and {b!r}")
        row, turned = self.pair_index(a, b)
        k = int(self.worst_source[row]) if source is None else self.source_index(source)
        return row, turned, k

    def source_index(self, source: str) -> int:
        """A drum or cymbal by number; RingsideError when it is not in the kit.

        Parameters
        ----------
        source : str
            Short name of a drum or cymbal.

        Returns
        -------
        int
        """
        if source not in self.scene.sources.ids:
            raise RingsideError(f"expected a drum or cymbal of the kit, got {source!r}")
        return self.scene.sources.ids.index(source)

    @cached_property
    def trouble(self) -> Floats:
        """How much the pairs of each mic want attention, by `WEIGHT` of their worst, (M,)."""
        weight = np.array([WEIGHT[v] for v in sorted(WEIGHT)])[self.pairs.worst]
        count = len(self.layout.mics)
        first = np.bincount(self.pairs.first, weight, count)
        second = np.bincount(self.pairs.second, weight, count)
        return np.asarray(first + second, dtype=np.float64)

    def pair_index(self, a: str, b: str) -> tuple[int, bool]:
        """Row of a pair, and whether it was named the other way round.

        Parameters
        ----------
        a : str
            Short name of a mic.
        b : str
            Short name of the other.

        Returns
        -------
        (int, bool)
            Row, whether turned round.
        """
        ids = [m.id for m in self.layout.mics]
        i, j = ids.index(a), ids.index(b)
        swapped = i > j
        i, j = min(i, j), max(i, j)
        m = len(ids)
        return i * m - i * (i + 1) // 2 + (j - i - 1), swapped


@lru_cache(maxsize=32)
def _index(m: int) -> tuple[Ints, Ints]:
    i, j = np.triu_indices(m, 1)
    return i.astype(np.int64), j.astype(np.int64)


def analyse(layout: Layout) -> Analysis:
    """Compute everything for a layout.

    Examples
    --------
    >>> from ringside.places.starts import starting_layout
    >>> analyse(starting_layout("five-piece", "turned pair")).pairs.verdict.shape
    (45, 9)

    Parameters
    ----------
    layout : Layout

    Returns
    -------
    Analysis
    """
    scene = scene_of(layout)
    heard = arrivals(scene, layout.thresholds)
    return Analysis(layout, scene, heard, _pairs(layout, scene, heard))


def judged(layout: Layout, scene: Scene, first: Ints, second: Ints) -> Floats:
    """Top of the band each pair is judged in on each source, hertz.

    Parameters
    ----------
    layout : Layout
    scene : Scene
    first, second : ndarray of int, shape (P,)
        The mics of each pair by number.

    Returns
    -------
    ndarray, shape (P, S)
        Hertz; 0 on cymbals, which have no body.
    """
    s = scene.sources
    top = np.broadcast_to(np.where(s.drum, s.body_high, 0.0), (len(first), len(s.ids)))
    job = scene.job
    same = (job[first] == job[second])[:, None]
    own = job[first][:, None] == np.arange(len(s.ids))
    top = np.where(same & own, s.punch_high, top)
    stereo = np.zeros(len(first), bool)
    ids = {m.id: k for k, m in enumerate(layout.mics)}
    couples = {frozenset((ids[p.left], ids[p.right])) for p in layout.stereo_pairs}
    for a, b in (sorted(c) for c in couples):
        stereo |= (first == a) & (second == b)
    return np.asarray(np.where(stereo[:, None], s.attack_high, top))


def _pairs(layout: Layout, scene: Scene, heard: Arrivals) -> Pairs:
    first, second = _index(len(layout.mics))
    s = scene.sources
    delay = heard.time_s[second] - heard.time_s[first]
    gain = heard.after_gain_db
    level = gain[second] - gain[first]
    ratio = 10 ** (-np.abs(level) / 20)
    raw = heard.raw_sign[first] * heard.raw_sign[second]
    sign = np.where(_sure(heard, first, second, layout.thresholds), raw, 0)
    high = judged(layout, scene, first, second)
    dip = first_dip_hz(delay, raw, s.body_low)
    alike = pair_alike(heard.rays, first, second, s.body_low, s.body_high)
    body, flipped = sum_db(ratio, raw, alike), sum_db(ratio, -raw, alike)
    best = np.minimum(gain.max(axis=0, initial=-np.inf), 0.0)
    under = best - np.maximum(gain[first], gain[second])
    flip_gain = np.where(s.drum, flipped - body, 0.0)
    return Pairs(
        first=first,
        second=second,
        tape_difference_m=heard.tape_m[second] - heard.tape_m[first],
        delay_s=delay,
        level_difference_db=level,
        ratio=ratio,
        sign=sign,
        raw_sign=raw,
        alike=alike,
        dip_hz=np.where(dip <= high, dip, first_dip_hz(delay, raw)),
        band_high_hz=high,
        body_db=body,
        flipped_body_db=flipped,
        under_db=under,
        verdict=verdicts(
            layout.thresholds, level, under, np.where(s.drum, sign, 1), flip_gain, dip <= high
        ),
        counts=_carried(scene, first, second),
    )


def alike_at(
    rays: Rays, first: Ints, second: Ints, source: Ints, low: Floats, high: Floats,
    shift_s: Floats | float = 0.0,
) -> Floats:  # fmt: skip
    """How alike two mics are on a source over a band, their signs apart, (N,).

    Parameters
    ----------
    rays : Rays
    first, second, source : ndarray, shape (N,)
        Mics and sources by number.
    low, high : ndarray, shape (N,)
        The band, hertz; weights are scaled to the body band.
    shift_s : float or ndarray, shape (N,)
        What the second mic is later by than it stands.

    Returns
    -------
    ndarray, shape (N,)
        -1 to 1.
    """
    t = rays.time_s
    later = np.broadcast_to(np.asarray(shift_s, dtype=float), first.shape)
    alike = likeness(t[second, source] - t[first, source] + later, low, high)
    rows = np.flatnonzero(rays.several[first] | rays.several[second])
    if len(rows) == 0:
        return alike
    order, start, count = rays.by_mic
    a, b = first[rows], second[rows]
    many = count[a] * count[b]
    begin = np.concatenate([[0], np.cumsum(many)[:-1]])
    of = np.repeat(np.arange(len(rows)), many)
    k = np.arange(len(of)) - begin[of]
    one = order[start[a][of] + k // count[b][of]]
    two = order[start[b][of] + k % count[b][of]]
    at = rows[of]
    src = source[at]
    gap = t[two, src] - t[one, src] + later[at]
    terms = rays.weight[one, src] * rays.weight[two, src] * likeness(gap, low[at], high[at])
    alike[rows] = np.add.reduceat(terms, begin)
    return alike


def pair_alike(rays: Rays, first: Ints, second: Ints, low: Floats, high: Floats) -> Floats:
    """`alike_at` for pairs on every source.

    Parameters
    ----------
    rays : Rays
    first, second : ndarray of int, shape (P,)
        Mics by number.
    low, high : ndarray, shape (S,)
        The band of each source, hertz.

    Returns
    -------
    ndarray, shape (P, S)
        -1 to 1.
    """
    t = rays.time_s
    alike = likeness(t[second] - t[first], low, high)
    rows = np.flatnonzero(rays.several[first] | rays.several[second])
    if len(rows):
        n = len(low)
        k = np.tile(np.arange(n), len(rows))
        a, b = np.repeat(first[rows], n), np.repeat(second[rows], n)
        alike[rows] = alike_at(rays, a, b, k, low[k], high[k]).reshape(len(rows), n)
    return alike


def _sure(heard: Arrivals, first: Ints, second: Ints, limits: Thresholds) -> Mask:
    """Whether the two first half-waves can be compared, (P, S)."""
    both = (heard.sign[first] != 0) & (heard.sign[second] != 0)
    apart = np.abs(heard.axis_angle_rad[first] - heard.axis_angle_rad[second])
    alike = (
        (heard.face_side[first] == heard.face_side[second])
        & (apart < np.deg2rad(limits.same_angle_deg))
        & (heard.doubt[first] <= Doubt.HEAD_PLANE)
        & (heard.doubt[second] <= Doubt.HEAD_PLANE)
    )
    return np.asarray(both | alike)


def _carried(scene: Scene, first: Ints, second: Ints) -> Mask:
    """The sources a pair is put up for, (P, S)."""
    job, every = scene.job, np.arange(len(scene.sources.ids))
    own = (job[first][:, None] == every) | (job[second][:, None] == every)
    whole = (job[first] < 0) & (job[second] < 0)
    return np.asarray(own | (whole[:, None] & scene.sources.reference))


def flipped(analysis: Analysis, mic: int) -> Pairs:
    """The pairs as they would be with one more flip on a mic.

    A flip turns the signs of that mic's pairs and nothing else, so their two body sums
    change places and only dips and verdicts are asked anew.

    Parameters
    ----------
    analysis : Analysis
    mic : int
        Its number in the layout.

    Returns
    -------
    Pairs
    """
    p, s = analysis.pairs, analysis.scene.sources
    touched = ((p.first == mic) | (p.second == mic))[:, None]
    turn = np.where(touched, -1, 1)
    raw, sign = p.raw_sign * turn, p.sign * turn
    body = np.where(touched, p.flipped_body_db, p.body_db)
    other = np.where(touched, p.body_db, p.flipped_body_db)
    dip = first_dip_hz(p.delay_s, raw, s.body_low)
    return replace(
        p,
        sign=sign,
        raw_sign=raw,
        body_db=body,
        flipped_body_db=other,
        dip_hz=np.where(dip <= p.band_high_hz, dip, first_dip_hz(p.delay_s, raw)),
        verdict=verdicts(
            analysis.layout.thresholds,
            p.level_difference_db,
            p.under_db,
            np.where(s.drum, sign, 1),
            np.where(s.drum, other - body, 0.0),
            dip <= p.band_high_hz,
        ),
    )
