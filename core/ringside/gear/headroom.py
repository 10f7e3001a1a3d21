"""Whether a mic and its input take what they meet, and which of its pads would do.

What nobody has told of a mic is asked for, never guessed.
"""

from dataclasses import dataclass
from typing import Final, Literal

from ringside.gear.levels import SPREAD_DB, Peak, output_dbu, peaks
from ringside.gear.locker import InputBank, Locker, MicModel, bank_of
from ringside.plan.channels import Channel
from ringside.plan.feeds import feeds
from ringside.plan.layout import Layout
from ringside.plan.mics import Mic
from ringside.plan.spoken import the_first

State = Literal["fits", "hard hits", "overloads", "unknown"]
"""How it stands with the pads that are in: the last where the locker does not say enough."""

TOO_SOFT_DB: Final = 12.0
"""Short of gain by more than this, a mic is recorded too near the noise (from memory)."""


@dataclass(frozen=True, kw_only=True, slots=True)
class Headroom:
    """What a mic meets where it stands, and what it and its input take; decibels."""

    channel: str | None
    """None for a mic that is not recorded."""
    mic: str
    source: str
    """The loudest it hears."""
    peak_db: float
    spread_db: float
    limit_db: float | None
    output_dbu: float | None
    input: str | None
    input_limit_dbu: float | None
    noise_dbu: float | None
    """Of the input itself."""
    state: State
    pad_db: float | None
    """The smallest of its pads with which hard hits fit, or its largest; null for none needed."""
    pad_in: bool
    """That pad is in, or one as good."""
    over_db: float
    """What hard hits are over with that pad in; 0 when they fit."""
    gain_db: float | None
    """What leaves usual peaks `under_full_db` of the limits under full scale, with that pad in."""
    too_soft: bool
    """Its input has far less gain than that."""
    unknown: list[str]
    """What the locker does not say."""
    words: str


def headroom(layout: Layout, locker: Locker) -> list[Headroom]:
    """Every channel of the locker's mics, in the order of the mics.

    Parameters
    ----------
    layout : Layout
    locker : Locker

    Returns
    -------
    list of Headroom
    """
    models = {m.id: m for m in locker.mics}
    return [
        _of(layout, f.mic, c, peak, model, locker)
        for f, peak in zip(feeds(layout), peaks(layout), strict=True)
        if (model := models.get(f.mic.model or ""))
        for c in f.channels or (None,)
    ]


def _of(
    layout: Layout, mic: Mic, channel: Channel | None, peak: Peak, model: MicModel, locker: Locker,
) -> Headroom:  # fmt: skip
    part = layout.kit.parts[peak.source]
    bank = bank_of(locker, channel.input if channel else None)
    pads = (mic.pad_db or 0.0, (channel and channel.pad_db) or 0.0)
    over = _Over(peak, model, bank, pads, layout.thresholds.under_full_db)
    pad, left = over.pad()
    gain = over.gain(pad or 0.0)
    unknown = over.unknown()
    state = over.state()
    return Headroom(
        channel=channel.id if channel else None,
        mic=mic.id,
        source=part.id,
        peak_db=round(peak.middle_db, 1),
        spread_db=SPREAD_DB,
        limit_db=model.max_spl_db,
        output_dbu=None if over.output is None else round(over.output, 1),
        input=bank.name if bank else None,
        input_limit_dbu=bank.max_level_dbu if bank else None,
        noise_dbu=bank.noise_dbu if bank else None,
        state=state,
        pad_db=pad,
        pad_in=pad is not None and over.at_mic >= pad,
        over_db=round(left, 1),
        gain_db=None if gain is None else round(gain, 1),
        too_soft=over.short_of(gain) > TOO_SOFT_DB,
        unknown=unknown,
        words=" ".join(
            s for s in (_words(part.name, peak, over, state, pad, left), _gain(gain, over)) if s
        ),
    )


class _Over:
    """How far peaks are over what a mic and its input take, with no pad in at the mic."""

    def __init__(
        self, peak: Peak, model: MicModel, bank: InputBank | None, pads: tuple[float, float],
        under_full: float,
    ) -> None:  # fmt: skip
        self.model, self.bank, self.under_full = model, bank, under_full
        self.at_mic, self.at_input = pads
        known = model.sensitivity_mv_pa
        self.output = None if known is None else output_dbu(peak.middle_db, known)
        most = bank.max_level_dbu if bank else None
        self.capsule = None if model.max_spl_db is None else peak.middle_db - model.max_spl_db
        self.input = (
            None if self.output is None or most is None else self.output - self.at_input - most
        )

    @property
    def bare(self) -> float | None:
        """Of a usual peak, at whichever is short first, with no pad in at the mic."""
        return max((v for v in (self.capsule, self.input) if v is not None), default=None)

    @property
    def most(self) -> float | None:
        """The same with the pads that are in."""
        return None if self.bare is None else self.bare - self.at_mic

    def state(self) -> State:
        if self.most is None:
            return "unknown"
        if self.most > 0:
            return "overloads"
        if self.most + SPREAD_DB > 0:
            return "hard hits"
        return "fits" if self.capsule is not None else "unknown"

    def pad(self) -> tuple[float | None, float]:
        hard = 0.0 if self.bare is None else self.bare + SPREAD_DB
        if hard <= 0:
            return None, 0.0
        pads = sorted(self.model.pads_db)
        enough = next((p for p in pads if p >= hard), None)
        best = enough if enough is not None else (pads[-1] if pads else None)
        return best, max(hard - (best or 0.0), 0.0)

    def gain(self, pad: float) -> float | None:
        full = self.bank.full_scale_dbu if self.bank else None
        if self.output is None or full is None:
            return None
        return full - self.under_full - (self.output - max(pad, self.at_mic) - self.at_input)

    def short_of(self, gain: float | None) -> float:
        most = self.bank.most_gain_db if self.bank else None
        return 0.0 if gain is None or most is None else max(gain - most, 0.0)

    def unknown(self) -> list[str]:
        gaps = []
        if self.capsule is None:
            gaps.append(f"how loud the {self.model.name} may be met")
        if self.output is None:
            gaps.append(f"how much the {self.model.name} gives")
        if self.bank and self.bank.max_level_dbu is None:
            gaps.append(f"how much {self.bank.name} takes")
        if self.bank and self.output is not None and self.bank.full_scale_dbu is None:
            gaps.append(f"at what level {self.bank.name} is full")
        return gaps


def _words(name: str, peak: Peak, over: _Over, state: State, pad: float | None, left: float) -> str:
    usual, hard = f"{peak.middle_db:.0f} dB", f"{peak.high_db:.0f} dB"
    met = f"{the_first(name)} peaks at about {usual} here, hard hits {hard}."
    if state == "unknown":
        return met
    at_input = over.input is not None and (over.capsule is None or over.input > over.capsule)
    what = over.bank.name if at_input and over.bank else f"the {over.model.name}"
    if state == "fits":
        spare = -(over.most or 0.0) - SPREAD_DB
        with_ = f"With its {over.at_mic:.0f} dB pad in " if over.at_mic else ""
        takes = f"{with_}{what}" if with_ else f"{what[0].upper()}{what[1:]}"
        return f"{met} {takes} takes that, with {spare:.0f} dB to spare."
    when = "overloads" if state == "overloads" else "overloads on hard hits"
    at = " even at least gain" if at_input else ""
    return f"{met} {what[0].upper()}{what[1:]} {when}{at}: {_cure(pad, left)}."


def _gain(gain: float | None, over: _Over) -> str:
    if gain is None or over.bank is None:
        return ""
    name = over.bank.name
    if gain < 0:
        under = over.under_full + gain
        where = f"lie {under:.0f} dB under" if under > 0 else f"are {-under:.0f} dB over"
        return f"Even at no gain usual peaks {where} full scale."
    if over.short_of(gain) > 0:
        most = over.bank.most_gain_db
        return f"Usual peaks want {gain:.0f} dB of gain; {name} has {most:.0f} dB."
    return f"{gain:.0f} dB of gain leaves usual peaks {over.under_full:.0f} dB under full scale."


def _cure(pad: float | None, left: float) -> str:
    if pad is None:
        return "it has no pad; take another mic, or stand it off"
    if left > 0:
        return f"its {pad:.0f} dB pad leaves {left:.0f} dB too much; take another, or stand it off"
    return f"switch its {pad:.0f} dB pad in"
