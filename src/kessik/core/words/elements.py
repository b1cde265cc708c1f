"""What elements do in a blade, in plain words, each with where that stops being true; and what
derived figures say.
"""

from collections.abc import Mapping
from dataclasses import dataclass

from kessik.core.composition.derived import (
    DISSOLVED_C_PERCENT,
    KNIFE_STAINLESS_CR_PERCENT,
    STAINLESS_C_PERCENT,
    STAINLESS_CR_PERCENT,
    Derived,
)
from kessik.core.composition.elements import ELEMENTS
from kessik.core.composition.grades import Grade
from kessik.core.heat_treatment import ANDREWS_C_PERCENT, ANDREWS_CR_PERCENT, Martensite


@dataclass(frozen=True)
class Effect:
    """What an element does in a blade, and until where."""

    element: str
    name: str
    says: str
    until: str


# Common practice of the trade in our own words, no single source.
_EFFECTS: Mapping[str, tuple[str, str]] = {
    "C": (
        "Makes hardening possible, and carbides with what it meets.",
        "Above about 0.6 % dissolved it adds no hardness: it goes into carbides, or keeps soft"
        " austenite in the edge.",
    ),
    "Cr": (
        "In solution it keeps rust away; in carbides it resists wear; it lets thick steel harden"
        " through.",
        "Chromium in carbides does not protect, so the total on the sheet promises too much.",
    ),
    "Mo": (
        "Deepens hardening, holds hardness when hot, and helps against pitting.",
        "Against pits it counts only where it is in solution.",
    ),
    "W": (
        "Makes hard carbides and holds hardness when hot.",
        "Below about 1 % it mostly keeps the grain fine.",
    ),
    "V": (
        "Makes the hardest small carbides, slow to wear and to sharpen, and keeps the grain fine.",
        "It binds carbon: without enough of it the steel around the carbides stays soft.",
    ),
    "Nb": ("Works like vanadium, and leaves chromium in solution.", "In ingots it clumps early."),
    "Co": (
        "Holds hardness when hot and lets the steel be tempered hotter.",
        "In a knife that is never hot it brings little.",
    ),
    "Mn": (
        "Deepens hardening, so that oil or air will do.",
        "Above about 1.5 % more austenite stays soft after the quench.",
    ),
    "Si": ("Cleans the melt, and slows softening in the temper.", "Too much makes steel brittle."),
    "Ni": ("Makes steel tough at low hardness.", "It keeps austenite, and with it softness."),
    "N": (
        "Hardens like carbon and helps against pitting, without taking chromium away.",
        "Only what the melt can hold; an analyser in air does not see it.",
    ),
    "S": (
        "Makes chips break and machining easy.",
        "Its inclusions are where rust and cracks start.",
    ),
    "P": ("Comes with the ore; it is not added.", "It embrittles; less is better."),
    "Cu": ("Hardens some stainless steels by ageing.", "In tool steel it is scrap."),
    "Al": ("Binds oxygen; in nitrided steel it hardens the skin.", "Mostly a residual."),
    "Ti": ("Binds carbon and nitrogen.", "Much of it is a coating, not steel."),
}


def effects_of(grade: Grade) -> list[Effect]:
    """What each element of a grade does in a blade."""
    return [
        Effect(found.element, ELEMENTS[found.element].name, *_EFFECTS[found.element])
        for found in grade.ranges
        if found.element in _EFFECTS
    ]


def effect_of(symbol: str) -> str:
    """What an element does in a blade, with where that stops being true; empty for one without
    much of a say.
    """
    return " ".join(_EFFECTS.get(symbol, ()))


def derived_notes(found: Derived, martensite: Martensite) -> list[str]:
    """What the derived figures say, and where they stop saying it."""
    low, high = found.chromium_in_solution
    stainless = {"yes": "is stainless", "no": "is not stainless", "perhaps": "may be stainless"}
    notes = [
        f"By the standard it {stainless[found.by_standard]}: that asks for"
        f" {STAINLESS_CR_PERCENT:g} % chromium and at most {STAINLESS_C_PERCENT:g} % carbon."
        f" In a knife it {stainless[found.in_knives]}: that asks for about"
        f" {KNIFE_STAINLESS_CR_PERCENT:g} % in solution.",
        f"Chromium in solution: between {low:.1f} % (all other carbon bound in chromium carbides)"
        f" and {high:.1f} % (all of it dissolved). Where in between depends on the heat treatment.",
    ]
    if found.carbides_hold_chromium:
        notes.append(
            "The PREN is of the whole steel. Here carbides hold much of the chromium, so it"
            " promises too much."
        )
    notes.append(
        "Nitrogen is in the PREN as the standard gives it; an analyser in air does not see it."
        if found.nitrogen_counted
        else "Without nitrogen the PREN may be low: an analyser in air does not see it."
    )
    notes.append(martensite_words(martensite))
    return notes


def martensite_words(found: Martensite) -> str:
    """Start of martensite and retained austenite, with where the formula stops holding."""
    said = (
        f"As an illustration: hardened so that {DISSOLVED_C_PERCENT:g} % carbon at most is"
        f" dissolved, martensite would start at about {found.ms_c:.0f} °C, and about"
        f" {found.retained_percent:.0f} % austenite be left at {found.at_c:.0f} °C."
    )
    outside = " and ".join(ELEMENTS[symbol].name for symbol in found.outside)
    if not outside:
        return f"{said} No result rests on it."
    return (
        f"{said} The formula was made for up to {ANDREWS_C_PERCENT:g} % carbon and"
        f" {ANDREWS_CR_PERCENT:g} % chromium dissolved; {outside} lies beyond. No result rests"
        " on it."
    )
