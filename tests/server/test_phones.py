"""One-use links, devices, and what the demo's published password opens."""

from datetime import timedelta

import pytest
from accounts.models import Device, PhoneLink
from config.settings import PUBLISHED_PASSWORD
from django.test import Client
from django.utils import timezone

from tests.server.conftest import PASSWORD, Api

FROM_PHONE = "Mozilla/5.0 (Phone) Mobile"


@pytest.fixture(autouse=True)
def network(settings):
    settings.LAN_ADDRESSES = ["https://192.0.2.7:8322", "https://198.51.100.4:8322"]
    settings.ALLOWED_HOSTS = ["testserver", "localhost", "192.0.2.7"]


@pytest.fixture
def here(owner):
    """The owner at the computer itself."""
    api = Api(owner)
    api.client.defaults["HTTP_HOST"] = "localhost:8321"
    return api


def phone():
    api = Api()
    api.client.defaults["HTTP_USER_AGENT"] = FROM_PHONE
    api.client.get("/sign-in")  # the page, with its token
    return api


def word_of(link):
    return link["ways"][0]["url"].split("#")[1]


def test_a_link_signs_one_phone_in_once_and_leads_to_the_tape(here, layout):
    status, link = here("POST", "/account/phone-links", {"layout": layout.pk})
    assert status == 201
    assert [w["origin"] for w in link["ways"]] == [
        "https://192.0.2.7:8322", "https://198.51.100.4:8322",
    ]  # fmt: skip
    assert link["ways"][0]["url"].startswith("https://192.0.2.7:8322/on-a-phone#")
    assert link["ways"][0]["qr"].startswith("data:image/svg+xml")
    state = f"/account/phone-links/{link['id']}"
    assert here("GET", state) == (200, {"state": "waiting"})
    first, second = phone(), phone()
    status, opened = first("POST", "/account/phone", {"word": word_of(link)})
    assert (status, opened["leads_to"]) == (200, f"/layouts/{layout.pk}/tape")
    assert opened["me"]["username"] == "owner"
    assert first("GET", f"/layouts/{layout.pk}")[0] == 200
    status, told = second("POST", "/account/phone", {"word": word_of(link)})
    assert status == 410
    assert "used already" in told["detail"]
    assert second("GET", f"/layouts/{layout.pk}")[0] == 401
    assert here("GET", state) == (200, {"state": "used"})


def test_the_word_is_kept_nowhere_and_the_code_says_what_the_link_says(here, layout):
    _, link = here("POST", "/account/phone-links", {"layout": layout.pk})
    kept = PhoneLink.objects.get()
    assert word_of(link) not in (kept.digest, kept.leads_to)
    assert len(word_of(link)) >= 32


@pytest.mark.parametrize(
    ("minutes", "status", "state"), [(9.9, 200, "waiting"), (10.1, 410, "ended")]
)
def test_a_link_ends_after_ten_minutes(here, layout, minutes, status, state):
    _, link = here("POST", "/account/phone-links", {"layout": layout.pk})
    PhoneLink.objects.update(ends_at=timezone.now() + timedelta(minutes=10 - minutes))
    assert here("GET", f"/account/phone-links/{link['id']}")[1] == {"state": state}
    assert phone()("POST", "/account/phone", {"word": word_of(link)})[0] == status


def test_a_link_lasts_ten_minutes_and_a_new_one_ends_the_old(here, layout):
    asked = {"layout": layout.pk}
    _, old = here("POST", "/account/phone-links", asked)
    left = PhoneLink.objects.get().ends_at - timezone.now()
    assert timedelta(minutes=9.9) < left <= timedelta(minutes=10)
    _, new = here("POST", "/account/phone-links", asked)
    assert phone()("POST", "/account/phone", {"word": word_of(old)})[0] == 410
    assert phone()("POST", "/account/phone", {"word": word_of(new)})[0] == 200


def test_whoever_asks_from_elsewhere_gets_the_address_they_came_by(as_owner, layout):
    as_owner.client.defaults["HTTP_HOST"] = "192.0.2.7"
    _, link = as_owner("POST", "/account/phone-links", {"layout": layout.pk})
    assert [w["origin"] for w in link["ways"]] == ["http://192.0.2.7"]


def test_without_a_network_it_is_said_how_to_get_there(here, layout, settings):
    settings.LAN_ADDRESSES = []
    status, told = here("POST", "/account/phone-links", {"layout": layout.pk})
    assert status == 400
    assert "./ringside up --lan" in told["detail"]
    assert not PhoneLink.objects.exists()


def test_no_link_to_what_is_anothers_and_no_look_at_anothers_link(here, outsider, layout):
    stranger = Api(outsider)
    assert stranger("POST", "/account/phone-links", {"layout": layout.pk})[0] == 404
    _, link = here("POST", "/account/phone-links", {"layout": layout.pk})
    assert stranger("GET", f"/account/phone-links/{link['id']}")[0] == 404
    assert Api(csrf=True)("POST", "/account/phone", {"word": word_of(link)})[0] == 403
    assert PhoneLink.objects.get().used_at is None


def test_somebody_put_out_of_the_house_is_not_let_in_by_an_old_link(here, owner, layout):
    _, link = here("POST", "/account/phone-links", {"layout": layout.pk})
    owner.is_active = False
    owner.save()
    assert phone()("POST", "/account/phone", {"word": word_of(link)})[0] == 410


def test_devices_are_listed_and_one_is_signed_out_at_once(here, outsider, layout):
    _, link = here("POST", "/account/phone-links", {"layout": layout.pk})
    mobile = phone()
    mobile("POST", "/account/phone", {"word": word_of(link)})
    _, devices = here("GET", "/account/devices")
    assert [(d["kind"], d["by_link"], d["here"]) for d in devices] == [
        ("computer", False, True), ("phone", True, False),
    ]  # fmt: skip
    away = f"/account/devices/{devices[1]['id']}"
    assert Api(outsider)("DELETE", away)[0] == 404
    assert mobile("GET", "/account/me")[0] == 200
    assert here("DELETE", away)[0] == 204
    assert mobile("GET", "/account/me")[0] == 401
    assert mobile("GET", f"/layouts/{layout.pk}/at-kit/tag")[0] == 401
    assert here("DELETE", away)[0] == 404
    assert [d["here"] for d in here("GET", "/account/devices")[1]] == [True]


def test_a_new_password_ends_the_others_and_keeps_this_one(here, owner):
    other = Api(owner)
    assert len(here("GET", "/account/devices")[1]) == 2
    body = {"old": PASSWORD, "new": "another-long-one-8"}
    assert here("POST", "/account/password", body)[0] == 204
    assert other("GET", "/account/me")[0] == 401
    assert [d["here"] for d in here("GET", "/account/devices")[1]] == [True]


def test_signing_out_takes_the_device_away_and_what_has_ended_is_not_listed(here, owner):
    other = Api(owner)
    other("POST", "/account/sign-out")
    assert Device.objects.count() == 1
    late = Client()
    late.force_login(owner, backend="django.contrib.auth.backends.ModelBackend")
    late.session.flush()
    assert len(here("GET", "/account/devices")[1]) == 1
    assert Device.objects.count() == 1


# --- the demo's password -------------------------------------------------------------------


@pytest.mark.parametrize(("host", "came_from", "status"), [
    ("localhost:8321", "127.0.0.1", 200), ("localhost:8321", "::1", 200),
    ("192.0.2.7", "127.0.0.1", 403),  # through a proxy on this machine
    ("localhost:8321", "192.0.2.9", 403),  # a name that only pretends
    ("192.0.2.7", "192.0.2.9", 403),
])  # fmt: skip
def test_the_published_password_opens_from_this_machine_only(owner, host, came_from, status):
    owner.set_password(PUBLISHED_PASSWORD)
    owner.save()
    api = Api()
    api.client.defaults.update(HTTP_HOST=host, REMOTE_ADDR=came_from)
    api.client.get("/sign-in")
    body = {"username": "owner", "password": PUBLISHED_PASSWORD}
    answered, told = api("POST", "/account/sign-in", body)
    assert answered == status
    assert status == 200 or "published with the demo" in told["detail"]


def test_with_a_password_of_ones_own_one_signs_in_from_elsewhere(owner):
    api = Api()
    api.client.defaults.update(HTTP_HOST="192.0.2.7", REMOTE_ADDR="192.0.2.9")
    api.client.get("/sign-in")
    body = {"username": "owner", "password": PASSWORD}
    assert api("POST", "/account/sign-in", body)[0] == 200


def test_nobody_chooses_the_published_password(here):
    status, told = here("POST", "/account/password", {"old": PASSWORD, "new": PUBLISHED_PASSWORD})
    assert status == 400
    assert "published" in told["detail"]
