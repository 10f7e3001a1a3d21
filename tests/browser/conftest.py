"""The real thing: the watcher's processes, the real build, PostgreSQL, Debian's Chromium."""

import fcntl
import os
import subprocess
import time
import uuid
from collections.abc import Callable
from dataclasses import dataclass
from pathlib import Path

import pytest
from api.heavy.pool import WARM
from playwright.sync_api import (
    Browser,
    BrowserContext,
    Locator,
    Page,
    Route,
    expect,
    sync_playwright,
)

from ops.cluster import free_port
from ops.paths import ROOT
from ops.processes import MARK
from ops.serve import environment, wait_for, watch_command
from tests.databases import database, with_demo

ARGS = [
    "--no-sandbox", "--disable-gpu", "--disable-quic", "--no-first-run",
    "--disable-background-networking", "--disable-component-update", "--disable-sync",
]  # fmt: skip
SHELL = "/usr/bin/chromium-headless-shell"
PASSWORD = "long-enough-and-odd-7"
expect.set_options(timeout=15_000)


@dataclass
class Server:
    """A running server that can be taken away and brought back."""

    port: int
    env: dict[str, str]
    log: Path
    process: subprocess.Popen | None = None

    @property
    def url(self) -> str:
        return f"http://127.0.0.1:{self.port}"

    def start(self) -> None:
        """Until both web processes are ready for long answers, which takes them a while."""
        warm = self.warm()
        with self.log.open("ab") as log:
            self.process = subprocess.Popen(
                watch_command(self.port), env=self.env, cwd=ROOT, stdout=log, stderr=log
            )
        wait_for(self.port, self.process, self.log)
        deadline = time.monotonic() + 90
        while self.warm() < warm + 2 and time.monotonic() < deadline:
            time.sleep(0.2)

    def warm(self) -> int:
        web = Path(self.env["RINGSIDE_HOME"]) / "log" / "web.log"
        return web.read_text().count(WARM) if web.exists() else 0

    def stop(self) -> None:
        self.process.terminate()
        self.process.wait(20)


def demo_database(folder: Path) -> str:
    """A database with the demo in it, made by whichever worker comes first and copied by each."""
    with (folder / "demo-database").open("a+") as file:
        fcntl.flock(file, fcntl.LOCK_EX)  # until it is closed
        file.seek(0)
        if name := file.read():
            return name
        name = f"demo_{uuid.uuid4().hex[:8]}"
        with_demo(name)
        file.write(name)
        return name


@pytest.fixture(scope="session")
def server(tmp_path_factory):
    name = f"browser_{uuid.uuid4().hex[:8]}"
    alone = "PYTEST_XDIST_WORKER" not in os.environ
    base = tmp_path_factory.getbasetemp()
    database(name, demo_database(base if alone else base.parent))
    settings = "tests.browser.settings"
    env = {**os.environ, "RINGSIDE_DB_NAME": name, "DJANGO_SETTINGS_MODULE": settings}
    home = tmp_path_factory.mktemp("server")
    env = {**environment(env), "RINGSIDE_HOME": str(home), MARK: str(home)}
    port = free_port()
    env["RINGSIDE_LAN_ADDRESSES"] = f"http://127.0.0.1:{port}"
    running = Server(port, env, home / "said")
    running.start()
    yield running
    running.stop()


@pytest.fixture(scope="session")
def chromium():
    with sync_playwright() as play:
        browser = play.chromium.launch(executable_path=SHELL, args=ARGS)
        yield browser
        browser.close()


def pick(field: Locator, value: str) -> None:
    """Open a list and take one of it, by the value it stands for or else by its words."""
    field.click()
    page = field.page
    option = page.locator(f'[role=option][data-option="{value}"]')
    if not option.count():
        option = page.get_by_role("option", name=value, exact=True)
    option.click()
    expect(page.get_by_role("listbox")).to_have_count(0)


def until(page: Page, what: Callable[[], bool], seconds: int = 8) -> None:
    """Wait until something that is kept on the server is so."""
    for _ in range(10 * seconds):
        if what():
            return
        page.wait_for_timeout(100)
    assert what()


def at_rest(of: Locator) -> dict:
    """Where something is drawn, once what arrives after it no longer moves it."""
    seen = [None]
    for _ in range(60):
        seen.append(of.bounding_box())
        if seen[-1] and seen[-3:].count(seen[-1]) == 3:
            break
        of.page.wait_for_timeout(100)
    return seen[-1]


def held_back(page: Page, path: str) -> Callable[[], None]:
    """Hold what is asked back, until what is handed back is called: then all of it goes."""
    waiting: list[Route] | None = []

    def gate(route: Route) -> None:
        route.continue_() if waiting is None else waiting.append(route)

    def let_go() -> None:
        nonlocal waiting
        held, waiting = waiting or [], None
        for route in held:
            route.continue_()

    page.route(path, gate)
    return let_go


def unanswered(page: Page) -> list[str]:
    """No question is answered from now on, and is soon asked again; which, by their last word."""
    asked = []

    def cut(route: Route) -> None:
        asked.append(route.request.url.rsplit("/", 1)[1])
        route.abort()

    page.route("**/api/**", cut)
    page.evaluate(
        "() => { const wait = setTimeout; setTimeout = (f, ms, ...a) => wait(f, ms / 20, ...a); }"
    )
    return asked


def by_requests(person: "Person") -> None:
    """A browser that opens no line to the server: what a hand asks can be held back or refused."""
    person.page.add_init_script("delete window.WebSocket")


@dataclass
class Person:
    """Somebody at a browser, signed in to a studio of their own with one session."""

    context: BrowserContext
    page: Page
    url: str
    faults: list[str]
    session: dict

    @property
    def layout(self) -> int:
        return self.session["layouts"][0]["id"]

    def open(self, step: str = "place", layout: int | None = None) -> Page:
        self.page.goto(f"{self.url}/layouts/{layout or self.layout}/{step}")
        expect(self.page.locator("[data-saved=saved]")).to_be_visible()
        return self.page

    def get(self, path: str):
        return self.context.request.get(f"{self.url}/api{path}")

    def post(self, path: str, data: dict):
        return self._send("post", path, data)

    def put(self, path: str, data: dict | bytes):
        return self._send("put", path, data)

    def _send(self, method: str, path: str, data: dict | bytes):
        token = next(c["value"] for c in self.context.cookies() if c["name"] == "csrftoken")
        headers = {"X-CSRFToken": token, "Referer": self.url}
        return getattr(self.context.request, method)(
            f"{self.url}/api{path}", data=data, headers=headers
        )

    def save(self, doc: dict, what: str) -> None:
        """A state of the layout, as another page would save it."""
        path = f"/layouts/{self.layout}"
        body = {"version": self.get(path).json()["version"], "doc": doc, "what": what}
        done = self.put(path, body)
        assert done.ok, done.text()

    def doc(self) -> dict:
        return self.get(f"/layouts/{self.layout}").json()["doc"]

    def mic(self, name: str) -> dict:
        return next(m for m in self.doc()["mics"] if m["id"] == name)

    def track(self, name: str) -> dict:
        return next(c for c in self.doc()["channels"] if c["id"] == name)

    def saved(self) -> None:
        expect(self.page.locator("[data-saved=saved]")).to_be_visible()


def watched(page: Page) -> list[str]:
    """Errors of the page; answers the tests provoke on purpose are not among them."""
    faults: list[str] = []
    page.on("pageerror", lambda e: faults.append(str(e)))
    page.on(
        "console",
        lambda m: (
            faults.append(m.text)
            if m.type == "error" and "Failed to load resource" not in m.text
            else None
        ),
    )
    return faults


DESK = {"viewport": {"width": 1280, "height": 800}}
HAND = {"viewport": {"width": 390, "height": 844}, "has_touch": True, "is_mobile": True}


def arrive(
    server: Server, chromium: Browser, start="square pair", kit="five-piece", screen=None
) -> Person:
    context = chromium.new_context(**(screen or DESK))
    context.set_default_timeout(30_000)
    context.request.get(server.url)  # for its token
    page = context.new_page()
    faults = watched(page)
    person = Person(context, page, server.url, faults, {})
    account = {"username": uuid.uuid4().hex[:12], "password": PASSWORD, "studio": "Test studio"}
    assert person.post("/account/sign-up", account).status == 201
    new = {"name": "Test day", "place": "Store", "kit": kit, "start": start}
    person.session = person.post("/sessions", new).json()
    return person


@pytest.fixture
def someone(server, chromium):
    person = arrive(server, chromium)
    yield person
    person.context.close()
    assert person.faults == []


@pytest.fixture
def held(server, chromium):
    """Somebody with a phone in hand."""
    person = arrive(server, chromium, screen=HAND)
    yield person
    person.context.close()
    assert person.faults == []


@pytest.fixture
def another(server, chromium):
    person = arrive(server, chromium)
    yield person
    person.context.close()
    assert person.faults == []
