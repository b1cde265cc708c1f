"""The one table of limits: what the core, the API, the files, the screens and the documentation hold to."""

import math
from dataclasses import dataclass

from kessik.core.errors import OutOfRangeError


@dataclass(frozen=True)
class Limit:
    """A quantity's bounds in `unit`, both allowed; `default` where a form needs one; `what` names it in a sentence."""

    name: str
    unit: str
    least: float
    most: float
    what: str
    help: str
    default: float | None = None

    def says(self, value: str) -> str:
        """Why a value cannot be, and what would."""
        unit = f" {self.unit}" if self.unit else ""
        return f"{self.what} of {value}{unit} cannot be; {plain(self.least)} to {plain(self.most)}{unit} can"

    def holds(self, value: float) -> bool:
        return self.least <= value <= self.most


_TABLE = (
    # at the bench
    Limit("force_gf", "gf", 1, 5000, "a reading", "force to sever the test line"),
    Limit("effort", "", 0, 10, "an effort", "how hard a layer was, 0 for the least"),
    Limit("rank", "", 1, 100, "a rank", "place by effort, 1 for the least"),
    Limit("depth_mm", "mm", 0, 1000, "a depth", "depth cut in one cycle of the card test"),
    Limit("amount", "", 1e-6, 1_000_000, "an amount", "what was cut, in the unit of the method"),
    Limit("cuts_at_once", "pieces", 1e-6, 1000, "a tap", "what one tap counts, in pieces of the method"),
    Limit("count", "", 0, 1_000_000, "a count", "how far a run has come, in the unit of its method"),
    Limit("pieces_at_once", "", 1, 100, "a number of pieces", "whole pieces counted by one entry", 5),
    Limit("strokes", "", 1, 1000, "a number of strokes", "strokes on the strop after the stop"),
    Limit("position_mm", "mm", 0, 2000, "a place", "a place on the edge, from the heel"),
    Limit("readings_at_once", "", 1, 1000, "a number of readings", "readings of one check"),
    Limit("targets", "", 1, 10_000, "a number of cuts", "cuts of another device accepted at once"),
    Limit("text", "characters", 0, 4000, "a text", "a note, or a reason"),
    Limit("word", "characters", 0, 200, "a name", "a name, a unit, a line of an instrument"),
    # on the shelf and in plans
    Limit("edge_number", "", 1, 10_000, "an edge number", "sharpenings of one blade, counted since new"),
    Limit("run_number", "", 1, 10_000, "a run number", "runs of one edge"),
    Limit("abrasive_um", "µm", 0.01, 5000, "a grain size", "mean grain size of an abrasive"),
    Limit("year", "", 1950, 2150, "a year", "the year of any day or time"),
    Limit("instruments", "", 0, 12, "a number of instruments", "instruments plugged in at once"),
    # files, pictures and requests
    Limit("file_mb", "MB", 0, 20, "a file", "size of one table"),
    Limit("file_rows", "rows", 0, 50_000, "a file", "rows of one table"),
    Limit("file_columns", "columns", 1, 200, "a file", "columns of one table"),
    Limit("cell", "characters", 0, 4000, "a cell", "text in one cell of a table"),
    Limit("file_blades", "blades", 0, 500, "a file", "blades that come in one go"),
    Limit("file_runs", "runs", 0, 2000, "a file", "runs that come in one go"),
    Limit("files", "files", 1, 20, "an import", "files that come in one go"),
    Limit("faults_listed", "", 1, 100, "a list", "faults told one by one; of the rest the number", 100),
    Limit("picture_mb", "MB", 0, 25, "a picture", "size of one picture"),
    Limit("picture_megapixels", "megapixels", 0, 80, "a picture", "extent of one picture"),
    Limit("upload_mb", "MB", 0, 26, "an upload", "all files of one request together"),
    Limit("request_kb", "kB", 0, 1000, "a request", "a request that brings no file"),
    Limit("nesting", "levels", 0, 24, "nesting", "brackets within brackets in a request"),
)  # fmt: skip  # a table is read by its rows

LIMITS = {limit.name: limit for limit in _TABLE}


def plain(value: float) -> str:
    """A bound as a tester writes it: 1000000, not 1e+06."""
    return f"{value:.0f}" if float(value).is_integer() else f"{value:g}"


def most(name: str) -> int:
    """The upper bound of a quantity that is counted."""
    return int(LIMITS[name].most)


def check_limit(name: str, value: float, field: str) -> float:
    """The value, if it is a finite number within its limit; else OutOfRangeError at the field."""
    limit = LIMITS[name]
    if not math.isfinite(value) or not limit.holds(value):
        raise OutOfRangeError(limit.says(f"{value:g}"), field=field, value=value)
    return value
