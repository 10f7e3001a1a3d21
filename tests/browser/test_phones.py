"""From the desk to the phone: a code, one touch, and out again from the desk."""

from playwright.sync_api import expect

from tests.browser.conftest import watched

PHONE = {"width": 390, "height": 844}


def test_a_phone_is_signed_in_by_the_code_once_and_out_from_the_desk(someone, chromium):
    desk = someone.open("place")
    desk.get_by_role("button", name="Switch layout").click()
    with desk.expect_response("**/phone-links") as made:
        desk.get_by_role("menuitem", name="Open on a phone").click()
    url = made.value.json()["ways"][0]["url"]
    expect(desk.get_by_role("img", name=f"Code of a link to {someone.url}")).to_be_visible()
    expect(desk.get_by_text("9:5")).to_be_visible()
    context = chromium.new_context(viewport=PHONE, user_agent="Phone Mobile")
    phone = context.new_page()
    faults = watched(phone)
    # A look at the page uses nothing up: a phone's reader of codes may look before its owner does.
    for _ in range(2):
        phone.goto("about:blank")
        phone.goto(url)
        expect(phone.get_by_role("button", name="Sign this phone in")).to_be_visible()
    phone.get_by_role("button", name="Sign this phone in").click()
    expect(phone.get_by_role("form", name="Reading")).to_be_visible()
    assert phone.url == f"{someone.url}/layouts/{someone.layout}/tape"
    expect(desk.get_by_role("dialog").get_by_text("A phone is signed in")).to_be_visible()
    phone.goto("about:blank")
    phone.goto(url)
    phone.get_by_role("button", name="Sign this phone in").click()
    expect(phone.get_by_role("alert")).to_contain_text("used already")
    desk.goto(f"{someone.url}/account")
    devices = desk.get_by_role("list", name="Devices").get_by_role("listitem")
    expect(devices).to_have_count(2)
    devices.filter(has_text="by a link").get_by_role("button", name="Sign out").click()
    expect(devices).to_have_count(1)
    expect(devices).to_contain_text("this one")
    phone.goto(f"{someone.url}/layouts/{someone.layout}/tape")
    expect(phone.get_by_label("Password")).to_be_visible()
    context.close()
    assert faults == []
