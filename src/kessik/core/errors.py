"""The whole error tree of the core; each carries its facts as attributes and a message a tester can act on."""

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
        return f"{place}: {self.column}: {self.message}" if self.column else f"{place}: {self.message}"


class RefusedFileError(KessikError):
    """A file that cannot be taken; holds every fault found, not only the first."""

    def __init__(self, faults: Sequence[Fault]) -> None:
        self.faults = tuple(faults)
        count = len(self.faults)
        noun = "fault" if count == 1 else "faults"
        super().__init__(f"{count} {noun} found, nothing was imported. First: {self.faults[0]}", field="file")
