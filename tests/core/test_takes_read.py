"""A take read whole: simulated by image sources, set up right and wrong; what it says."""

import json
import re
from dataclasses import replace

import numpy as np
import pytest
import soundfile
from ringside.edits.apply import apply
from ringside.edits.mics import RemoveMics
from ringside.errors import RingsideError
from ringside.gear.locker import Locker
from ringside.pairs.analysis import analyse
from ringside.plan.channels import Channel
from ringside.recorder.played import Stroke, groove
from ringside.recorder.recording import Take, truth, write
from ringside.recorder.wrong import Late, Moved, Wrong, drawn
from ringside.standing.truth import truth as truth_of
from ringside.takes.asking import hits_wanted
from ringside.takes.faults import file_notes
from ringside.takes.files import tracks_of
from ringside.takes.judged import judged
from ringside.takes.matching import matched
from ringside.takes.reading import Corrections, read_take
from ringside.takes.report import told_take
from ringside.techniques.taking import take as take_technique

from tests.core.takes import demo_layout, recorded
from tests.core.test_standing import length, reading
from tests.core.tracks import with_mic

DRY = demo_layout().model_copy(update={"room": None})


@pytest.fixture(scope="module")
def analysis():
    return analyse(demo_layout())


@pytest.fixture(scope="module")
def plain(tmp_path_factory, analysis):
    """Three hits on each drum in the demo's room, set up as planned."""
    files, take = recorded(tmp_path_factory.mktemp("plain"), layout=demo_layout())
    return files, take, *told_take(files, analysis)


def test_every_stroke_is_found_and_named(plain):
    _, take, told, _, _ = plain
    assert [h.source for h in told.hits] == [s.source for s in take.played]
    assert [h.at_s for h in told.hits] == pytest.approx([s.at_s for s in take.played], abs=0.004)
    assert [(h.sure, h.out) for h in told.hits] == [(True, "")] * 15
    assert [(d.source, d.hits) for d in told.drums] == [
        ("kick", 3), ("snare", 3), ("rack-1", 3), ("rack-2", 3), ("floor", 3),
    ]  # fmt: skip
    assert [t.by for t in told.tracks] == ["name"] * 10


def test_arrivals_are_those_of_the_straight_way(plain, analysis):
    """By distance over the speed of sound alone; the recorder's own, not the plan's paths."""
    _, take, told, _, _ = plain
    where = {m.id: np.array(m.position_m) for m in take.stood.mics}
    for name in ("snare", "rack-1", "rack-2", "floor"):
        drum = next(d for d in told.drums if d.source == name)
        part = take.layout.kit.part(name)
        at = np.array(part.batter_m) + 0.005 * np.array(part.axis)
        for a in drum.arrivals:
            if a.channel in ("OL", "OR", "HH") and a.lag_ms is not None:
                far = np.linalg.norm(where[a.channel] - at) - np.linalg.norm(where[drum.own] - at)
                # A tenth of a sample is 2 µs; 20 µs is 7 mm of way.
                assert a.lag_ms == pytest.approx(1e3 * far / take.layout.air.speed, abs=0.02)


def test_what_the_plan_left_to_the_ear_is_settled(plain):
    _, _, told, _, _ = plain
    assert told.open_before >= 3
    assert told.settled == told.open_before
    asked = [p for p in told.pairs if p.planned == "ask the ear" and p.counts]
    assert all(p.settled and p.measured != "ask the ear" for p in asked)
    assert told.reasons == []
    assert told.ask.rows == []
    assert "Everything is as planned" in told.words


def test_hits_are_asked_for_where_most_is_open(analysis):
    rows = hits_wanted(analysis).rows
    assert {r.source for r in rows} == {"kick", "snare", "rack-1", "rack-2", "floor"}
    assert [r.settles for r in rows] == sorted((r.settles for r in rows), reverse=True)
    assert rows[0].settles > 0
    assert "leans over the kit" in hits_wanted(analysis).caution


def test_for_one_mic_no_hits_are_asked_for():
    layout = demo_layout()
    one = hits_wanted(analyse(apply(layout, RemoveMics(
        do="remove-mics", mics=[m.id for m in layout.mics if m.id != "OL"]
    )).layout))  # fmt: skip
    assert (one.rows, one.caution) == ([], "")
    assert "Place two first" in one.words


def test_a_channel_turned_over_is_named_and_its_verdicts_are_hollow(tmp_path, analysis, plain):
    files, _ = recorded(tmp_path, Wrong(inverted=("SB",)), layout=demo_layout())
    told, _, seen = told_take(files, analysis)
    assert [(r.kind, r.channels) for r in told.reasons] == [("turned over", ["SB"])]
    pair = next(p for p in told.pairs if (p.a, p.b, p.source) == ("ST", "SB", "snare"))
    right = next(p for p in plain[2].pairs if (p.a, p.b, p.source) == ("ST", "SB", "snare"))
    # What added up flipped adds up as wired, and the other way round.
    assert pair.wired_db[0] == pytest.approx(right.flipped_db[0], abs=0.1)
    assert pair.gain_db == pytest.approx(-right.gain_db, abs=0.1)
    row, _, _ = analysis.find("ST", "SB", "snare")
    assert seen.sign[row, [d.source for d in told.drums].index("snare")] == 1


def test_a_moved_mic_and_a_late_track_are_told_apart(tmp_path, analysis):
    wrong = Wrong(moved=(Moved(mic="OR", by_m=(0.0, 0.0, 0.10)),),
                  late=(Late(channel="T2", samples=256),))  # fmt: skip
    files, _ = recorded(tmp_path, wrong, layout=demo_layout())
    told, _, _ = told_take(files, analysis)
    late, moved = told.reasons
    assert (late.kind, late.channels, late.samples) == ("late", ["T2"], pytest.approx(256, abs=1))
    assert re.match(r"T2 is 25[567] samples late \(5.3. ms\)", late.words.cm())
    assert (moved.kind, moved.mic) == ("moved", "OR")
    assert moved.off_m == pytest.approx((0, 0, 0.10), abs=0.05)
    assert "too high" in moved.words.cm()
    place = next(p for p in told.places if p.mic == "OR")
    off = np.array(place.off_m) - (0, 0, 0.10)
    assert np.linalg.norm(off) < 0.03
    assert off @ np.linalg.solve(np.array(place.covariance_m2), off) < 11.3  # 99 %, chi squared


@pytest.mark.parametrize(("swapped", "inverted", "reasons"), [
    (("ST", "T1"), (), [("swapped", {"ST", "T1"})]),
    (("ST", "T1"), ("T1",), [("swapped", {"ST", "T1"}), ("turned over", {"T1"})]),
    # Only the socket of the snare's lower mic is flipped: in each other's, both are turned over.
    (("SB", "T1"), ("SB", "T1"), [("swapped", {"SB", "T1"})]),
    (("SB", "T1"), ("ST",), [("swapped", {"SB", "T1"}), ("turned over", {"ST"})]),
])  # fmt: skip
def test_two_tracks_the_wrong_way_round_are_told_and_read_the_right_way(
    tmp_path, swapped, inverted, reasons
):
    layout = demo_layout().model_copy(update={"room": None})
    channels = [c.turned_over() if c.id == "SB" else c for c in layout.channels]
    layout = layout.model_copy(update={"channels": tuple(channels)})
    wrong = Wrong(swapped=(swapped,), inverted=inverted)
    files, _ = recorded(tmp_path, wrong, layout=layout)
    told, _, _ = told_take(files, analyse(layout))
    assert [(r.kind, set(r.channels)) for r in told.reasons] == reasons
    assert [d.hits for d in told.drums] == [3] * 5


def test_of_two_that_are_far_too_quiet_it_is_not_told_that_they_are_crossed(tmp_path):
    import soundfile

    files, _ = recorded(tmp_path, Wrong(swapped=(("T1", "T2"),)))
    for file in files[4:6]:
        sound, rate = soundfile.read(file)
        soundfile.write(file, sound * 10 ** (-60 / 20), rate, "FLOAT")
    told, _, _ = told_take(files, analyse(demo_layout()))
    assert [(r.kind, set(r.channels)) for r in told.reasons] == [("dead", {"T1", "T2"})]


def test_dead_doubled_clipped_and_humming_tracks_are_told(tmp_path, analysis):
    wrong = Wrong(dead=("HH",), doubled=(("T1", "T2"),), clipped=("FT",), hum=("KO",))
    files, _ = recorded(tmp_path, wrong)
    told, _, _ = told_take(files, analysis)
    notes = {t.channel: " ".join(t.notes) for t in told.tracks}
    assert notes["HH"].startswith("holds no drum")
    assert "holds the same sound as T1" in notes["T2"]
    assert notes["FT"].startswith("clips, ")
    assert "hums at 50 Hz, 5" in notes["KO"]
    assert {c for c, n in notes.items() if n} == {"HH", "T2", "FT", "KO"}
    # What has to be seen to comes first; what is of another's sound is blamed for nothing else.
    said = [(r.kind, r.channels, r.words.text) for r in told.reasons]
    assert said == [
        ("dead", ["HH"], "HH holds no drum."),
        ("doubled", ["T2"], "T2 holds the same sound as T1: its own is missing, and nothing is told"
         " of T2."),
    ]  # fmt: skip
    assert "as planned" not in told.words
    assert not [p for p in told.pairs if "T2" in (p.a, p.b)]


@pytest.mark.parametrize(("dead", "drum", "other"), [("KI", "kick", "KO"), ("T1", "rack-1", "ST")])
def test_a_drum_whose_mic_holds_nothing_is_told_against_another(
    tmp_path, analysis, dead, drum, other
):
    files, _ = recorded(tmp_path, Wrong(dead=(dead,)))
    told, _, _ = told_take(files, analysis)
    said = [(r.kind, r.channels, r.words.text) for r in told.reasons]
    assert said == [("dead", [dead], f"{dead} holds no drum.")]
    own = next(d for d in told.drums if d.source == drum)
    assert (own.own, own.hits) == (other, 3)
    refused = [a.channel for a in own.arrivals if a.lag_ms is None]
    assert len(refused) <= 3
    assert dead in refused


def test_a_sound_on_two_tracks_is_told_though_each_has_its_own_noise(tmp_path, analysis):
    """A room mic's sound on a tom's track, through two preamps: it was told as a late tom."""
    files, _ = recorded(tmp_path, Wrong(doubled=(("OL", "FT"),)))
    told, _, _ = told_take(files, analysis)
    assert [(r.kind, r.channels) for r in told.reasons] == [("doubled", ["FT"])]
    assert told.places[0].mic == "OL"
    assert np.linalg.norm(told.places[0].off_m) < 0.03
    two, rate = soundfile.read(files[6])
    noise = np.random.default_rng(2).normal(0, 0.001, two.shape)
    soundfile.write(files[6], two + noise, rate, "PCM_24")
    told, _, _ = told_take(files, analysis)
    assert [(r.kind, r.channels) for r in told.reasons] == [("doubled", ["FT"])]


def test_two_mics_at_one_place_are_no_doubled_track(tmp_path):
    layout = take_technique(DRY, "pair-coincident", None).layout
    files, _ = recorded(tmp_path, layout=layout)
    told, _, _ = told_take(files, analyse(layout))
    assert told.reasons == []
    assert "Everything is as planned, as far as these hits can tell." in told.words
    assert [t.notes for t in told.tracks if t.notes] == []


def test_what_is_noted_of_a_track_is_not_hidden_by_all_being_as_planned(tmp_path, analysis):
    files, _ = recorded(tmp_path, Wrong(hum=("KO",), clipped=("FT",)))
    told, _, _ = told_take(files, analysis)
    assert told.reasons == []
    assert told.words.endswith(
        "Everything is as planned, as far as these hits can tell. FT, KO: see Tracks."
    )


def test_one_file_of_many_channels_says_the_same_as_one_of_each(tmp_path, analysis, plain):
    files, _ = recorded(tmp_path, layout=demo_layout(), one_file=True, container="RF64")
    told, _, _ = told_take(files, analysis)
    assert [t.by for t in told.tracks] == ["number"] * 10
    for one, other in zip(told.drums, plain[2].drums, strict=True):
        assert [a.lag_ms for a in one.arrivals] == pytest.approx(
            [a.lag_ms for a in other.arrivals], abs=1e-4, nan_ok=True
        )


@pytest.mark.parametrize("one_file", [False, True])
@pytest.mark.parametrize("channel", ["KI", "T2"])
def test_a_late_track_is_as_late_in_one_file_of_many_as_in_one_of_its_own(
    tmp_path, analysis, one_file, channel
):
    """The first channel of a file, and one in the middle: neither carries the others along."""
    files, _ = recorded(tmp_path, Wrong(late=(Late(channel=channel, samples=400),)), each=2,
                        one_file=one_file)  # fmt: skip
    told, _, _ = told_take(files, analysis)
    assert [(r.kind, r.channels) for r in told.reasons] == [("late", [channel])]
    assert told.reasons[0].samples == pytest.approx(400, abs=2)
    assert [d.hits for d in told.drums] == [2] * 5


def test_a_drum_that_was_retuned_is_told_in_cents(tmp_path, analysis):
    files, _ = recorded(tmp_path, Wrong(retuned={"floor": 150.0}), sources=("floor", "snare"))
    told, _, _ = told_take(files, analysis)
    floor, snare = (next(d for d in told.drums if d.source == n) for n in ("floor", "snare"))
    cents = 1200 * np.log2(floor.fundamental_hz / floor.planned_hz)
    assert cents == pytest.approx(150, abs=15)
    assert "cents above the plan" in floor.words
    assert snare.words == ""


def test_what_somebody_says_goes_before_what_is_found(plain, analysis):
    files = plain[0]
    first, second = (h.ms for h in plain[2].hits[:2])
    # A millisecond or two aside is the same stroke; what is said of none is said of none.
    drums = {first + 2: "floor", second: None, second + 500: "kick"}
    said = Corrections(channels={files[9].name: None}, drums=drums)
    take = read_take(files, analysis, said)
    assert [m.channel for m in take.matched][9] is None
    assert len(take.mics) == 9
    assert (take.hits[0].source, take.hits[0].said, take.hits[0].out) == ("floor", True, "")
    assert take.hits[1].out == "left out"
    assert take.drum("kick").hits == 1
    with pytest.raises(RingsideError, match="ms is said to be 'gong'"):
        read_take(files, analysis, Corrections(drums={first: "gong"}))
    with pytest.raises(RingsideError, match="no channel is called 'XX'"):
        read_take(files, analysis, Corrections(channels={files[0].name: "XX"}))
    twice = Corrections(channels={files[0].name: "OL", files[1].name: "OL"})
    with pytest.raises(RingsideError, match="given to two tracks"):
        read_take(files, analysis, twice)


def test_ghosts_flams_and_strokes_too_near_are_left_out_with_why(tmp_path, analysis):
    played = [
        Stroke("snare", 1.0, 0.0), Stroke("snare", 2.5, -20.0), Stroke("snare", 4.0, -10.0),
        Stroke("snare", 4.03, 0.0), Stroke("snare", 6.0, -1.0), Stroke("rack-1", 6.09, -1.0),
        Stroke("snare", 8.0, -1.0),
    ]  # fmt: skip
    take = Take(DRY, tuple(played))
    hits = read_take(write(take, tmp_path), analysis).hits
    out = {round(h.at_s, 1): h.out for h in hits}
    assert out[1.0] == out[8.0] == ""
    assert out[2.5] == "a ghost note, far softer than the others"
    assert out[4.0] == "a flam: two strokes in one"
    assert out[6.0] == "another stroke comes too near it"


def test_in_a_groove_no_stroke_that_counts_is_named_wrongly(tmp_path, analysis):
    take = Take(DRY, tuple(groove(DRY.kit, 4, seed=3)))
    hits = [h for h in read_take(write(take, tmp_path), analysis).hits if not h.out]
    assert len(hits) > 15
    for h in hits:
        near = {s.source for s in take.played if abs(s.at_s - h.at_s) < 0.03}
        assert h.source in near


def test_files_of_no_take_are_told(tmp_path, analysis):
    take = Take(DRY, ())
    told, _, seen = told_take(write(take, tmp_path), analysis)
    assert told.words == "No stroke of this take can be used; why is told at each of them."
    assert seen.verdict.shape == (45, 0)
    assert {t.notes[0][:13] for t in told.tracks} == {"holds no drum"}


def test_the_same_seed_records_the_same_and_its_truth_is_written(tmp_path):
    layout = demo_layout()
    wrong = drawn(layout, 4, ("moved", "inverted", "late"))
    assert wrong == drawn(layout, 4, ("moved", "inverted", "late"))
    assert wrong != drawn(layout, 5, ("moved", "inverted", "late"))
    size = np.linalg.norm(wrong.moved[0].by_m)
    assert 0.05 <= size <= 0.15
    files, take = recorded(tmp_path, wrong, sources=("snare",), each=1)
    told = json.loads((tmp_path / "truth.json").read_text())
    assert told == json.loads(json.dumps(truth(take)))
    assert told["wrong"]["inverted"] == list(wrong.inverted)
    assert len(files) == 10


@pytest.mark.parametrize(("inputs", "rows"), [
    ((1, 2, 3, 4, 5, 6, 7), {"ABCDEF", "BCDEFG"}),
    ((7, 6, 5, 4, 3, 2, 1), {"GFEDCB", "FEDCBA"}),
    ((1, 2, 3, 9, 10, 11, None), {"ABC", "DEF"}),
    ((1, 2, 3, 4, 5, 20, None), {"ABCDE"}),
    ((None,) * 7, {"ABCDEF", "BCDEFG"}),
    ((1, 3, 5, 7, 9, 11, 13), set()),
])  # fmt: skip
def test_a_row_of_plugs_is_drawn_of_what_is_side_by_side(inputs, rows):
    names = dict(zip([m.id for m in demo_layout().mics], "ABCDEFG", strict=False))
    channels = [Channel(id=c, name=c, mic=m, input=n)
                for (m, c), n in zip(names.items(), inputs, strict=True)]  # fmt: skip
    layout = demo_layout().model_copy(update={"channels": tuple(channels)})
    found = [drawn(layout, seed, ("shifted",)).shifted for seed in range(12)]
    assert {"".join(row) for made in found for row in made} == rows


def named_tracks(tmp_path, *names):
    import soundfile

    for n in names:
        soundfile.write(tmp_path / n, np.zeros(100), 48000)
    return tracks_of([tmp_path / n for n in names])


@pytest.mark.parametrize(
    ("name", "channel", "by"),
    [
        ("03 Snare top_take2.wav", "ST", "name"),
        ("Snare Bottom.wav", "SB", "name"),
        ("OL.wav", "OL", "name"),
        ("10.wav", "OR", "number"),
        ("10 whatever.wav", "OR", "number"),
        ("left overhead bounce.wav", "OL", "name"),
        ("SNARE TOP & BOTTOM.wav", "ST", "name"),
    ],
)
def test_a_track_is_matched_by_its_name_or_number(tmp_path, name, channel, by):
    got = matched(named_tracks(tmp_path, name, "zz.wav"), demo_layout())
    assert (got[0].channel, got[0].by) == (channel, by)
    assert got[1].channel is None


def test_a_file_of_two_sides_among_others_is_the_pair_it_is_called_by(tmp_path):
    import soundfile

    soundfile.write(tmp_path / "OH stereo.wav", np.zeros((100, 2)), 48000)
    soundfile.write(tmp_path / "Mystery.wav", np.zeros((100, 2)), 48000)
    files = [tmp_path / n for n in ("OH stereo.wav", "Mystery.wav")]
    got = matched([*named_tracks(tmp_path, "Kick in.wav"), *tracks_of(files)], demo_layout())
    # What nobody can tell is left for somebody to say: it is not the kick's for being the first.
    assert [m.channel for m in got] == ["KI", "OL", "OR", None, None]
    assert [m.by for m in got] == ["name", "name", "name", "nothing", "nothing"]


def test_tracks_of_no_name_are_matched_in_order(tmp_path):
    got = matched(named_tracks(tmp_path, "a.wav", "b.wav", "c.wav"), demo_layout())
    assert [(m.channel, m.by) for m in got] == [(c, "order") for c in ("KI", "KO", "ST")]


def test_a_flip_and_a_delay_on_the_track_count_in_the_verdict(plain):
    """The files are what came in; what is done on the track comes after."""
    files, layout = plain[0], demo_layout()

    def with_track(**how):
        changed = tuple(c.model_copy(update=how) if c.id == "SB" else c for c in layout.channels)
        return judged(read_take(files, analyse(layout.model_copy(update={"channels": changed}))))

    as_is, over, later = with_track(), with_track(track_flip=True), with_track(
        track_delay_samples=48
    )  # fmt: skip
    row, _, _ = analyse(layout).find("ST", "SB")
    assert over.sign[row, 1] == -as_is.sign[row, 1] != 0
    assert over.gain_db[row, 1] == pytest.approx(-as_is.gain_db[row, 1])
    assert later.delay_s[row, 1] - as_is.delay_s[row, 1] == pytest.approx(0.001)


def test_what_tracks_add_up_to_is_told_with_their_delays(plain, tmp_path):
    """A delay on the track says the same as a file that begins so much later."""
    files, layout = plain[0], demo_layout()
    by = 40  # of the 300 samples or so of a wave: it moves the body, too
    put = tuple(
        c.model_copy(update={"track_delay_samples": by}) if c.id == "SB" else c
        for c in layout.channels
    )
    on_track = judged(read_take(files, analyse(layout.model_copy(update={"channels": put}))))
    moved = []
    for path in files:
        sound, rate = soundfile.read(path, always_2d=True)
        if path is files[3]:
            sound = np.concatenate([np.zeros((by, 1)), sound[:-by]])
        moved.append(tmp_path / path.name)
        soundfile.write(moved[-1], sound, rate, soundfile.info(path).subtype)
    in_file = judged(read_take(moved, analyse(layout)))
    as_is = judged(read_take(files, analyse(layout)))
    row, _, _ = analyse(layout).find("ST", "SB")
    for n in range(3):
        told, other = (x.sums_db[:, n, row, 1] for x in (on_track, in_file))
        assert told == pytest.approx(other, abs=0.15)
    body = on_track.sums_db[:, 0, row, 1] - as_is.sums_db[:, 0, row, 1]
    assert abs(body).max() > 0.5


def test_a_split_of_one_mic_is_no_doubled_track(tmp_path):
    layout = DRY
    first = layout.channels[2]
    copy = Channel(id="ST2", name="Snare crushed", mic=first.mic)
    split = layout.model_copy(update={"channels": (*layout.channels, copy)})
    files, _ = recorded(tmp_path, layout=split, sources=("snare", "kick"))
    told, _, _ = told_take(files, analyse(split))
    assert [t.notes for t in told.tracks if t.notes] == []


def test_a_jump_of_the_clock_is_told_and_a_late_track_is_none(plain):
    take = plain[3]
    late = np.zeros(len(take.mics))
    late[8] = 0.002

    def from_(first):
        """OL two milliseconds later from a drum on."""
        drums = list(take.each)
        each = {k: tuple(replace(r, lag_s=r.lag_s + late * (drums.index(k) >= first)) for r in hits)
                for k, hits in take.each.items()}  # fmt: skip
        return [(n.kind, n.track) for n in file_notes(replace(heard, each=each))]

    heard = take
    assert from_(0) == from_(9) == []
    assert from_(2) == [("jumped", 8)]
    # Of drums in its null a mic hears walls: the side of a pair is no jump of the clock.
    an = take.analysis
    deaf = replace(an.arrivals, null=np.ones_like(an.arrivals.null))
    heard = replace(take, analysis=replace(an, arrivals=deaf))
    assert from_(2) == []


@pytest.fixture(scope="module")
def raised(tmp_path_factory):
    """An overhead 12 cm up, and the layout in the open."""
    wrong = Wrong(moved=(Moved(mic="OR", by_m=(0.0, 0.0, 0.12)),))
    files, _ = recorded(tmp_path_factory.mktemp("raised"), wrong)
    return files, DRY, np.array(DRY.mic("OR").position_m) + [0.0, 0.0, 0.12]


def taped(layout, at):
    """The layout as a tape has it that was held at OR in three ways, where OR is `at`."""
    there = with_mic(layout, "OR", position_m=tuple(at))
    taken = [reading("OR", to, length(there, "OR", to)) for to in ("snare", "floor", None)]
    return truth_of(layout, Locker(), taken).layout


def test_what_the_tape_says_of_a_place_is_joined_with_the_hits(raised):
    files, layout, at = raised
    an = analyse(layout)
    alone = told_take(files, an)[0]
    told = told_take(files, an, stands=taped(layout, at))[0]
    one, both = (next(p for p in t.places if p.mic == "OR") for t in (alone, told))
    assert (one.taped, both.taped) == ("none", "joined")
    assert both.radius_m < one.radius_m
    assert np.linalg.norm(at - both.position_m) < 0.03
    assert next(p for p in told.places if p.mic == "OL").taped == "none"
    said = [next(r.do for r in t.reasons if r.mic == "OR") for t in (alone, told)]
    assert said[0].startswith("Read OR with the tape")
    assert said[1].startswith("The tape has it there, too")
    # As it stands is told of pairs the tape was held at, and of no others.
    pairs = {(p.a, p.b, p.source): p for p in told.pairs}
    row = pairs["OL", "OR", "snare"]
    assert (row.planned, row.stands) == ("together", "late")
    assert row.measured == "late"
    assert pairs["ST", "SB", "snare"].stands is None
    assert all(p.stands is None for p in alone.pairs)


def test_a_tape_that_has_it_elsewhere_is_told_and_not_joined(raised):
    files, layout, at = raised
    old = taped(layout, at - [0.0, 0.0, 0.12])  # read before it was raised
    told = told_take(files, analyse(layout), stands=old)[0]
    place = next(p for p in told.places if p.mic == "OR")
    assert place.taped == "differs"
    (moved,) = [r for r in told.reasons if r.mic == "OR"]
    assert moved.do.startswith("The tape has it elsewhere")
    assert place.apart.lengths_m[0] == pytest.approx(0.12, abs=0.04)
    assert np.linalg.norm(at - place.position_m) < 0.06
