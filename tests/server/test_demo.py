"""The demo: loaded once, with something to find in each layout."""

import io

import pytest
from accounts.models import User
from django.core.management import call_command
from plans.logs import spots_of, tuning_of
from plans.models import Layout, Session
from pypdf import PdfReader
from ringside.gear.stock import stock
from ringside.pairs.analysis import analyse
from ringside.pairs.verdicts import VERDICT_WORDS, Verdict
from sheets.page import STYLE, pdf_page
from sheets.printing import written
from sheets.units import Ruler
from studios.actions import locker_of
from studios.models import Studio

from tests.server.conftest import Api


def verdict(doc, a, b, source):
    an = analyse(doc)
    row, _ = an.pair_index(a, b)
    return VERDICT_WORDS[Verdict(int(an.pairs.verdict[row, an.scene.sources.ids.index(source)]))]


def test_the_demo_is_loaded_once_and_has_something_to_find(db, capsys):
    call_command("load_demo", "--password", "salt")
    call_command("load_demo", "--password", "salt")
    assert Session.objects.get().name == "Tern & Tallow"
    square, turned, brief = (x.doc() for x in Layout.objects.order_by("pk"))
    assert brief.techniques[0].technique == "pair-turned"
    assert stock(brief, locker_of(Studio.objects.get()).contents()).lacks == []
    assert len(square.mics) == len(turned.mics) == 10
    assert verdict(square, "OL", "OR", "kick") == "late"
    assert verdict(turned, "OL", "OR", "snare") == "together"
    assert verdict(turned, "ST", "SB", "snare") == "hollow"
    shown = {VERDICT_WORDS[Verdict(int(v))] for v in analyse(square).pairs.worst}
    assert shown == set(VERDICT_WORDS.values())  # each verdict at least once
    assert turned.room.name.startswith("Saltpan House")
    assert turned.room.spaces[0].name == "Brine hallway"
    assert stock(square, locker_of(Studio.objects.get()).contents()).lacks == []
    demo = User.objects.get(username="demo")
    said = tuning_of(demo, Session.objects.get().pk, square.kit)
    assert "lug 1 has gone down 32 cents" in said["drift"][0].words
    assert said["drift"][0].recheck
    assert len(spots_of(demo, Session.objects.get().pk)) == 2


@pytest.mark.filterwarnings("ignore::DeprecationWarning")
@pytest.mark.parametrize("units", ["cm", "ft-in", "hand"])
@pytest.mark.parametrize("paper", ["A4", "Letter"])
def test_the_demo_fits_on_one_page(db, paper, units):
    call_command("load_demo", "--password", "salt")
    layout = Layout.objects.first()
    page = pdf_page(layout, layout.doc(), Ruler(units), paper)
    pages = PdfReader(io.BytesIO(written(page, STYLE.read_text(), paper))).pages
    assert len(pages) == 1
    words = " ".join(pages[0].extract_text().split())
    assert "From the locker: 1 Thud, kick dynamic: KI" in words


def test_two_people_of_the_demo_share_its_studio(db, django_user_model):
    call_command("load_demo", "--password", "salt")
    for name in ("demo", "assistant"):
        user = django_user_model.objects.get(username=name)
        assert len(Api(user)("GET", "/sessions")[1]) == 1
