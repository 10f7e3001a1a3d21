"""What test hits have settled, in the list: heard as recorded, for as long as the mics stand so."""

import dataclasses

import pytest
from ringside.edits.apply import Several, apply
from ringside.edits.mics import FlipMics
from ringside.pairs.analysis import analyse
from ringside.pairs.verdicts import Verdict
from ringside.places.starts import starting_layout
from ringside.plan.hanging import with_channels, with_flips, with_mics, without_mics
from ringside.standing.stood import Stood, standing_layout
from ringside.worklist.build import worklist
from ringside.worklist.settled import Settled, SettledPair
from ringside.worklist.state import State

PLAN = starting_layout("five-piece", "square pair")
KICK = (("KI", "OR"), ("KO", "OL"), ("KO", "OR"))


def heard(alike, *, layout=PLAN, measured=None):
    """A take that heard the kick's open pairs so much alike."""
    pairs = tuple(SettledPair(a, b, "kick", alike) for a, b in KICK)
    return Settled("hits 1", layout, measured or layout, pairs)


def asked(made):
    return [drum for x in made.lines if x.kind == "hits" for drum in x.of]


def sign(layout, settled, a="KO", b="OR"):
    an = State.of(layout, settled.of(layout)).an
    return int(an.pairs.sign[an.pair_index(a, b)[0], an.source_index("kick")])


def moved(layout, mic, by):
    m = layout.mic(mic)
    right, front, up = m.position_m
    return with_mics(layout, (m.model_copy(update={"position_m": (right, front, up + by)}),))


def on_tracks(mic, **what):
    channels = (c.model_copy(update=what) if c.mic == mic else c for c in PLAN.channels)
    return with_channels(PLAN, tuple(channels))


def test_hits_are_asked_for_once():
    before = worklist(PLAN)
    assert {"kick", "floor"} == {*asked(before)}
    after = worklist(PLAN, heard(0.8))
    assert asked(after) == ["floor"]
    assert after.words.endswith("3 signs are as the take “hits 1” has heard them.")
    assert "heard" not in before.words


@pytest.mark.parametrize(
    ("alike", "verdict"), [(0.8, Verdict.BEHIND), (-0.8, Verdict.HOLLOW), (0.0, Verdict.BEHIND)]
)
def test_what_was_heard_decides(alike, verdict):
    an = State.of(PLAN, heard(alike)).an
    at = an.pair_index("KO", "OR")[0], an.source_index("kick")
    assert an.pairs.verdict[at] == verdict
    assert analyse(PLAN).pairs.verdict[at] == Verdict.ASK_THE_EAR


def test_heard_against_each_other_both_kick_mics_are_turned_over():
    """And once they are, what was heard is turned over with them: nothing is left to turn."""
    layout = with_flips(PLAN, {"SB"})
    told = heard(-0.9, layout=layout)
    made = worklist(layout, told)
    first = made.lines[0]
    assert (first.kind, {*first.of}) in [("flip", {"KI", "KO"}), ("flip", {"OL", "OR"})]
    assert first.gain_db > worklist(layout).lines[0].gain_db
    edits = [e for x in made.lines for e in x.edits]
    done = apply(layout, Several(do="several", edits=tuple(edits))).layout
    assert not [x for x in worklist(done, told).lines if x.kind == "flip"]
    assert not {"kick"} & {*asked(worklist(done, told))}


def test_a_switch_turns_over_what_was_heard_wherever_it_is():
    told = heard(0.8)
    assert sign(PLAN, told) == 1
    assert sign(with_flips(PLAN, {"KO"}), told) == -1
    assert sign(with_flips(PLAN, {"KO", "OR"}), told) == 1
    on_track = on_tracks("KO", track_flip=True)
    assert sign(on_track, told) == -1
    # Measured with that flip on the track, it is in what was heard; the preamp's is in the take.
    assert sign(on_track, heard(0.8, measured=on_track)) == 1
    assert sign(PLAN, heard(0.8, measured=on_track)) == -1
    turned = with_flips(PLAN, {"KO"})
    assert sign(turned, heard(0.8, layout=PLAN, measured=turned)) == -1
    assert sign(turned, heard(0.8, layout=turned, measured=turned)) == 1
    mic = PLAN.mic("KO").model_copy(update={"cable_inverted": True})
    assert sign(with_mics(PLAN, (mic,)), told) == -1


def test_what_stands_otherwise_is_asked_about_again():
    told = heard(0.8)
    assert sign(moved(PLAN, "KO", 0.02), told) == 0
    assert sign(moved(PLAN, "SB", 0.02), told) == 1
    assert sign(PLAN, dataclasses.replace(told, recorded=moved(PLAN, "OR", 0.02))) == 0
    late = on_tracks("KO", track_delay_samples=48)
    assert sign(late, told) == 0
    assert sign(late, heard(0.8, measured=late)) == 1
    kick, *others = PLAN.kit.drums
    right, front, up = kick.batter_m
    for change, kept in (({"name": "Big one"}, 1), ({"batter_m": (right, front + 0.1, up)}, 0)):
        drums = (kick.model_copy(update=change), *others)
        kit = PLAN.kit.model_copy(update={"name": "another", "drums": drums})
        assert sign(PLAN.model_copy(update={"kit": kit}), told) == kept
    gone = without_mics(PLAN, {"KO"})
    assert sign(PLAN, dataclasses.replace(told, recorded=gone)) == 0


def test_a_sign_that_the_plan_knows_is_left_to_it():
    pair = (SettledPair("ST", "SB", "snare", 0.9),)
    told = dataclasses.replace(heard(0.8), pairs=pair)
    an = State.of(PLAN, told).an
    assert an.pairs.sign[an.pair_index("ST", "SB")[0], an.source_index("snare")] == -1
    assert worklist(PLAN, told) == worklist(PLAN)


def test_where_the_tape_has_it_is_where_the_take_was_made():
    stood = Stood(readings=(), setback_m=(0.0,) * len(PLAN.mics))
    stands = standing_layout(moved(PLAN, "KO", 0.04), stood)
    assert sign(stands, heard(0.8)) == 1
    turned = standing_layout(with_flips(moved(PLAN, "KO", 0.04), {"KO"}), stood)
    assert sign(turned, heard(0.8)) == -1


def test_a_flip_made_by_hand_is_the_same_as_one_of_the_list():
    told = heard(0.8)
    by_hand = apply(PLAN, FlipMics(do="flip", mics=("KO",))).layout
    assert sign(by_hand, told) == -1
