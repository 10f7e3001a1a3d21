"""A row of the bench, and how rows come: each is said when it is measured, and none is lost."""

import json
import traceback
from collections.abc import Callable, Iterable
from dataclasses import asdict, dataclass

WIDE = 84


@dataclass(frozen=True)
class Row:
    """One figure and its goal: at most that, or with `least` at least; none is only told."""

    name: str
    figure: float
    unit: str
    goal: float | None = None
    least: bool = False

    @property
    def met(self) -> bool | None:
        """Whether what is printed meets the goal; None where there is none."""
        if self.goal is None:
            return None
        # Frames come in whole numbers of a screen's: three of them may be measured as 3.0001.
        figure = round(self.figure, 2)
        return figure >= self.goal if self.least else figure <= self.goal

    @property
    def line(self) -> str:
        """As it is printed."""
        goal = "" if self.goal is None else f"goal {self.goal:<5} {self._word}"
        return f"  {self.name:<{WIDE}}  {self.figure:>8.2f} {self.unit:<9} {goal}".rstrip()

    @property
    def _word(self) -> str:
        return "met" if self.met else "NOT MET"


Measure = Callable[[], Iterable[Row]]


def told(parts: Iterable[tuple[str, Measure]], *, as_json: bool = False) -> int:
    """Measure each part and print its rows as they come, as JSON at the end; how many failed.

    A part that fails is said with its reason, and the others go on.
    """
    rows, failed = [], 0
    for name, measure in parts:
        try:
            for row in measure():
                rows.append(row)
                if not as_json:
                    print(row.line, flush=True)
        except (Exception, SystemExit):
            failed += 1
            traceback.print_exc()
            if not as_json:
                print(f"  {name}: could not be measured, see above", flush=True)
    if as_json:
        print(json.dumps([{**asdict(r), "met": r.met} for r in rows], indent=1))
    return failed
