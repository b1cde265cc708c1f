"""Grit tables against the grit tables of GNU units 2.22 (definitions.units of the Debian package
`units`).

FEPA F and P there are "taken directly" from FEPA 42 and 43, sieves from ASTM E11. Its water-stone
table carries a doubt of its own ("Is this correct?"), so ours is called literature, not standard.
"""

import csv
from pathlib import Path

import pytest

from kessik.core.sharpening.abrasives import SCALES, nearest_grit, size_um

with (Path(__file__).parent / "abrasive_grits.tsv").open() as file:
    PUBLISHED = {
        (row["scale"], float(row["grit"])): float(row["size_um"])
        for row in csv.DictReader(file, delimiter="\t")
    }


@pytest.mark.parametrize("name", list(SCALES))
def test_every_listed_grit_has_its_published_size(name):
    compared = 0
    for grit, size in SCALES[name].sizes_um.items():
        if (name, grit) in PUBLISHED:
            assert size == PUBLISHED[name, grit], f"{name} {grit}"
            compared += 1
    # units writes 625 for the finest sieve where ASTM E11 has 635
    assert compared >= len(SCALES[name].sizes_um) - 1


def test_the_sizes_named_in_the_handbook():
    assert (size_um("fepa_p", 400).size_um, size_um("fepa_p", 1000).size_um) == (35.0, 18.3)
    assert size_um("fepa_f", 1000).size_um == 4.5
    assert SCALES["jis"].standing == "literature"


@pytest.mark.parametrize("name", list(SCALES))
def test_there_and_back_finds_the_same_grit(name):
    for grit, size in SCALES[name].sizes_um.items():
        assert nearest_grit(name, size).grit == grit
