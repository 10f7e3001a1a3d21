"""Faders, balances and options: what is up in the mix decides what is marked."""

from playwright.sync_api import expect

from tests.browser.conftest import until


def opened(person):
    page = person.open("pairs")
    page.get_by_role("tab", name="Balance").click()
    page.locator("[data-fader=OL]").wait_for()
    return page


def test_a_fader_is_dragged_with_marks_following_and_kept_where_it_is_let_go(someone):
    page = opened(someone)
    expect(page.locator("[data-under]")).to_have_text("under the usual balance")
    flag = page.locator("[data-fader=SB]")
    box = flag.locator("rect").bounding_box()
    x, y = box["x"] + box["width"] / 2, box["y"] + box["height"] / 2
    page.mouse.move(x, y)
    page.mouse.down()
    for n in range(1, 9):
        page.mouse.move(x - 30 * n, y)
    turns = page.locator("[data-fader-turns]")
    expect(turns).to_contain_text("ST–SB hollow → no matter")
    assert someone.doc()["balances"] == []  # nothing is kept while the hand moves
    page.mouse.up()
    someone.saved()
    expect(turns).to_have_count(0)
    (kept,) = someone.doc()["balances"]
    (fader,) = kept["faders"]
    assert (fader["channel"], fader["db"] < -10, fader["muted"]) == ("SB", True, None)
    expect(page.locator("[data-under]")).to_have_text("under Balance 1")
    page.locator("[aria-label^='Undo: SB at']").click()
    expect(page.locator("[data-under]")).to_have_text("under the usual balance")


def test_by_keys_a_track_is_moved_muted_and_put_back(someone):
    page = opened(someone)
    flag = page.locator("[data-fader=HH]")
    flag.focus()
    for _ in range(3):
        page.keyboard.press("ArrowRight")
    page.keyboard.press("Shift+ArrowLeft")
    expect(flag).to_have_attribute("aria-valuenow", "-18")
    page.keyboard.press("m")
    expect(flag).to_have_attribute("data-heard", "false")
    page.keyboard.press("m")
    expect(flag).to_have_attribute("data-heard", "true")
    page.keyboard.press("Home")
    expect(flag).to_have_attribute("aria-valuenow", "-15")
    someone.saved()


def test_two_balances_are_kept_apart_and_all_is_judged_under_the_current_one(someone):
    page = opened(someone)
    page.get_by_role("button", name="New balance").click()
    page.get_by_label("Name, then Enter").fill("Dry verse")
    page.keyboard.press("Enter")
    expect(page.locator("[data-under]")).to_have_text("under Dry verse")
    page.locator("[data-fader=SB]").focus()
    page.keyboard.press("m")
    cell = page.locator('[data-pair="ST-SB"]')
    expect(cell).to_have_attribute("data-verdict", "no matter")
    page.get_by_role("radio", name="Usual").click()
    expect(cell).to_have_attribute("data-verdict", "hollow")
    someone.saved()
    assert someone.doc()["current"] is None
    page.get_by_role("radio", name="Dry verse").click()
    expect(cell).to_have_attribute("data-verdict", "no matter")
    page.get_by_role("button", name="Take away").click()
    until(page, lambda: someone.doc()["balances"] == [])
    expect(cell).to_have_attribute("data-verdict", "hollow")


def test_room_pairs_become_options_of_which_one_is_up(someone):
    doc = someone.doc()
    for technique in ("room-bar", "room-omnis"):
        doc = someone.post(
            f"/layouts/{someone.layout}/take", {"layout": doc, "technique": technique}
        ).json()["layout"]
    someone.save(doc, "two room pairs")
    page = opened(someone)
    page.get_by_role("button", name="Make them options").click()
    second = page.get_by_role("checkbox", name="WL WR")
    expect(second).not_to_be_checked()
    expect(page.locator("[data-fader='WL']")).to_have_attribute("data-heard", "false")
    page.get_by_role("checkbox", name="RL RR").click()
    expect(page.locator("[data-fader='RL']")).to_have_attribute("data-heard", "false")
    second.click()
    expect(page.locator("[data-fader='WL']")).to_have_attribute("data-heard", "true")
    someone.saved()
    assert [o["name"] for o in someone.doc()["options"][0]["options"]] == ["RL RR", "WL WR"]
    page.get_by_role("button", name="Compare").click()
    ranks = page.locator("[data-option-rank]")
    expect(ranks).to_have_count(2)
    expect(ranks.first).to_contain_text("dB of body on average")
    page.get_by_role("button", name="Use RL RR alone").click()
    expect(page.locator("[data-fader='RL']")).to_have_attribute("data-heard", "true")
    expect(page.locator("[data-fader='WL']")).to_have_attribute("data-heard", "false")


def test_one_tape_is_heard_alone_for_a_look_and_nothing_of_it_is_kept(someone):
    page = opened(someone)
    before = someone.doc()
    page.get_by_role("button", name="Snare alone").click()
    expect(page.locator("[data-fader=OL]")).to_have_attribute("data-heard", "false")
    expect(page.locator("[data-fader=ST]")).to_have_attribute("data-heard", "true")
    expect(page.locator('[data-pair="OL-OR"]')).to_have_attribute("data-verdict", "no matter")
    page.get_by_role("button", name="Snare alone").click()
    expect(page.locator("[data-fader=OL]")).to_have_attribute("data-heard", "true")
    someone.saved()
    assert someone.doc() == before
