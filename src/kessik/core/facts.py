"""Facts about blades and edges: what can be measured, within which bounds, how it is known, and
which value is used.
"""

from collections.abc import Iterable, Mapping
from dataclasses import dataclass, field
from typing import Any, Literal
from uuid import NAMESPACE_URL, uuid5

from kessik.core.errors import OutOfRangeError
from kessik.core.records import Day, Id, LongText

Provenance = Literal[
    "measured_here", "measured_elsewhere", "standard", "literature", "claimed", "guessed"
]
STANDINGS: tuple[Provenance, ...] = (
    "measured_here", "measured_elsewhere", "standard", "literature", "claimed", "guessed",
)  # fmt: skip  # a table is read by its rows
MEASURED: frozenset[str] = frozenset({"measured_here", "measured_elsewhere"})

Owner = Literal["blade", "edge"]


@dataclass(frozen=True)
class Quantity:
    """One thing that can be known of a blade or an edge; a number has bounds, words have
    suggestions.

    Values outside `low` to `high` cannot be; those outside `usual_low` to `usual_high` are asked
    about, not refused. Where `zero_is_none`, 0 says that there is none, which is known.
    """

    name: str
    label: str
    of: Owner
    unit: str = ""
    low: float | None = None
    high: float | None = None
    usual_low: float | None = None
    usual_high: float | None = None
    decimals: int = 1
    suggested: tuple[str, ...] = ()
    zero_is_none: bool = False

    @property
    def is_number(self) -> bool:
        return self.low is not None


def _number(
    name: str,
    label: str,
    of: Owner,
    unit: str,
    bounds: tuple[float, float],
    usual: tuple[float, float],
    decimals: int,
    zero_is_none: bool = False,
) -> Quantity:
    return Quantity(
        name, label, of, unit, *bounds, *usual, decimals=decimals, zero_is_none=zero_is_none
    )


def _words(name: str, label: str, *suggested: str) -> Quantity:
    return Quantity(name, label, "blade", suggested=suggested)


_QUANTITIES = (
    _number("hardness_hrc", "hardness", "blade", "HRC", (20, 70), (48, 67), 1),
    _number("edge_length_mm", "edge length", "blade", "mm", (5, 1000), (30, 400), 0),
    _number("stock_mm", "stock thickness", "blade", "mm", (0.3, 15), (1, 8), 2),
    _number(
        "primary_grind_side_deg", "primary grind, per side", "blade", "°", (0.1, 20), (0.5, 8), 1
    ),
    _words("grind", "grind", "flat", "hollow", "convex", "low bevel"),
    _words("profile", "profile", "straight", "belly"),
    _words("grip", "grip"),
    _words("finish", "flat finish", "satin", "polished", "blasted", "stonewashed", "as forged"),
    _words("coating", "coating", "none"),
    _number("side_angle_deg", "angle per side", "edge", "°", (5, 45), (10, 30), 1),
    _number(
        "micro_bevel_side_deg", "micro-bevel, per side", "edge", "°", (5, 45), (10, 35), 1, True
    ),
    _number(
        "thickness_behind_edge_mm",
        "thickness behind the edge",
        "edge",
        "mm",
        (0.05, 3),
        (0.1, 1.2),
        2,
    ),
    _number("start_gf", "start reading", "edge", "gf", (5, 3000), (40, 400), 0),
)
QUANTITIES: Mapping[str, Quantity] = {quantity.name: quantity for quantity in _QUANTITIES}


@dataclass(frozen=True)
class Measurement:
    """One value of one quantity: how, when and by what it became known. Kept for good; `struck`
    says why it is void.
    """

    id: Id
    quantity: str
    value: float | None = None
    words: str = ""
    standing: Provenance = "measured_here"
    on: Day = ""
    instrument: str = ""
    note: LongText = ""
    details: Mapping[str, Any] = field(default_factory=dict)
    recorded_utc: str = ""
    struck: str = ""


def entered(
    owner_id: str, quantity: str, value: float | str, standing: Provenance, on: str
) -> Measurement:
    """The first value of a fact, given when a blade or an edge is added; its id follows from its
    owner.
    """
    made = str(uuid5(NAMESPACE_URL, f"kessik:{owner_id}:{quantity}"))
    return valued(made, quantity, value, standing, on)


def valued(
    made: str, quantity: str, value: float | str, standing: Provenance, on: str
) -> Measurement:
    """A measurement of this id, of a number or of words, made and recorded at a moment of UTC."""
    number = value if not isinstance(value, str) else None
    words = value if isinstance(value, str) else ""
    return Measurement(made, quantity, number, words, standing, on[:10], recorded_utc=on)


def used(measurements: Iterable[Measurement], quantity: str) -> Measurement | None:
    """The measurement that counts: of the best standing, and of those the newest; struck ones
    never.
    """
    known = [m for m in measurements if m.quantity == quantity and not m.struck]
    return min(known, key=_preference, default=None)


def history(measurements: Iterable[Measurement], quantity: str) -> list[Measurement]:
    """Every measurement of a quantity, the one that counts first, struck ones last."""
    own = [m for m in measurements if m.quantity == quantity]
    return sorted(own, key=lambda m: (bool(m.struck), _preference(m)))


def _preference(m: Measurement) -> tuple[int, tuple[int, ...]]:
    newest_first = tuple(
        -ord(character) for character in f"{m.on or m.recorded_utc[:10]}|{m.recorded_utc}"
    )
    return STANDINGS.index(m.standing), newest_first


def check_value(quantity: Quantity, value: float) -> None:
    """OutOfRangeError, naming the field and what would be right, for a value that cannot be."""
    assert quantity.low is not None
    assert quantity.high is not None
    if quantity.zero_is_none and value == 0:
        return
    if not quantity.low <= value <= quantity.high:
        space = "" if quantity.unit == "°" else " "
        none = ", or 0 for none" if quantity.zero_is_none else ""
        raise OutOfRangeError(
            f"{quantity.label} of {value:g}{space}{quantity.unit} is out of range: "
            f"give {quantity.low:g} to {quantity.high:g}{space}{quantity.unit}{none}",
            field=quantity.name,
            value=value,
        )


def remark(quantity: Quantity, value: float) -> str:
    """A question about an unusual value, empty where there is none; it never blocks."""
    if quantity.zero_is_none and value == 0:
        return ""
    space = "" if quantity.unit == "°" else " "
    if quantity.usual_low is not None and value < quantity.usual_low:
        return (
            f"{quantity.label} under {quantity.usual_low:g}{space}{quantity.unit} is rare: is"
            " that so?"
        )
    if quantity.usual_high is not None and value > quantity.usual_high:
        return (
            f"{quantity.label} above {quantity.usual_high:g}{space}{quantity.unit} is rare: is"
            " that so?"
        )
    return ""


def check(measurement: Measurement) -> None:
    """Refuse a measurement of an unknown quantity, without a value, or with one that cannot be."""
    quantity = QUANTITIES.get(measurement.quantity)
    if quantity is None:
        raise OutOfRangeError(
            f"{measurement.quantity!r} is not a quantity Kessik keeps",
            field="quantity",
            value=measurement.quantity,
        )
    if not quantity.is_number:
        if not measurement.words.strip():
            raise OutOfRangeError(f"say what the {quantity.label} is", field=quantity.name)
        return
    if measurement.value is None:
        raise OutOfRangeError(f"give the {quantity.label} in {quantity.unit}", field=quantity.name)
    check_value(quantity, measurement.value)


@dataclass(frozen=True)
class Expected:
    """A thickness that went stale with the last sharpening: from which edge, and what it should be
    by now.
    """

    from_edge: int
    was_mm: float
    now_mm: float | None
