"""What the command line finds."""

from typing import Literal

FoundKind = Literal["trial", "blade", "grade", "lot", "soak", "note"]
