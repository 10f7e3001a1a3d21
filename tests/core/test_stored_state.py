"""A layout that says what was measured of it is read as it stands, and judged by that."""

import json

import numpy as np
import pytest
from pydantic import TypeAdapter, ValidationError
from ringside.edits.apply import apply
from ringside.edits.channels import ChangeChannels
from ringside.files.stored import AnyState
from ringside.gear.locker import Locker
from ringside.pairs.uncertainty import deviation_s
from ringside.places.starts import starting_layout
from ringside.plan.kit import Reading
from ringside.plan.layout import Layout
from ringside.standing.stood import AsItStands, analysed
from ringside.standing.truth import truth
from ringside.techniques.taking import take

START = starting_layout("five-piece", "turned pair")
ANY = TypeAdapter(AnyState)
SNARE = START.kit.first("snare").id


def taken(mic, to, metres):
    return Reading.model_construct(a=mic, b=to, metres=metres, sure=True, taken=1)


@pytest.fixture(scope="module")
def stands():
    readings = [taken("OL", SNARE, 1.3), taken("OR", SNARE, 1.36), taken("OL", "OR", 1.5)]
    return truth(START, Locker(), readings).layout


def test_what_stands_goes_through_json_and_is_as_sure_as_before(stands):
    back = ANY.validate_python(json.loads(stands.model_dump_json()))
    assert isinstance(back, AsItStands)
    one, two = analysed(stands), analysed(back)
    assert np.allclose(one.doubt_m, two.doubt_m, atol=1e-6)
    assert deviation_s(one) == pytest.approx(deviation_s(two), rel=1e-4)
    # A mic that is moved for a look is as sure as it was.
    assert isinstance(back.with_mic(back.mic("OL")), AsItStands)


def test_a_plan_stays_a_plan(stands):
    plain = json.loads(START.model_dump_json())
    assert type(ANY.validate_python(plain)) is Layout
    assert analysed(START).doubt_m is None
    with pytest.raises(ValidationError):
        Layout.model_validate_json(stands.model_dump_json())


@pytest.mark.parametrize(("spoil", "said"), [
    (lambda s: s["setback_m"].pop(), "one setback for each mic"),
    (lambda s: s["readings"].append({"a": "ZZ", "b": None, "at_kit": False}), "'ZZ'"),
    (lambda s: s["readings"].append({"a": "OL", "b": "zz", "at_kit": False}), "'zz'"),
    (lambda s: s["readings"].append({"a": "OL", "b": None, "at_kit": True}), "'OL'"),
    (lambda s: s.update(setback_m=["far"]), "number"),
])  # fmt: skip
def test_what_does_not_belong_together_is_refused_with_what_was_expected(stands, spoil, said):
    plain = json.loads(stands.model_dump_json())
    spoil(plain["stood"])
    with pytest.raises(ValidationError, match=said):
        ANY.validate_python(plain)


def test_an_edit_of_what_stands_is_a_plan_again(stands):
    done = apply(stands, ChangeChannels(do="channels", channels=stands.channels)).layout
    assert type(done) is Layout
    assert done.mics == stands.mics
    assert type(take(stands, "kick-inside").layout) is Layout
