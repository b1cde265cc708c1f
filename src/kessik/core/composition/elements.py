"""The chemical elements of steels: masses, X-ray lines, and how well an analyser in air sees
them.
"""

import difflib
import math
from collections.abc import Mapping
from dataclasses import dataclass
from typing import Literal

import numpy as np

from kessik.core.errors import OutOfRangeError

Visibility = Literal["seen", "poorly", "not_seen"]


@dataclass(frozen=True)
class Element:
    """A chemical element; `mass` in g/mol, `line_kev` the energy of its strongest K line."""

    symbol: str
    name: str
    number: int
    mass: float
    line_kev: float


# Masses: IUPAC abridged. Lines: K-alpha 1. Both from memory, held against a reference in the tests.
_ELEMENTS = (
    Element("H", "hydrogen", 1, 1.008, 0.0136),
    Element("B", "boron", 5, 10.81, 0.183),
    Element("C", "carbon", 6, 12.011, 0.277),
    Element("N", "nitrogen", 7, 14.007, 0.392),
    Element("O", "oxygen", 8, 15.999, 0.525),
    Element("Mg", "magnesium", 12, 24.305, 1.254),
    Element("Al", "aluminium", 13, 26.982, 1.487),
    Element("Si", "silicon", 14, 28.085, 1.740),
    Element("P", "phosphorus", 15, 30.974, 2.014),
    Element("S", "sulphur", 16, 32.06, 2.308),
    Element("Cl", "chlorine", 17, 35.45, 2.622),
    Element("K", "potassium", 19, 39.098, 3.314),
    Element("Ca", "calcium", 20, 40.078, 3.692),
    Element("Ti", "titanium", 22, 47.867, 4.511),
    Element("V", "vanadium", 23, 50.942, 4.952),
    Element("Cr", "chromium", 24, 51.996, 5.415),
    Element("Mn", "manganese", 25, 54.938, 5.899),
    Element("Fe", "iron", 26, 55.845, 6.405),
    Element("Co", "cobalt", 27, 58.933, 6.931),
    Element("Ni", "nickel", 28, 58.693, 7.480),
    Element("Cu", "copper", 29, 63.546, 8.046),
    Element("Zn", "zinc", 30, 65.38, 8.637),
    Element("As", "arsenic", 33, 74.922, 10.543),
    Element("Se", "selenium", 34, 78.971, 11.224),
    Element("Zr", "zirconium", 40, 91.224, 15.775),
    Element("Nb", "niobium", 41, 92.906, 16.615),
    Element("Mo", "molybdenum", 42, 95.95, 17.480),
    Element("Ag", "silver", 47, 107.87, 22.163),
    Element("Sn", "tin", 50, 118.71, 25.271),
    Element("Sb", "antimony", 51, 121.76, 26.359),
    Element("Ta", "tantalum", 73, 180.95, 57.535),
    Element("W", "tungsten", 74, 183.84, 59.318),
    Element("Pb", "lead", 82, 207.2, 74.969),
    Element("Bi", "bismuth", 83, 208.98, 77.107),
)
ELEMENTS: Mapping[str, Element] = {element.symbol: element for element in _ELEMENTS}

_LIGHTEST_SEEN, _HEAVIEST_POORLY_SEEN = 12, 16

# ln(1/transmission) of 1 cm of dry air by energy in keV, on either side of the K edges of nitrogen
# and oxygen; from memory, held against a reference in the tests.
_AIR = (
    (0.183, 17.9), (0.277, 6.14), (0.392, 2.45), (0.409, 2.19),
    (0.411, 42.0), (0.525, 22.5), (0.542, 20.7),
    (0.544, 25.6), (1.254, 2.43), (1.487, 1.49), (1.740, 0.955), (2.014, 0.624), (2.308, 0.418),
    (3.0, 0.193), (3.692, 0.133), (5.415, 0.0410), (8.046, 0.0124), (17.48, 0.0013),
    (77.0, 0.0002),
)  # fmt: skip  # a table is read by its rows


def element(symbol: str, field: str = "element") -> Element:
    """The element of a symbol, however its letters are cased; OutOfRangeError for any other
    word.
    """
    found = ELEMENTS.get(symbol.strip().capitalize())
    if found is None:
        close = difflib.get_close_matches(symbol.strip().capitalize(), ELEMENTS, 1, 0.5)
        hint = f"; is “{close[0]}” meant?" if close else ""
        raise OutOfRangeError(
            f"“{symbol}” is not an element that Kessik knows{hint}", field=field, value=symbol
        )
    return found


def visibility(symbol: str) -> Visibility:
    """How well a handheld analyser in air sees an element: not at all below magnesium, and poorly
    up to sulphur.

    References
    ----------
    [1] Common practice; the soft lines of light elements do not leave the sample or cross the air.
    """
    number = ELEMENTS[symbol].number
    if number < _LIGHTEST_SEEN:
        return "not_seen"
    return "poorly" if number <= _HEAVIEST_POORLY_SEEN else "seen"


def air_transmission(symbol: str, centimetres: float = 1.0) -> float:
    """Share of an element's strongest K line that so much air lets through."""
    energy = math.log(ELEMENTS[symbol].line_kev)
    known = [math.log(kev) for kev, _ in _AIR]
    loss = math.exp(float(np.interp(energy, known, [math.log(loss) for _, loss in _AIR])))
    return math.exp(-loss * centimetres)
