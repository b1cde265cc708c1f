"""A package opened: every file held against its description, its records made into a folder of
their own. Done in a process of its own, so that taps go on beside it.

`python -m kessik.services.packages.opening PACKAGE FOLDER` does it, and answers with the head of
the package, or with what is wrong, as JSON.
"""

import json
import subprocess
import sys
import time
import zipfile
from collections.abc import Callable
from dataclasses import asdict
from hashlib import sha256
from pathlib import Path
from typing import NoReturn

from kessik.core.errors import Fault, KessikError, RefusedFileError
from kessik.core.limits import most
from kessik.interchange.data_package import FILE_NAME as DESCRIPTION
from kessik.interchange.data_package import described_sums
from kessik.interchange.memory_limit import limit_memory
from kessik.interchange.package_json import FILE_NAME as RECORDS
from kessik.interchange.package_json import PICTURES, PackageHead, Tables, read
from kessik.store.packages.rebuilding import rebuilt
from kessik.store.photo_files import is_photo_name, keep_photo_file

_MOST_S, _LOOKS_EVERY_S = 300.0, 0.1
_DONE, _REFUSED = 0, 3
_MOST_MEMORY = 4_000_000_000


def open_apart(
    package: Path, folder: Path, called: str, go_on: Callable[[], None] = lambda: None
) -> PackageHead:
    """Make a folder of a package; RefusedFileError with what is wrong with it.

    `go_on` is called again and again meanwhile; what it raises ends the work.
    """
    command = [sys.executable, "-m", __name__, str(package), str(folder), called]
    ends_at = time.monotonic() + _MOST_S
    with subprocess.Popen(command, stdout=subprocess.PIPE, stderr=subprocess.DEVNULL) as process:
        try:
            while True:
                go_on()
                try:
                    said = process.communicate(timeout=_LOOKS_EVERY_S)[0]
                    break
                except subprocess.TimeoutExpired:
                    if time.monotonic() > ends_at:
                        _refuse(called, "this takes too long to read; send fewer trials at once")
        except BaseException:
            process.kill()
            raise
    if process.returncode == _REFUSED:
        raise RefusedFileError([Fault(**fault) for fault in json.loads(said)])
    if process.returncode != _DONE:
        _refuse(called, "this takes too much to read; send fewer trials at once")
    head = json.loads(said)
    return PackageHead(**{**head, "hidden": tuple(head["hidden"])})


def open_here(package: Path, folder: Path, called: str) -> PackageHead:
    """The same in this process."""
    try:
        with zipfile.ZipFile(package) as archive:
            names = _looked_over(archive, called)
            head, tables = _records(archive, called)
            _check_tester(head, called)
            with rebuilt(folder, tables, head.revision, called):
                pass
            for name in names:
                if name.startswith(f"{PICTURES}/"):
                    _keep_picture(archive, name, folder, called)
    except (zipfile.BadZipFile, EOFError, OSError, NotImplementedError) as error:
        _refuse(called, f"this is no whole package: {error}")
    return head


def _looked_over(archive: zipfile.ZipFile, called: str) -> list[str]:
    """The names of the files; refused where they are too many or too large, not as their
    description has them, or named in a way that no package has.
    """
    entries = archive.infolist()
    names = [entry.filename for entry in entries]
    if len(names) > most("package_files") or len(set(names)) != len(names):
        _refuse(called, "it holds more files than a package has, or some twice")
    if sum(entry.file_size for entry in entries) > most("package_mb") * 1_000_000:
        _refuse(called, f"it unpacks to more than {most('package_mb'):g} MB")
    if DESCRIPTION not in names or RECORDS not in names:
        _refuse(called, f"a package of Kessik's holds {DESCRIPTION} and {RECORDS}")
    try:
        sums = described_sums(archive.read(DESCRIPTION))
    except ValueError as error:
        _refuse(called, str(error))
    odd = sorted(set(names) ^ {*sums, DESCRIPTION})
    if odd:
        _refuse(called, f"its files are not those that {DESCRIPTION} tells of, such as {odd[0]}")
    for name in sums:
        if _sum(archive, name) != sums[name]:
            _refuse(called, f"{name} in it was changed since the package was made")
    return list(sums)


def _sum(archive: zipfile.ZipFile, name: str) -> str:
    summed = sha256()
    with archive.open(name) as file:
        while data := file.read(1 << 16):
            summed.update(data)
    return summed.hexdigest()


def _records(archive: zipfile.ZipFile, called: str) -> tuple[PackageHead, Tables]:
    try:
        return read(archive.read(RECORDS))
    except ValueError as error:
        _refuse(called, f"{RECORDS} cannot be read: {error}")


def _check_tester(head: PackageHead, called: str) -> None:
    if not head.tester_id or not head.tester or len(head.tester) > most("word"):
        _refuse(called, "it does not say who sent it")


def _keep_picture(archive: zipfile.ZipFile, name: str, folder: Path, called: str) -> None:
    """A picture under its sum; its content was held against the description before."""
    picture = name.removeprefix(f"{PICTURES}/")
    data = archive.read(name)
    if not is_photo_name(picture) or sha256(data).hexdigest() != picture:
        _refuse(called, f"{name[:90]} in it is no picture as Kessik names them")
    keep_photo_file(folder, picture, data)


def _refuse(called: str, message: str) -> NoReturn:
    raise RefusedFileError([Fault(called, 1, "", message)])


def main() -> None:
    """Open one package, as the process that does it apart."""
    limit_memory(_MOST_MEMORY)
    package, folder, called = sys.argv[1:4]
    try:
        head = open_here(Path(package), Path(folder), called)
    except RefusedFileError as refused:
        sys.stdout.write(json.dumps([asdict(fault) for fault in refused.faults]))
        sys.exit(_REFUSED)
    except KessikError as failed:
        sys.stdout.write(json.dumps([asdict(Fault(called, 1, "", failed.message))]))
        sys.exit(_REFUSED)
    sys.stdout.write(json.dumps(asdict(head)))


if __name__ == "__main__":
    main()
