"""What was put right, in words."""

from kessik.core.bin import Trace

_NAMES = {
    "name": "name", "question": "question", "factor": "factor", "medium": "medium",
    "tolerances": "tolerances", "effects": "assumed effects", "let_go": "accepted as different",
    "hardness_reading": "how hardness is held", "scale_edge_length": "scaling to one edge length",
    "settled_kind": "which edges count", "settled_edge_number": "settled from edge",
    "settled_steel_removed_mm": "settled after mm of steel", "edges_per_blade": "edges a blade",
    "rope_diameter_mm": "rope diameter, mm", "created": "begun", "trial_id": "trial",
    "edge_id": "edge", "arm": "arm", "block": "block", "practice": "practice",
    "verifies_run_id": "what it verifies", "check_every": "gap of the checks",
    "operator": "cut by", "started": "cut on", "note": "note",
}  # fmt: skip  # a table is read by its rows


def trace_words(trace: Trace) -> str:
    """What one change made of what."""
    name = _NAMES.get(trace.what, trace.what.replace("_", " "))
    return f"{name}: {_value(trace.was)} became {_value(trace.becomes)}"


def _value(value: object) -> str:
    if value is None or value in ("", [], {}):
        return "nothing"
    if isinstance(value, bool):
        return "yes" if value else "no"
    if isinstance(value, dict):
        return ", ".join(f"{key.replace('_', ' ')} {_value(each)}" for key, each in value.items())
    if isinstance(value, list):
        return ", ".join(str(each).replace("_", " ") for each in value)
    if isinstance(value, float):
        return f"{value:g}"
    return f"“{value}”"
