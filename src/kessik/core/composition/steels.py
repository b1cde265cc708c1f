"""Candidates that are one steel under the names of several standards."""

from collections.abc import Sequence
from dataclasses import dataclass

from kessik.core.composition.candidates import Candidate
from kessik.core.composition.grades import Grade

_SPEAKS_FIRST = "EN "
"""Standards whose names are spoken of where no claim prefers another."""


@dataclass(frozen=True)
class Steel:
    """One steel: its names, the one to speak of first."""

    members: tuple[Candidate, ...]

    @property
    def head(self) -> Candidate:
        return self.members[0]

    @property
    def grade(self) -> Grade:
        return self.head.grade

    @property
    def other_names(self) -> tuple[str, ...]:
        return tuple(member.grade.name for member in self.members[1:])

    @property
    def weight(self) -> float:
        """The weight of evidence of all its names together."""
        return sum(member.weight for member in self.members)

    @property
    def overlap(self) -> float:
        """How far it looks like the claim to the analyser, under the name that does so most."""
        return max(member.overlap for member in self.members)


def steels(candidates: Sequence[Candidate], claim: Grade | None) -> list[Steel]:
    """Candidates in groups that are one steel, in the order of their first; each speaks by its name
    in the claim's own standard, else by its European one.
    """
    groups: list[list[Candidate]] = []
    of_name: dict[str, list[Candidate]] = {}
    for candidate in candidates:
        own = of_name.get(candidate.grade.name)
        if own is None:
            own = []
            groups.append(own)
        own.append(candidate)
        for name in (candidate.grade.name, *_same_names(candidate.grade)):
            of_name.setdefault(name, own)
    standard = claim.standard if claim and claim.standard else _SPEAKS_FIRST
    return [
        Steel(tuple(sorted(group, key=lambda c: not c.grade.standard.startswith(standard))))
        for group in groups
    ]


def _same_names(grade: Grade) -> list[str]:
    return [other.name for other in grade.equivalents if other.nearness == "same"]
