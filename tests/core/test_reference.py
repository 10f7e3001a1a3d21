"""What is kept of three layouts and a taped kit is what the core still says of them."""

import json
import math

import pytest
from ringside.files.layout import read_layout

from tests.core.reference import DEMOS, FILE, of_kit, of_layout, plain

KEPT = json.loads(FILE.read_text())


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


@pytest.mark.parametrize("file", DEMOS, ids=lambda f: f.stem)
def test_nothing_is_said_otherwise_of_a_layout(file):
    now = json.loads(json.dumps(plain(of_layout(read_layout(file.read_text())))))
    assert differences(KEPT[file.stem], now) == [], MEANT


def test_a_kit_is_taped_and_doubted_as_before():
    now = json.loads(json.dumps(plain(of_kit())))
    assert differences(KEPT["tape"], now) == [], MEANT
