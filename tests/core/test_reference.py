"""What is kept of layouts, techniques, pairs and taped kits is what the core still says."""

import json
import math

import pytest

from tests.core.reference import FILE, KEPT, plain

WAS = json.loads(FILE.read_text())


def differences(kept, now, where=""):
    """Places that differ: words and whole numbers in anything, measures in the fourth figure."""
    if isinstance(kept, dict) and isinstance(now, dict) and kept.keys() == now.keys():
        return [d for k in kept for d in differences(kept[k], now[k], f"{where}.{k}")]
    if isinstance(kept, list) and isinstance(now, list) and len(kept) == len(now):
        pairs = enumerate(zip(kept, now, strict=True))
        return [d for i, (a, b) in pairs for d in differences(a, b, f"{where}[{i}]")]
    if isinstance(kept, float) and isinstance(now, (int, float)):
        same = math.isclose(kept, now, rel_tol=1e-4, abs_tol=1e-4)
        return [] if same else [f"{where}: {kept} is now {now}"]
    return [] if kept == now else [f"{where}: {kept!r} is now {now!r}"]


MEANT = "where it is meant, write it anew with python -m tests.core.reference"


@pytest.mark.parametrize("name", KEPT)
def test_nothing_is_said_otherwise(name):
    now = json.loads(json.dumps(plain(KEPT[name]())))
    assert differences(WAS[name], now) == [], MEANT
