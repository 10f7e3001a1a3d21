"""A simulated distance meter: it measures a kit that stands a little off its plan, and sends that.

It speaks the open interface of docs/formats/meter.md and nothing else, so a real meter could do the
same. Needs no package: it runs on any Python.
"""

import json
import math
import random
import time
import urllib.error
import urllib.request
import uuid
from dataclasses import dataclass
from typing import Any

from ops.say import StepFailed

METER_M = 0.002
"""Standard error of a hand-held laser meter (common practice: they are sold as good to 2 mm)."""

AIM_M = 0.003
"""And of holding it to a capsule and a drum's middle (from memory)."""

STANDS_M = 0.03
"""How far each mic stands off its plan, each way, one sigma; the same for one seed."""

SLIP_M = 0.15
"""How far a slip is off: the meter saw a stand or a cymbal's edge in between."""

Json = dict[str, Any]


@dataclass
class Line:
    """To the server."""

    address: str
    word: str

    def ask(self, body: Json | None = None) -> Json:
        """What is to be measured; or, with a body, a reading sent."""
        request = urllib.request.Request(
            self.address,
            data=None if body is None else json.dumps(body).encode(),
            headers={"Authorization": f"Bearer {self.word}", "Content-Type": "application/json"},
        )
        try:
            with urllib.request.urlopen(request, timeout=10) as answer:
                said = answer.read()
        except urllib.error.HTTPError as fault:
            if fault.code == 401:
                raise StepFailed(
                    "the server does not know this word",
                    "Tape, Read, Use a distance meter: it shows a new one",
                ) from None
            raise StepFailed(f"the server answered {fault.code}", "read its log") from None
        except (urllib.error.URLError, TimeoutError) as fault:
            raise StepFailed(f"{self.address}: {fault}", "./ringside up, then once more") from None
        return dict(json.loads(said)) if said else {}


class Simulated:
    """A kit as it stands, and a hand that measures it."""

    def __init__(self, seed: int, slips: float) -> None:
        self.seed, self.slips = seed, slips
        self.hand = random.Random(seed)

    def reads(self, asked: Json) -> float:
        """What it reads between two ends, metres."""
        one = self._stands(asked["from_m"], asked["mic"])
        if asked["to"] is None:
            far = one[2]
        else:
            two = asked["to_m"]
            if asked["to"] == asked["to_words"].removeprefix("the front of "):
                two = self._stands(two, asked["to"])
            far = math.dist(one, two)
        far += self.hand.gauss(0.0, math.hypot(METER_M, AIM_M))
        if self.hand.random() < self.slips:
            far += self.hand.choice((-1, 1)) * SLIP_M
        return round(max(far, 0.01), 3)

    def _stands(self, planned: list[float], mic: str) -> list[float]:
        own = random.Random(f"{self.seed} {mic}")
        return [p + own.gauss(0.0, STANDS_M) for p in planned]


def measure(line: Line, kit: Simulated) -> str:
    """One reading of what is asked, sent; what to say of it, empty when nothing is asked."""
    asked = line.ask()["next"]
    if asked is None:
        return ""
    metres = kit.reads(asked)
    line.ask({"key": str(uuid.uuid4()), "metres": metres})
    return f"{asked['mic']} to {asked['to_words']}: {metres:.3f} m"


def run(line: Line, kit: Simulated, every_s: float | None) -> int:
    """At each Enter one reading; or by itself, every so many seconds."""
    print(f"{line.ask()['layout']}: a simulated meter. Keep each reading on the screen.")
    while True:
        try:
            if every_s is None:
                input("Enter measures: ")
            else:
                time.sleep(every_s)
        except EOFError:
            return 0
        said = measure(line, kit)
        print(said or "Nothing is left to measure.")
        if not said:
            return 0
