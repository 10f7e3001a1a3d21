"""The simulated distance meter: one kit for one seed, with the error of a hand."""

import statistics

import pytest

from ops.meter import AIM_M, METER_M, SLIP_M, Line, Simulated, measure
from ops.say import StepFailed

SNARE = {"mic": "OL", "to": "snare", "to_words": "snare, the middle of the head",
         "from_m": [-0.6, 0.1, 1.7], "to_m": [0.0, 0.0, 0.65]}  # fmt: skip
FLOOR = {**SNARE, "to": None, "to_words": "the floor, straight down"}
OTHER = {**SNARE, "to": "OR", "to_words": "the front of OR", "to_m": [0.6, 0.1, 1.7]}


def test_it_measures_one_kit_with_the_error_of_a_hand():
    kit = Simulated(seed=4, slips=0.0)
    read = [kit.reads(SNARE) for _ in range(600)]
    hand = (METER_M**2 + AIM_M**2) ** 0.5
    assert statistics.stdev(read) == pytest.approx(hand, rel=0.15)
    again = Simulated(seed=4, slips=0.0)
    assert statistics.mean(again.reads(SNARE) for _ in range(600)) == pytest.approx(
        statistics.mean(read), abs=0.001
    )
    # All three ends agree on where the two mics stand.
    height = statistics.mean(kit.reads(FLOOR) for _ in range(300))
    one, two = (kit._stands(p, m) for p, m in ((SNARE["from_m"], "OL"), (OTHER["to_m"], "OR")))
    assert height == pytest.approx(one[2], abs=0.002)
    assert statistics.mean(kit.reads(OTHER) for _ in range(300)) == pytest.approx(
        sum((a - b) ** 2 for a, b in zip(one, two, strict=True)) ** 0.5, abs=0.002
    )


def test_a_share_of_its_readings_is_a_slip():
    kit = Simulated(seed=1, slips=0.2)
    off = [kit.reads(FLOOR) - kit._stands(FLOOR["from_m"], "OL")[2] for _ in range(1000)]
    slips = [o for o in off if abs(o) > SLIP_M / 2]
    assert 150 < len(slips) < 250
    assert min(slips) < 0 < max(slips)


def test_it_says_what_it_sent_and_when_nothing_is_left():
    class Pretended(Line):
        def __init__(self):
            self.sent, self.left = [], [SNARE]

        def ask(self, body=None):
            if body is None:
                return {"layout": "B", "next": self.left.pop() if self.left else None}
            self.sent.append(body)
            return {}

    line, kit = Pretended(), Simulated(1, 0.0)
    said = measure(line, kit)
    assert said == f"OL to snare, the middle of the head: {line.sent[0]['metres']:.3f} m"
    assert measure(line, kit) == ""
    assert len(line.sent) == 1


def test_a_server_that_is_away_is_said():
    with pytest.raises(StepFailed) as caught:
        Line("http://127.0.0.1:9/api/meter", "word").ask()
    assert "./ringside up" in caught.value.try_this
