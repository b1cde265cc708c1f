"""OpenAPI links: from an operation that makes a thing to those that take the thing's id in their
path.
"""

import re
from collections.abc import Iterator, Mapping
from typing import Any

_ID = re.compile(r"\{(\w+)\}")


def add_links(contract: dict[str, Any]) -> dict[str, Any]:
    """The contract, each answer that makes or changes a thing linked to what can be asked of the
    thing next.
    """
    for path, method, operation in _operations(contract):
        made = _ID.findall(path)
        if method != "put" or not path.endswith("}") or "200" not in operation["responses"]:
            continue
        operation["responses"]["200"]["links"] = {
            follower["operationId"]: {
                "operationId": follower["operationId"],
                "parameters": {
                    name: f"$request.path.{name}" for name in _ID.findall(other) if name in made
                },
            }
            for other, _, follower in _operations(contract)
            if made[-1] in _ID.findall(other)
        }
    return contract


def _operations(contract: Mapping[str, Any]) -> Iterator[tuple[str, str, dict[str, Any]]]:
    for path, methods in contract["paths"].items():
        for method, operation in methods.items():
            yield path, method, operation
