"""Every stereo picture of a layout, and the pans against them."""

from dataclasses import dataclass
from typing import Literal

from ringside.pairs.analysis import Analysis
from ringside.pairs.pans import PanRow, main_pair, pan_rows
from ringside.pairs.stereo import Picture, picture


@dataclass(frozen=True, kw_only=True, slots=True)
class Pictures:
    """All stereo pairs, the pans, and whose view it is."""

    seen_from: Literal["audience", "drummer"]
    main: str | None
    pairs: list[Picture]
    pans: list[PanRow]


def pictures(an: Analysis) -> Pictures:
    """All stereo pairs, the pans, and whose view it is.

    Parameters
    ----------
    an : Analysis

    Returns
    -------
    Pictures
    """
    main = main_pair(an.layout)
    return Pictures(
        seen_from=an.layout.seen_from,
        main=main.name if main else None,
        pairs=[picture(an, p) for p in an.layout.stereo_pairs],
        pans=pan_rows(an),
    )
