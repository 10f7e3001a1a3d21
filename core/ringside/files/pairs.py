"""Every pair on every drum as a table: CSV for other programs (docs/formats/pairs.md)."""

import csv
import io
from typing import Any, Final

import numpy as np

from ringside.answers.rows import Sure
from ringside.answers.sentences import verdict_words
from ringside.arrays import Floats
from ringside.pairs.analysis import Analysis
from ringside.pairs.verdicts import WORDS_BY_VALUE

PAIR_COLUMNS: Final = (
    "a", "b", "source", "verdict", "could_tip", "tape_a_m", "tape_b_m", "path_a_m", "path_b_m",
    "delay_s", "interval_s", "delay_samples", "level_difference_db", "sign", "first_dip_hz",
    "body_db", "flipped_body_db", "words",
)  # fmt: skip
DIGITS: Final = 8


def pairs_csv(an: Analysis) -> str:
    """The table of all pairs and sources with a head row, comma separated, lines by CR LF.

    Columns as in the report; an empty field is none. Text that a spreadsheet would take for a
    formula cannot occur: names begin with a letter or digit, sentences with a word. Whole
    columns are made at once: sixty-four mics have forty-eight thousand rows.

    Parameters
    ----------
    an : Analysis

    Returns
    -------
    str
    """
    out = io.StringIO()
    writer = csv.writer(out, lineterminator="\r\n")
    writer.writerow(PAIR_COLUMNS)
    writer.writerows(zip(*_columns(an), strict=True))
    return out.getvalue()


def _columns(an: Analysis) -> list[list[Any]]:
    p, heard, sure = an.pairs, an.arrivals, Sure.of(an)
    pairs, sources = p.verdict.shape
    ids = np.array([m.id for m in an.layout.mics])
    words = np.array([WORDS_BY_VALUE[v] for v in range(len(WORDS_BY_VALUE))])
    tip = np.where(sure.tips == p.verdict, "", words[sure.tips])
    dips = [v if np.isfinite(v) else "" for v in _rounded(p.dip_hz)]
    return [
        np.repeat(ids[p.first], sources).tolist(),
        np.repeat(ids[p.second], sources).tolist(),
        [*an.scene.sources.ids] * pairs,
        words[p.verdict].ravel().tolist(),
        tip.ravel().tolist(),
        *(_told(of, side) for of in (heard.tape_m, heard.path_m) for side in (p.first, p.second)),
        _rounded(p.delay_s), _rounded(sure.half_s),
        _rounded(p.delay_s * an.layout.sample_rate_hz),
        _rounded(p.level_difference_db), p.sign.ravel().tolist(), dips,
        _rounded(p.body_db), _rounded(p.flipped_body_db),
        [verdict_words(an, r, k) for r in range(pairs) for k in range(sources)],
    ]  # fmt: skip


def _told(of_mic: Floats, side: np.ndarray) -> list[str]:
    """A column of what belongs to one mic of each pair: each number is put in figures once.

    Parameters
    ----------
    of_mic : ndarray, shape (M, S)
    side : ndarray, shape (P,)
        The mic of each pair, by number.
    """
    figures = np.array([repr(v) for v in _rounded(of_mic)], dtype=object).reshape(of_mic.shape)
    column: list[str] = figures[side].ravel().tolist()
    return column


def _rounded(values: Floats) -> list[float]:
    """A column, whatever its shape, pair by pair.

    Parameters
    ----------
    values : ndarray, shape (P, S)
    """
    rounded: list[float] = np.round(values, DIGITS).ravel().tolist()
    return rounded
