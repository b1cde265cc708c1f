"""Prints the OpenAPI contract, from which the web side's types are generated, or the limits that it
holds to.
"""

import json
import sys
from dataclasses import asdict

from kessik.api.app import create_app
from kessik.core.limits import LIMITS


def main() -> None:
    if "--limits" in sys.argv:
        sys.stdout.write(limits_module())
    else:
        json.dump(create_app(None).openapi(), sys.stdout, indent=1)


def limits_module() -> str:
    """The table of limits as a TypeScript module."""
    table = {limit.name: asdict(limit) for limit in LIMITS.values()}
    return f"export const LIMITS = {json.dumps(table, indent=2, ensure_ascii=False)} as const;\n"


if __name__ == "__main__":
    main()
