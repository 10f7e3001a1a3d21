"""Every pair on every drum as a table: CSV for other programs (docs/formats/pairs.md)."""

import csv
import io
from typing import Final

from ringside.answers.rows import Sure, pair_row
from ringside.pairs.analysis import Analysis

PAIR_COLUMNS: Final = (
    "a", "b", "source", "verdict", "could_tip", "tape_a_m", "tape_b_m", "path_a_m", "path_b_m",
    "delay_s", "interval_s", "delay_samples", "level_difference_db", "sign", "first_dip_hz",
    "body_db", "flipped_body_db", "words",
)  # fmt: skip
DIGITS: Final = 8


def pairs_csv(an: Analysis) -> str:
    """The table of all pairs and sources with a head row, comma separated, lines by CR LF.

    Columns as in the report; an empty field is none. Text that a spreadsheet would take for a
    formula cannot occur: names begin with a letter or digit, sentences with a word.
    """
    out = io.StringIO()
    writer = csv.DictWriter(out, PAIR_COLUMNS, lineterminator="\r\n")
    writer.writeheader()
    sure = Sure.of(an)
    for r in range(len(an.pairs.first)):
        for k in range(len(an.scene.sources.ids)):
            row = pair_row(an, r, k, sure)
            writer.writerow(
                {
                    key: round(v, DIGITS) if isinstance(v, float) else "" if v is None else v
                    for key, v in ((c, getattr(row, c)) for c in PAIR_COLUMNS)
                }
            )
    return out.getvalue()
