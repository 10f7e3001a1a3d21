"""`./ringside measure LAYOUT FILES...`: measure a take, print what it says.

No server and no database. Exit 0 with the report on standard output; exit 2 with one line on
standard error when the layout or a file cannot be used.
"""

import argparse
import json
import sys
from collections.abc import Sequence
from dataclasses import asdict
from pathlib import Path
from typing import Any

from ringside.errors import RingsideError
from ringside.files.layout import read_layout
from ringside.pairs.analysis import analyse
from ringside.takes.align import AlignRow, align_table, basis_of
from ringside.takes.copies import aligned_copies
from ringside.takes.reading import Corrections, TakeRead
from ringside.takes.report import DrumTold, TakeTold, told_take


def _parser() -> argparse.ArgumentParser:
    parser = argparse.ArgumentParser(prog="ringside measure", description=__doc__)
    parser.add_argument("layout", help="a layout file")
    parser.add_argument("files", nargs="+", help="one file of many channels, or one of each")
    parser.add_argument("--map", metavar="FILE", help="JSON: channels by the name of their track")
    parser.add_argument("--json", action="store_true", help="everything, as JSON")
    parser.add_argument("--align", metavar="FOLDER", help="write aligned copies there")
    parser.add_argument("--to", metavar="CHANNEL", help="what they are aligned to")
    parser.add_argument("--on", metavar="DRUM", help="one drum for all; else each its own")
    parser.add_argument("--parts", action="store_true", help="parts of a sample, not whole ones")
    return parser


def main(typed: Sequence[str]) -> int:
    """Run the command.

    Parameters
    ----------
    typed : sequence of str
        As typed, without the name of the command.

    Returns
    -------
    int
        0 when all went well, 2 when something could not be used.
    """
    args = _parser().parse_args(typed)
    try:
        layout = read_layout(Path(args.layout).read_bytes())
        said = Corrections(channels=_map(args.map))
        told, take, _ = told_take([Path(f) for f in args.files], analyse(layout), said, _progress)
        rows = _aligned(take, args) if args.align or args.to else []
    except OSError as fault:
        print(f"{fault.filename}: cannot be read: {fault.strerror}", file=sys.stderr)
        return 2
    except RingsideError as fault:
        print(fault, file=sys.stderr)
        return 2
    print(file=sys.stderr)
    _printed(told, rows, as_json=args.json)
    return 0


def _map(path: str | None) -> dict[str, str | None]:
    if path is None:
        return {}
    try:
        found: Any = json.loads(Path(path).read_text())
    except ValueError as fault:
        raise RingsideError(f"{path}: is no JSON: {fault}") from fault
    if not isinstance(found, dict) or not all(
        isinstance(v, str) or v is None for v in found.values()
    ):
        raise RingsideError(f'{path}: expected {{"name of a track": "channel", ...}}')
    return found


def _progress(share: float, what: str) -> None:
    if sys.stderr.isatty():
        print(f"\r{what} {share * 100:3.0f} %  ", end="", file=sys.stderr, flush=True)


def _aligned(take: TakeRead, args: argparse.Namespace) -> list[AlignRow]:
    channels = [str(take.matched[n].channel) for n in take.rows]
    to = args.to or channels[-1]
    rows = align_table(basis_of(take), to, on=args.on, whole=not args.parts)
    if args.align:
        aligned_copies([take.tracks[n] for n in take.rows], rows, Path(args.align))
    return rows


def _printed(told: TakeTold, rows: Sequence[AlignRow], *, as_json: bool) -> None:
    if as_json:
        aligned = [asdict(r) for r in rows]
        json.dump({**asdict(told), "aligned": aligned}, sys.stdout, indent=1, allow_nan=False)
        print()
        return
    for line in _lines(told):
        print(line)
    for r in rows:
        done = r.why_not or f"{r.later:g} samples later{', flipped' if r.flip else ''}"
        print(f"  {r.channel}: {done}")


def _lines(told: TakeTold) -> list[str]:
    made = [told.words, ""]
    for t in told.tracks:
        name = t.channel or "left out"
        made += [f"  {t.name}: {name} (by {t.by})", *(f"    {note}" for note in t.notes)]
    left = [h for h in told.hits if h.out]
    made += [f"  stroke at {h.at_s:.2f} s left out: {h.out}" for h in left]
    for r in told.reasons:
        made += [f"  {r.words.cm()}", f"    {r.do}"]
    for d in told.drums:
        made += _drum(d)
    for p in told.pairs:
        if p.planned != p.measured:
            sure = "" if p.sure else f" (not sure: {p.why})"
            made.append(f"  {p.a} {p.b} on {p.source}: planned {p.planned}, is {p.measured}{sure}")
    for place in told.places:
        made.append(f"  {place.mic}: {place.words.cm()} {place.open.cm()}".rstrip())
    return [*made, "", told.ask.words]


def _drum(d: DrumTold) -> list[str]:
    pitch = f", {d.fundamental_hz:.1f} Hz {d.note}" if d.fundamental_hz else ""
    made = [f"  {d.name}: {d.hits} hits, against {d.own}{pitch}. {d.words}".rstrip()]
    for a in d.arrivals:
        sign = {1: "alike", -1: "turned over", 0: "sign unsure"}[a.sign]
        if a.lag_ms is None:
            made.append(f"    {a.channel}: refused, {a.why_not}; {sign}")
        else:
            made.append(f"    {a.channel}: {a.lag_ms:+z.3f} ms ± {a.interval_ms:.3f}"
                        f" (planned {a.planned_ms:+z.3f}), {sign}")  # fmt: skip
    return made


def run(typed: Sequence[str]) -> int:
    """The command, quiet when whoever reads it has read enough.

    Parameters
    ----------
    typed : sequence of str

    Returns
    -------
    int
    """
    try:
        return main(typed)
    except BrokenPipeError:
        sys.stderr.close()
        return 0


if __name__ == "__main__":
    sys.exit(run(sys.argv[1:]))
