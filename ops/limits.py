"""The largest inputs there are, and many at once: bench rows for what must have a bound."""

import http.client
import json
import statistics
import threading
import time
from itertools import combinations, count
from typing import Any

from ops import asking
from ops.line import Line
from ops.paths import DEMO_PASSWORD

LARGEST_ROOM_M = (40.0, 40.0, 15.0)
MANY_SESSIONS = 10_000
WORST_AT_ONCE = 8
UNDER_LOAD_S = 10.0
DRAG_S = 5.0


def hall(notched: bool) -> Any:
    """A layout in the largest room, a box or an L."""
    from ringside.plan.kits import five_piece
    from ringside.plan.layout import Layout
    from ringside.plan.room import Notch, Room

    width, length, height = LARGEST_ROOM_M
    notch = Notch(corner="back left", width_m=12.0, length_m=15.0) if notched else None
    room = Room(
        name="Hall", width_m=width, length_m=length, height_m=height, kit_x_m=20.0, kit_y_m=25.0,
        notch=notch,
    )  # fmt: skip
    return Layout(name="hall", kit=five_piece(), room=room)


def misread_kit(readings: int) -> Any:
    """The largest kit, with so many tape readings of which none fits the others."""
    import numpy as np
    from ringside.plan.kit import Drawn, Reading, centre_of
    from ringside.plan.kits import five_piece

    kit = five_piece()
    drums = [
        kit.drums[2].model_copy(update={"id": f"t{i}", "batter_m": (0.4 * i - 1.5, 1.4, 0.8)})
        for i in range(12 - len(kit.drums))
    ]
    cymbals = [
        kit.cymbals[i % 4].model_copy(update={"id": f"x{i}", "centre_m": (0.3 * i - 1, 1.0, 1.1)})
        for i in range(12 - len(kit.cymbals))
    ]
    kit = kit.model_copy(
        update={"drums": (*kit.drums, *drums), "cymbals": (*kit.cymbals, *cymbals)}
    )
    at = {p.id: np.array(centre_of(p)) for p in kit.parts}
    dice = np.random.default_rng(1)
    rows = tuple(
        Reading(
            a=a, b=b,
            metres=float(np.clip(np.linalg.norm(at[a] - at[b]) + dice.normal() * 0.3, 0.05, 9.9)),
        )
        for a, b in list(combinations(at, 2))[:readings]
    )  # fmt: skip
    drawn = tuple(Drawn(id=p.id, at_m=centre_of(p)) for p in kit.parts)
    return kit.model_copy(update={"readings": rows, "drawn": drawn})


def core_limits() -> dict[str, float]:
    """Milliseconds of the largest inputs, by name."""
    from ringside.files.pairs import pairs_csv
    from ringside.fitting.fit import fit
    from ringside.pairs.analysis import analyse
    from ringside.rooms.modes import modes
    from ringside.survey.report import tape_report

    from ops.bench import big_layout, timed

    def took(work: Any) -> float:
        return statistics.median(timed(work, 3))

    big = big_layout(64, 14)
    whole = analyse(big)
    rooms = [hall(False), hall(True)]
    kits = {n: misread_kit(n) for n in (66, 276)}
    return {
        "modes of a hall of 40 x 40 x 15 m": took(lambda: modes(rooms[0].room, 343.2)),
        "modes of an L of 40 x 40 x 15 m": took(lambda: _uncached(rooms[1])),
        "66 tape readings of which none fits": took(lambda: tape_report(kits[66])),
        "276 tape readings of which none fits": took(lambda: tape_report(kits[276])),
        "fit of 64 mics": took(lambda: fit(big)),
        "table of every pair of 64 mics": took(lambda: pairs_csv(whole)),
    }


def _uncached(layout: Any) -> None:
    from ringside.rooms import floorplan
    from ringside.rooms.modes import modes

    floorplan._plan_numbers.cache_clear()
    modes(layout.room, 343.2)


class Person:
    """Somebody signed in at a server."""

    def __init__(self, port: int, name: str) -> None:
        self.port, self.cookies = port, dict[str, str]()
        self.ask("GET", "/")
        self.ask("POST", "/api/account/sign-in", {"username": name, "password": DEMO_PASSWORD})

    def line(self, timeout: float = 60.0) -> http.client.HTTPConnection:
        """A connection, which stays with one web process."""
        return http.client.HTTPConnection("127.0.0.1", self.port, timeout=timeout)

    def ask(
        self, method: str, path: str, body: Any = None, timeout: float = 60.0,
        line: http.client.HTTPConnection | None = None,
    ) -> tuple[int, float]:  # fmt: skip
        """Status and seconds of one request, on a connection of its own where none is given."""
        link = line or self.line(timeout)
        began = time.perf_counter()
        try:
            head = {**asking.headers(self.cookies), "Accept-Encoding": "gzip"}
            link.request(method, path, None if body is None else json.dumps(body), head)
            answer = link.getresponse()
            answer.read()
        except TimeoutError:
            return 0, time.perf_counter() - began
        finally:
            if line is None:
                link.close()
        asking.hold(self.cookies, answer)
        return answer.status, time.perf_counter() - began


def worst_requests() -> list[tuple[str, Any]]:
    """The three that take longest, as they are asked for."""
    from ringside.plan.layout import Layout

    from ops.bench import big_layout

    kit = misread_kit(276)
    return [
        ("/api/best-flips", {"layout": big_layout(32, 14).model_dump(mode="json")}),
        ("/api/room/board", {"layout": hall(True).model_dump(mode="json")}),
        ("/api/kit/board", {"layout": Layout(name="t", kit=kit).model_dump(mode="json")}),
    ]


def _named(body: Any, name: str) -> Any:
    """The same question about a layout and a kit of another name: none that is kept."""
    layout = body["layout"]
    return {"layout": {**layout, "name": name, "kit": {**layout["kit"], "name": name}}}


def asked_again(port: int) -> tuple[float, float]:
    """Milliseconds of the three that take longest, the first time and again.

    Over one line, as a page asks: each web process keeps its own answers.
    """
    person, first, again = Person(port, "demo"), 0.0, 0.0
    line = person.line()
    for path, body in worst_requests():
        body = _named(body, "again")
        first += person.ask("POST", path, body, line=line)[1] * 1e3
        again += person.ask("POST", path, body, line=line)[1] * 1e3
    line.close()
    return first, again


def beside_the_worst(port: int) -> float:
    """p95, milliseconds, of another member's small requests while eight of the worst run."""
    greedy, other, stop = Person(port, "demo"), Person(port, "assistant"), threading.Event()
    asked = worst_requests()

    names = count()  # each is another question: what is kept would be no load

    def hammer(n: int) -> None:
        while not stop.is_set():
            path, body = asked[n % len(asked)]
            body = _named(body, f"t{next(names)}")
            status, _ = greedy.ask("POST", path, body, timeout=3.0)  # gives up after three seconds
            if status == 429:
                time.sleep(0.5)

    crowd = [threading.Thread(target=hammer, args=(n,)) for n in range(WORST_AT_ONCE)]
    for t in crowd:
        t.start()
    waits, until = [], time.monotonic() + UNDER_LOAD_S
    while time.monotonic() < until:
        waits.append(other.ask("GET", "/api/account/me")[1] * 1e3)
        time.sleep(0.03)
    stop.set()
    for t in crowd:
        t.join()
    return statistics.quantiles(waits, n=20)[-1]


def dragging(port: int, people: int) -> float:
    """p95, milliseconds, of what each of several people asks while all of them drag at once.

    Each over a line that stays open, as their pages do.
    """
    layout = starting()
    waits: list[float] = []
    faults: list[int] = []
    body = {
        "name": "here", "layout": layout.model_dump(mode="json"), "mic": "OR", "aim": [0, 0, -1],
        "position_m": [0.4, 0.6, 1.7], "focus": {"anchor": "OL", "mover": "OR"},
    }  # fmt: skip

    def one() -> None:
        line = Line.opened(port, Person(port, "demo").cookies)
        until, sent, worded = time.monotonic() + DRAG_S, dict(body), 0.0
        while time.monotonic() < until:
            sent["position_m"] = [0.4 + 0.001 * (len(waits) % 200), 0.6, 1.7]
            # As a page does: what is read ten times a second, what is seen sixty times.
            sent["words"] = time.monotonic() - worded >= 0.1
            worded = time.monotonic() if sent["words"] else worded
            began = time.perf_counter()
            _, status, _ = line.ask(1, "/api/follow", sent)
            waits.append((time.perf_counter() - began) * 1e3)
            if status not in (200, 409):
                faults.append(status)
            sent = {k: v for k, v in body.items() if k != "layout" or status == 409}
            time.sleep(max(0.0, 1 / 60 - (time.perf_counter() - began)))
        line.sock.close()

    crowd = [threading.Thread(target=one) for _ in range(people)]
    for t in crowd:
        t.start()
    for t in crowd:
        t.join()
    if faults:
        raise SystemExit(f"what follows a hand was answered with {faults[0]}")
    return statistics.quantiles(waits, n=20)[-1]


def starting() -> Any:
    """A layout as one begins with it."""
    from ringside.places.starts import starting_layout

    return starting_layout("five-piece", "turned pair")


FILL = (
    "insert into plans_session (studio_id, name, place, made_at) select s.id, 'Session ' || g,"
    " 'Room ' || g %% 50, now() from generate_series(1, %s) g, (select min(id) id from"
    " studios_studio) s",
    "insert into plans_layout (session_id, name, version, head, summary, rules, changed_at)"
    " select s.id, 'Layout A', 1, 1, l.summary, l.rules, now() from plans_session s,"
    " (select * from plans_layout order by id limit 1) l where s.name like 'Session %'",
    "analyze plans_session, plans_layout",
)


def listed(port: int, env: dict[str, str]) -> float:
    """p95, milliseconds, of the list of ten thousand sessions, its pages and searches."""
    import psycopg

    where = f"host=127.0.0.1 port={env['RINGSIDE_DB_PORT']} user=ringside"
    with psycopg.connect(
        f"{where} dbname={env['RINGSIDE_DB_NAME']}", password=env["RINGSIDE_DB_PASSWORD"]
    ) as link:
        for command in FILL:
            link.execute(command, (MANY_SESSIONS,) if "%s" in command else None)
    person = Person(port, "demo")
    paths = ["", "?q=session%20500", "?before=5000", "?q=zither", "?q=room%2017"]
    for path in paths:
        person.ask("GET", f"/api/sessions{path}")
    waits = [person.ask("GET", f"/api/sessions{paths[n % 5]}")[1] * 1e3 for n in range(60)]
    return statistics.quantiles(waits, n=20)[-1]
