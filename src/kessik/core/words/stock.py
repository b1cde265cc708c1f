"""Lots in words."""

from kessik.core.stock import LOT_KINDS, Lot


def lot_words(lot: Lot) -> str:
    """What a lot is and how it was kept, without its day and price."""
    kind = LOT_KINDS[lot.kind]
    said = [kind.label]
    for detail in kind.details:
        value = lot.details.get(detail.name)
        if value in (None, ""):
            continue
        shown = f"{value:g}" if isinstance(value, int | float) else str(value)
        named = f"{detail.label.lower()} {shown} {detail.unit}".strip()
        said.append(shown if detail.unit is None else named)
    state = lot.state
    said += ["damp"] if state.get("damp") else []
    said += [f"{state['humidity_percent']:g} % humidity"] if state.get("humidity_percent") else []
    said += [f"cut {state['direction']}"] if state.get("direction") else []
    said += [f"{state['avoided']} avoided"] if state.get("avoided") else []
    return ", ".join(said)
