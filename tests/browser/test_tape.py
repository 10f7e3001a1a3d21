"""At the kit: readings by thumb and by keys, through a cut line, seen on every screen at once."""

import json
import re
import uuid

import pytest
from playwright.sync_api import expect

from ops.meter import Line, Simulated, measure
from tests.browser.conftest import held_back, unanswered, until

PHONE = {"width": 390, "height": 844}
# Looks at the log (each 0.7 s) until another's line is drawn: one finds it, and the next may be
# under way before it is drawn. Counted, since a busy machine stretches every second.
AT_ONCE = 3


@pytest.fixture
def phone(someone):
    """A phone in somebody's hand, at the kit."""
    someone.page.set_viewport_size(PHONE)
    page = someone.open("tape")
    expect(page.get_by_role("form", name="Reading")).to_be_visible()
    return page


def ask(page, ends):
    return page.locator(f"[data-ask='{ends}']")


def thumb(page, text):
    pad = page.get_by_role("group", name="Keypad")
    for key in text:
        pad.get_by_role("button", name=key, exact=True).click()


def target(page):
    return float(re.match(r"[\d.]+", page.locator("[data-target]").inner_text())[0])


def lines(person):
    return person.get(f"/layouts/{person.layout}/at-kit").json()["rows"]


def looks_of(page):
    """Every look at the log that this page begins from now on."""
    looks = []
    page.on("request", lambda r: looks.append(r.url) if r.url.endswith("/at-kit/tag") else None)
    return looks


def kept(person):
    return [(r["what"], r["mic"], r["to"]) for r in lines(person)]


def test_a_pair_is_settled_with_the_keypad(someone, phone):
    expect(ask(phone, "OL snare")).to_have_attribute("aria-current", "step")
    planned = target(phone)
    thumb(phone, f"{planned + 0.4:.1f}")
    expect(phone.locator("[data-judged=good]")).to_contain_text("As planned, within 0.4 cm")
    phone.get_by_role("button", name=f"Keep {planned + 0.4:.1f}").click()
    # The other of the pair is read against it, and is 4 cm too far: what to move is said.
    expect(ask(phone, "OR snare")).to_have_attribute("aria-current", "step")
    expect(phone.get_by_text("as OL reads")).to_be_visible()
    assert target(phone) == pytest.approx(planned + 0.4, abs=0.05)
    thumb(phone, f"{planned + 4.4:.1f}")
    said = phone.locator("[data-judged=off]")
    expect(said).to_contain_text("Bring it 4.0 cm closer")
    expect(said.get_by_role("list", name="At the stand")).to_contain_text(
        "Lower it 4.7 cm; the kick is then 1.3 cm too near."
    )
    phone.get_by_role("button", name="Keep").click()
    expect(phone.get_by_text("Move it, then read again")).to_be_visible()
    thumb(phone, f"{planned + 0.9:.1f}")
    expect(phone.locator("[data-judged=good]")).to_contain_text("Equal within 0.5 cm")
    phone.get_by_role("button", name="Keep").click()
    expect(ask(phone, "OR snare")).to_have_attribute("data-state", "good")
    expect(ask(phone, "OL kick")).to_have_attribute("aria-current", "step")
    until(phone, lambda: len(lines(someone)) == 4)
    assert [w for w, _, _ in kept(someone)] == ["reading", "reading", "touched", "reading"]
    phone.get_by_role("button", name="Could not reach").click()
    expect(ask(phone, "OL kick")).to_have_attribute("data-state", "skipped")


def test_a_cut_line_and_a_closed_page_lose_nothing_and_double_nothing(someone, phone):
    def cut(route):
        if route.request.method == "POST":
            route.abort()
        else:
            route.continue_()

    phone.route("**/at-kit", cut)
    planned = target(phone)
    for _ in range(2):
        thumb(phone, f"{planned:.1f}")
        phone.get_by_role("button", name="Keep").click()
        expect(phone.get_by_role("button", name="Keep", exact=True)).to_be_visible()
        planned = target(phone)
    expect(phone.locator("[data-waiting='2']")).to_be_visible()
    expect(ask(phone, "OL kick")).to_have_attribute("aria-current", "step")
    assert kept(someone) == []
    phone.close()
    someone.page = someone.context.new_page()
    someone.page.set_viewport_size(PHONE)
    someone.page.route("**/at-kit", cut)
    someone.page.goto(f"{someone.url}/layouts/{someone.layout}/tape")
    expect(someone.page.locator("[data-waiting='2']")).to_be_visible()
    expect(ask(someone.page, "OR snare")).to_have_attribute("data-state", "good")
    someone.page.unroute_all()
    expect(someone.page.locator("[data-waiting]")).to_have_count(0)
    assert kept(someone) == [("reading", "OL", "snare"), ("reading", "OR", "snare")]
    someone.saved()


def test_with_the_server_away_a_difference_is_told_and_the_walk_goes_on(someone, phone):
    planned = target(phone)
    someone.context.set_offline(True)
    alone = phone.locator("[data-judged=alone]")
    # What would be refused later is not kept now.
    thumb(phone, "3001")
    expect(alone).to_contain_text("Nothing here is further apart than")
    expect(phone.get_by_role("button", name="Keep")).to_be_disabled()
    phone.get_by_label("Tape reads, cm").fill("")
    thumb(phone, f"{planned + 3.2:.1f}")
    expect(alone).to_contain_text("3.2 cm too far")
    expect(alone.get_by_role("list", name="At the stand")).to_contain_text("Lower it 4 cm, about.")
    phone.get_by_role("button", name="Keep").click()
    phone.get_by_role("button", name="leave it so and go on").click()
    expect(ask(phone, "OR snare")).to_have_attribute("aria-current", "step")
    expect(ask(phone, "OL snare")).to_have_attribute("data-state", "kept")
    someone.context.set_offline(False)
    expect(ask(phone, "OL snare")).to_have_attribute("data-state", "off")
    until(phone, lambda: len(lines(someone)) == 1)


def answers(page, *answers):
    """The next readings are not judged but answered so; those after them are judged."""
    left = list(answers)

    def answer(route):
        if not left:
            return route.fallback()
        status, detail = left.pop(0)
        said = {"type": "about:blank", "title": "", "status": status, "detail": detail}
        how = {"status": status, "content_type": "application/problem+json"}
        return route.fulfill(body=json.dumps(said), **how)

    page.route("**/judge", answer)


def test_a_server_with_too_much_in_line_is_asked_again_until_it_judges(phone):
    planned = target(phone)
    answers(phone, *[(503, "There is too much to work out.")] * 3)
    phone.get_by_label("Tape reads, cm").fill(f"{planned + 3.2:.1f}")
    expect(phone.locator("[data-judged=alone]")).to_contain_text("is said when it answers")
    expect(phone.locator("[data-judged=off]")).to_contain_text("Bring it 3.2 cm closer")
    # What is refused is not asked again, and is not put down to a server that is away.
    answers(phone, (404, "This layout is gone."))
    phone.get_by_label("Tape reads, cm").fill(f"{planned + 3.4:.1f}")
    alone = phone.locator("[data-judged=alone]")
    expect(alone).to_contain_text("3.4 cm too far")
    expect(alone).to_contain_text("This layout is gone.")
    expect(alone).not_to_contain_text("away")


def test_a_reading_kept_before_it_is_known_what_it_should_be_waits_for_its_verdict(phone):
    """The second of a pair reads as planned, but the first did not: it is not as far as that."""
    planned = target(phone)
    thumb(phone, f"{planned + 3.4:.1f}")
    expect(phone.locator("[data-judged=off]")).to_be_visible()
    list_of_this, verdict = held_back(phone, "**/standing"), held_back(phone, "**/judge")
    phone.get_by_role("button", name="Keep").click()
    phone.get_by_role("button", name="leave it so and go on").click()
    expect(ask(phone, "OR snare")).to_have_attribute("aria-current", "step")
    phone.get_by_label("Tape reads, cm").fill(f"{planned:.1f}")
    phone.keyboard.press("Enter")
    expect(phone.get_by_label("Tape reads, cm")).to_have_value("")
    verdict()
    expect(phone.get_by_text("Move it, then read again")).to_be_visible()
    list_of_this()


def test_a_verdict_that_comes_late_takes_nobody_from_what_was_chosen_meanwhile(phone):
    planned = target(phone)
    thumb(phone, f"{planned:.1f}")
    expect(phone.locator("[data-judged=good]")).to_be_visible()
    list_of_this, verdict = held_back(phone, "**/standing"), held_back(phone, "**/judge")
    phone.get_by_role("button", name="Keep").click()
    expect(ask(phone, "OR snare")).to_have_attribute("aria-current", "step")
    phone.get_by_label("Tape reads, cm").fill(f"{planned:.1f}")
    phone.keyboard.press("Enter")
    ask(phone, "ST snare").click()
    verdict()
    list_of_this()
    expect(ask(phone, "OR snare")).to_have_attribute("data-state", "good")
    expect(ask(phone, "ST snare")).to_have_attribute("aria-current", "step")


def test_with_the_server_away_for_long_the_walk_stays_on_the_screen(someone, phone):
    thumb(phone, f"{target(phone):.1f}")
    expect(phone.locator("[data-judged=good]")).to_be_visible()
    phone.get_by_role("button", name="Keep").click()
    until(phone, lambda: len(lines(someone)) == 1)
    expect(phone.locator("[data-read='1']")).to_be_visible()
    gone = unanswered(phone)
    thumb(phone, f"{target(phone):.1f}")
    phone.get_by_role("button", name="Keep").click()

    def stays():
        assert phone.get_by_role("form", name="Reading").is_visible()
        return gone.count("standing") > 5

    until(phone, stays)
    expect(phone.locator("[data-read='2']")).to_be_visible()
    assert phone.get_by_text("cannot be reached").count() == 0
    phone.unroute_all()
    expect(phone.locator("[data-waiting]")).to_have_count(0)
    expect(ask(phone, "OR snare")).to_have_attribute("data-state", "good")


def test_a_reading_and_a_tick_are_seen_on_another_screen_within_a_second(someone, phone):
    desk = someone.context.new_page()
    desk.set_viewport_size({"width": 1280, "height": 800})
    desk.goto(f"{someone.url}/layouts/{someone.layout}/tape")
    field = desk.get_by_label("Tape reads, cm")
    expect(field).to_be_visible()
    field.fill("99")  # under somebody's hand meanwhile
    thumb(phone, f"{target(phone):.1f}")
    phone.get_by_role("button", name="Keep").click()
    until(phone, lambda: len(lines(someone)) == 1)
    looks = looks_of(desk)
    expect(ask(desk, "OL snare")).to_have_attribute("data-state", "good")
    assert len(looks) <= AT_ONCE
    phone.get_by_role("radio", name="Set up").click()
    phone.locator("[data-job='OL']").get_by_role("checkbox").click()
    expect(phone.locator("[data-left]")).to_contain_text("1 of 10 up")
    desk.get_by_role("radio", name="Set up").click()
    expect(desk.locator("[data-job='OL']").get_by_role("checkbox")).to_be_checked()
    desk.close()


def test_a_key_counts_as_it_is_pressed_and_stays_under_the_thumb_while_a_verdict_comes(phone):
    pad = phone.get_by_role("group", name="Keypad")
    seven = pad.get_by_role("button", name="7", exact=True)
    stood = seven.bounding_box()["y"]
    field = phone.get_by_label("Tape reads, cm")
    for text, verdict in ((f"{target(phone):.1f}", "good"), (f"{target(phone) + 5:.1f}", "off")):
        for key in text:  # no finger is lifted where it was put down
            pad.get_by_role("button", name=key, exact=True).dispatch_event(
                "pointerdown", {"button": 0}
            )
        expect(field).to_have_value(text)
        expect(phone.locator(f"[data-judged={verdict}]")).to_be_visible()
        assert seven.bounding_box()["y"] == pytest.approx(stood, abs=1)
        for _ in text:
            pad.get_by_role("button", name="Take the last one back").click()
        expect(field).to_have_value("")
    seven.dispatch_event("click", {"detail": 0})  # as a screen reader presses it
    expect(field).to_have_value("7")


def test_by_keys_at_a_desk_and_what_stands_is_made_the_plan_and_back(someone):
    page = someone.open("tape")
    planned = {m["id"]: m["position_m"] for m in someone.doc()["mics"]}
    field = page.get_by_label("Tape reads, cm")
    # Both overheads to snare, kick and floor, 5 cm too high; the second as the first reads.
    for n, off in enumerate((3.4, 0.0, 3.1, 0.0, 5.0, 5.0), 1):
        expect(field).to_be_focused()
        if n == 2:  # the square pair is equal on the snare alone
            expect(page.get_by_text("as OL reads")).to_be_visible()
        page.keyboard.type(f"{target(page) + off:.1f}")
        expect(page.locator(f"[data-judged={'off' if off else 'good'}]")).to_be_visible()
        page.keyboard.press("Enter")
        if off:
            page.get_by_role("button", name="leave it so and go on").click()
        expect(page.locator(f"[data-read='{n}']")).to_be_visible()
    page.get_by_role("radio", name="As it stands").click()
    row = page.locator("[data-stands='OL']")
    expect(row).to_contain_text("cm too high")
    expect(row).to_contain_text("down")
    page.get_by_role("button", name="Make it the plan").click()
    undo = page.get_by_role("button", name="Undo: Made what stands the plan")
    undo.wait_for()  # the server makes it: until it has, what was before is saved
    someone.saved()
    assert someone.mic("OL")["position_m"][2] == pytest.approx(planned["OL"][2] + 0.05, abs=0.02)
    undo.click()
    someone.saved()
    assert someone.mic("OL")["position_m"] == planned["OL"]


def test_what_stands_stays_to_be_pressed_while_it_is_asked_again_for_the_times_alone(someone):
    page = someone.open("tape")
    planned = someone.mic("OL")["position_m"]
    come_back = held_back(page, "**/at-kit/tag")
    field = page.get_by_label("Tape reads, cm")
    expect(field).to_be_focused()
    page.keyboard.type(f"{target(page) + 5:.1f}")
    page.keyboard.press("Enter")
    page.get_by_role("button", name="leave it so and go on").click()
    page.get_by_role("radio", name="As it stands").click()
    make = page.get_by_role("button", name="Make it the plan")
    expect(make).to_be_enabled()
    answered = held_back(page, "**/standing")
    with page.expect_request("**/standing"):
        come_back()
    make.click(timeout=5000)
    page.get_by_role("button", name="Undo: Made what stands the plan").wait_for()
    someone.saved()
    assert someone.mic("OL")["position_m"] != planned
    answered()


def test_a_mic_that_was_nudged_is_asked_for_again_and_a_reading_is_forgotten(someone):
    key = "d8a1f4c2-0000-4000-8000-0000000000{:02}"
    for n, (mic, to, metres) in enumerate((("OL", "snare", 1.2), ("XX", "snare", 1.0))):
        line = {"key": key.format(n), "what": "reading", "mic": mic, "to": to, "metres": metres}
        assert someone.post(f"/layouts/{someone.layout}/at-kit", line).status == 201
    page = someone.open("tape")
    page.get_by_role("radio", name="As it stands").click()
    expect(page.get_by_text("XX to snare, 1.000 m")).to_be_visible()  # kept, though no such mic is
    page.get_by_role("button", name="OL was nudged").click()
    expect(page.locator("[data-taken='OL snare']")).to_have_attribute("data-state", "unsure")
    page.get_by_role("radio", name="Read").click()
    expect(ask(page, "OL snare")).to_have_attribute("data-state", "again")
    page.get_by_role("radio", name="As it stands").click()
    page.get_by_role("button", name="Forget OL to snare").click()
    expect(page.locator("[data-taken='OL snare']")).to_have_count(0)
    until(page, lambda: [r["what"] for r in lines(someone)] == ["reading", "touched"])


def test_place_and_pairs_show_it_as_it_stands_and_what_is_read_meanwhile(someone):
    page = someone.open("place")
    # Nothing was measured: there is one state only.
    expect(page.locator("[data-state-shown]")).to_have_count(0)
    planned = someone.mic("OR")["position_m"]
    for mic, metres in (("OL", 1.315), ("OR", 1.375)):
        write(someone, mic, "snare", metres)
    page.reload()
    state = page.locator("[data-state-shown]")
    page.get_by_role("radio", name="As it stands").click()
    expect(state).to_have_attribute("data-state-shown", "stands")
    expect(state).to_contain_text("2 of 10 mics measured, the rest as planned, by eye")
    page.locator("[data-view=above][data-mic=OR]").focus()
    page.keyboard.press("Enter")
    expect(page.get_by_text("OR 6.0 cm further")).to_be_visible()
    # It is not moved on the drawing.
    page.keyboard.press("ArrowRight")
    said = page.get_by_role("region", name="Notifications").get_by_role("listitem")
    expect(said).to_contain_text("it is moved at the stand")
    # A reading taken elsewhere is seen within a second, while this step is open.
    write(someone, "OR", "snare", 1.335)
    looks = looks_of(page)
    expect(page.get_by_text("OR 2.0 cm further")).to_be_visible()
    assert len(looks) <= AT_ONCE
    # What is switched is switched in the plan, where everything stays as it was planned.
    page.get_by_role("tab", name="Mic OR").click()
    page.get_by_role("switch", name="At the preamp").first.click()
    until(page, lambda: someone.track("OR")["preamp_flip"])
    assert someone.mic("OR")["position_m"] == planned
    page.get_by_role("link", name="Pairs").click()
    expect(state).to_have_attribute("data-state-shown", "stands")
    page.get_by_role("radio", name="Planned", exact=True).click()
    expect(state).to_have_attribute("data-state-shown", "planned")


def test_what_was_read_moves_no_chart_as_a_step_opens_and_none_from_under_a_hand(someone):
    page = someone.page
    state = page.locator("[data-state-shown=planned]")
    mic = page.locator("[data-view=above][data-mic=OR] > circle").first
    come_back = held_back(page, "**/at-kit/tag")
    someone.open("place")
    mic.wait_for()
    write(someone, "OR", "snare", 1.335)
    box = mic.bounding_box()
    page.mouse.move(box["x"] + box["width"] / 2, box["y"] + box["height"] / 2)
    page.mouse.down()
    with page.expect_response("**/at-kit"):
        come_back()
    page.evaluate("() => new Promise((go) => setTimeout(() => requestAnimationFrame(go), 100))")
    assert mic.bounding_box() == box
    expect(state).to_have_count(0)
    page.mouse.up()
    expect(state).to_be_visible()
    page.unroute("**/at-kit/tag")
    come_back = held_back(page, "**/at-kit/tag")
    page.reload()
    mic.wait_for()
    expect(state).to_be_visible()  # the log has not come
    box = mic.bounding_box()
    # How it stands is not asked for before it has: it would stand as planned.
    asked = []
    page.on("request", lambda r: asked.append(r.url) if r.url.endswith("/standing") else None)
    page.get_by_role("radio", name="As it stands").click()
    stands = page.locator("[data-state-shown=stands]")
    expect(stands).to_contain_text("Looking at the kit…")
    page.evaluate("() => new Promise((go) => setTimeout(go, 100))")
    assert asked == []
    page.get_by_role("radio", name="Planned", exact=True).click()
    with page.expect_response("**/at-kit"):
        come_back()
    assert mic.bounding_box() == box
    page.get_by_role("radio", name="As it stands").click()
    expect(stands).to_contain_text("1 of 10 mics measured")


def test_put_back_to_the_plan_is_one_action_with_undo_and_asks_for_it_again(someone):
    for to, metres in (("snare", 1.375), ("kick", 1.569), (None, 1.60), ("rack-1", 1.45),
                       ("floor", 0.95), ("crash-r", 0.80)):  # fmt: skip
        write(someone, "OR", to, metres)
    page = someone.open("tape")
    page.get_by_role("radio", name="As it stands").click()
    row = page.locator("[data-stands=OR]")
    expect(row).to_contain_text("Back to the plan")
    way = re.search(r"Back to the plan: [^.]*\.", row.inner_text())[0]
    page.get_by_role("button", name="Put it back to the plan").click()
    since = page.locator("[data-since=OR]")
    # The way is still told, until it is read again.
    expect(since).to_contain_text("Touched, and not read since.")
    expect(since).to_contain_text(way)
    assert ("touched", "OR", None) in kept(someone)
    page.get_by_role("region", name="Notifications").get_by_role("button", name="Undo").click()
    expect(row).to_contain_text(way)
    expect(since).to_have_count(0)
    page.get_by_role("button", name="OR was nudged").click()
    expect(page.locator("[data-recheck=OR]")).to_contain_text("touched since it was read")
    page.get_by_role("button", name="Read OR").click()
    expect(ask(page, "OR snare")).to_have_attribute("aria-current", "step")


def test_a_pair_is_made_equal_by_a_cord_without_a_number(someone, phone):
    phone.get_by_role("button", name="By a cord, no numbers").click()
    by_cord = phone.get_by_role("region", name="By a cord")
    by_cord.get_by_role("button", name="Pinched: on to OR").click()
    expect(ask(phone, "OR snare")).to_have_attribute("aria-current", "step")
    by_cord.get_by_role("button", name="Slack").click()
    expect(by_cord.locator("[data-cord=nearer]")).to_contain_text("raise it or let it out")
    expect(ask(phone, "OR snare")).to_have_attribute("data-state", "off")
    by_cord.get_by_role("button", name="Just taut").click()
    # On to the kick, where nothing is kept equal: by numbers.
    expect(ask(phone, "OL kick")).to_have_attribute("aria-current", "step")
    expect(ask(phone, "OR snare")).to_have_attribute("data-state", "good")
    until(phone, lambda: len(lines(someone)) == 3)
    assert [(r["what"], r["mic"], r["like"], r["cord"]) for r in lines(someone)] == [
        ("skip", "OL", None, None), ("cord", "OR", "OL", "nearer"), ("cord", "OR", "OL", "same"),
    ]  # fmt: skip
    expect(phone.get_by_role("form", name="Reading")).to_be_visible()
    phone.get_by_role("radio", name="As it stands").click()
    expect(phone.locator("[data-taken='OR snare']")).to_contain_text("as OL")


def test_a_distance_meter_fills_what_nobody_has_typed_in(someone, phone):
    phone.get_by_role("button", name="Use a distance meter").click()
    phone.get_by_role("button", name="Let a meter in").click()
    word = phone.locator("[data-meter-word]").inner_text()
    phone.get_by_role("button", name="Close").click()
    line, kit = Line(f"{someone.url}/api/meter", word), Simulated(seed=3, slips=0.0)
    field = phone.get_by_label("Tape reads, cm")
    metres = float(measure(line, kit).split(": ")[1].removesuffix(" m"))
    expect(field).to_have_value(f"{metres * 100:.1f}")
    expect(phone.locator("[data-judged]")).to_be_visible()
    # A second look takes the place of the first, but not of what somebody types.
    metres = float(measure(line, kit).split(": ")[1].removesuffix(" m"))
    expect(field).to_have_value(f"{metres * 100:.1f}")
    phone.get_by_role("button", name=f"Keep {metres * 100:.1f}").click()
    until(phone, lambda: len(lines(someone)) == 1)
    assert lines(someone)[0]["metres"] == pytest.approx(metres, abs=6e-4)
    expect(field).to_have_value("")
    field.fill("12")
    measure(line, kit)
    phone.wait_for_timeout(1500)
    expect(field).to_have_value("12")


def test_a_side_mic_is_swung_along_its_arc_and_stays_as_far_from_the_snare(someone):
    taken = someone.post(
        f"/layouts/{someone.layout}/take", {"layout": someone.doc(), "technique": "over-and-side"}
    ).json()["layout"]
    someone.save(taken, "Over and side")
    page = someone.open("tape")
    ask(page, "SD snare").click()
    target_m = target(page)
    page.get_by_role("button", name="The arc of SD").click()
    turn = page.locator("[data-arc-turn]")
    expect(turn).to_contain_text("dB")
    page.get_by_role("slider").focus()
    for _ in range(30):
        page.keyboard.press("ArrowRight")
        if turn.get_by_text("fits here").count() and turn.get_attribute("data-arc-turn") != "0":
            break
    expect(turn).to_contain_text("toward the audience")
    page.get_by_role("button", name="Plan SD here").click()
    until(page, lambda: someone.mic("SD")["position_m"] != next(
        m["position_m"] for m in taken["mics"] if m["id"] == "SD"))  # fmt: skip
    ask(page, "SD snare").click()
    assert target(page) == pytest.approx(target_m, abs=0.05)


def write(person, mic, to, metres):
    line = {"key": str(uuid.uuid4()), "what": "reading", "mic": mic, "to": to, "metres": metres}
    assert person.post(f"/layouts/{person.layout}/at-kit", line).status == 201
