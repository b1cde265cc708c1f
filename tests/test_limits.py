"""The one table of limits: core, API, screens and documentation hold to the same numbers."""

import json
from pathlib import Path

from kessik.api.app import create_app
from kessik.api.contract import limits_module
from kessik.core.facts import QUANTITIES
from kessik.core.limits import LIMITS, plain

DOCUMENT = Path(__file__).parents[1] / "docs/limits.md"


def test_the_document_is_the_table():
    said = DOCUMENT.read_text(encoding="utf-8")
    for limit in LIMITS.values():
        assert (
            f"| `{limit.name}` | {plain(limit.least)} | {plain(limit.most)} | {limit.unit} |"
            f" {limit.help} |" in said
        )
    for quantity in QUANTITIES.values():
        if quantity.is_number:
            row = f"| {quantity.label} | {quantity.low:g} | {quantity.high:g} | {quantity.unit} |"
            assert row in said, row


def test_the_screens_have_the_table():
    table = json.loads(
        limits_module().removeprefix("export const LIMITS = ").removesuffix(" as const;\n")
    )
    assert {name: (row["least"], row["most"]) for name, row in table.items()} == {
        limit.name: (limit.least, limit.most) for limit in LIMITS.values()
    }


def test_the_contract_has_the_bounds_of_every_number_an_event_holds():
    schemas = create_app(None).openapi()["components"]["schemas"]
    bounds = {
        (name, field): (found.get("minimum"), found.get("maximum"))
        for name, body in schemas.items()
        if name.endswith("Event")
        for field, found in body["properties"]["payload"]["properties"].items()
    }
    assert bounds["CutEvent", "amount"] == (LIMITS["amount"].least, LIMITS["amount"].most)
    assert bounds["StropEvent", "strokes"] == (LIMITS["strokes"].least, LIMITS["strokes"].most)
