"""Prints what the web side is generated from: the OpenAPI contract, its limits, and the words of
the job.
"""

import json
import sys
from dataclasses import asdict

from kessik.api.app import create_app
from kessik.api.views.methods import check_row_out
from kessik.core.glossary import TERMS
from kessik.core.limits import LIMITS
from kessik.core.protocols.admission import CORRECTABLE, ENDS
from kessik.core.protocols.checks import CHECKS
from kessik.core.protocols.events import EVENT_KINDS
from kessik.core.vocabulary import TABLES


def main() -> None:
    if "--limits" in sys.argv:
        sys.stdout.write(limits_module())
    elif "--words" in sys.argv:
        sys.stdout.write(words_module())
    else:
        json.dump(create_app(None).openapi(), sys.stdout, indent=1)


def limits_module() -> str:
    """The table of limits as a TypeScript module."""
    table = {limit.name: asdict(limit) for limit in LIMITS.values()}
    return f"export const LIMITS = {json.dumps(table, indent=2, ensure_ascii=False)} as const;\n"


def words_module() -> str:
    """The vocabulary as a TypeScript module: lists with their labels, and the built-in checks."""
    lists = {name: list(words.items()) for name, (_, words) in TABLES.items()}
    checks = [check_row_out(row).model_dump() for row in CHECKS.values()]
    usual = {row.key: {"material": row.done_on, "tries": row.tries} for row in CHECKS.values()}
    events = {
        kind: {"correctable": kind in CORRECTABLE, "ends": kind in ENDS} for kind in EVENT_KINDS
    }
    parts = {
        "EVENTS": events,
        "WORDS": lists,
        "CHECKS": checks,
        "USUAL_OF_CHECK": usual,
        "TERMS": dict(TERMS),
    }
    return "\n".join(
        f"export const {name} = {json.dumps(part, indent=2, ensure_ascii=False)} as const;\n"
        for name, part in parts.items()
    )


if __name__ == "__main__":
    main()
