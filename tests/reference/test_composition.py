"""Composition held against outside: elements and air against xraydb, nominal steels, SciPy, and
shots simulated without the judge's own model.
"""

from pathlib import Path

import numpy as np
import pytest
import xraydb

from kessik.core.composition.claims import judge, judge_all
from kessik.core.composition.derived import carbon_per_mc, derived
from kessik.core.composition.elements import ELEMENTS, air_transmission, visibility
from kessik.core.composition.grade_shelf import GradeShelf
from kessik.core.composition.library import our_grades
from kessik.core.composition.means import weighted_mean
from kessik.core.composition.shots import ElementReading, Shot
from kessik.core.heat_treatment import martensite
from kessik.instruments.stand_ins.analyser import AnalyserStandIn
from kessik.instruments.virtual_bench.melts import melt_of

TABLE = Path(__file__).parent / "compositions.tsv"
GRADES = our_grades()
SHELF = GradeShelf.of(GRADES)


def test_lines_masses_and_air_are_those_of_the_tables():
    # xraydb 4.5.8: K-alpha energies, atomic masses, mass attenuation of dry air. Our few values are
    # rounded and from memory: 1 % on energies, 0.1 % on masses, 0.03 on a transmission.
    for symbol, known in ELEMENTS.items():
        assert known.mass == pytest.approx(xraydb.atomic_mass(symbol), rel=1e-3)
        if known.number < 12 or known.number > 60:
            continue
        line = xraydb.xray_lines(symbol)["Ka1"]
        assert known.line_kev * 1000 == pytest.approx(line.energy, rel=0.01), symbol
        through = np.exp(-xraydb.material_mu("air", line.energy, density=1.2e-3))
        assert air_transmission(symbol) == pytest.approx(float(through), abs=0.03), symbol


def test_what_air_swallows_is_what_no_handheld_analyser_sees():
    for symbol in ("C", "N", "B", "O"):
        energy = xraydb.xray_lines(symbol)["Ka1"].energy
        assert np.exp(-xraydb.material_mu("air", energy, density=1.2e-3)) < 0.25
        assert visibility(symbol) == "not_seen"
    assert {visibility(symbol) for symbol in ("Mg", "Al", "Si", "P", "S")} == {"poorly"}
    assert {visibility(symbol) for symbol in ("Ti", "Cr", "Mo", "W", "Ni")} == {"seen"}


def nominal():
    """Mass per cent of the nominal steels: atom fractions weighted by the masses of xraydb."""
    for line in TABLE.read_text(encoding="utf-8").splitlines()[1:]:
        name, *parts = line.split("\t")
        atoms = {symbol: float(share) for symbol, share in (part.split() for part in parts)}
        mass = {symbol: share * xraydb.atomic_mass(symbol) for symbol, share in atoms.items()}
        yield name, {symbol: 100 * m / sum(mass.values()) for symbol, m in mass.items()}


def shots_of(percent):
    readings = tuple(
        ElementReading(symbol, value, 0.01 + 0.005 * value)
        for symbol, value in percent.items()
        if visibility(symbol) != "not_seen"
    )
    return [Shot(str(n), "x", str(n), readings, "bare", "no") for n in range(2)]


@pytest.mark.parametrize("name", ["440A", "440B", "440C"])
def test_nominal_440_steels_cannot_be_told_apart_without_carbon(name):
    shots = shots_of(dict(nominal())[name])
    for claim in ("440A", "440B", "440C"):
        found = judge(shots, GRADES[claim], SHELF)
        others = {"440A", "440B", "440C"} - {claim}
        assert found.verdict == "undecidable"
        assert others <= {grade.name for grade in found.not_separable}
        carbon = [s for s in found.settlings if s.rival.name in others]
        assert {(s.by, s.elements) for s in carbon} == {("unseen_element", ("C",))}
    for claim in ("316", "1095"):
        assert judge(shots, GRADES[claim], SHELF).verdict == "excluded"


@pytest.mark.parametrize("name", ["316", "1095"])
def test_nominal_316_and_1095_are_neither_of_them(name):
    shots = shots_of(dict(nominal())[name])
    assert judge(shots, GRADES[name], SHELF).verdict in ("consistent", "undecidable")
    assert judge(shots, GRADES["440C"], SHELF).verdict == "excluded"


def simulated(grade, rng, normalise, shots=3):
    analyser = AnalyserStandIn(rng)
    melt = melt_of(grade, rng)
    blank = [Shot(str(n), "x", str(n), (), "bare") for n in range(shots)]
    return [analyser.shoot(melt, shot, normalise=normalise) for shot in blank]


@pytest.mark.parametrize("normalise", [False, True])
def test_the_true_grade_stays_in_and_weights_mean_what_they_say(normalise):
    # 4 draws of each grade here; `make bench` takes 200.
    rng = np.random.default_rng(11)
    drawn = [grade for grade in GRADES.values() for _ in range(4)]
    found = judge_all([(simulated(grade, rng, normalise), grade) for grade in drawn], SHELF)
    assert np.mean([assay.own.is_in for assay in found]) >= 0.99
    given = [(c.weight, c.grade == a.claim) for a in found for c in a.still_in]
    likely = [is_true for weight, is_true in given if 0.6 <= weight < 0.9]
    assert len(likely) > 30
    assert np.mean(likely) == pytest.approx(0.75, abs=0.12)


def test_clearly_different_grades_are_always_excluded():
    rng = np.random.default_rng(12)
    for true, claim in (("1.2510", "1.4116"), ("1.4116", "1.2510"), ("1.2363", "1.2436")):
        jobs = [(simulated(GRADES[true], rng, n % 2 == 0), GRADES[claim]) for n in range(40)]
        assert {assay.verdict for assay in judge_all(jobs, SHELF)} == {"excluded"}


def test_weighted_means_are_those_of_a_least_squares_fit():
    # SciPy: a constant fitted with absolute errors.
    from scipy.optimize import curve_fit

    values, errors = np.array([5.1, 5.3, 5.25]), np.array([0.05, 0.1, 0.02])
    (mean,), ((variance,),) = curve_fit(
        lambda x, c: c + 0 * x, np.arange(3.0), values, sigma=errors, absolute_sigma=True
    )
    assert weighted_mean(list(values), list(errors)) == pytest.approx(
        (mean, variance**0.5), rel=1e-6
    )


def test_carbon_tied_in_mc_follows_the_masses():
    # Stoichiometry of VC, NbC and TiC with the masses of xraydb.
    for symbol, ratio in (("V", 4.24), ("Nb", 7.74), ("Ti", 3.99)):
        mass = xraydb.atomic_mass(symbol) / xraydb.atomic_mass("C")
        assert carbon_per_mc(symbol) == pytest.approx(mass, rel=1e-3)
        assert carbon_per_mc(symbol) == pytest.approx(ratio, abs=0.01)


def test_pren_and_the_start_of_martensite_by_worked_values():
    # EN 10088 usage and Andrews 1965, worked by hand; from memory.
    found = derived({"C": 0.03, "Cr": 17.0, "Mo": 2.5, "N": 0.05})
    assert found.pren == pytest.approx(17 + 8.25 + 0.8)
    assert derived({"Cr": 15, "Mo": 1, "W": 2}).pren_w == pytest.approx(15 + 3.3 + 3.3)
    plain = martensite({"C": 0.4, "Mn": 0.7, "Cr": 1.0, "Mo": 0.2})
    assert plain.ms_c == pytest.approx(539 - 169.2 - 21.28 - 12.1 - 1.5)
    assert plain.retained_percent == pytest.approx(100 * np.exp(-0.011 * (plain.ms_c - 20)))
    assert plain.outside == ()
    assert martensite({"C": 1.0, "Cr": 12.0}).outside == ("C", "Cr")
