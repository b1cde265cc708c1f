"""Answers that are kept as JSON, sent as they are kept."""

import json
from collections.abc import Mapping

from fastapi import Response


def spliced(fields: Mapping[str, str]) -> Response:
    """An object of fields that are JSON already."""
    inside = ",".join(f"{json.dumps(name)}:{text}" for name, text in fields.items())
    return Response(f"{{{inside}}}", media_type="application/json")
