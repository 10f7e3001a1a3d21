"""Two takes by ear: which stroke stands for which, and that both last equally long."""

import pytest
from ringside.takes.against import against
from ringside.takes.listening import Listening, Loop


def heard(*loops, rate=48000, first: int | None = 96000, samples=4_800_000):
    return Listening(rate, samples, 8, [], list(loops), first)


def drum(levels, source="snare", begin=0, count=60000):
    spans = [(begin + 100_000 * n, count) for n in range(len(levels))]
    return Loop(source, source.title(), spans, list(levels))


def starts(loop):
    return [b // 100_000 for b, _ in loop.first], [b // 100_000 for b, _ in loop.second]


def test_a_stroke_stands_against_one_as_hard_for_its_own_take():
    one, two = drum([-20, -14, -17]), drum([-3, -6, -9])  # a gain turned up by 11 dB
    (loop,) = against(heard(one), heard(two)).loops
    assert (loop.source, loop.name, loop.apart_db) == ("snare", "Snare", 0.0)
    # Soft against soft, hard against hard, in the order of the first take.
    assert starts(loop) == ([0, 1, 2], [2, 0, 1])


def test_the_hardest_stands_against_the_hardest():
    (loop,) = against(heard(drum([5, 0, -1, 1, -4])), heard(drum([-5, 4, 3, 0, -2]))).loops
    assert starts(loop) == ([0, 1, 2, 3, 4], [1, 3, 4, 2, 0])
    assert loop.apart_db == 2.0


def test_of_more_strokes_those_most_alike_are_heard():
    (loop,) = against(heard(drum([-10, -10])), heard(drum([-14, -11, -10.5, -10, -5]))).loops
    assert loop.apart_db == 0.5
    assert starts(loop)[1] == [1, 2]
    # 6 dB from the middle is the same kind of stroke, more is an accent.
    for far, many, apart in ((6.0, 3, 6.0), (6.1, 2, 0.0)):
        (loop,) = against(heard(drum([0, 0, 0])), heard(drum([0, 0, far]))).loops
        assert (len(loop.first), loop.apart_db) == (many, apart)
    # Where none is near, the nearest are still heard, and it is said how far apart they are.
    (loop,) = against(heard(drum([0, -20])), heard(drum([0, -1]))).loops
    assert (starts(loop), loop.apart_db) == (([0], [0]), 9.5)


def test_both_last_as_long_as_the_shorter_each_in_its_own_samples():
    one = Loop("kick", "Kick", [(500, 44100)], [-3.0])
    two = Loop("kick", "Kick", [(7000, 192000)], [-3.0])  # two seconds of 96 kHz
    (loop,) = against(heard(one, rate=44100), heard(two, rate=96000)).loops
    assert (loop.first, loop.second) == ([(500, 44100)], [(7000, 96000)])
    (loop,) = against(heard(two, rate=96000), heard(one, rate=44100)).loops
    assert (loop.first, loop.second) == ([(7000, 96000)], [(500, 44100)])


def test_drums_hit_in_one_take_only_are_not_held_against_anything():
    told = against(
        heard(drum([-3], "kick"), drum([-3], "snare")), heard(drum([-3], "snare"), drum([0], "t"))
    )
    assert [x.source for x in told.loops] == ["snare"]
    assert against(heard(), heard(drum([-3]))).loops == []


def test_takes_of_before_go_stroke_by_stroke_as_they_came():
    old = Loop("snare", "Snare", [(0, 100), (200, 100), (400, 100)])
    (loop,) = against(heard(old), heard(drum([-3, -9]))).loops
    assert (starts(loop), loop.apart_db) == (([0, 0], [0, 1]), None)
    assert [b for b, _ in loop.first] == [0, 200]
    assert against(heard(first=None), heard()).whole is None
    assert against(heard(), heard(first=None)).whole is None


@pytest.mark.parametrize(
    ("one", "two", "expected"),
    [
        # A second before the first stroke of each, to the end of the shorter.
        ((96000, 480000), (144000, 960000), ((48000, 432000), (96000, 432000))),
        # One begins with its stroke: then the other does as well.
        ((0, 480000), (144000, 960000), ((0, 480000), (144000, 480000))),
        ((96000, 480000), (24000, 96000), ((72000, 96000), (0, 96000))),
    ],
)
def test_all_of_two_takes_from_their_first_strokes(one, two, expected):
    told = against(*(heard(first=f, samples=n) for f, n in (one, two)))
    assert told.whole == expected
