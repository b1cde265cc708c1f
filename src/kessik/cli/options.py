"""Options that several commands have."""

from pathlib import Path
from typing import Annotated

import typer

Folder = Annotated[Path | None, typer.Option("--data", help="Data folder (default: this user's).")]
Json = Annotated[bool, typer.Option("--json", help="JSON on standard output.")]
Keen = Annotated[float, typer.Option(help="Keen limit in gf.")]
Dull = Annotated[float, typer.Option(help="Dull limit in gf.")]
