"""What is felt beside the drag: opening, changing the step, keys, fields, tables, sliders.

Each is timed in the page from the press to the frame after what it changes is there, and set
against its own floor in the same run: a bare page that sends the same questions all at once, reads
the answers and writes one number. Where nothing is asked the floor is a number and a frame.
"""

import asyncio
import json
import statistics
from collections.abc import Awaitable, Callable
from dataclasses import dataclass, field
from typing import Any

from ops.drag import CHROMIUM, sign_in

TIMES = 7
PURE = ("/api/compute", "/api/follow", "/api/edit", "/api/pairs", "/api/techniques", "/api/fit")
"""Questions that keep nothing, so that they can be asked again."""

# In the page: from the first press to the frame after the watched words have changed.
WATCH = """(sel) => {
  const told = () => {
    const at = document.querySelector(sel);
    return at && (at.getAttribute('aria-label') || '') + at.textContent;
  };
  const was = told(), found = { from: 0, to: 0 };
  const begun = () => { found.from ||= performance.now(); };
  for (const kind of ['pointerdown', 'keydown']) addEventListener(kind, begun, true);
  const seen = new MutationObserver(() => {
    if (!found.from || told() === was || told() === null) return;
    seen.disconnect();
    requestAnimationFrame(() => setTimeout(() => { found.to = performance.now(); }));
  });
  seen.observe(document.body,
    { subtree: true, childList: true, characterData: true, attributes: true });
  window.__felt = found;
}"""

DONE = """() => new Promise((done) => {
  const look = () => window.__felt.to ? done(window.__felt) : setTimeout(look, 20);
  look();
})"""

# On a bare page: the same questions at once, one number and a frame; milliseconds.
FLOOR = """async ({ asked, draw }) => {
  const token = /csrftoken=([^;]+)/.exec(document.cookie)[1];
  const from = performance.now();
  const told = await Promise.all(asked.map(async ({ method, path, body }) => {
    const answer = await fetch(path, { method, body: body || undefined,
      headers: { 'Content-Type': 'application/json', 'X-CSRFToken': token } });
    const text = await answer.text();
    return answer.headers.get('Content-Type').includes('json') ? JSON.parse(text) : text;
  }));
  document.body.innerHTML = draw || `<p>${from} ${told.length}</p>`;
  await new Promise((done) => requestAnimationFrame(() => setTimeout(done)));
  return performance.now() - from;
}"""

# From the start of the page to the frame in which the drawing and its first distance are there.
OPENED = """() => new Promise((done) => {
  const look = () => document.querySelector('[data-mic]')
      && document.querySelector('[data-tape="snare-b"]')
    ? setTimeout(() => done(performance.now())) : requestAnimationFrame(look);
  look();
})"""


@dataclass(frozen=True)
class Felt:
    """One thing people do: how to get ready, what to press, what tells that it is there."""

    name: str
    at: str
    ready: Callable[[Any], Awaitable[None]]
    press: Callable[[Any], Awaitable[None]]
    tells: str


@dataclass
class Timed:
    """Milliseconds of each time, and of its floor."""

    waits: list[float] = field(default_factory=list)
    floors: list[float] = field(default_factory=list)

    @property
    def ms(self) -> float:
        """The median."""
        return statistics.median(self.waits)

    @property
    def times(self) -> float:
        """How many times its floor it takes: the medians."""
        return self.ms / statistics.median(self.floors)


def _mic(name: str) -> str:
    return f'[data-mic="{name}"][data-view="above"]'


async def _nothing(page: Any) -> None:
    await page.locator(_mic("OR")).first.wait_for()


async def _hold(page: Any) -> None:
    await page.locator(_mic("OR")).focus()


async def _panel(page: Any) -> None:
    await page.locator(_mic("OR")).focus()
    await page.keyboard.press("Enter")
    await page.get_by_role("tab", name="Mic OR").click()
    high = page.get_by_label("Height, cm")
    await high.fill(str(round(float(await high.input_value()) + 1, 1)))


async def _moved(page: Any) -> None:
    await _hold(page)
    await page.keyboard.press("ArrowRight")
    await page.locator("[data-saved=saved]").wait_for()
    await page.wait_for_timeout(700)


async def _tab(page: Any, name: str) -> None:
    await page.get_by_role("tab", name=name).click()
    await page.wait_for_timeout(900)


async def _sliding(page: Any) -> None:
    await _tab(page, "What if")
    await page.locator("[role=tabpanel] [role=slider]").first.focus()


async def _fader(page: Any) -> None:
    await _tab(page, "Balance")
    await page.locator("[data-fader=OL]").focus()


def _to(name: str) -> Callable[[Any], Awaitable[None]]:
    async def press(page: Any) -> None:
        # By where it leads: what a step is called may be said of another as well.
        await page.locator(f'nav a[href$="/{name.lower()}"]').click()

    return press


def _key(name: str) -> Callable[[Any], Awaitable[None]]:
    return lambda page: page.keyboard.press(name)


STEPS = {
    "Brief": "main form, main section", "Room": "[data-kit]", "Kit": "[data-part]",
    "Patch": "[data-track]", "Pairs": "[data-pair]", "Sheet": "main iframe",
    "Log": "main form",
}  # fmt: skip
FELT = (
    *(Felt(f"to {name}", "1/place", _nothing, _to(name), s) for name, s in STEPS.items()),
    Felt("to Place", "1/kit", lambda p: p.locator("[data-part]").first.wait_for(), _to("Place"),
         _mic("OR")),
    Felt("a key on a mic", "1/place", _hold, _key("ArrowRight"), _mic("OR")),
    Felt("undo", "1/place", _moved, _key("Control+z"), _mic("OR")),
    Felt("a typed height", "1/place", _panel, _key("Enter"), _mic("OR")),
    Felt("opening a pair, to its remedies", "1/pairs", (
         lambda p: p.locator('[aria-label="Remedies, best first"] li').first.wait_for()),
         lambda p: p.locator('[data-pair="T1-OL"]').first.click(),
         '[aria-label="Remedies, best first"]'),
    Felt("a technique's preview", "1/place", lambda p: _tab(p, "Techniques"),
         lambda p: p.locator('[data-technique="one-mid-kit"]').click(), _mic("MM")),
    Felt("a fader, to its marks", "1/pairs", _fader, _key("ArrowLeft"), "[data-fader=OL]"),
    Felt("the what-if slider", "3/place", _sliding, _key("ArrowRight"), _mic("OR")),
)  # fmt: skip


async def _bare(context: Any, port: int, asked: list[dict[str, str]], draw: str = "") -> float:
    """The floor, on a page of its own."""
    page = await context.new_page()
    await page.goto(f"http://127.0.0.1:{port}/healthz")
    ms = float(await page.evaluate(FLOOR, {"asked": asked, "draw": draw}))
    await page.close()
    return ms


def _listen(page: Any) -> list[dict[str, str]]:
    """The questions that the page asks from now on, and that can be asked again."""
    asked: list[dict[str, str]] = []

    def hear(request: Any) -> None:
        path = "/" + request.url.split("/", 3)[3]
        if not path.startswith("/api/"):
            return
        if request.method == "GET" or path.split("?")[0].startswith(PURE):
            asked.append({"method": request.method, "path": path, "body": request.post_data or ""})

    page.on("request", hear)
    return asked


async def once(context: Any, port: int, felt: Felt, timed: Timed) -> None:
    """One time, and its floor."""
    page = await context.new_page()
    await page.goto(f"http://127.0.0.1:{port}/layouts/{felt.at}")
    await page.locator("[data-saved=saved]").wait_for()
    await page.wait_for_timeout(1500)  # what comes ahead has come
    await felt.ready(page)
    asked = _listen(page)
    await page.evaluate(WATCH, felt.tells)
    await felt.press(page)
    found = await page.evaluate(DONE)
    sent = list(asked)
    timed.waits.append(found["to"] - found["from"])
    await page.locator("[data-saved=saved]").wait_for()
    await page.close()
    timed.floors.append(await _bare(context, port, sent))


async def opening(context: Any, port: int, timed: Timed) -> None:
    """Opening a layout; its floor is its data over loopback and its drawing, painted once."""
    page = await context.new_page()
    asked = _listen(page)
    await page.goto(f"http://127.0.0.1:{port}/layouts/1/place")
    timed.waits.append(float(await page.evaluate(OPENED)))
    sent = list(asked)
    drawing = await page.locator("main").inner_html()
    await page.close()
    timed.floors.append(await _bare(context, port, sent, drawing))


@dataclass(frozen=True)
class Load:
    """What came over the line for the first picture, and again with what is kept."""

    requests: int
    kilobytes: float
    again: float


async def first_load(browser: Any, port: int) -> Load:
    """Requests and bytes of a layout's first picture in a browser that has kept nothing."""
    context = await browser.new_context()
    page = await context.new_page()
    await sign_in(page, port)
    wire = await context.new_cdp_session(page)
    await wire.send("Network.enable")
    sizes: list[float] = []
    wire.on("Network.loadingFinished", lambda e: sizes.append(e["encodedDataLength"]))
    found = []
    for kept in (False, True):
        if not kept:
            await wire.send("Network.clearBrowserCache")
        sizes.clear()
        await page.goto(f"http://127.0.0.1:{port}/layouts/1/place")
        await page.evaluate(OPENED)
        found.append((len(sizes), sum(sizes) / 1000))
        await page.wait_for_timeout(2000)
    await context.close()
    return Load(found[0][0], found[0][1], found[1][1])


async def measure(port: int, times: int = TIMES) -> tuple[dict[str, Timed], Load]:
    """Everything here, each so many times, turn about."""
    from playwright.async_api import async_playwright

    found: dict[str, Timed] = {name: Timed() for name in ("opening", *(f.name for f in FELT))}
    async with async_playwright() as play:
        browser = await play.chromium.launch(executable_path="/usr/bin/chromium", args=CHROMIUM)
        load = await first_load(browser, port)
        context = await browser.new_context(viewport={"width": 1280, "height": 800})
        await sign_in(await context.new_page(), port)
        for _ in range(times):
            await opening(context, port, found["opening"])
            for felt in FELT:
                await once(context, port, felt, found[felt.name])
        await browser.close()
    return found, load


async def _main() -> None:
    import sys

    found, load = await measure(int(sys.argv[1]), int(sys.argv[2]))
    print(json.dumps(vars(load)))
    for name, timed in found.items():
        spread = f"{min(timed.waits):.0f} to {max(timed.waits):.0f}"
        print(f"{name:34} {timed.ms:7.1f} ms ({spread}), {timed.times:5.2f} times its floor")


if __name__ == "__main__":
    asyncio.run(_main())
