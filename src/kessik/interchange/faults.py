"""Faults as they are found: the first are told one by one, of the rest only the number is kept."""

from collections.abc import Iterable, Sequence
from dataclasses import dataclass, field

from kessik.core.errors import Fault, RefusedFileError
from kessik.core.limits import most

_HOPELESS = 10_000


@dataclass(frozen=True)
class FoundFaults:
    """The first faults in the order of their lines, and how many there are in all."""

    first: tuple[Fault, ...] = ()
    count: int = 0
    cells: frozenset[tuple[int, str]] = frozenset()

    def refuse(self) -> None:
        """RefusedFileError where there is any fault."""
        if self.count:
            raise RefusedFileError(self.first, self.count)


NO_FAULTS = FoundFaults()


@dataclass
class Faults:
    """A collector; `cells` are those with a fault, so that one cell is not found wrong twice."""

    kept: list[Fault] = field(default_factory=list)
    count: int = 0
    cells: set[tuple[int, str]] = field(default_factory=set)

    @property
    def is_hopeless(self) -> bool:
        """So many faults that looking further helps nobody."""
        return self.count > _HOPELESS

    @classmethod
    def of(cls, found: FoundFaults) -> "Faults":
        return cls(list(found.first), found.count, set(found.cells))

    def add(self, fault: Fault) -> None:
        self.count += 1
        if not self.is_hopeless:
            self.cells.add((fault.line, fault.column))
        if len(self.kept) < most("faults_listed"):
            self.kept.append(fault)

    def take(self, faults: Iterable[Fault]) -> None:
        for fault in faults:
            self.add(fault)

    def found(self) -> FoundFaults:
        ordered = sorted(self.kept, key=lambda fault: fault.line)
        return FoundFaults(tuple(ordered), self.count, frozenset(self.cells))


def together(found: Sequence[FoundFaults]) -> FoundFaults:
    """The faults of several files."""
    first = [fault for each in found for fault in each.first][: most("faults_listed")]
    return FoundFaults(tuple(first), sum(each.count for each in found))
