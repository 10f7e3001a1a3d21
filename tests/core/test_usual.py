"""Tracks are put where people look for them, whatever order the mics were put up in."""

import pytest
from ringside.edits.apply import apply
from ringside.edits.channels import AddChannel, UsualOrder
from ringside.gear.locker import Locker
from ringside.gear.stock import stock
from ringside.places.starts import starting_layout
from ringside.plan.hanging import with_tracks
from ringside.plan.kit import centre_of
from ringside.plan.layout import Layout, StereoPair
from ringside.plan.mics import Mic

KIT = starting_layout("five-piece", "turned pair").kit

# Common practice: an input list is read from the kick up and from the left to the right.
EXPECTED = [
    "KI", "KI.2", "KO", "SU", "KS", "KB", "ST", "SX", "SI", "SE", "SB", "HH", "T1", "T2", "FT",
    "FB", "RD", "CL", "KN", "OL", "OR", "OM", "RL", "RR", "FL", "FR", "RM",
]  # fmt: skip


def of_the_trade():
    """A big set-up, its mics put up in any order; the kick inside is split."""

    def mic(id_, job, at, role="close"):
        return Mic(id=id_, name=id_, role=role, job=job, position_m=at, aim=(0, 0, -1))

    def over(part, by):
        return tuple(c + by * a for c, a in zip(centre_of(part), part.axis, strict=True))

    def at(id_, job, by):
        return mic(id_, job, over(KIT.part(job), by))

    deep = KIT.first("kick").depth_m
    beside = tuple(c + (0.3, 0, -0.05)[k] for k, c in enumerate(centre_of(KIT.part("snare"))))
    at_shell = tuple(c + (0.4, 0.2, 0)[k] for k, c in enumerate(centre_of(KIT.first("kick"))))
    mics = (
        at("KB", "kick", 0.1), mic("KS", "kick", at_shell), mic("SE", "snare", beside),
        at("SI", "snare", -0.03), mic("RM", None, (0.0, 5.0, 1.0), "room"),
        mic("FR", None, (2.5, 4.0, 2.0), "room"),
        mic("OM", None, (0.0, 0.2, 2.0), "overhead"), mic("OR", None, (0.8, 0, 1.8), "overhead"),
        mic("RR", None, (1.0, 2.5, 1.5), "room"), mic("FL", None, (-2.5, 4.0, 2.0), "room"),
        mic("RL", None, (-1.0, 2.5, 1.5), "room"), mic("OL", None, (-0.8, 0, 1.8), "overhead"),
        mic("KN", None, (0.1, -0.2, 0.6)), at("CL", "crash-l", 0.3), at("RD", "ride", 0.2),
        at("FB", "floor", -0.6), at("HH", "hats", 0.2), at("FT", "floor", 0.1),
        at("T2", "rack-2", 0.1), at("T1", "rack-1", 0.1), at("SB", "snare", -0.3),
        at("ST", "snare", 0.08), at("SX", "snare", 0.06), at("SU", "kick", -deep - 0.4),
        at("KO", "kick", -deep - 0.05), at("KI", "kick", -0.1),
    )  # fmt: skip
    pairs = tuple(StereoPair(name=a, left=a, right=b)
                  for a, b in (("FL", "FR"), ("RL", "RR"), ("OL", "OR")))  # fmt: skip
    bare = Layout(name="Big", kit=KIT, mics=mics, stereo_pairs=pairs)
    return apply(with_tracks(bare), AddChannel(do="add-channel", mic="KI")).layout


def test_tracks_are_put_where_they_are_looked_for():
    big = of_the_trade()
    done = apply(big, UsualOrder(do="usual-tracks"))
    assert [c.id for c in done.layout.channels] == EXPECTED
    was = {c.id: c for c in big.channels}
    assert all(c == was[c.id] for c in done.layout.channels)  # every plug stays where it is
    assert done.layout.mics == big.mics
    assert not stock(big, Locker()).usual_order
    assert stock(done.layout, Locker()).usual_order


def test_hats_stay_after_the_toms_where_somebody_has_them_there():
    toms_first = [c for c in EXPECTED if c != "HH"]
    toms_first.insert(toms_first.index("FB") + 1, "HH")
    big = of_the_trade()
    mics = {m.id: m for m in big.mics}
    late = ("HH", "RD", "CL")
    moved = (*(m for m in big.mics if m.id not in late), *(mics[i] for i in late))
    done = apply(big.model_copy(update={"mics": moved}), UsualOrder(do="usual-tracks")).layout
    assert [c.id for c in done.channels] == toms_first


@pytest.mark.parametrize(("left", "right", "overheads"), [
    ("OM", "OR", ["OM", "OR", "OL"]), ("OL", "OM", ["OL", "OM", "OR"]),
    ("OR", "OL", ["OR", "OL", "OM"]), ("OL", "RL", ["OL", "OR", "OM"]),
])  # fmt: skip
def test_one_mic_in_two_stereo_pairs_has_one_place(left, right, overheads):
    big = of_the_trade()
    first = StereoPair(name="Once more", left=left, right=right)
    both = big.model_copy(update={"stereo_pairs": (first, *big.stereo_pairs)})
    done = apply(both, UsualOrder(do="usual-tracks")).layout
    assert sorted(c.id for c in done.channels) == sorted(EXPECTED)
    assert [c.id for c in done.channels if c.id.startswith("O")] == overheads


@pytest.mark.parametrize(("nearer_m", "order"), [(0.04, ["A", "B"]), (0.4, ["B", "A"])])
def test_of_two_room_mics_the_nearer_comes_first_unless_they_are_equally_far(nearer_m, order):
    x, y, z = KIT.first("snare").batter_m
    rooms = tuple(
        Mic(id=name, name=name, role="room", position_m=(x, y + far, z), aim=(0, -1, 0))
        for name, far in (("A", 3.0), ("B", 3.0 - nearer_m))
    )
    layout = with_tracks(Layout(name="Two rooms", kit=KIT, mics=rooms))
    done = apply(layout, UsualOrder(do="usual-tracks")).layout
    assert [c.id for c in done.channels] == order
