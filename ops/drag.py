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

CHROMIUM = [
    "--no-sandbox", "--disable-gpu", "--disable-quic", "--no-first-run",
    "--disable-background-networking", "--disable-component-update", "--disable-sync",
]  # fmt: skip
PAGES = ("place", "bare", "nothing")
MOVES, PER_SECOND = 240, 60
NUMBER = '[data-tape="snare-b"]'


@dataclass(frozen=True)
class Drag:
    """One drag: numbers a second, milliseconds from pointer to number, frames, how far behind."""

    rate: float
    p95_ms: float
    frame_ms: float
    longest_frame: float  # in medians
    behind: float  # frames that the mic was behind the pointer, the most


@dataclass(frozen=True)
class Machine:
    """What the page runs on: how much slower the browser is made, and cores kept busy."""

    name: str
    slower: int = 1
    busy: int = 0


MACHINES = (Machine("idle"), Machine("slowed four times", slower=4), Machine("busy", busy=2))

# In the page: when the pointer moved, when the shown number changed next, every frame, and how
# far the mic is from where the pointer was.
# To look where it is costs time, so that is done in a drag of its own.
WATCH = """(mic) => {
  const shown = () => document.querySelector('[data-tape="snare-b"]')?.textContent;
  const found = { waits: [], changes: 0, from: 0, to: 0, pending: null, frames: [], behind: [] };
  let last = shown(), before = 0, down = null, at = null;
  const points = [];
  const where = () => mic && document.querySelector(mic)?.getBoundingClientRect();
  window.addEventListener('pointerdown', (e) => {
    const box = where();
    down = box ? { x: e.clientX - box.x, y: e.clientY - box.y } : null;
  }, true);
  window.addEventListener('pointermove', (e) => {
    if (found.pending === null) found.pending = performance.now();
    at = { x: e.clientX, y: e.clientY };
  }, true);
  new MutationObserver(() => {
    const now = performance.now();
    if (shown() === last) return;
    last = shown();
    found.changes++;
    found.from ||= now;
    found.to = now;
    if (found.pending !== null) found.waits.push(now - found.pending);
    found.pending = null;
  }).observe(document.body, { characterData: true, childList: true, subtree: true });
  const frame = (now) => {
    if (before) found.frames.push(now - before);
    before = now;
    points.push(at);
    const box = down && at && where();
    if (box) {
      const k = points.findLastIndex(
        (p) => p && Math.hypot(p.x - down.x - box.x, p.y - down.y - box.y) < 1.5);
      found.behind.push(points.length - 1 - k);
    }
    requestAnimationFrame(frame);
  };
  requestAnimationFrame(frame);
  window.__drag = found;
}"""

# A page with one number: it asks at each move, two questions under way at most, as Place does.
BARE = """({ path, body, vary }) => {
  document.head.innerHTML = '';
  document.body.innerHTML = '<p data-tape="snare-b">0</p>';
  document.body.style.height = '100vh';
  const token = /csrftoken=([^;]+)/.exec(document.cookie)[1];
  const number = document.querySelector('p');
  let wanted = null, busy = 0, asked = 0, shown = 0;
  const ask = async (x, n) => {
    busy++;
    const sent = vary ? { ...body, position_m: [x / 1000, body.position_m[1], body.position_m[2]] }
      : body;
    const answer = await fetch(path, { method: 'POST', body: JSON.stringify(sent),
      headers: { 'Content-Type': 'application/json', 'X-CSRFToken': token } });
    const told = await answer.json();
    if (n > shown) {
      shown = n;
      number.textContent = vary ? (told.pair.heard.rows[0].tape_b_m * 100).toFixed(3) : `${x} ${n}`;
    }
    busy--;
    next();
  };
  const next = () => {
    if (wanted === null || busy >= 2) return;
    const x = wanted;
    wanted = null;
    ask(x, ++asked);
  };
  window.addEventListener('pointermove', (e) => { wanted = e.clientX; next(); });
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


async def drag(page: Any, x: float, y: float, mic: str | None) -> Drag:
    """Drag from a place out and back for four seconds; what the page noted meanwhile."""
    await page.evaluate(WATCH, mic)
    await page.mouse.move(x, y)
    await page.mouse.down()
    wire = await page.context.new_cdp_session(page)
    sent = []
    for n in range(MOVES):
        swing = abs(n % 100 - 50) * 2.5  # over a centimetre a step
        move = {"type": "mouseMoved", "x": x + swing, "y": y - swing / 3, "buttons": 1}
        sent.append(asyncio.create_task(wire.send("Input.dispatchMouseEvent", move)))
        await asyncio.sleep(1 / PER_SECOND)
    await asyncio.gather(*sent)
    found = await page.evaluate("structuredClone(window.__drag)")
    await page.mouse.up()
    await wire.detach()
    frames = found["frames"][2:]
    middle = statistics.median(frames)
    return Drag(
        rate=(found["changes"] - 1) / max(found["to"] - found["from"], 1) * 1e3,
        p95_ms=statistics.quantiles(found["waits"], n=20)[-1],
        frame_ms=middle,
        longest_frame=max(frames) / middle,
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
        "layout": doc, "mic": "OR", "position_m": mic["position_m"], "aim": mic["aim"],
        "focus": {"anchor": "OL", "mover": "OR", "source": None},
    }  # fmt: skip
    return {
        "bare": {"path": "/api/follow", "body": same, "vary": True},
        "nothing": {"path": "/api/thresholds", "body": {}, "vary": False},
    }


async def one(browser: Any, port: int, layout: int, which: str, slower: int) -> Drag:
    """One drag on one page, opened for it."""
    page = await browser.new_page(viewport={"width": 1280, "height": 800})
    await sign_in(page, port)
    asked = await questions(page, layout)
    mic = None
    if which == "place":
        mic = '[data-mic="OR"][data-view="above"] > circle'
        await page.goto(f"http://127.0.0.1:{port}/layouts/{layout}/place")
        await page.locator(NUMBER).wait_for()
        grip = await page.locator(mic).bounding_box()
        x, y = grip["x"] + grip["width"] / 2, grip["y"] + grip["height"] / 2
    else:
        await page.goto(f"http://127.0.0.1:{port}/healthz")
        await page.evaluate(BARE, asked[which])
        x, y = 400.0, 400.0
    wire = await page.context.new_cdp_session(page)
    await wire.send("Emulation.setCPUThrottlingRate", {"rate": slower})
    await page.wait_for_timeout(600)
    found = await drag(page, x, y, None)
    if mic:
        await page.wait_for_timeout(600)
        grip = await page.locator(mic).bounding_box()
        x, y = grip["x"] + grip["width"] / 2, grip["y"] + grip["height"] / 2
        found = replace(found, behind=(await drag(page, x, y, mic)).behind)
    await page.close()
    return found


def middle_of(some: list[Drag]) -> Drag:
    """Each figure's median."""
    return Drag(
        *(statistics.median(v) for v in zip(*(vars(d).values() for d in some), strict=True))
    )


async def table(port: int, layout: int, times: int) -> dict[tuple[str, str], list[Drag]]:
    """Drags by machine and page, turn about so that a slow moment meets all."""
    from playwright.async_api import async_playwright

    found: dict[tuple[str, str], list[Drag]] = {}
    async with async_playwright() as play:
        browser = await play.chromium.launch(executable_path="/usr/bin/chromium", args=CHROMIUM)
        for machine in MACHINES:
            for _ in range(times):
                for which in PAGES:
                    with kept_busy(machine.busy):
                        got = await one(browser, port, layout, which, machine.slower)
                    found.setdefault((machine.name, which), []).append(got)
        await browser.close()
    return found


async def _main() -> None:
    import sys

    port, layout, times = (int(v) for v in sys.argv[1:4])
    for (machine, which), some in (await table(port, layout, times)).items():
        d = middle_of(some)
        print(
            f"{machine:20} {which:8} {d.rate:5.1f}/s p95 {d.p95_ms:6.1f} frame {d.frame_ms:5.1f}"
            f" longest {d.longest_frame:4.1f} behind {d.behind:4.1f}"
        )


if __name__ == "__main__":
    asyncio.run(_main())
