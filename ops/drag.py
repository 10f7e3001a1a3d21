"""How numbers follow the hand: one drag on three pages, on machines as people have them.

The pages are Place itself; a bare page that asks Place's own question at each move and writes one
number; and a bare page that asks for next to nothing. The same hand moves on each, sixty times a
second, whether or not the page keeps up, for a hand does not wait. Ratios within one run are what
counts, since machines differ; each figure is the median of several drags.
"""

import asyncio
import contextlib
import multiprocessing
import statistics
from collections.abc import Iterator
from dataclasses import dataclass, replace
from typing import Any

from ops.paths import DEMO_PASSWORD
from ops.pauses import Witness, without, witnessed

CHROMIUM = [
    "--no-sandbox", "--disable-gpu", "--disable-quic", "--no-first-run",
    "--disable-background-networking", "--disable-component-update", "--disable-sync",
]  # fmt: skip
PAGES = ("place", "bare", "nothing")
MOVES, PER_SECOND = 240, 60
WAITS, WAIT_MS = 300, 100
SETTLES_MS = 600
"""How long a page that was opened is let be before it is dragged on, on a machine as it is. One
that is made slower needs so much longer: until then it still draws what it opened with, and the
drag's long frames were those of opening it, which has a row of its own."""
TRIES, PAUSED_MS = 3, 50
"""A drag during which the machine itself stood still for so long tells nothing: once more then."""


@dataclass(frozen=True)
class Held:
    """What is taken hold of on a step, and what follows it: a text, or where a sheet is moved.

    On Kit no number of the server's is shown while a drum moves: the drum's own mic is to follow,
    which the server puts where it goes. Of a close mic, whose panel is open as it is held, the
    flag on the tape is: it moves with each answer, as the fields of the panel change.
    """

    grip: str
    number: str
    sheet: bool = False
    step: str = ""


HELD = {
    "place": Held('[data-mic="OR"][data-view="above"] > circle', '[data-tape="snare-b"]'),
    "kit": Held('[data-part="floor"][data-view="above"] > circle',
                '[data-hand="mic FT"][data-view="above"]', sheet=True),
    "close mic": Held('[data-mic="ST"][data-view="above"] > circle',
                      '[data-hand-flag$="-ST"]', sheet=True, step="place"),
    "room": Held("[data-kit] > circle", '[data-wall="left"]'),
}  # fmt: skip
BARE_HELD = Held("", "p")


@dataclass(frozen=True)
class Drag:
    """One drag: numbers a second, milliseconds from hand to number, frames, how far behind."""

    rate: float
    p95_ms: float  # until it is written
    seen_ms: float  # until the frame that shows it, 95 % of them
    frame_ms: float
    longest_frame: float  # in medians, the machine's own pauses left out
    paused_ms: float  # the longest of those
    behind: float  # frames that the mic was behind the pointer, the most


@dataclass(frozen=True)
class Machine:
    """What the page runs on: how much slower the browser is made, and cores kept busy."""

    name: str
    slower: int = 1
    busy: int = 0


MACHINES = (Machine("idle"), Machine("slowed four times", slower=4), Machine("busy", busy=2))

# In the page: when the hand moved, when the shown number changed next, every frame, and how far
# the mic is from where the pointer was.
# To look where it is costs time, so that is done in a drag of its own.
WATCH = """({ mic, number, sheet }) => {
  // Looked up again only where it was drawn anew: to search a large page takes time as well.
  let place = null;
  const told = () => (place?.isConnected ? place : (place = document.querySelector(number)));
  let moved = '';
  const shown = () => sheet ? moved : told()?.textContent;
  const found = { waits: [], seen: [], changes: 0, from: 0, to: 0, pending: null, unseen: null,
    frames: [], behind: [] };
  let last = shown(), before = 0, down = null, at = null;
  const points = [];
  let n = 0, counted = -1;
  // Under a hand a mic is a copy of the drawing's own.
  const copy = '[data-hand][data-view="above"] > g > circle[fill="transparent"]';
  const where = () => (document.querySelector(copy)
    ?? (mic && document.querySelector(mic)))?.getBoundingClientRect();
  window.addEventListener('pointerdown', (e) => {
    const box = where();
    down = box ? { x: e.clientX - box.x, y: e.clientY - box.y } : null;
  }, true);
  // From when the hand moved, by the browser's clock: a page that is busy hears of it later.
  for (const name of ['pointerrawupdate', 'pointermove']) window.addEventListener(name, (e) => {
    found.pending ??= e.timeStamp;
    at = { x: e.clientX, y: e.clientY };
    points.push({ ...at, n });
  }, true);
  const look = () => {
    const now = performance.now();
    if (shown() === last) return;
    last = shown();
    // Of two within one frame only one is seen.
    if (counted !== n) found.changes++;
    counted = n;
    found.from ||= now;
    found.to = now;
    if (found.pending !== null) found.waits.push(now - found.pending);
    found.unseen ??= found.pending;
    found.pending = null;
  };
  if (sheet) {
    const put = KeyframeEffect.prototype.setKeyframes;
    KeyframeEffect.prototype.setKeyframes = function (frames) {
      put.call(this, frames);
      if (this.target !== told()) return;
      moved = frames.transform[0];
      look();
    };
  } else
    new MutationObserver(look).observe(document.body,
      { characterData: true, childList: true, subtree: true });
  // Told of after all that is done with a frame, before it is shown: is the mic where the hand was
  // when the frame began?
  const probe = document.body.appendChild(document.createElement('i'));
  Object.assign(probe.style, { position: 'fixed', width: 0, height: '1px', opacity: 0 });
  let newest = -1;
  new ResizeObserver(() => {
    const box = down && newest >= 0 && where();
    if (!box) return;
    const k = points.findLastIndex(
      (p) => Math.hypot(p.x - down.x - box.x, p.y - down.y - box.y) < 1.5);
    found.behind.push(k >= newest ? 0 : n - 1 - (points[k]?.n ?? 0));
  }).observe(probe);
  const frame = (now) => {
    if (found.unseen !== null) found.seen.push(performance.now() - found.unseen);
    found.unseen = null;
    if (before) found.frames.push([before, now].map((t) => performance.timeOrigin + t));
    before = now;
    if (down && at) {
      newest = points.length - 1;
      probe.style.width = `${1 + n % 2}px`;
    }
    n++;
    requestAnimationFrame(frame);
  };
  requestAnimationFrame(frame);
  window.__drag = found;
}"""

MIDDLE = """(grip) => {
  const box = document.querySelector(grip)?.getBoundingClientRect();
  return box?.width ? [box.x + box.width / 2, box.y + box.height / 2] : null;
}"""

# A page with one number: it asks at each move, three questions under way at most, as Place does.
BARE = """({ path, body, vary }) => {
  document.head.innerHTML = '';
  document.body.innerHTML = '<p>0</p>';
  document.body.style.height = '100vh';
  const token = /csrftoken=([^;]+)/.exec(document.cookie)[1];
  const number = document.querySelector('p');
  let wanted = null, busy = 0, asked = 0, shown = 0, known = false;
  const put = (x, whole) => {
    const [, y, z] = body.position_m ?? [];
    const { layout, ...rest } = body;
    const sent = vary ? { ...(whole ? body : rest), position_m: [x / 1000, y, z] } : body;
    return fetch(path, { method: 'POST', body: JSON.stringify(sent),
      headers: { 'Content-Type': 'application/json', 'X-CSRFToken': token } });
  };
  const ask = async (x, n) => {
    busy++;
    let answer = await put(x, !known);
    if (answer.status === 409) answer = await put(x, true);
    known = true;
    const told = await answer.json();
    if (n > shown) {
      shown = n;
      number.textContent = vary ? (told.pair.distances[0].tape_b_m * 100).toFixed(3) : `${x} ${n}`;
    }
    busy--;
    next();
  };
  const next = () => {
    if (wanted === null || busy >= 3) return;
    const x = wanted;
    wanted = null;
    ask(x, ++asked);
  };
  let last = null;
  for (const name of ['pointerrawupdate', 'pointermove']) window.addEventListener(name, (e) => {
    if (e.clientX === last) return;
    last = wanted = e.clientX;
    next();
  });
}"""


# In the page: the close mics again, each a little beside the one it is copied from, and saved.
MORE = """async ([id, count]) => {
  const { doc, version } = await (await fetch(`/api/layouts/${id}`)).json();
  const close = doc.mics.filter((m) => m.role === 'close');
  for (let n = 0; doc.mics.length < count; n++) {
    const { position_m: [x, y, z], ...mic } = close[n % close.length];
    const own = { id: `X${n}`, name: `More ${n}` };
    const track = doc.channels.find((c) => c.mic === mic.id);
    doc.mics.push({ ...mic, ...own, stand: null,
      position_m: [x + 0.03 * (n + 1), y + 0.02, z + 0.05] });
    doc.channels.push({ ...track, ...own, mic: own.id, input: null });
  }
  const token = /csrftoken=([^;]+)/.exec(document.cookie)[1];
  const answer = await fetch(`/api/layouts/${id}`, { method: 'PUT',
    headers: { 'Content-Type': 'application/json', 'X-CSRFToken': token },
    body: JSON.stringify({ version, doc, what: 'more mics' }) });
  return answer.status;
}"""


def _spin() -> None:
    while True:
        pass


@contextlib.contextmanager
def kept_busy(cores: int) -> Iterator[None]:
    """So many processes that do nothing, as fast as they can."""
    crowd = [multiprocessing.Process(target=_spin, daemon=True) for _ in range(cores)]
    for one in crowd:
        one.start()
    try:
        yield
    finally:
        for one in crowd:
            one.kill()
            one.join()


async def drag(
    page: Any, x: float, y: float, held: Held, stood: Witness, look: bool = False
) -> Drag:
    """Drag from a place out and back for four seconds; what the page noted meanwhile.

    `look` also notes how far what is held is behind the pointer, which takes time of its own.
    """
    await page.evaluate(WATCH, {"mic": held.grip if look else None, "number": held.number,
                                "sheet": held.sheet})  # fmt: skip
    await page.mouse.move(x, y)
    stood.told()  # what was before is no matter
    await page.mouse.down()
    wire = await page.context.new_cdp_session(page)
    sent = []
    for n in range(MOVES):
        swing = abs(n % 100 - 50) * 2.5  # over a centimetre a step
        # The button is told of with each move, as a mouse does: without it the browser takes the
        # pointer from what holds it, and looks for what lies under it at each one.
        move = {"type": "mouseMoved", "x": x + swing, "y": y - swing / 3, "button": "left",
                "buttons": 1}  # fmt: skip
        sent.append(asyncio.create_task(wire.send("Input.dispatchMouseEvent", move)))
        await asyncio.sleep(1 / PER_SECOND)
    await asyncio.gather(*sent)
    found = await page.evaluate("structuredClone(window.__drag)")
    paused = stood.told()
    await page.mouse.up()
    await wire.detach()
    frames = found["frames"][2:]
    middle = statistics.median(end - begin for begin, end in frames)
    if len(found["waits"]) < 2:
        raise SystemExit("the drag took hold of nothing: no number has changed")
    return Drag(
        rate=(found["changes"] - 1) / max(found["to"] - found["from"], 1) * 1e3,
        p95_ms=statistics.quantiles(found["waits"], n=20)[-1],
        seen_ms=statistics.quantiles(found["seen"], n=20)[-1],
        frame_ms=middle,
        longest_frame=max(without(frame, paused) for frame in frames) / middle,
        paused_ms=max((end - begin for begin, end in paused), default=0.0),
        behind=max(found["behind"], default=0),
    )


async def sign_in(page: Any, port: int) -> None:
    """As the demo's engineer."""
    await page.goto(f"http://127.0.0.1:{port}/")
    await page.get_by_label("Name").fill("demo")
    await page.get_by_label("Password").fill(DEMO_PASSWORD)
    await page.get_by_role("button", name="Sign in").click()
    await page.get_by_role("link", name="Layout A").wait_for()


async def questions(page: Any, layout: int) -> dict[str, Any]:
    """What Place asks while this layout's right overhead moves, and next to nothing."""
    doc = await page.evaluate(
        f"fetch('/api/layouts/{layout}').then(a => a.json()).then(a => a.doc)"
    )
    mic = next(m for m in doc["mics"] if m["id"] == "OR")
    same = {
        "name": "bare", "layout": doc, "mic": "OR", "aim": mic["aim"],
        "position_m": mic["position_m"], "focus": {"anchor": "OL", "mover": "OR", "source": None},
        "words": False,
    }  # fmt: skip
    return {
        "bare": {"path": "/api/follow", "body": same, "vary": True},
        "nothing": {"path": "/api/thresholds", "body": {}, "vary": False},
    }


async def one(
    browser: Any, port: int, layout: int, which: str, slower: int, stood: Witness
) -> Drag:
    """One drag on one page, opened for it."""
    page = await browser.new_page(viewport={"width": 1280, "height": 800})
    await sign_in(page, port)
    asked = await questions(page, layout)
    held = HELD.get(which, BARE_HELD)
    if which in HELD:
        await page.goto(f"http://127.0.0.1:{port}/layouts/{layout}/{held.step or which}")
        await _middle(page, held.grip)
    else:
        await page.goto(f"http://127.0.0.1:{port}/healthz")
        await page.evaluate(BARE, asked[which])
    wire = await page.context.new_cdp_session(page)
    await wire.send("Emulation.setCPUThrottlingRate", {"rate": slower})
    await page.wait_for_timeout(SETTLES_MS * slower)
    found = await drag(page, *await _middle(page, held.grip), held, stood)
    if which in HELD:
        await _back(page)
        again = await drag(page, *await _middle(page, held.grip), held, stood, look=True)
        found = replace(found, behind=again.behind)
        await _back(page)
    await page.close()
    return found


async def _back(page: Any) -> None:
    """Undo the drag, so that the next begins where this one did."""
    await page.locator("[data-saved=saved]").wait_for()
    await page.keyboard.press("Control+z")
    await page.wait_for_timeout(800)
    await page.locator("[data-saved=saved]").wait_for()


async def _middle(page: Any, grip: str) -> tuple[float, float]:
    """Where to take hold: of a mic, once it is there, or anywhere on a bare page.

    Not by a locator: those listen to every move of the pointer on the page they are used on, and
    the bare pages have none of them.
    """
    if not grip:
        return 400.0, 400.0
    for _ in range(WAITS):
        if found := await page.evaluate(MIDDLE, grip):
            return tuple(found)
        await page.wait_for_timeout(WAIT_MS)
    raise SystemExit(f"nothing to take hold of on {page.url}: {grip}")


def middle_of(some: list[Drag]) -> Drag:
    """Each figure's median."""
    return Drag(
        *(statistics.median(v) for v in zip(*(vars(d).values() for d in some), strict=True))
    )


async def with_more_mics(port: int, layout: int, mics: int) -> None:
    """The layout with copies of its close mics beside them, up to so many, saved."""
    from playwright.async_api import async_playwright

    async with async_playwright() as play:
        browser = await play.chromium.launch(executable_path="/usr/bin/chromium", args=CHROMIUM)
        page = await browser.new_page()
        await sign_in(page, port)
        status = await page.evaluate(MORE, [layout, mics])
        await browser.close()
    if status != 200:
        raise SystemExit(f"saving a layout of {mics} mics was answered with {status}")


async def drags(
    port: int, layout: int, machine: Machine, times: int, pages: tuple[str, ...] = PAGES
) -> dict[str, list[Drag]]:
    """Drags by page on one machine, turn about so that a slow moment meets all."""
    from playwright.async_api import async_playwright

    found: dict[str, list[Drag]] = {which: [] for which in pages}
    async with async_playwright() as play:
        browser = await play.chromium.launch(executable_path="/usr/bin/chromium", args=CHROMIUM)
        for _ in range(times):
            for which in pages:
                for _ in range(TRIES):
                    with kept_busy(machine.busy), witnessed() as stood:
                        made = await one(browser, port, layout, which, machine.slower, stood)
                    if made.paused_ms <= PAUSED_MS:
                        break
                found[which].append(made)
        await browser.close()
    return found


async def _main() -> None:
    import sys

    port, layout, times = (int(v) for v in sys.argv[1:4])
    pages = tuple(sys.argv[4:]) or PAGES
    for machine in MACHINES:
        for which, some in (await drags(port, layout, machine, times, pages)).items():
            d = middle_of(some)
            rates = " ".join(f"{x.rate:.0f}" for x in some)
            print(
                f"{machine.name:20} {which:8} {d.rate:5.1f}/s ({rates}) p95 {d.p95_ms:6.1f} seen"
                f" {d.seen_ms:6.1f} frame {d.frame_ms:5.1f} longest {d.longest_frame:4.1f}"
                f" paused {d.paused_ms:3.0f} behind {d.behind:4.1f}"
            )


if __name__ == "__main__":
    asyncio.run(_main())
