"""axe-core finds nothing serious on any view, in both themes; the page works from 900 wide."""

import json
import re

from playwright.sync_api import expect

from ops.paths import ROOT

AXE = (ROOT / "web" / "node_modules" / "axe-core" / "axe.min.js").read_text()


def faults(page):
    """What is serious: anything by day, and contrast in the booth, where only colours differ."""
    if not page.evaluate("'axe' in window"):
        page.evaluate(AXE)
    how = "resultTypes: ['violations'], preload: false"
    # Only what is wrong comes over: with all that was looked at it takes twice as long.
    only = "then((told) => told.violations)"
    found = page.evaluate(f"axe.run(document, {{{how}}}).{only}")
    page.evaluate("document.documentElement.dataset.theme = 'booth'")
    found += page.evaluate(f"axe.run(document, {{runOnly: ['color-contrast'], {how}}}).{only}")
    page.evaluate("document.documentElement.dataset.theme = 'day'")
    serious = [v for v in found if v["impact"] in ("serious", "critical")]
    return [(v["id"], json.dumps(v["nodes"][0]["html"])[:200]) for v in serious]


def test_no_view_has_a_serious_fault(someone):
    page = someone.page
    page.goto(someone.url)
    expect(page.get_by_role("heading", name="Test day")).to_be_visible()
    assert faults(page) == []
    someone.open("place")
    expect(page.get_by_role("button", name="Swing OR onto the ring")).to_be_visible()
    assert faults(page) == []
    page.locator('[data-mic="FT"][data-view="above"]').focus()
    page.keyboard.press("Enter")
    expect(page.get_by_role("heading", name="Floor tom", exact=True)).to_be_visible()
    assert faults(page) == []
    page.get_by_role("tab", name="Techniques", exact=True).click()
    expect(page.locator("[data-technique]").first).to_be_visible()
    assert faults(page) == []
    page.locator("[data-technique='one-front']").click()
    expect(page.locator("[data-fresh='MM']").first).to_be_visible()
    assert faults(page) == []
    page.get_by_role("button", name="Take it", exact=True).click()
    page.locator("[data-opened]").get_by_role("button", name="What if").click()
    expect(page.locator("[data-whatif-value]")).to_be_visible()
    assert faults(page) == []
    page.get_by_role("tab", name="Fit", exact=True).click()
    page.get_by_role("button", name="Fit it").click()
    expect(page.locator("[data-fit]")).to_be_visible()
    assert faults(page) == []
    someone.open("brief")
    expect(page.locator("[data-plan='1']")).to_be_visible()
    page.get_by_text("Every rule,").click()
    assert faults(page) == []
    someone.open("room")
    page.get_by_role("button", name="Draw a box").click()
    expect(page.locator("[data-rough]")).to_be_visible()
    assert faults(page) == []
    page.get_by_role("tab", name="Spots tried").click()
    assert faults(page) == []
    someone.open("kit")
    expect(page.locator("[data-ask]")).to_be_visible()
    assert faults(page) == []
    page.locator('[data-part="kick"][data-view="above"]').focus()
    page.keyboard.press("Enter")
    expect(page.get_by_role("group", name="Damping")).to_be_visible()
    for foot in ("Tuning", "Table"):
        page.get_by_role("tab", name=foot, exact=True).click()
        assert faults(page) == []
    studio = someone.get("/account/me").json()["studios"][0]["id"]
    page.goto(f"{someone.url}/studios/{studio}/locker")
    page.get_by_role("button", name="Add to mics").click()
    expect(page.get_by_role("heading", name="New mic")).to_be_visible()
    assert faults(page) == []
    someone.open("tape")
    for view in ("Set up", "As it stands", "Read"):
        page.get_by_role("radio", name=view).click()
        assert faults(page) == []
    page.set_viewport_size({"width": 390, "height": 844})
    expect(page.get_by_role("button", name="Step: Tape")).to_be_visible()
    assert faults(page) == []
    page.set_viewport_size({"width": 1280, "height": 800})
    someone.open("hits")
    expect(page.locator("[data-play=kick]")).to_be_visible()
    assert faults(page) == []
    page.get_by_role("radio", name="Takes").click()
    page.get_by_role("button", name="Record a simulated take").click()
    expect(page.get_by_role("dialog")).to_be_visible()
    assert faults(page) == []
    someone.open("patch")
    page.locator("[data-track=ST]").click()
    expect(page.get_by_label("Pad at the mic")).to_be_visible()
    assert faults(page) == []
    someone.open("pairs")
    page.get_by_role("tab", name="Balance", exact=True).click()
    page.locator("[data-fader=OL]").focus()
    expect(page.get_by_label("Level, dB")).to_be_visible()
    assert faults(page) == []
    page.get_by_role("tab", name="First half-waves", exact=True).click()
    page.locator('[data-pair="ST-SB"]').click()
    assert faults(page) == []
    someone.open("log")
    page.get_by_role("button", name="Write it down").click()
    page.locator("[data-line] > button").click()
    expect(page.get_by_text("Nothing: they are the same.")).to_be_visible()
    assert faults(page) == []
    someone.open("sheet")
    expect(page.frame_locator("iframe").get_by_role("table")).to_be_visible()
    assert faults(page) == []
    page.goto(f"{someone.url}/account")
    expect(page.get_by_role("heading", name="Password")).to_be_visible()
    assert faults(page) == []


def test_sign_in_has_no_serious_fault(server, chromium):
    context = chromium.new_context()
    page = context.new_page()
    page.goto(server.url)
    expect(page.get_by_role("button", name="Sign in")).to_be_visible()
    assert faults(page) == []
    context.close()


def test_nothing_is_cut_off_at_900_wide(someone):
    someone.page.set_viewport_size({"width": 900, "height": 800})
    for step in ("brief", "room", "kit", "place", "patch", "pairs", "sheet", "hits", "log"):
        page = someone.open(step)
        if step == "room":
            page.get_by_role("button", name="Draw a box").click()
            expect(page.locator("[data-kit]")).to_be_visible()
            someone.saved()
        assert page.evaluate("document.documentElement.scrollWidth") <= 900, step


def test_the_content_policy_is_not_tripped_by_dialogs_and_menus(someone):
    page = someone.open()
    tripped = []
    page.on("console", lambda m: tripped.append(m.text) if "Content Security" in m.text else None)
    page.keyboard.press("?")
    expect(page.get_by_role("dialog", name="Keys")).to_be_visible()
    page.keyboard.press("Escape")
    page.get_by_role("button", name=re.compile("air: 20.0 °C")).click()
    expect(page.get_by_label("Temperature of the room, °C")).to_be_visible()
    assert tripped == []


def test_no_view_of_pairs_has_a_serious_fault(someone):
    page = someone.page
    someone.open("pairs")
    page.locator('[data-pair="T1-OL"]').click()
    page.get_by_role("tab", name="Body over delay").click()
    expect(page.locator("[data-remedy]").first).to_be_visible()
    assert faults(page) == []
    for view, there in (
        ("One by one", "[data-step]"),
        ("Best flips", "[data-flips-words]"),
        ("Picture", "[data-picture]"),
    ):
        page.get_by_role("tab", name=view).click()
        expect(page.locator(there).first).to_be_visible()
        assert faults(page) == [], view
    page.get_by_role("radio", name="Table").click()
    expect(page.get_by_role("table", name="Pairs, worst first")).to_be_visible()
    assert faults(page) == []
    page.get_by_role("button", name=re.compile("^Try: Move")).first.click()
    expect(page.get_by_role("region", name="On trial")).to_be_visible()
    assert faults(page) == []
    page.get_by_role("button", name="Back", exact=True).click()
    page.get_by_role("button", name="Hear it", exact=True).click()
    expect(page.locator("[data-hear=wired]")).to_be_visible(timeout=20000)
    assert faults(page) == []
