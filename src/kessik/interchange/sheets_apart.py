"""Sheets read in a process of their own, under limits of memory and time: whatever a file does to
its reader, taps go on beside it.

Small texts are read at once. The process is this module, run as a program: it takes a line with the
name of the file and then its bytes, and answers with rows, notes and faults as JSON.
"""

import json
import subprocess
import sys
import time
from collections.abc import Callable
from dataclasses import asdict
from tempfile import TemporaryFile
from typing import NoReturn

from kessik.core.errors import Fault, RefusedFileError
from kessik.interchange.memory_limit import limit_memory
from kessik.interchange.named_files import NamedFile
from kessik.interchange.raw_sheets import RawSheet, read_sheet

_AT_ONCE_BYTES = 300_000
_MOST_S, _LOOKS_EVERY_S = 15.0, 0.1
_MOST_MEMORY = 900_000_000


def read_sheet_apart(file: NamedFile, go_on: Callable[[], None] = lambda: None) -> RawSheet:
    """A file as rows; RefusedFileError where it cannot be one, or takes too long or too much.

    `go_on` is called again and again meanwhile; what it raises ends the reading.
    """
    if len(file.data) <= _AT_ONCE_BYTES and not file.data.startswith(b"PK"):
        return read_sheet(file)
    head = json.dumps({"name": file.name}).encode() + b"\n"
    said = json.loads(_answer(file.name, head + file.data, go_on))
    if said["faults"]:
        raise RefusedFileError([Fault(**fault) for fault in said["faults"]])
    return RawSheet(file.name, tuple(map(tuple, said["rows"])), tuple(said["notes"]))


def _answer(name: str, sent: bytes, go_on: Callable[[], None]) -> bytes:
    """What the process answers, which is ended where it takes too long or nobody waits any more."""
    command = [sys.executable, "-m", "kessik.interchange.sheets_apart"]
    ends_at = time.monotonic() + _MOST_S
    # by a file: what is written through a pipe stands still whenever nobody waits for the answer
    with TemporaryFile() as given:
        given.write(sent)
        given.seek(0)
        with subprocess.Popen(
            command, stdin=given, stdout=subprocess.PIPE, stderr=subprocess.DEVNULL
        ) as process:
            try:
                answer = _awaited(process, ends_at, go_on)
            except BaseException:
                process.kill()
                raise
    if answer is None:
        _refuse(name, "this takes too long to read; copy the results into a sheet of their own")
    if process.returncode != 0:
        _refuse(name, "this takes too much to read; copy the results into a sheet of their own")
    return answer


def _awaited(
    process: "subprocess.Popen[bytes]", ends_at: float, go_on: Callable[[], None]
) -> bytes | None:
    """What a process says; None where its time is over."""
    while time.monotonic() < ends_at:
        go_on()
        try:
            return process.communicate(timeout=_LOOKS_EVERY_S)[0]
        except subprocess.TimeoutExpired:
            continue
    process.kill()
    return None


def _refuse(name: str, message: str) -> NoReturn:
    raise RefusedFileError([Fault(name, 1, "", message)])


def main() -> None:
    """Read one sheet from the standard input."""
    limit_memory(_MOST_MEMORY)
    head = json.loads(sys.stdin.buffer.readline())
    file = NamedFile(head["name"], sys.stdin.buffer.read())
    answer: dict[str, object] = {"rows": [], "notes": [], "faults": []}
    try:
        sheet = read_sheet(file)
        answer |= {"rows": sheet.rows, "notes": sheet.notes}
    except RefusedFileError as refused:
        answer["faults"] = [asdict(fault) for fault in refused.faults]
    sys.stdout.write(json.dumps(answer))


if __name__ == "__main__":
    main()
