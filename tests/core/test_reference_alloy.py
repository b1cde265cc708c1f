"""A shot of a reference alloy held against its certificate, by hand."""

import pytest

from kessik.core.composition.reference_alloy import (
    Certified,
    ReferenceShot,
    alloy_findings,
    check_reference,
)
from kessik.core.composition.shots import ElementReading
from kessik.core.errors import OutOfRangeError
from kessik.core.words.reference_alloy import alloy_words

CERTIFICATE = (Certified("Cr", 12.5, 0.1), Certified("Mo", 0.8, 0.02), Certified("C", 1.5, 0.02))


def shot(cr, mo=0.81):
    readings = (ElementReading("Cr", cr, 0.1), ElementReading("Mo", mo, 0.02))
    return ReferenceShot("check block 3", CERTIFICATE, readings)


def test_an_analyser_that_reads_as_certified_is_said_to():
    """By hand: Cr off by 0.2 of √(0.1² + 0.05² + 0.25²) = 0.274; C cannot be seen."""
    found = alloy_findings(shot(12.3))
    assert [(f.element, f.state) for f in found] == [("Cr", "agrees"), ("Mo", "agrees")]
    assert found[0].z == pytest.approx(-0.2 / 0.2739, abs=1e-3)
    assert alloy_words(shot(12.3), found) == (
        "On check block 3 the analyser reads Cr and Mo as certified."
    )


@pytest.mark.parametrize(
    ("cr", "says"),
    [(11.5, "reads 11.5"), (11.9, "shoot the alloy again")],
)
def test_an_analyser_that_is_off_is_not_trusted(cr, says):
    said = alloy_words(shot(cr), alloy_findings(shot(cr)))
    assert ("Find out why" in said) == (cr == 11.5)
    assert "Cr" in said
    assert (says in said) or f"Cr {cr:g} % for 12.5 %" in said


@pytest.mark.parametrize(
    ("certified", "field"),
    [((), "reference.certified"), ((Certified("Cr", 12.5),), "plus_minus_percent"),
     ((Certified("Xx", 1, 0.1),), "element"), ((Certified("Cr", 130, 1),), "percent"),
     ((Certified("Cr", 12, 1), Certified("cr", 12, 1)), "reference.certified")],
)  # fmt: skip
def test_a_certificate_that_cannot_be_used_is_refused_at_its_field(certified, field):
    with pytest.raises(OutOfRangeError) as wrong:
        check_reference(ReferenceShot("block", certified, shot(12).readings))
    assert wrong.value.field.endswith(field)
