"""Every pair of mics on every drum: differences, sums, and one of five verdicts.

Shapes: P pairs of mics in the order of `numpy.triu_indices`, S sources. Differences are
the second mic minus the first: above zero, the second is later.

What is asked of a pair depends on what the two are to each other (:class:`Kind` of
:mod:`ringside.pairs.verdicts`). Verdicts, in the order they are asked:

- no matter: what the two can take from the drum in the mix is under `takes_db`, because one is
  far under the other or the others carry the drum; or one is a side, which is in both speakers
  with opposite signs and gone in mono;
- ask the ear: the sign of one is unsure (near a head's plane, in a null, or where a
  reflection may lead), they do not see the head alike, and a flip would be heard;
- hollow: flipping one gains `hollow_gain_db` of body or more (a cymbal has no body to lose);
- late: a dip lies inside the band this pair is judged in; or, for two of unlike jobs, the
  later one is heard as a second stroke;
- behind: two of unlike jobs are further apart than one event; the later is heard as distance;
- together: none of these.

The band depends on what the two are for. Two mics put up for one drum are judged up to its
punch, for they make one sound. A stereo pair that keeps snare and kick equal is judged on
those up to the attack; elsewhere in its picture, and when it is near-coincident, time is how
it tells left from right, and only its mono body counts. A mid and its side are judged as
decoded. Others can never be equal in time: what counts is polarity and how far one is behind.

All levels are those of the current balance: what is muted, or not recorded, takes nothing.

The worst verdict of a pair is taken over what the two are put up for: the job of each,
or snare and kick when both hear the whole kit. The rest is there to be opened.
"""

from dataclasses import dataclass, fields, replace
from functools import cached_property
from typing import Any, Final

import numpy as np
from numpy.typing import NDArray

from ringside.arrays import Floats, Ints, Mask, Signs
from ringside.errors import RingsideError
from ringside.hear.arrivals import Arrivals, arrivals
from ringside.hear.byair import Doubt
from ringside.hear.rays import Rays
from ringside.hear.scene import Scene, scene_of
from ringside.hear.sums import first_dip_hz, likeness, likeness_of, sums_db, turns_of
from ringside.pairs.kinds import judged, roles_of, with_band
from ringside.pairs.verdicts import WEIGHT, Facts, Kind, Verdict, verdicts
from ringside.plan.layout import Layout
from ringside.plan.thresholds import Thresholds

TOGETHER_M: Final = 0.05
"""Capsules nearer than this are at one point."""

TENTH: Final = 0.1
"""Of a wave of the fundamental: what is nearer hears one and the same first half-wave (from
memory)."""

ALIKE_DB: Final = 1.5
"""Two reflections whose strengths differ by less are one and the same (from memory)."""


@dataclass(frozen=True, kw_only=True)
class Pairs:
    """Pairs by sources, (P, S) unless said."""

    first: Ints  # (P,) index of the first mic
    second: Ints  # (P,)
    kind: Ints  # (P,) what the two are to each other
    tape_difference_m: Floats
    delay_s: Floats
    level_difference_db: Floats  # after gain
    ratio: Floats  # quieter over louder, after gain
    sign: Signs  # +1 equal, -1 opposite, 0 unsure
    raw_sign: Signs  # +1 or -1, with no doubt counted
    alike: Floats  # likeness of the two over the body band, signs apart, -1 to 1
    dip_hz: Floats  # the first dip inside the band judged, or the first of all
    band_high_hz: Floats  # up to where a dip counts; 0 where none does
    body_db: Floats
    flipped_body_db: Floats
    share: Floats  # of the energy of all that is heard of the source that the two could add
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
    doubt_m: Floats | None = None
    """One standard deviation of every difference of two ways, (P, S), metres, where it is known
    from what was measured; None where everything stands as planned, by tape."""

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

    @cached_property
    def kept(self) -> dict[str, Any]:
        """What other modules work out from this analysis once, by a name of theirs."""
        return {}

    @cached_property
    def flip_hollows(self) -> Mask:
        """Where a sure pair that is not hollow would be if one of the two were flipped, (P, S)."""
        p, limits = self.pairs, self.layout.thresholds
        fine = (p.verdict == Verdict.TOGETHER) | (p.verdict == Verdict.BEHIND)
        lost = p.body_db - p.flipped_body_db >= limits.hollow_gain_db
        judged = p.counts & ~Kind.DECODED.of(p.kind)[:, None] & self.scene.sources.drum
        return np.asarray(judged & fine & lost & (p.sign != 0))

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
    return Analysis(layout, scene, heard, pairs_of(layout, scene, heard))


def pairs_of(layout: Layout, scene: Scene, heard: Arrivals, rows: Ints | None = None) -> Pairs:
    """The pairs of a layout, or some of them, judged.

    Parameters
    ----------
    layout : Layout
    scene : Scene
        Of all its mics.
    heard : Arrivals
        Of all its mics: what a third one hears can cover two others.
    rows : ndarray of int or None
        The pairs by number; all of them where it is left out.

    Returns
    -------
    Pairs
    """
    s, every = scene.sources, roles_of(layout, scene)
    roles = every if rows is None else every.at(rows)
    first, second = roles.first, roles.second
    gain = heard.after_gain_db
    level = _between(gain, first, second)
    ways = heard.raw_sign.astype(np.int8)
    raw = ways.take(first, 0) * ways.take(second, 0)
    sure = _sure(scene, heard, first, second, layout.thresholds)
    alike = pair_alike(heard.rays, first, second, s.body_low, s.body_high)
    return judge(
        layout.thresholds,
        scene,
        Pairs(
            first=first,
            second=second,
            kind=roles.kind,
            tape_difference_m=_between(heard.tape_m, first, second),
            delay_s=_between(heard.time_s, first, second),
            level_difference_db=level,
            ratio=_ratio(level),
            sign=raw * sure,
            raw_sign=raw,
            alike=alike,
            dip_hz=np.empty(0),
            band_high_hz=judged(scene, roles),
            body_db=np.empty(0),
            flipped_body_db=np.empty(0),
            share=share_in_mix(scene, heard, first, second),
            verdict=np.empty(0, dtype=np.int8),
            counts=roles.counts,
        ),
    )


def _ratio(level_db: Floats) -> Floats:
    """Quieter over louder, of a difference in decibels."""
    under = np.abs(level_db)
    under *= -np.log(10) / 20
    return np.asarray(np.exp(under, out=under))


def _between(heard: Floats, first: Ints, second: Ints) -> Floats:
    """The second mic of each pair minus its first; `take` is a third of indexing's time."""
    between = heard.take(second, 0)
    between -= heard.take(first, 0)
    return between


def share_in_mix(scene: Scene, heard: Arrivals, first: Ints, second: Ints) -> Floats:
    """How much the two of each pair could add to, or take from, what is heard of each source.

    Parameters
    ----------
    scene : Scene
    heard : Arrivals
    first, second : ndarray of int, shape (P,)
        Mics by number.

    Returns
    -------
    ndarray, shape (P, S)
        2ab/E, E being the energy of all that is heard; 0 to 1.
    """
    amplitude = np.where(scene.heard[:, None], 10 ** (heard.after_gain_db / 20), 0.0)
    every = np.maximum((amplitude**2).sum(axis=0), 1e-30)
    part = amplitude * np.sqrt(2 / every)
    share: Floats = part.take(first, 0)
    share *= part.take(second, 0)
    return share


def judge(limits: Thresholds, scene: Scene, p: Pairs) -> Pairs:
    """Pairs with what follows from their signs and levels: sums, dips and verdicts.

    Parameters
    ----------
    limits : Thresholds
    scene : Scene
    p : Pairs

    Returns
    -------
    Pairs
    """
    s = scene.sources
    body, flipped_body = sums_db(p.ratio, p.raw_sign, p.alike)
    dip, dips = _dips(s.body_low, p)
    gain = flipped_body - body
    facts = Facts(
        p.kind[:, None],
        s.drum,
        p.level_difference_db,
        p.share,
        p.alike,
        p.delay_s,
        p.sign,
        gain,
        dips,
    )
    return replace(
        p,
        dip_hz=dip,
        body_db=body,
        flipped_body_db=flipped_body,
        verdict=verdicts(limits, facts),
    )


def _dips(low: Floats, p: Pairs) -> tuple[Floats, Mask]:
    """The first dip inside the band judged, or the first of all, and whether it is inside."""
    dip = first_dip_hz(p.delay_s, p.raw_sign)
    inside = np.zeros(dip.shape, dtype=bool)
    rows = with_band(p.kind)
    # Decoded, a mid and its side are added in one speaker and set against each other in the other.
    sign = np.where(Kind.DECODED.of(p.kind[rows, None]), 0, p.sign[rows])
    found = first_dip_hz(p.delay_s[rows], sign, low)
    within = found <= p.band_high_hz[rows]
    inside[rows] = within
    dip[rows] = np.where(within, found, dip[rows])
    return dip, inside


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
    turn = rays.turn
    ahead = turn[second, source] - turn[first, source]
    alike = likeness(t[second, source] - t[first, source] + later, low, high, ahead)
    rows = np.flatnonzero(rays.several[first] | rays.several[second])
    if len(rows) == 0:
        return alike
    begin, of, one, two = rays.every_two(first[rows], second[rows])
    at = rows[of]
    src = source[at]
    gap = t[two, src] - t[one, src] + later[at]
    ahead = turn[two, src] - turn[one, src]
    like = likeness(gap, low[at], high[at], ahead)
    terms = rays.weight[one, src] * rays.weight[two, src] * like
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
    turns = turns_of(rays.time_s, low, high, rays.turn, rays.weight)
    rows = np.flatnonzero(rays.several[first] | rays.several[second])
    if len(rows) == 0:
        return likeness_of(turns, first, second)
    begin, _, one, two = rays.every_two(first[rows], second[rows])
    both = likeness_of(turns, np.concatenate([first, one]), np.concatenate([second, two]))
    alike = both[: len(first)]
    alike[rows] = np.add.reduceat(both[len(first) :], begin)
    return alike


def _sure(scene: Scene, heard: Arrivals, first: Ints, second: Ints, limits: Thresholds) -> Mask:
    """Whether the two first half-waves can be compared, (P, S).

    They can where both are sure. Where they are not, the two may still be alike: near the plane
    of a head, seen from one side at one angle with what surfaces send alike; or at one point as the
    drum's first half-wave measures it, with the same doubt about both, for then whatever turns
    one over turns the other. A reflection at one of them alone, or unlike at both, leaves doubt.
    """
    known = heard.sign != 0
    reflected = (heard.doubt & int(Doubt.REFLECTION)) > 0
    plain = ~heard.null & ~heard.by_surface
    # What cannot be compared is not a number, and so equals nothing.
    seen = np.where(plain, heard.face_side + 4.0 * heard.inside + 8.0 * reflected, np.nan)
    heads_alike = seen.take(first, 0) == seen.take(second, 0)
    apart = _between(heard.axis_angle_rad, first, second)
    heads_alike &= np.abs(apart, out=apart) < np.deg2rad(limits.same_angle_deg)
    heads_alike &= ~_reflected_unlike(scene, heard, reflected, first, second)
    sure = heads_alike | (known.take(first, 0) & known.take(second, 0))
    rows, at_one = _one_point(scene, heard, first, second)
    sure[rows] |= at_one
    return np.asarray(sure)


def _reflected_unlike(
    scene: Scene, heard: Arrivals, reflected: Mask, first: Ints, second: Ints
) -> Mask:
    """Where a reflection comes later or stronger at one of two mics than at the other, (P, S)."""
    unlike = reflected.take(first, 0) & reflected.take(second, 0)
    row, k = np.divmod(np.flatnonzero(unlike), unlike.shape[1])
    late, under = heard.turner[:, second[row], k] - heard.turner[:, first[row], k]
    turns = np.abs(late) * scene.sources.fundamental_hz[k]
    unlike[row, k] = (turns >= TENTH) | (np.abs(under) >= ALIKE_DB)
    return np.asarray(unlike)


def _one_point(scene: Scene, heard: Arrivals, first: Ints, second: Ints) -> tuple[Ints, Mask]:
    """The pairs that are near enough for some source, and where one doubt is about both of them."""
    gap = _between(scene.capsule, first, second)
    apart = np.sqrt(np.einsum("pi,pi->p", gap, gap))
    near = np.maximum(TENTH * scene.speed / scene.sources.fundamental_hz, TOGETHER_M)
    rows = np.flatnonzero(apart < near.max(initial=0.0))
    doubts = np.where(heard.null, np.nan, heard.doubt + 8.0 * heard.by_surface)
    same = doubts[first[rows]] == doubts[second[rows]]
    return rows, (apart[rows, None] < near) & same


def flipped(analysis: Analysis, mic: int) -> tuple[Ints, Pairs]:
    """The pairs of a mic as they would be with one more flip on it; no other pair changes.

    Their two body sums change places, and only dips and verdicts are asked anew.

    Parameters
    ----------
    analysis : Analysis
    mic : int
        Its number in the layout.

    Returns
    -------
    (ndarray of int, Pairs)
        Their rows in the analysis, and those pairs.
    """
    p = analysis.pairs
    rows = np.flatnonzero((p.first == mic) | (p.second == mic))
    own = Pairs(**{f.name: getattr(p, f.name)[rows] for f in fields(Pairs)})
    turned = replace(own, sign=-own.sign, raw_sign=-own.raw_sign)
    return rows, judge(analysis.layout.thresholds, analysis.scene, turned)
