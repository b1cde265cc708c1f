"""`*.method.json`: the method of a trial in all versions its runs were cut under."""

import json
from collections.abc import Mapping
from dataclasses import dataclass
from typing import Any

from pydantic import TypeAdapter, ValidationError

from kessik.core.errors import Fault, OutOfRangeError, RefusedFileError
from kessik.core.limits import LIMITS, check_limit
from kessik.core.protocols.methods import Method
from kessik.interchange.fault_words import fault_words

SCHEMA = 1
_METHOD: TypeAdapter[Method] = TypeAdapter(Method)


@dataclass(frozen=True)
class MethodFile:
    """Methods by version number, and the number of the one in force."""

    versions: Mapping[int, Method]
    in_force: int

    @property
    def method(self) -> Method:
        return self.versions[self.in_force]


def write_method(versions: Mapping[int, Method], in_force: int) -> str:
    """The file's text."""
    written = [
        {"number": n, "method": _METHOD.dump_python(m, mode="json")}
        for n, m in sorted(versions.items())
    ]
    document = {"kessik_method": SCHEMA, "in_force": in_force, "versions": written}
    return json.dumps(document, ensure_ascii=False, indent=1) + "\n"


def read_method(file: str, data: bytes) -> MethodFile:
    """A method file; RefusedFileError says what is wrong and where."""
    limit = LIMITS["request_kb"]
    if len(data) > limit.most * 1000:
        raise RefusedFileError(
            [Fault(file, 1, "", f"a method file has {limit.most:g} {limit.unit} at most")]
        )
    try:
        document = json.loads(data.decode("utf-8-sig"))
    except RecursionError as error:
        raise RefusedFileError([Fault(file, 1, "", "it is nested too deeply")]) from error
    except ValueError as error:
        line = getattr(error, "lineno", 1)
        raise RefusedFileError(
            [Fault(file, line, "", f"this is not JSON in UTF-8: {error}")]
        ) from error
    if not isinstance(document, dict) or document.get("kessik_method") != SCHEMA:
        raise RefusedFileError(
            [Fault(file, 1, "kessik_method", "a method file of schema 1 is needed")]
        )
    versions: dict[int, Method] = {}
    entries = document.get("versions")
    for entry in entries if isinstance(entries, list) else []:
        number, method = _entry(file, entry)
        versions[number] = method
    in_force = document.get("in_force")
    if not isinstance(in_force, int) or in_force not in versions:
        raise RefusedFileError(
            [Fault(file, 1, "in_force", f"version {str(in_force)[:40]} is not among the versions")]
        )
    return MethodFile(versions, in_force)


def _entry(file: str, entry: Any) -> tuple[int, Method]:  # noqa: ANN401 - any JSON value
    try:
        number = int(entry["number"])
        check_limit("run_number", number, "number")
        return number, _METHOD.validate_python(entry["method"])
    except ValidationError as error:
        first = error.errors()[0]
        place = ".".join(str(part) for part in first["loc"])
        raise RefusedFileError([Fault(file, 1, place, fault_words(first))]) from error
    except OutOfRangeError as error:
        raise RefusedFileError([Fault(file, 1, error.field or "", error.message)]) from error
    except (KeyError, TypeError, ValueError, OverflowError, RecursionError) as error:
        raise RefusedFileError(
            [Fault(file, 1, "versions", "each version has a number and a method")]
        ) from error
