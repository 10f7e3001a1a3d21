"""Nulls and bleed: turn a mic's dead side to its loudest neighbour, slide it round the rim."""

from typing import Final

import numpy as np

from ringside.arrays import Floats
from ringside.fitting.equal import twins
from ringside.fitting.work import Work
from ringside.hear.scene import sources_of
from ringside.places.nulls import best_way, loudest_near, null_aim
from ringside.plan.drumframe import at_drum, face_of, side_of
from ringside.plan.kit import Drum
from ringside.plan.mics import PRESSURE_SHARE, Mic, directivity
from ringside.plan.spoken import the
from ringside.values import unit, vector

NULL_GAIN_DB: Final = 2.0
BLEED_GAIN_DB: Final = 1.5
OWN_LOSS_DB: Final = 3.0
"""What is worth a turn or a slide, and what the drum itself may lose by it (from memory)."""

ROOM_FLOOR: Final = 0.1
"""Twenty decibels: deeper in a null the room answers, so no more is hoped for (from memory)."""

SLIDE_H: Final = (-1.5, -1.0, -0.5, 0.5, 1.0, 1.5)
FAR_HALF_H: Final = 4.0
"""Hours either side of 12 that a mic may slide to: the drummer's side stays free."""


def _aimable(mic: Mic) -> bool:
    return mic.role == "close" and mic.job is not None and PRESSURE_SHARE[mic.pattern] <= 0.5


def turn_nulls(work: Work) -> None:
    """Turn each free close mic where that takes out enough and costs the drum little.

    Parameters
    ----------
    work : Work
        What is being fitted; it is changed in place.
    """
    for mic in work.layout.mics:
        if not _aimable(mic) or "aim" in mic.locks or mic.job is None:
            continue
        part = work.layout.kit.part(mic.job)
        if side_of(part, mic.position_m) == "inside":
            continue
        other = loudest_near(work.layout.kit, mic.position_m, mic.job)
        if other is None:
            continue
        answer = null_aim(work.layout, mic.id, other, work.ask.off_deg)
        if answer.taken_db >= NULL_GAIN_DB and answer.own_db <= OWN_LOSS_DB:
            turned = mic.model_copy(update={"aim": unit(answer.aim)})
            loud = the(work.layout.kit.part(other).name)
            work.layout = work.layout.with_mic(turned)
            work.why.setdefault(mic.id, []).append(
                f"null toward {loud}: {answer.taken_db:.1f} dB less of it"
            )


def _ratio_db(work: Work, mic: Mic, at: Floats, way: Floats, other: int, own: int) -> float:
    """The drum over its loudest neighbour at a place and aim, decibels, in straight lines."""
    src = sources_of(work.layout.kit)
    share = PRESSURE_SHARE[mic.pattern]

    def heard(k: int) -> float:
        to = src.strike[k] - at
        far = max(float(np.linalg.norm(to)), 0.02)
        r = abs(float(directivity(share, float(to @ way) / far)))
        return float(src.peak_db[k] + 20 * np.log10(max(r, ROOM_FLOOR) / far))

    return heard(own) - heard(other)


def lower_bleed(work: Work) -> None:
    """Slide the close mics of techniques round their rims while each slide is worth it.

    Parameters
    ----------
    work : Work
        What is being fitted; it is changed in place.
    """
    paired = {m.id for pair in twins(work) for m in pair[:2]}
    for mic in work.layout.mics:
        free = not set(mic.locks) - {"polarity"} and mic.id not in paired
        if not (_aimable(mic) and free and mic.job):
            continue
        part = work.layout.kit.part(mic.job)
        if isinstance(part, Drum) and part.kind != "kick":
            _slide(work, mic.id, part)


def _slide(work: Work, mic_id: str, drum: Drum) -> None:
    """Round the rim at the same height and way in, while each slide is worth it."""
    ids = sources_of(work.layout.kit).ids
    for _ in range(8):
        mic = work.layout.mic(mic_id)
        if side_of(drum, mic.position_m) == "inside":
            return
        at, way = np.array(mic.position_m), np.array(mic.aim)
        name = loudest_near(work.layout.kit, at, drum.id)
        if name is None:
            return
        other, own = ids.index(name), ids.index(drum.id)
        now = _ratio_db(work, mic, at, way, other, own)
        best: tuple[float, Floats, Floats] | None = None
        for spot, aim in _slides(work, mic, drum):
            if not work.fine(spot[None], mic)[0]:
                continue
            then_name = loudest_near(work.layout.kit, spot, drum.id) or name
            then = _ratio_db(work, mic, spot, aim, ids.index(then_name), own)
            if then - now >= BLEED_GAIN_DB and (best is None or then > best[0]):
                best = (then, spot, aim)
        if best is None:
            return
        moved = mic.model_copy(update={"position_m": vector(best[1]), "aim": unit(best[2])})
        work.layout = work.layout.with_mic(moved)
        work.why.setdefault(mic_id, []).append(
            f"round the rim: {best[0] - now:.1f} dB less of {the(work.layout.kit.part(name).name)}"
        )


def _slides(work: Work, mic: Mic, drum: Drum) -> list[tuple[Floats, Floats]]:
    """Other hours for a mic, each with the aim turned along and its null where it counts."""
    here = at_drum(drum, mic.position_m)
    face = face_of(drum, here.side)
    # Beside the shell a mic looks at the middle of it.
    middle = face.centre + face.out * (face.depth / 2 if here.side == "beside" else 0.0)
    home = _home(work, mic)
    if home is None:
        return []  # put there by hand, and left there
    found = []
    for step in SLIDE_H:
        then = (here.clock_h + step) % 12
        away = abs((then - home + 6) % 12 - 6)
        if min(then, 12 - then) > FAR_HALF_H + 1e-6 or away > max(SLIDE_H) + 1e-6:
            continue
        spot = face.spot(here.height_m, here.in_from_rim_m, then)
        turn = np.radians(30 * step)
        aim = _about(np.array(mic.aim), np.array(drum.axis), -turn)
        name = loudest_near(work.layout.kit, spot, drum.id)
        if "nulls" in work.ask.wishes and name:
            src = sources_of(work.layout.kit)
            k, own = src.ids.index(name), src.ids.index(drum.id)
            share = PRESSURE_SHARE[mic.pattern]
            aim = best_way(
                src.strike[own] - spot if here.side == "over" else middle - spot,
                src.strike[k] - spot, share, float(np.radians(work.ask.off_deg)),
            )  # fmt: skip
        found.append((spot, aim))
    return found


def _home(work: Work, mic: Mic) -> float | None:
    """The hour its technique gives a mic: a slide is counted from it and never goes far."""
    for kept in work.layout.techniques:
        if mic.id in kept.mics and "clock" in kept.numbers:
            return float(kept.numbers["clock"])
    return None


def _about(v: Floats, axis: Floats, turn: float) -> Floats:
    """A vector turned about an axis by an angle, radians (Rodrigues)."""
    c, s = np.cos(turn), np.sin(turn)
    return np.asarray(v * c + np.cross(axis, v) * s + axis * float(axis @ v) * (1 - c))
