"""A file as it was handed in."""

from dataclasses import dataclass


@dataclass(frozen=True)
class NamedFile:
    """A file as handed in: its name decides what it is."""

    name: str
    data: bytes
