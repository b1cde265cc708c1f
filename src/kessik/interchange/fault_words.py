"""What is refused for its shape, before the core sees it, in words that a tester would use."""

from collections.abc import Mapping
from typing import Any

_NO_NUMBER = "this is not a number"
_WORDS: Mapping[str, str] = {
    "string_too_long": "this is longer than {max_length} characters: shorten it",
    "string_too_short": "this is too short: at least {min_length} characters are wanted",
    "string_type": "this has to be text",
    "string_pattern_mismatch": "this is not written as it has to be",
    "missing": "this is missing",
    "extra_forbidden": "Kessik has no field of this name",
    "float_parsing": _NO_NUMBER,
    "float_type": _NO_NUMBER,
    "finite_number": _NO_NUMBER,
    "int_parsing": "this is not a whole number",
    "int_type": "this is not a whole number",
    "int_from_float": "this is not a whole number",
    "bool_parsing": "this has to be yes or no",
    "bool_type": "this has to be yes or no",
    "greater_than": "this has to be more than {gt:g}",
    "greater_than_equal": "this has to be {ge:g} or more",
    "less_than": "this has to be less than {lt:g}",
    "less_than_equal": "this has to be {le:g} or less",
    "literal_error": "this has to be {expected}",
    "too_long": "at most {max_length} can be given, and here are {actual_length}",
    "too_short": "at least {min_length} have to be given, and here are {actual_length}",
    "json_invalid": "this is not JSON: {error}",
}


def fault_words(fault: Mapping[str, Any]) -> str:
    """A fault as Pydantic lists it, in plain words; what no tester can meet stays as it is."""
    told = fault.get("ctx") or {}
    if fault["type"] == "value_error":
        return str(told["error"])
    words = _WORDS.get(fault["type"])
    return words.format(**told) if words else str(fault["msg"])
