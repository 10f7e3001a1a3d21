"""The set-up sheet's rows in words, and as CSV."""

import csv
import io
from collections import Counter
from collections.abc import Iterable

from ringside.answers.sheet import SetupRow, setup_rows
from ringside.gear.headroom import headroom
from ringside.gear.leads import laid, leads
from ringside.gear.locker import CableKind, Locker, bank_of
from ringside.plan.layout import Layout

from sheets.units import Ruler

NOTHING = Locker()
HEADINGS = (
    "Input", "Mic", "Name", "For", "Pattern", "To snare", "To kick", "To its drum", "Height",
    "Where", "Aim", "Flips",
)  # fmt: skip


def where_text(row: SetupRow, ruler: Ruler) -> str:
    """A close mic in drum terms: how far over, inside or under, and in from the rim.

    Any other by its side of the line from snare to kick.
    """
    head = row.from_head
    if head is None:
        return row.side
    off, rim = ruler.text(head.height_m), ruler.text(abs(head.in_from_rim_m))
    if head.side == "beside":
        return f"beside the shell, {off} below the batter, {rim} off it"
    far = "in front" if row.job_kind == "kick" else "under"
    first = {"over": f"{off} over", "under": f"{off} {far}"}.get(
        head.side, f"inside, {off} from the batter"
    )
    edge = "in from the rim" if head.in_from_rim_m >= 0 else "outside the rim"
    line = ", in line with the wires" if row.in_line else ""
    return f"{first}, {rim} {edge}{line}"


def _cut(row: SetupRow) -> str:
    return f", low cut {row.low_cut_hz:g} Hz" if row.low_cut_hz else ""


def _pad(db: float | None) -> str:
    return f", {db:g} dB pad in" if db else ""


def _with(text: str, joint: str, key: str | None, names: dict[str, str]) -> str:
    """A text with what the locker calls a thing; the short name where it knows none."""
    return text if key is None else joint.format(names.get(key, key), text)


def sheet_rows(
    layout: Layout, ruler: Ruler, locker: Locker = NOTHING, *, short: bool = False
) -> list[dict[str, str]]:
    """One row per mic, every value as text under the headings.

    Mics and stands go by the locker's names, or `short` where room is scarce.
    """
    mics = {} if short else {m.id: m.name for m in locker.mics}
    stands = {} if short else {s.id: s.name for s in locker.stands}
    pads = {h.mic: h.pad_db for h in headroom(layout, locker)}
    pads |= {m.id: m.pad_db for m in layout.mics if m.pad_db is not None}
    return [
        {
            "Input": str(r.channel or ""),
            "Mic": r.id,
            "Name": r.name,
            "For": r.job,
            "Pattern": _with(r.pattern, "{0}, {1}", r.model, mics) + _cut(r) + _pad(pads.get(r.id)),
            "To snare": ruler.text(r.snare_m),
            "To kick": ruler.text(r.kick_m),
            "To its drum": ruler.text(r.own_m) if r.own_m is not None else "",
            "Height": _with(ruler.text(r.height_m), "{1} on {0}", r.stand, stands),
            "Where": where_text(r, ruler),
            "Aim": r.aim,
            "Flips": "; ".join([*r.flips, *r.tracks]),
        }
        for r in setup_rows(layout)
    ]


def pick_list(layout: Layout, locker: Locker) -> list[str]:
    """What to carry out of the locker: mics, stands, boxes and cables, and for which places."""
    lines = []
    for field, rows in (("model", locker.mics), ("stand", locker.stands)):
        names = {r.id: r.name for r in rows}
        wanted: dict[str, list[str]] = {}
        for mic in layout.mics:
            if key := getattr(mic, field):
                wanted.setdefault(names.get(key, key), []).append(mic.id)
        lines += [f"{len(ids)} {name}: {', '.join(ids)}" for name, ids in wanted.items()]
    return [*lines, *_boxes(layout, locker), *_cables(layout, locker)]


def _boxes(layout: Layout, locker: Locker) -> list[str]:
    """The boxes that something is plugged into."""
    taken = Counter(b.id for c in layout.channels if (b := bank_of(locker, c.input)) is not None)
    return [
        f"{b.name}, {taken[b.id]} of {b.count} inputs used" for b in locker.inputs if taken[b.id]
    ]


def _cables(layout: Layout, locker: Locker) -> list[str]:
    """Cables by length where the boxes have a place; how many more where they have none."""
    if not locker.cables:
        return []
    wanted = leads(layout, locker)
    got = laid(wanted, locker)
    by: dict[str, list[str]] = {}
    for mic in layout.mics:
        if kind := got.cables.get(mic.id):
            by.setdefault(_cable(kind), []).append(mic.id)
    lines = [f"{len(ids)} × {name}: {', '.join(ids)}" for name, ids in by.items()]
    if got.short:
        lines.append(f"no cable left that reaches: {', '.join(x.mic for x in got.short)}")
    known = {x.mic for x in wanted}
    if rest := [m.id for m in layout.mics if m.id not in known]:
        lines.append(f"{len(rest)} more cable{'s' if len(rest) > 1 else ''}: {', '.join(rest)}")
    return lines


def _cable(kind: CableKind) -> str:
    """Its name and how long it is, which many a name says already."""
    long = f"{kind.length_m:g} m"
    return kind.name if long in kind.name else f"{kind.name} ({long})"


def _plain(text: str) -> str:
    """Text that a spreadsheet will not run as a formula."""
    return f"'{text}" if text[:1] in ("=", "+", "-", "@", "\t", "\r") else text


def as_csv(headings: Iterable[str], rows: Iterable[dict[str, str]]) -> str:
    """Rows with a header (RFC 4180), none of which a spreadsheet will run."""
    out = io.StringIO()
    writer = csv.DictWriter(out, list(headings))
    writer.writeheader()
    for row in rows:
        writer.writerow({k: _plain(v) for k, v in row.items()})
    return out.getvalue()


def sheet_csv(layout: Layout, ruler: Ruler, locker: Locker = NOTHING) -> str:
    """The set-up sheet's rows as CSV."""
    return as_csv(HEADINGS, sheet_rows(layout, ruler, locker))
