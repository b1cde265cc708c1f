"""The whole error tree of the core; each carries its facts as attributes and a message a tester can
act on.
"""

from collections.abc import Sequence
from dataclasses import dataclass


class KessikError(Exception):
    """Base of everything the core refuses; `field` names the input at fault where there is one."""

    def __init__(self, message: str, *, field: str | None = None) -> None:
        super().__init__(message)
        self.message = message
        self.field = field


class OutOfRangeError(KessikError):
    """A quantity outside what is possible or plausible."""

    def __init__(self, message: str, *, field: str | None = None, value: object = None) -> None:
        super().__init__(message, field=field)
        self.value = value


class TooOftenError(KessikError):
    """Tried too often; it is possible again after `wait_s` seconds."""

    def __init__(self, message: str, *, field: str | None = None, wait_s: int) -> None:
        super().__init__(message, field=field)
        self.wait_s = wait_s


class NotHereError(KessikError):
    """This is done on the machine that serves, not on a device of the network."""


class NotAllowedNowError(KessikError):
    """The input is sound, but the run or trial is not in a state that takes it."""


class ConflictError(KessikError):
    """The same identity was used before with other content."""


class UnknownError(KessikError):
    """A thing was named that does not exist."""


@dataclass(frozen=True)
class Fault:
    """One thing wrong in a file or form: where it is, what stands there and what would be right."""

    file: str
    line: int
    column: str
    message: str

    def __str__(self) -> str:
        place = f"{self.file}:{self.line}"
        return (
            f"{place}: {self.column}: {self.message}" if self.column else f"{place}: {self.message}"
        )


class RefusedFileError(KessikError):
    """A file that cannot be taken; holds the first faults, and how many there are in all."""

    def __init__(self, faults: Sequence[Fault], count: int | None = None) -> None:
        self.faults = tuple(faults)
        self.count = len(self.faults) if count is None else count
        noun = "fault" if self.count == 1 else "faults"
        super().__init__(
            f"{self.count} {noun} found, nothing was imported. First: {self.faults[0]}",
            field="file",
        )


class SheetOfResultsError(RefusedFileError):
    """A file that is no series but a sheet of results, which another reader takes."""

    def __init__(self, file: str) -> None:
        said = (
            "this is a sheet of results and no series (a series has the columns blade, count and"
            " check); open it as a spreadsheet of results"
        )
        super().__init__([Fault(file, 1, "", said)])


class CancelledError(KessikError):
    """A long piece of work was cancelled by the tester; nothing of it is kept."""


class StorageError(KessikError):
    """The data folder cannot be read or written as it should; nothing was stored, and trying again
    may help.
    """


class StoreBusyError(StorageError):
    """Another program holds the database."""


class StoreFullError(StorageError):
    """There is no room left on the disk."""


class StoreReadOnlyError(StorageError):
    """The folder or the disk may only be read."""


class StoreDamagedError(StorageError):
    """The database is damaged, or is none."""


class StoreNewerError(StorageError):
    """The database was written by a newer Kessik."""


class FolderInUseError(StorageError):
    """Another Kessik serves this folder."""


class NotAFolderError(StorageError):
    """What should be the data folder is none."""
