"""Prints the OpenAPI contract, from which the web side's types are generated."""

import json
import sys

from kessik.api.app import create_app


def main() -> None:
    json.dump(create_app(None).openapi(), sys.stdout, indent=1)


if __name__ == "__main__":
    main()
