"""Nothing is lost: two people at one layout, a server that goes away, bad files, strangers."""

import json
import re
import uuid
import zipfile

import pytest
from playwright.sync_api import expect

from ops.paths import DEMO_PASSWORD
from tests.browser.conftest import PASSWORD, at_rest, held_back, pick, unanswered, until, watched
from tests.browser.test_place import SNARE, distance, drag, middle, shown


def second_window(person):
    page = person.context.new_page()
    watched(page)
    page.goto(f"{person.url}/layouts/{person.layout}/place")
    expect(page.locator("[data-saved=saved]")).to_be_visible()
    return page


def both_edit(someone):
    """Two windows hold one version; the first saves, then the second."""
    page = someone.open()
    other = second_window(someone)
    expect(shown(other, "snare-b")).to_have_text("127.1")
    drag(page, "OL", -30, 0)
    someone.saved()
    theirs = someone.doc()
    drag(other, "OR", 40, 0)
    expect(other.get_by_role("dialog", name="This layout was changed elsewhere")).to_be_visible()
    assert someone.doc() == theirs  # nothing was overwritten
    return other, theirs


def test_conflict_shows_both_and_keeps_both_as_a_copy(someone):
    other, theirs = both_edit(someone)
    differences = other.get_by_role("list", name="Differences")
    expect(differences).to_contain_text("OL: moved")
    expect(differences).to_contain_text("OR: moved")
    other.get_by_role("button", name="Keep both: mine as a copy").click()
    expect(other.get_by_text("Yours is kept as Layout A (mine)", exact=True)).to_be_visible()
    assert someone.doc() == theirs
    layouts = someone.get("/sessions").json()[0]["layouts"]
    assert [x["name"] for x in layouts] == ["Layout A", "Layout A (mine)"]
    mine = someone.get(f"/layouts/{layouts[1]['id']}").json()["doc"]
    right = next(m for m in mine["mics"] if m["id"] == "OR")
    assert right["position_m"][0] > 0.7


def test_conflict_with_mine_on_top_can_be_undone_to_theirs(someone):
    other, theirs = both_edit(someone)
    other.get_by_role("button", name="Put mine on top").click()
    expect(other.locator("[data-saved=saved]")).to_be_visible()
    assert someone.mic("OR")["position_m"][0] > 0.7
    other.get_by_role("button", name=re.compile("^Undo")).click()
    expect(other.get_by_role("button", name=re.compile("^Redo: kept over"))).to_be_enabled()
    assert someone.doc() == theirs


def test_work_is_kept_while_the_server_is_away_and_sent_later(someone, server):
    page = someone.open()
    expect(shown(page, "snare-b")).to_have_text("127.1")
    before = someone.mic("OR")
    server.stop()
    try:
        drag(page, "OR", 50, 0)
        expect(page.locator("[data-saved=unsent]")).to_contain_text("Kept here, tried again")
    finally:
        server.start()
    someone.saved()
    after = someone.mic("OR")
    assert after["position_m"][0] > before["position_m"][0] + 0.1
    # The numbers catch up too, with nobody touching anything.
    expect(shown(page, "snare-b")).to_have_text(f"{distance(after, SNARE) * 100:.1f}")


def test_unsent_work_survives_closing_the_page(someone):
    page = someone.open()
    expect(shown(page, "snare-b")).to_have_text("127.1")
    page.route(
        "**/api/layouts/*", lambda r: r.abort() if r.request.method == "PUT" else r.continue_()
    )
    drag(page, "OR", 50, 0)
    expect(page.locator("[data-saved=unsent]")).to_be_visible()
    page.close()
    fresh = someone.context.new_page()
    fresh.goto(f"{someone.url}/layouts/{someone.layout}/place")
    expect(fresh.locator("[data-saved=saved]")).to_be_visible()
    expect(shown(fresh, "snare-b")).not_to_have_text("127.1")
    assert someone.mic("OR")["position_m"][0] > 0.7


def test_sign_in_sign_out_and_the_wrong_password(server, chromium):
    context = chromium.new_context(viewport={"width": 1280, "height": 800})
    page = context.new_page()
    faults = watched(page)
    page.goto(f"{server.url}/")
    page.get_by_label("Name").fill("assistant")
    page.get_by_label("Password").fill("wrong")
    page.get_by_role("button", name="Sign in").click()
    expect(page.get_by_role("alert")).to_contain_text("not right")
    page.get_by_label("Password").fill(DEMO_PASSWORD)
    page.get_by_role("button", name="Sign in").click()
    card = page.locator('[data-session="Tern & Tallow"]')
    expect(card.get_by_role("link", name=re.compile("Layout B"))).to_contain_text("hollow")
    expect(card.get_by_role("img", name="Plan of Layout A")).to_be_visible()
    page.get_by_role("button", name="Account of assistant").click()
    page.get_by_role("menuitem", name="Sign out").click()
    expect(page.get_by_role("button", name="Sign in")).to_be_visible()
    assert context.request.get(f"{server.url}/api/sessions").status == 401
    assert faults == []
    context.close()


def test_opening_a_studio_and_changing_the_password(server, chromium):
    context = chromium.new_context(viewport={"width": 1280, "height": 800})
    page = context.new_page()
    page.goto(server.url)
    page.get_by_role("button", name="Open a new studio").click()
    page.get_by_label("Studio").fill("Barn")
    page.get_by_label("Name").fill("newcomer")
    page.get_by_label("Password").fill(PASSWORD)
    page.get_by_role("button", name="Open a studio").click()
    expect(page.get_by_text("No sessions yet")).to_be_visible()
    page.goto(f"{server.url}/account")
    page.get_by_label("Old password").fill(PASSWORD)
    page.get_by_label("New password").fill(PASSWORD + "x")
    page.get_by_role("button", name="Change the password").click()
    expect(page.get_by_text("The password is changed.")).to_be_visible()
    context.close()


def test_another_studios_session_is_answered_as_not_found(someone, another):
    someone.page.goto(f"{someone.url}/layouts/{another.layout}/place")
    expect(someone.page.get_by_role("alert")).to_contain_text("not yours to see")
    assert someone.get(f"/sessions/{another.session['id']}").status == 404
    assert someone.get(f"/layouts/{another.layout}/sheet.csv").status == 404


def test_a_new_session_from_a_starting_kit(someone):
    page = someone.page
    page.goto(someone.url)
    page.get_by_role("button", name="New session").click()
    dialog = page.get_by_role("dialog", name="New session")
    dialog.get_by_label("Name").fill("Second day")
    pick(dialog.get_by_label("Kit"), "left-handed five-piece")
    dialog.get_by_label("turned pair").check()
    dialog.get_by_role("button", name="Make it").click()
    expect(page.get_by_role("button", name="OR is on the ring")).to_be_visible()
    page.goto(someone.url)
    page.get_by_role("button", name="More for Second day").click()
    page.get_by_role("menuitem", name="Rename").click()
    page.get_by_role("dialog").get_by_label("Name").fill("Third day")
    page.get_by_role("button", name="Rename").click()
    page.get_by_role("button", name="More for Third day").click()
    page.get_by_role("menuitem", name="Copy").click()
    expect(page.get_by_role("heading", name="Third day (copy)")).to_be_visible()
    page.get_by_role("button", name="More for Third day", exact=True).click()
    page.get_by_role("menuitem", name="Delete").click()
    expect(page.get_by_role("heading", name="Third day", exact=True)).to_be_hidden()
    page.get_by_role("region", name="Notifications").get_by_role("button", name="Undo").click()
    expect(page.get_by_role("heading", name="Third day", exact=True)).to_be_visible()


def test_layouts_are_copied_renamed_deleted_and_brought_back(someone):
    page = someone.open()
    page.get_by_role("button", name=re.compile("^Switch layout: Layout A")).click()
    page.get_by_role("menuitem", name="Copy this layout").click()
    page.get_by_role("dialog").get_by_label("Name").fill("Layout C")
    page.get_by_role("dialog").get_by_role("button", name="Copy").click()
    switch = page.get_by_role("button", name=re.compile("^Switch layout: Layout C"))
    switch.click()
    page.get_by_role("menuitem", name="Delete this layout").click()
    expect(page.get_by_role("button", name=re.compile("^Switch layout: Layout A"))).to_be_visible()
    page.get_by_role("region", name="Notifications").get_by_role("button", name="Undo").click()
    expect(switch).to_be_visible()


def test_another_layout_of_the_session_from_a_start(someone):
    page = someone.open()
    page.get_by_role("button", name=re.compile("^Switch layout")).click()
    page.get_by_role("menuitem", name="New layout").click()
    dialog = page.get_by_role("dialog", name="New layout")
    dialog.get_by_label("Name").fill("Layout N")
    pick(dialog.get_by_label("Kit"), "four-piece")
    dialog.get_by_label("empty").check()
    dialog.get_by_role("button", name="Make it").click()
    expect(page.get_by_role("heading", name="No mics yet")).to_be_visible()
    assert len(someone.get("/sessions").json()[0]["layouts"]) == 2


def test_two_people_at_one_layout_see_each_others_name(server, chromium):
    pages = []
    for name in ("demo", "assistant"):
        page = chromium.new_context(viewport={"width": 1280, "height": 800}).new_page()
        page.goto(server.url)
        page.get_by_label("Name").fill(name)
        page.get_by_label("Password").fill(DEMO_PASSWORD)
        page.get_by_role("button", name="Sign in").click()
        page.get_by_role("link", name=re.compile("Layout B")).click()
        expect(shown(page, "snare-b")).to_have_text("131.5")
        pages.append(page)
    drag(pages[0], "OL", 12, 8)
    expect(pages[0].locator("[data-saved=saved]")).to_be_visible()
    expect(shown(pages[0], "snare-b")).not_to_have_text("131.5")  # OL is the one that moves
    drag(pages[1], "OR", 12, -8)
    expect(pages[1].get_by_text("demo saved it while you worked")).to_be_visible()
    pages[1].get_by_role("button", name="Take theirs").click()
    expect(pages[1].locator("[data-saved=saved]")).to_be_visible()
    for page in pages:
        page.context.close()


def test_layout_file_out_and_in_and_a_bad_one_refused(someone, tmp_path):
    page = someone.open("sheet")
    with page.expect_download() as waiting:
        page.get_by_role("link", name="Layout file").click()
    good = tmp_path / "good.layout.json"
    waiting.value.save_as(good)
    data = json.loads(good.read_text())
    data["name"] = "From elsewhere"
    good.write_text(json.dumps(data))
    data["mics"][2]["position_m"][0] = "left"
    bad = tmp_path / "bad.layout.json"
    bad.write_text(json.dumps(data))
    page.goto(someone.url)
    page.get_by_label("Layout file").set_input_files(bad)
    alert = page.get_by_role("alert")
    expect(alert).to_contain_text("nothing was changed")
    expect(alert).to_contain_text('mics[2].position_m[0]: expected a number, got "left"')
    assert len(someone.get("/sessions").json()) == 1
    page.get_by_label("Layout file").set_input_files(good)
    expect(page.get_by_role("heading", name="From elsewhere")).to_be_visible()


def test_the_sheet_prints_as_pdf_and_csv(someone):
    page = someone.open("sheet")
    sheet = page.frame_locator("iframe")
    expect(sheet.get_by_role("heading", name=re.compile("Test day"))).to_be_visible()
    expect(sheet.get_by_role("row")).to_have_count(11)
    page.get_by_role("radio", name="Letter").click()
    with page.expect_download() as waiting:
        page.get_by_role("button", name="PDF, Letter").click()
    assert waiting.value.path().read_bytes().startswith(b"%PDF")
    assert waiting.value.suggested_filename == "test-day-layout-a.pdf"
    with page.expect_download() as waiting:
        page.get_by_role("link", name="Table, CSV").click()
    assert waiting.value.suggested_filename == "test-day-layout-a.csv"
    for link, name in (("Inputs, CSV", "-inputs.csv"), ("Track names", "-tracks.txt")):
        with page.expect_download() as waiting:
            page.get_by_role("link", name=link).click()
        assert waiting.value.suggested_filename == f"test-day-layout-a{name}"
    assert waiting.value.path().read_text().splitlines()[0] == "Kick in"
    page.get_by_role("radio", name="Labels").click()
    labels = page.frame_locator("iframe").locator(".labels span")
    expect(labels).to_have_count(10)
    page.get_by_role("radio", name="30", exact=True).click()
    first = page.frame_locator("iframe").locator(".w30 span").first
    expect(first).to_have_text(re.compile(r"1\s*Kick in"))
    wide = first.evaluate("s => s.getBoundingClientRect().width")
    assert wide == pytest.approx(30 / 25.4 * 96, abs=0.5)  # CSS: an inch is 96 px


def sign_out_everywhere(person):
    """The cookies of somebody whose session has run out."""
    jar = [c for c in person.context.cookies() if c["name"] != "sessionid"]
    person.context.clear_cookies()
    person.context.add_cookies(jar)


def test_signing_in_again_happens_in_place_and_the_edit_goes_on(someone):
    page = someone.open()
    expect(shown(page, "snare-b")).to_have_text("127.1")
    before = someone.mic("OR")["position_m"][0]
    x, y = middle(page, "OR")
    page.mouse.move(x, y)
    page.mouse.down()
    page.mouse.move(x + 20, y, steps=4)
    expect(shown(page, "snare-b")).not_to_have_text("127.1")
    sign_out_everywhere(someone)  # in the hand: whatever else the page asks for comes too late
    page.mouse.move(x + 50, y, steps=6)
    page.mouse.up()
    dialog = page.get_by_role("dialog", name="Sign in again")
    expect(dialog).to_be_visible()
    expect(page.locator("[data-saved=stranger]")).to_contain_text("Kept here")
    dialog.get_by_label("Password").fill("not this one at all")
    dialog.get_by_role("button", name="Sign in and go on").click()
    expect(dialog.get_by_role("alert")).to_contain_text("not right")
    dialog.get_by_label("Password").fill(PASSWORD)
    dialog.get_by_role("button", name="Sign in and go on").click()
    expect(dialog).to_have_count(0)
    someone.saved()
    assert someone.mic("OR")["position_m"][0] > before + 0.1
    assert page.url.endswith("/place")


def test_a_save_whose_answer_was_lost_is_done_once(someone):
    page = someone.open()
    expect(shown(page, "snare-b")).to_have_text("127.1")
    lost = []

    def swallow(route):
        if route.request.method != "PUT" or lost:
            return route.fallback()
        lost.append(route.fetch().status)  # the server does it, the browser never hears
        return route.abort()

    page.route(re.compile(r"/api/layouts/\d+$"), swallow)
    version = someone.get(f"/layouts/{someone.layout}").json()["version"]
    drag(page, "OR", 50, 0)
    expect(page.locator("[data-saved=unsent]")).to_be_visible()
    drag(page, "OL", -30, 0)
    someone.saved()
    assert lost == [200]
    out = someone.get(f"/layouts/{someone.layout}").json()
    assert out["version"] == version + 2
    expect(page.get_by_role("dialog")).to_have_count(0)


def test_an_edit_the_core_could_not_answer_outlives_the_page(someone):
    page = someone.open("kit")
    away = re.compile(r"/api/edit$")
    page.route(away, lambda route: route.fulfill(status=502, body="<h1>Bad gateway</h1>"))
    page.locator("[data-part='snare']").first.focus()
    page.keyboard.press("ArrowRight")
    expect(page.locator("[data-saved=unsent]")).to_be_visible()
    before = next(d for d in someone.doc()["kit"]["drums"] if d["id"] == "snare")
    page.close(run_before_unload=False)
    fresh = someone.context.new_page()
    watched(fresh)
    fresh.goto(f"{someone.url}/layouts/{someone.layout}/kit")
    expect(fresh.get_by_role("button", name=re.compile("^Undo: "))).to_be_enabled()
    expect(fresh.locator("[data-saved=saved]")).to_be_visible()
    after = next(d for d in someone.doc()["kit"]["drums"] if d["id"] == "snare")
    assert after["batter_m"][0] > before["batter_m"][0]


def test_what_is_refused_stays_to_be_tried_again_downloaded_or_let_go(someone):
    page = someone.open()
    expect(shown(page, "snare-b")).to_have_text("127.1")
    problem = json.dumps({"type": "about:blank", "title": "Not understood", "status": 422,
                          "detail": "expected plain text", "place": "doc.name"})  # fmt: skip
    page.route(
        re.compile(r"/api/layouts/\d+$"),
        lambda r: r.fulfill(status=422, body=problem, content_type="application/problem+json"),
    )
    before = someone.mic("OR")["position_m"][0]
    drag(page, "OR", 50, 0)
    alert = page.get_by_role("alert").filter(has_text="doc.name: expected plain text")
    expect(alert).to_be_visible()
    expect(page.locator("[data-saved=refused]")).to_be_visible()
    with page.expect_download() as got:
        alert.get_by_role("button", name="Download it").click()
    kept = json.loads(got.value.path().read_text())
    assert next(m for m in kept["mics"] if m["id"] == "OR")["position_m"][0] > before + 0.1
    page.unroute_all()
    page.reload()
    page.get_by_role("button", name="Try again").click()
    someone.saved()
    assert someone.mic("OR")["position_m"][0] > before + 0.1
    expect(alert).to_have_count(0)


def test_a_reading_is_written_down_and_offered_to_the_other_layouts(someone):
    session = someone.session["id"]
    new = {"name": "Layout B", "kit": "five-piece", "start": "empty"}
    other = someone.post(f"/sessions/{session}/layouts", new).json()["id"]
    page = someone.open("kit")
    page.get_by_label("Reads, cm").fill("63")
    page.get_by_label("Reads, cm").press("Enter")
    expect(page.locator("[data-reading]")).to_have_count(1)
    someone.saved()
    (row,) = someone.get(f"/sessions/{session}/tape").json()
    assert (row["metres"], row["struck_at"]) == (0.63, None)
    page.get_by_role("button", name=re.compile("^Undo")).click()
    expect(page.locator("[data-reading]")).to_have_count(0)
    expect(page.locator("[data-elsewhere]")).to_be_visible()  # undone in the plan, not on the day
    page = someone.open("kit", layout=other)
    expect(page.locator("[data-elsewhere]")).to_contain_text(f"by {row['by']}")
    page.get_by_role("button", name="Take it in").click()
    expect(page.locator("[data-reading]")).to_have_count(1)
    expect(page.locator("[data-elsewhere]")).to_have_count(0)
    page.get_by_role("button", name=re.compile("^Forget ")).click()
    expect(page.locator("[data-reading]")).to_have_count(0)
    someone.saved()
    assert someone.get(f"/sessions/{session}/tape").json()[0]["struck_at"] is not None
    expect(page.locator("[data-elsewhere]")).to_have_count(0)


def test_a_studio_is_carried_away_and_read_in(someone, another, tmp_path):
    page = someone.page
    a_take(someone)
    let_go = held_back(page, "**/api/account/devices")
    page.goto(f"{someone.url}/account")
    ask = page.get_by_role("button", name="Archive of Test studio")
    place = at_rest(ask)
    let_go()
    expect(page.get_by_role("list", name="Devices").get_by_role("listitem")).to_have_count(1)
    assert ask.bounding_box() == place  # nothing moves from under the hand as they come
    ask.click()
    with page.expect_download() as got:
        page.get_by_role("link", name="Download it").click()
    archive, sound = tmp_path / "studio.zip", tmp_path / "recorded.zip"
    got.value.save_as(archive)
    with page.expect_download() as got:
        page.get_by_role("link", name="Sound of its takes, 1 MB").click()
    got.value.save_as(sound)
    there = another.page
    there.goto(f"{another.url}/account")
    there.get_by_label("Archive", exact=True).set_input_files(archive)
    expect(there.get_by_text("It is read in")).to_be_visible()
    names = [s["name"] for s in another.get("/sessions").json()]
    assert names == ["Test day", "Test day"]
    give_sound(another, sound, tmp_path)
    there.goto(f"{another.url}/account")
    archive.write_bytes(b"no archive at all")
    there.get_by_label("Archive", exact=True).set_input_files(archive)
    expect(there.get_by_role("alert")).to_contain_text("Nothing was read in")


def a_take(someone):
    """Two short files, whole; what is in them is no matter."""
    files = [{"name": f"{n}.wav", "size": 3} for n in ("OL", "OR")]
    body = {"key": str(uuid.uuid4()), "name": "Morning", "files": files}
    take = someone.post(f"/layouts/{someone.layout}/takes", body).json()["id"]
    for n in (0, 1):
        assert someone.put(f"/takes/{take}/files/{n}?at=0", f"ab{n}".encode()).ok


def give_sound(person, sound, folder):
    """A take that was read in is given its files, out of the zip that lay beside the archive."""
    with zipfile.ZipFile(sound) as zipped:
        names = zipped.namelist()
        zipped.extractall(folder)
    page, every = person.page, person.get("/sessions").json()
    layouts = [one["id"] for session in every for one in session["layouts"]]
    (layout,) = (pk for pk in layouts if person.get(f"/layouts/{pk}/takes").json()["takes"])
    page.goto(f"{person.url}/layouts/{layout}/hits")
    row = page.locator("[data-take]")
    expect(row).to_contain_text("Its sound is not here")
    row.get_by_role("button", name="Morning").click()
    expect(page.get_by_text("Morning says nothing before its sound is here")).to_be_visible()
    given = page.get_by_label("The files of Morning again")
    given.set_input_files([folder / names[0]])
    expect(page.get_by_text("names and sizes differ")).to_be_visible()
    given.set_input_files([folder / n for n in reversed(names)])
    expect(row.get_by_role("link", name="Download")).to_be_visible()
    with page.expect_download() as got:
        row.get_by_role("link", name="Download").click()
    got.value.save_as(folder / "again.zip")
    with zipfile.ZipFile(folder / "again.zip") as zipped:
        assert {n: zipped.read(n) for n in zipped.namelist()} == {
            "OL.wav": b"ab0", "OR.wav": b"ab1",
        }  # fmt: skip


def test_many_sessions_come_a_page_at_a_time_and_are_searched(someone):
    for n in range(25):
        new = {"name": f"Tryout {n}", "kit": "four-piece", "start": "empty"}
        assert someone.post("/sessions", new).status == 201
    page = someone.page
    page.goto(someone.url)
    rows = page.locator("[data-session]")
    expect(rows).to_have_count(24)
    page.get_by_role("button", name="Older sessions").click()
    expect(rows).to_have_count(26)
    page.get_by_label("Search by name or place").fill("test store")
    expect(rows).to_have_count(1)
    page.get_by_label("Search by name or place").fill("zither")
    expect(page.get_by_text("No session has “zither”")).to_be_visible()


def test_a_network_that_is_back_before_the_server_closes_nothing(someone):
    page = someone.open("place")
    asked = unanswered(page)
    someone.context.set_offline(True)
    someone.context.set_offline(False)
    until(page, lambda: asked.count(str(someone.layout)) > 5)
    expect(page.get_by_role("heading", name="From above")).to_be_visible()
    assert page.get_by_text("This layout cannot be opened").count() == 0
