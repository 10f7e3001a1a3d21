"""The screens come in pieces: what is shown first, the rest ahead of the hand, and none lost."""

import re

import pytest
from playwright.sync_api import expect

from tests.browser.conftest import at_rest, held_back, until

ASSET = re.compile(r"/static/assets/.*\.(js|css|woff2)$")


def step(page, name):
    return page.get_by_role("navigation", name="Steps of the work").get_by_role(
        "link", name=re.compile(f"^{name}")
    )


def fetched(page):
    """What comes of the build from now on, by name: its response, noted as it comes."""
    found = {}
    page.on("response", lambda r: ASSET.search(r.url) and found.update({r.url.rsplit("/")[-1]: r}))
    return found


def test_signing_in_waits_for_no_charts(server, chromium):
    page = chromium.new_page()
    came = fetched(page)
    page.goto(f"{server.url}/sign-in")
    expect(page.get_by_role("button", name="Sign in")).to_be_visible()
    first = dict(came)
    names = " ".join(first)
    assert "SignIn" in names
    assert not re.search("Place|Pairs|Kit|LayoutShell", names)
    for name, response in first.items():
        headers = response.all_headers()
        assert "immutable" in headers["cache-control"], name
        if not name.endswith("woff2"):
            assert headers["content-encoding"] == "gzip", name
        # Compiled as it is loaded: whatever makes a file smaller must leave it this line.
        if name.endswith("js"):
            assert response.text().startswith("//# allFunctionsCalledOnLoad\n"), name
    page.close()


def test_a_step_is_there_when_it_is_asked_for_even_with_the_line_cut(someone):
    came = fetched(someone.page)
    with someone.page.expect_response(re.compile(r"/assets/Sheet-")):
        page = someone.open()
    page.wait_for_timeout(100)
    shown = list(came)
    assert shown.index(next(n for n in shown if n.startswith("Place-"))) < shown.index(
        next(n for n in shown if n.startswith("Kit-"))
    )
    page.route(re.compile("/static/"), lambda route: route.abort())
    step(page, "Kit").click()
    expect(page.get_by_role("form", name="Next reading")).to_be_visible()


def test_no_step_is_fetched_ahead_while_a_hand_holds_something(someone):
    """One is on its way as the button goes down; those after it wait until it is let go of."""
    page, held = someone.page, []
    page.route(re.compile(r"/assets/Patch-"), lambda route: held.append(route))
    came = fetched(page)
    someone.open()
    until(page, lambda: held)
    page.mouse.move(700, 10)
    page.mouse.down()
    with page.expect_response(re.compile(r"/assets/Patch-")):
        held[0].continue_()
    page.wait_for_timeout(500)
    assert not any(name.startswith("Pairs-") for name in came)
    with page.expect_response(re.compile(r"/assets/Pairs-")):
        page.mouse.up()


def test_an_address_that_is_no_step_leads_nowhere_and_says_so(someone):
    someone.page.goto(f"{someone.url}/layouts/{someone.layout}/constructor")
    expect(someone.page.get_by_role("heading", name="Nothing here")).to_be_visible()


def test_a_piece_that_does_not_come_takes_nothing_along(someone):
    someone.page.route(re.compile(r"/assets/Pairs-"), lambda route: route.abort())
    page = someone.open()
    step(page, "Pairs").click()
    stopped = page.get_by_role("alert").filter(has_text="What you did is kept")
    expect(stopped).to_be_visible()
    step(page, "Place").click()
    expect(page.locator('section[aria-label="From above"]')).to_be_visible()
    step(page, "Pairs").click()
    expect(stopped).to_be_visible()
    page.unroute_all()
    stopped.get_by_role("button", name="Load again").click()
    expect(page.get_by_role("tab", name="One by one")).to_be_visible()
    someone.faults.clear()  # the browser says that a piece did not come


ARRIVING = """([first, second]) => new Promise((done) => {
  const seen = [];
  const look = () => {
    const [one, two] = [first, second].map((s) => document.querySelector(s));
    if (one) {
      const { x, y, width, height } = one.getBoundingClientRect();
      seen.push({ two: Boolean(two), at: [x, y, width, height].map(Math.round).join(" ") });
    }
    if (one && two) done(seen);
    else requestAnimationFrame(look);
  };
  requestAnimationFrame(look);
})"""


@pytest.mark.parametrize(
    ("name", "start", "first", "second"),
    [
        ("Place", "kit", '[aria-label="From above"]', '[aria-label="Snare and kick tapes"]'),
        ("Kit", "place", '[aria-label="The kit from above"]', '[aria-label="From behind"] svg g'),
        ("Pairs", "kit", '[aria-label="Every pair"]', "[data-todo-words]"),
        ("Pairs", "kit", '[aria-label="Every pair"] table', '[aria-label="Find a mic or drum"]'),
    ],
)
def test_what_is_looked_at_first_comes_first_and_the_rest_moves_it_nowhere(
    someone, name, start, first, second
):
    page = someone.open(start)
    page.wait_for_timeout(1000)
    page.context.new_cdp_session(page).send("Emulation.setCPUThrottlingRate", {"rate": 6})
    page.evaluate(f"(of) => {{ window.__seen = ({ARRIVING})(of); }}", [first, second])
    step(page, name).click()
    seen = page.evaluate("() => window.__seen")
    assert not seen[0]["two"], seen
    assert len({s["at"] for s in seen}) == 1, seen


def test_what_is_told_later_moves_nothing_from_under_a_hand(someone):
    """The list's length in the rail; a room's fields wait for the words above them, not long."""
    page = someone.open("room")
    page.get_by_role("button", name="Draw a box").click()
    someone.saved()
    lengths, room = (held_back(page, f"**/api/{what}") for what in ("worklist", "room/board"))
    someone.open("room")
    expect(page.get_by_text("Working it out…")).to_be_visible()
    log, ceiling = step(page, "Log"), page.get_by_label("Ceiling, cm")
    before = at_rest(log)
    lengths()
    expect(page.locator("[data-to-do]")).to_be_visible()
    assert at_rest(log) == before
    # Where the room's words are long in coming, its fields do not wait for them.
    expect(ceiling).to_be_visible()
    expect(page.locator("[data-room-words]")).to_have_count(0)
    room()
    expect(page.locator("[data-room-words]")).to_be_visible()
