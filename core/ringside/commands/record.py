"""`./ringside record LAYOUT FOLDER`: a simulated take of a layout, as files, with its truth.

What is set up wrong is drawn from the seed and written to `truth.json` beside the files.
"""

import argparse
import sys
from collections.abc import Sequence
from pathlib import Path
from typing import get_args

from ringside.errors import RingsideError
from ringside.files.layout import read_layout
from ringside.recorder.played import groove, hit_list
from ringside.recorder.recording import FORMATS, Take, write
from ringside.recorder.wrong import Faulty, drawn


def _parser() -> argparse.ArgumentParser:
    parser = argparse.ArgumentParser(prog="ringside record", description=__doc__)
    parser.add_argument("layout", help="a layout file")
    parser.add_argument("folder", help="where the files go")
    parser.add_argument("--seed", type=int, default=1)
    parser.add_argument("--wrong", default="", metavar="KINDS",
                        help=f"one of each, by commas: {', '.join(get_args(Faulty))}")  # fmt: skip
    parser.add_argument("--groove", type=int, metavar="BARS", help="a beat, not test hits")
    parser.add_argument("--hits", type=int, default=5, help="on each drum")
    parser.add_argument("--format", default="WAV", choices=sorted(FORMATS))
    parser.add_argument("--bits", default="PCM_24", choices=["PCM_16", "PCM_24", "FLOAT"])
    parser.add_argument("--one-file", action="store_true", help="all channels in one")
    return parser


def main(typed: Sequence[str]) -> int:
    """Run the command.

    Parameters
    ----------
    typed : sequence of str

    Returns
    -------
    int
        0 when all went well, 2 when something could not be used.
    """
    args = _parser().parse_args(typed)
    kinds = tuple(k for k in args.wrong.split(",") if k)
    strange = [k for k in kinds if k not in get_args(Faulty)]
    if strange:
        print(f"--wrong {strange[0]}: expected {', '.join(get_args(Faulty))}", file=sys.stderr)
        return 2
    try:
        layout = read_layout(Path(args.layout).read_bytes())
        if args.groove:
            played = groove(layout.kit, args.groove, seed=args.seed)
        else:
            played = hit_list(layout.kit, each=args.hits, seed=args.seed)
        take = Take(layout, tuple(played), drawn(layout, args.seed, kinds), args.seed)
        made = write(take, Path(args.folder), container=args.format, bits=args.bits,
                     one_file=args.one_file)  # fmt: skip
    except OSError as fault:
        print(f"{fault.filename}: {fault.strerror}", file=sys.stderr)
        return 2
    except RingsideError as fault:
        print(fault, file=sys.stderr)
        return 2
    for path in made:
        print(path)
    return 0


if __name__ == "__main__":
    sys.exit(main(sys.argv[1:]))
