"""Figures against their goals, each measured in this one run.

Ratios are taken against a bare evaluation of the same arrays on the same machine in the
same run; figures in milliseconds are what a user waits.
"""

import argparse
import asyncio
import itertools
import json
import os
import signal
import statistics
import subprocess
import sys
import tempfile
import time
import uuid
from collections.abc import Callable, Collection, Iterable, Iterator
from functools import partial
from pathlib import Path
from typing import Any

from ops import asking, benchtakes, drag, felt, limits
from ops.benchrow import Measure, Row, told

DRAGS = 3


def timed(work: Callable[[], object], times: int) -> list[float]:
    """Milliseconds of each run, after two that are not counted."""
    for _ in range(2):
        work()
    found = []
    for _ in range(times):
        start = time.perf_counter()
        work()
        found.append((time.perf_counter() - start) * 1e3)
    return found


def p95(values: list[float]) -> float:
    """The 95th percentile."""
    return statistics.quantiles(values, n=20)[-1]


def with_splits(layout: Any, channels: int) -> Any:
    """The layout with mics split until there are so many channels, every second copy crushed."""
    from ringside.plan.channels import Crush
    from ringside.plan.hanging import track_of

    tracks = list(layout.channels)
    for n, mic in zip(range(len(tracks), channels), layout.mics, strict=False):
        copy = track_of(tracks, mic)
        tracks.append(copy.model_copy(update={"crush": Crush() if n % 2 else None}))
    return layout.model_copy(update={"channels": tuple(tracks)})


def big_layout(mics: int, sources: int) -> Any:
    """A layout of so many mics round a kit of so many sources, the same every time."""
    import numpy as np
    from ringside.plan.balances import Balance, Fader
    from ringside.plan.hanging import with_tracks
    from ringside.plan.kits import five_piece
    from ringside.plan.layout import Layout, StereoPair
    from ringside.plan.mics import PRESSURE_SHARE, Mic

    kit = five_piece()
    more = [
        kit.cymbals[i % 4].model_copy(
            update={"id": f"x{i}", "name": f"Extra {i}", "centre_m": (0.3 * i - 1, 1.0, 1.1)}
        )
        for i in range(sources - len(kit.parts))
    ]
    kit = kit.model_copy(update={"cymbals": (*kit.cymbals, *more)})
    dice = np.random.default_rng(5)
    patterns = list(PRESSURE_SHARE)
    made = tuple(
        Mic.model_validate({
            "id": f"M{i}", "name": f"Mic {i}", "pattern": patterns[i % 6],
            "job": kit.parts[i % 16].id if i % 3 and i % 16 < sources else None,
            "position_m": tuple(float(x) for x in dice.uniform((-2, -2, 0.1), (2, 3, 2.4))),
            "aim": tuple(float(x) for x in dice.normal(size=3)),
        })
        for i in range(mics)
    )  # fmt: skip
    pairs = (StereoPair(name="P", left="M0", right="M1"),)
    plain = with_tracks(Layout(name="bench", kit=kit, mics=made, stereo_pairs=pairs))
    level = tuple(Fader(channel=c.id, db=0.0) for c in plain.channels)
    return plain.model_copy(
        update={"balances": (Balance(id="flat", name="Flat", faders=level),), "current": "flat"}
    )


def each_anew(layout: Any) -> Callable[[], Any]:
    """The layout with its first mic a little further on each time, as under a hand.

    What reaches the capsules is kept while no mic moves: timed on one layout, only the rest is.
    """
    first, step = layout.mics[0], itertools.count(1)

    def moved() -> Any:
        x, y, z = first.position_m
        mic = first.model_copy(update={"position_m": (x + 1e-5 * next(step), y, z)})
        return layout.model_copy(update={"mics": (mic, *layout.mics[1:])})

    return moved


def bare(layout: Any) -> Callable[[], object]:
    """The same arrays as the analysis, in plain numpy: no names, rules or verdict words."""
    import numpy as np
    from ringside.hear.scene import scene_of

    sc = scene_of(layout)
    s = sc.sources
    i, j = np.triu_indices(len(layout.mics), 1)

    def work() -> object:
        # Each array that the analysis hands out, by the same physics.
        v = sc.capsule[:, None] - s.centre
        h = (v * s.axis).sum(-1)
        flat = v - h[..., None] * s.axis
        r = np.sqrt((flat**2).sum(-1))
        tape = np.sqrt(((sc.capsule[:, None] - s.tape) ** 2).sum(-1))
        toward = s.strike - sc.capsule[:, None]
        straight = np.sqrt((toward**2).sum(-1))
        rim = s.radius + np.hypot(r - s.radius, h)
        rear = s.centre - s.depth[:, None] * s.axis - sc.capsule[:, None]
        through = s.depth + np.sqrt((rear**2).sum(-1))
        path = np.where(h >= 0, straight, np.minimum(rim, through))
        cos = (toward * sc.aim[:, None]).sum(-1) / straight
        a = sc.pressure_share[:, None]
        lobe = a + (1 - a) * cos
        level = 20 * np.log10(np.maximum(np.abs(lobe), 0.03) / np.maximum(path, 0.01)) + s.peak_db
        level = level - level.max(axis=1, keepdims=True)
        angle = np.arctan2(np.abs(h), np.maximum(r - s.radius, 0))
        sign = np.where(h >= 0, -1, 1) * np.where(lobe < 0, -1, 1) * sc.switch_sign[:, None]
        t = path / sc.speed
        dt, dl, dtape = t[j] - t[i], level[j] - level[i], tape[j] - tape[i]
        g, same = 10 ** (-np.abs(dl) / 20), sign[i] * sign[j]
        like = np.cos(np.pi * (s.body_low + s.body_high) * dt)
        like = like * np.sinc((s.body_high - s.body_low) * dt)
        body = 10 * np.log10(np.maximum(1 + g * g + 2 * same * g * like, 1e-8))
        other = 10 * np.log10(np.maximum(1 + g * g - 2 * same * g * like, 1e-8))
        d = np.maximum(np.abs(dt), 1e-12)
        odd = 2 * np.maximum(np.ceil(s.body_low * d - 0.5), 0) + 1
        even = 2 * np.maximum(np.ceil(s.body_low * d), 1)
        dip = np.where(same > 0, odd, even) / (2 * d)
        near = np.abs(angle[i] - angle[j]) < 0.09
        verdict = np.select(
            [np.abs(dl) > 9.5, (angle[i] < 0.26) & ~near, other - body > 3, dip < s.body_high],
            [0, 2, 4, 3], 1,
        )  # fmt: skip
        return dtape, verdict

    return work


def timed_walk() -> float:
    """Milliseconds to solve a kit whose every distance and height was measured."""
    from itertools import combinations

    import numpy as np
    from ringside.plan.kit import centre_of
    from ringside.plan.kits import five_piece
    from ringside.survey.readings import read
    from ringside.survey.report import tape_report

    kit = five_piece()
    places = {p.id: np.array(centre_of(p)) for p in kit.parts}
    for name, at in places.items():
        kit = read(kit, name, None, float(at[2]) + 0.01)
    for a, b in combinations(places, 2):
        kit = read(kit, a, b, float(np.linalg.norm(places[a] - places[b])) + 0.004)
    return statistics.median(timed(lambda: tape_report(kit), 9))


def timed_standing() -> float:
    """Milliseconds for a net of 16 mics and 9 parts with 120 readings, solved and judged."""
    import numpy as np
    from ringside.answers.stands import compared
    from ringside.gear.locker import Locker
    from ringside.pairs.analysis import analyse
    from ringside.plan.kit import Reading
    from ringside.standing.asks import tape_m
    from ringside.standing.stood import analysed
    from ringside.standing.truth import fronts, truth

    layout, locker, dice = sixteen(), Locker(), np.random.default_rng(1)
    at = dict(zip([m.id for m in layout.mics], fronts(layout, locker), strict=True))
    ends = [(m, to) for m in at for to in (None, *layout.kit.source_ids)]
    some = [ends[i] for i in dice.permutation(len(ends))[:120]]
    readings = [
        Reading(a=m, b=to, metres=tape_m(layout, at, m, to) + 0.03 + dice.normal() * 0.005)
        for m, to in some
    ]

    def work() -> None:
        compared(analyse(layout), analysed(truth(layout, locker, readings).layout))

    return statistics.median(timed(work, 7))


def timed_room() -> float:
    """Milliseconds for everything the room step shows, each time for a room not seen before."""
    from ringside.plan.kits import five_piece
    from ringside.plan.layout import Layout
    from ringside.plan.room import Notch, Room
    from ringside.rooms.boundary import spot_report
    from ringside.rooms.decay import decay_report
    from ringside.rooms.modes import modes

    wide = iter(6.0 + 0.01 * n for n in range(99))

    def work() -> None:
        room = Room(
            name="Bench", width_m=next(wide), length_m=8.2, height_m=3.3, kit_x_m=3.1,
            kit_y_m=2.6, notch=Notch(corner="front left", width_m=1.6, length_m=2.4),
        )  # fmt: skip
        layout = Layout(name="bench", kit=five_piece(), room=room)
        decay_report(layout)
        modes(room, layout.air.speed)
        spot_report(layout)

    return statistics.median(timed(work, 7))


def sixteen() -> Any:
    """A whole layout of 16 mics by techniques, each then knocked a few centimetres off."""
    import numpy as np
    from ringside.plan.kits import five_piece
    from ringside.plan.layout import Layout
    from ringside.techniques.taking import take

    layout = Layout(name="bench", kit=five_piece())
    names = [
        "pair-turned", "kick-inside", "kick-outside", "snare-centre", "snare-bottom", "tom-top",
        "tom-top", "tom-top", "cymbal-over", "room-bar", "room-omnis", "room-mono",
    ]  # fmt: skip
    for name in names:
        layout = take(layout, name).layout
    rng = np.random.default_rng(3)
    mics = tuple(
        m.model_copy(
            update={"position_m": tuple(np.add(m.position_m, rng.uniform(-0.04, 0.04, 3)))}
        )
        for m in take(layout, "one-front").layout.mics
    )
    return take(layout, "one-front").layout.model_copy(update={"mics": mics})


def timed_fit() -> float:
    """Milliseconds to fit 16 mics that all stand a little wrong."""
    from ringside.fitting.fit import fit

    layout = sixteen()
    return statistics.median(timed(lambda: fit(layout), 7))


def timed_sweep() -> float:
    """Milliseconds for one number of a technique over its range, 41 values, among 16 mics."""
    from ringside.answers.whatif import sweep

    layout = sixteen()
    return statistics.median(timed(lambda: sweep(layout, "one-front", "height"), 7))


def timed_plans() -> float:
    """Milliseconds for three starting layouts from a brief with every input in use."""
    from ringside.brief.plans import plans
    from ringside.plan.questions import Brief

    layout, brief = sixteen(), Brief(inputs=20, space="roomy", ride="much", minutes=240)
    return statistics.median(timed(lambda: plans(layout, brief), 7))


def timed_pairs() -> tuple[float, float]:
    """Milliseconds for 496 pairs with body sums and what could tip, and for one in depth."""
    from ringside.answers.board import board
    from ringside.answers.depth import in_depth
    from ringside.pairs.analysis import analyse

    layout = big_layout(32, 14)
    anew = each_anew(layout)
    whole = statistics.median(timed(lambda: board(analyse(anew())), 15))
    deep = statistics.median(timed(lambda: in_depth(layout, "M0", "M1"), 7))
    return whole, deep


def timed_flips(mics: int) -> float:
    """Milliseconds for the best set of flips of so many mics."""
    from ringside.pairs.analysis import analyse
    from ringside.pairs.flips import best_flips

    an = analyse(big_layout(mics, 14))
    return statistics.median(timed(lambda: best_flips(an), 3))


def full_session() -> Any:
    """Twenty-eight mics as a big session puts them up, six room techniques among them."""
    from ringside.places.starts import starting_layout
    from ringside.techniques.taking import take

    layout = starting_layout("five-piece", "turned pair")
    for name, target in (
        ("snare-edge", None), ("kick-woofer", None), ("tom-bottom", "rack-1"),
        ("tom-bottom", "rack-2"), ("tom-bottom", "floor"), ("room-bar", None),
        ("room-omnis", None), ("room-crossed-8", None), ("room-far-high", None),
        ("floor-pair", None), ("boundary-room", None),
    ):  # fmt: skip
        layout = take(layout, name, target).layout
    return layout


def timed_list() -> tuple[float, float]:
    """Milliseconds for the list of what to do about 28 mics, in each of the two schools."""
    from ringside.worklist.build import worklist

    placed = full_session()
    aligned = placed.model_copy(update={"timing": "aligned"})
    one, two = (statistics.median(timed(lambda of=of: worklist(of), 5)) for of in (placed, aligned))
    return one, two


def timed_patch() -> float:
    """Sixty-four channels plugged into four boxes, none of them plugged in before, ms."""
    from ringside.gear.locker import InputBank, Locker
    from ringside.gear.patching import patch

    layout = with_splits(big_layout(40, 14), 64)
    loose = tuple(c.model_copy(update={"input": None}) for c in layout.channels)
    layout = layout.model_copy(update={"channels": loose})
    phantom = ("each", "bank", "none", "each")
    boxes = tuple(
        InputBank(id=f"b{n}", name=f"Box {n}", count=16, phantom=kind, matched=n == 3)
        for n, kind in enumerate(phantom)
    )
    return statistics.median(timed(lambda: patch(layout, Locker(inputs=boxes)), 3))


def timed_example() -> float:
    """Milliseconds to render an example of a pair: five versions of four strokes."""
    from ringside.pairs.analysis import analyse
    from ringside.voices.example import ask_of, rendered

    ask = ask_of(analyse(sixteen()), "OL", "OR", "snare")
    return statistics.median(timed(lambda: rendered(ask), 3))


def core_rows() -> list[Row]:
    """The analysis of 40 mics on 14 sources, alone and against bare numpy, turn about."""
    from ringside.pairs.analysis import analyse

    layout = big_layout(40, 14)
    full, times = [], []
    work, anew = bare(layout), each_anew(layout)
    for _ in range(9):  # turn about, and turn against turn: the machine's pace changes between them
        turn = statistics.median(timed(lambda: analyse(anew()), 12))
        full.append(turn)
        times.append(turn / statistics.median(timed(work, 12)))
    ours = statistics.median(full)
    whole, deep = timed_pairs()
    placed, aligned = timed_list()
    split = each_anew(with_splits(layout, 64))
    channels = statistics.median(timed(lambda: analyse(split()), 25))
    return [
        Row("analysis of 40 mics on 14 sources", ours, "ms", 25),
        Row("the same against bare numpy", statistics.median(times), "times", 2),
        Row("the same mics feeding 64 channels, against 40", channels / ours, "times", 1.5),
        Row("64 channels patched into 64 inputs", timed_patch(), "ms", 1000),
        Row("a kit from 45 tape readings, and the next one", timed_walk(), "ms", 60),
        Row(
            "16 mics and 9 parts from 120 readings, solved and judged", timed_standing(), "ms", 300
        ),
        Row("an L-shaped room: decay, modes, map of spots", timed_room(), "ms", 500),
        Row("a fit of 16 mics that all stand wrong", timed_fit(), "ms", 1000),
        Row("what-if: 41 values of a number among 16 mics", timed_sweep(), "ms", 400),
        Row("three starting layouts from a brief", timed_plans(), "ms", 500),
        Row("496 pairs on 14 sources: verdicts, body sums, what could tip", whole, "ms", 40),
        Row("one of them in depth, every remedy tried", deep, "ms", 400),
        Row("the list to do for 28 mics, placed", placed, "ms", 1000),
        Row("the list to do for 28 mics, aligned", aligned, "ms", 1000),
        Row("best flips of 24 mics on 14 sources", timed_flips(24), "ms", 1000),
        Row("best flips of 32 mics on 14 sources", timed_flips(32), "ms", 1000),
        Row("an example to hear, five versions", timed_example(), "ms", 3000),
    ]


def serve(env: dict[str, str]) -> tuple[subprocess.Popen[bytes], int, dict[str, str]]:
    """A server on a database of its own."""
    import psycopg

    from ops.cluster import free_port
    from ops.paths import DEMO_PASSWORD, ROOT
    from ops.processes import MARK, with_parent
    from ops.serve import environment, wait_for, watch_command

    name = f"bench_{uuid.uuid4().hex[:8]}"
    where = f"host=127.0.0.1 port={env['RINGSIDE_DB_PORT']} user=ringside dbname=postgres"
    with psycopg.connect(where, password=env["RINGSIDE_DB_PASSWORD"], autocommit=True) as link:
        link.execute(f'create database "{name}"')
    env = {**env, "RINGSIDE_DB_NAME": name}
    for command in (["migrate", "-v", "0"], ["load_demo", "--password", DEMO_PASSWORD]):
        manage = [sys.executable, str(ROOT / "server" / "manage.py"), *command]
        subprocess.run(manage, env=env, check=True, capture_output=True)
    port, home = free_port(), tempfile.mkdtemp(prefix="bench-")
    env = {**environment(env), "RINGSIDE_HOME": home, MARK: home}
    # In a session of its own, as it is started to be used: by sessions a kernel shares out cores.
    process = subprocess.Popen(
        watch_command(port), env=env, cwd=ROOT, start_new_session=True,
        preexec_fn=with_parent(signal.SIGTERM),
    )  # fmt: skip
    wait_for(port, process, Path(home) / "log")
    return process, port, env


def endpoint_row(port: int) -> Row:
    """The compute endpoint for 16 mics with a pair open, one connection, one after another."""
    import http.client

    layout = big_layout(16, 9)
    body = json.dumps({
        "layout": layout.model_dump(mode="json"), "focus": {"anchor": "M0", "mover": "M1"},
    })  # fmt: skip
    link = http.client.HTTPConnection("127.0.0.1", port)
    head = asking.headers(limits.Person(port, "demo").cookies)

    def ask() -> None:
        link.request("POST", "/api/compute", body, head)
        answer = link.getresponse()
        answer.read()
        if answer.status != 200:
            raise SystemExit(f"compute answered {answer.status}")

    for _ in range(300):  # a server that has just started is still fetching what it needs
        ask()
    found = timed(ask, 300)
    return Row("compute endpoint, 16 mics, 95th percentile", p95(found), "ms", 25)


def at_kit_rows(port: int) -> list[Row]:
    """A reading to its verdict, and what it costs that fifty screens look for what others wrote."""
    import http.client

    person = limits.Person(port, "demo")
    link = http.client.HTTPConnection("127.0.0.1", port)
    head = asking.headers(person.cookies)

    def said(method: str, path: str, body: Any = None) -> Any:
        link.request(method, f"/api/{path}", body and json.dumps(body), head)
        answer = link.getresponse()
        text = answer.read()
        if answer.status != 200:
            raise SystemExit(f"{path} answered {answer.status}: {text[:200]!r}")
        return json.loads(text)

    layout = f"layouts/{said('GET', 'sessions')[0]['layouts'][1]['id']}"  # the one that was read
    doc, kit = said("GET", layout)["doc"], said("GET", f"{layout}/at-kit")
    lines = [{k: r[k] for k in ("key", "what", "mic", "to", "metres")} for r in kit["rows"]]
    typed = {"layout": doc, "log": lines, "mic": "OR", "to": "kick", "metres": 1.71}
    verdicts = timed(lambda: said("POST", f"{layout}/judge", typed), 60)
    looks = timed(lambda: said("GET", f"{layout}/at-kit/tag"), 300)
    each = statistics.median(looks)
    return [
        Row("a reading to its verdict, 95th percentile", p95(verdicts), "ms", 150),
        Row("a look for what others wrote at the kit", each, "ms", None),
        Row("fifty screens that look, of one core", 50 / 0.7 * each / 1000, "cores", 0.5),
    ]


def _drags(port: int, machine: drag.Machine, *pages: str) -> dict[str, list[drag.Drag]]:
    return asyncio.run(drag.drags(port, 1, machine, DRAGS, pages))


def drag_rows(port: int) -> Iterator[Row]:
    """Drags on Place, Kit, Room and bare pages, on three machines, and with many mics."""
    steps = [step for step in drag.HELD if step != "place"]
    for machine in drag.MACHINES:
        found = _drags(port, machine, *drag.PAGES, *steps)
        yield from _drag_rows(f"drag, {machine.name}", found, 0.8)
        for step in steps:
            floor = {"place": found[step], "nothing": found["nothing"]}
            yield from _drag_rows(f"{_named(step)}, {machine.name}", floor, 0.8)
    asyncio.run(drag.with_more_mics(port, 1, 28))
    found = _drags(port, drag.MACHINES[0], "place", "nothing")
    yield from _drag_rows("drag, 28 mics", found, 0.6)[:4]


def _named(held: str) -> str:
    return "drag of a close mic" if held == "close mic" else f"drag on {held.title()}"


def _drag_rows(name: str, found: dict[str, list[drag.Drag]], goal: float) -> list[Row]:
    place, floor = drag.middle_of(found["place"]), drag.middle_of(found["nothing"])
    rates = sorted(d.rate for d in found["place"])
    spread = f"a second, {rates[0]:.0f} to {rates[-1]:.0f}"
    paused = max(d.paused_ms for d in found["place"])
    but = f" but for pauses of the machine up to {paused:.0f} ms" if paused else ""
    rows = [
        Row(f"{name}: numbers", place.rate, spread, None),
        Row(f"{name}: against a page that asks for nothing", place.rate / floor.rate, "times",
            goal, least=True),
        Row(f"{name}: p95 until seen, against that page's", place.seen_ms / floor.seen_ms,
            "times", 1.5),
        Row(f"{name}: p95 until written, against that page's", place.p95_ms / floor.p95_ms,
            "times", 1.5),
        Row(f"{name}: longest frame{but}", place.longest_frame, "medians", 3),
        Row(f"{name}: mic behind the pointer", place.behind, "frames", 1),
    ]  # fmt: skip
    if "bare" in found:
        bare_rate = drag.middle_of(found["bare"]).rate
        rows.append(Row(f"{name}: a bare page with the same question, against nothing",
                        bare_rate / floor.rate, "times", None))  # fmt: skip
    return rows


def felt_rows(port: int) -> list[Row]:
    """What is felt beside the drag, each against its floor, and what comes over the line."""
    found, load = asyncio.run(felt.measure(port))
    rows = [
        Row("first picture of a layout: requests", load.requests, "", None),
        Row("first picture of a layout, nothing kept", load.kilobytes, "kB", None),
        Row("first picture of a layout, opened again", load.again, "kB", None),
    ]
    for name, timed in found.items():
        spread = f"ms, {min(timed.waits):.0f} to {max(timed.waits):.0f}"
        rows.append(Row(name, timed.ms, spread, 100 if name.startswith("to ") else None))
        rows.append(Row(f"{name}: against its floor", timed.times, "times", None))
    return rows


def crowd_rows(port: int, env: dict[str, str]) -> Iterator[Row]:
    """Many at once, and much at once."""
    alone, four = limits.dragging(port, 1), limits.dragging(port, 4)
    yield Row("four people dragging at once, p95 against one's", four / alone, "times", 2)
    yield Row("the list among 10,000 sessions, p95", limits.listed(port, env), "ms", 100)
    load = limits.beside_the_worst(port)
    yield Row("another member while eight of the worst run, p95", load, "ms", 300)
    first, again = limits.asked_again(port)
    yield Row("the three longest answers", first, "ms", None)
    yield Row("the same again, against the first time", again / first, "times", 0.2)


def limit_rows() -> Iterator[Row]:
    """The largest inputs there are."""
    for name, ms in limits.core_limits().items():
        yield Row(name, ms, "ms", 1000)


ALONE: dict[str, Measure] = {"core": core_rows, "takes": benchtakes.rows, "limits": limit_rows}
SERVED: dict[str, Callable[[int, dict[str, str]], Iterable[Row]]] = {
    "endpoint": lambda port, _: [endpoint_row(port), *at_kit_rows(port)],
    "felt": lambda port, _: felt_rows(port),
    "drag": lambda port, _: drag_rows(port),
    "crowd": crowd_rows,
}
PARTS = (*ALONE, *SERVED)


def chosen(wanted: Collection[str]) -> Iterator[tuple[str, Measure]]:
    """These parts in their order; a server runs while there are parts that ask one."""
    yield from ((name, measure) for name, measure in ALONE.items() if name in wanted)
    served = [(name, measure) for name, measure in SERVED.items() if name in wanted]
    if not served:
        return
    process, port, env = serve(dict(os.environ))
    try:
        for name, measure in served:
            yield name, partial(measure, port, env)
    finally:
        process.terminate()
        process.wait(20)


def main() -> int:
    """Print rows as they are measured, or with --json a list at the end; parts may be chosen."""
    parser = argparse.ArgumentParser(prog="./ringside bench")
    parser.add_argument("parts", nargs="*", help=f"some of {', '.join(PARTS)}; else all")
    parser.add_argument("--json", action="store_true")
    typed = parser.parse_args()
    if unknown := set(typed.parts) - set(PARTS):
        parser.error(f"no such part: {', '.join(unknown)}; there are {', '.join(PARTS)}")
    return int(told(chosen(typed.parts or PARTS), as_json=typed.json) > 0)


if __name__ == "__main__":
    sys.exit(main())
