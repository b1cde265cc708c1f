"""The one table of limits: what the core, the API, the files, the screens and the documentation
hold to.
"""

import math
from dataclasses import dataclass

from kessik.core.errors import OutOfRangeError


@dataclass(frozen=True)
class Limit:
    """A quantity's bounds in `unit`, both allowed; `default` where a form needs one; `what` names
    it in a sentence.
    """

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
        return (
            f"{self.what} of {value}{unit} is out of range: give"
            f" {plain(self.least)} to {plain(self.most)}{unit}"
        )

    def holds(self, value: float) -> bool:
        return self.least <= value <= self.most


_TABLE = (
    # at the bench
    Limit("force_gf", "gf", 1, 5000, "a reading", "force to sever the test line"),
    Limit("effort", "", 0, 10, "an effort", "how hard a layer was, 0 for the least"),
    Limit("rank", "", 1, 100, "a rank", "place by effort, 1 for the least"),
    Limit("depth_mm", "mm", 0, 1000, "a depth", "depth cut in one cycle of the card test"),
    Limit("own_reading", "", -1_000_000, 1_000_000, "a reading",
        "a number of a check of one's own, in its own unit"),
    Limit("amount", "", 1e-6, 1_000_000, "an amount", "what was cut, in the unit of the method"),
    Limit("cuts_at_once", "pieces", 1e-6, 1000, "a tap",
        "what one tap counts, in pieces of the method"),
    Limit("count", "", 0, 1_000_000, "a count",
        "how far a run has come, in the unit of its method"),
    Limit("pieces_at_once", "", 1, 100, "a number of pieces", "whole pieces counted by one entry",
        5),
    Limit("strokes", "", 1, 1000, "a number of strokes", "strokes on the strop after the stop"),
    Limit("position_mm", "mm", 0, 2000, "a place", "a place on the edge, from the heel"),
    Limit("readings_at_once", "", 1, 1000, "a number of readings", "readings of one check"),
    Limit("targets", "", 1, 10_000, "a number of cuts", "cuts of another device accepted at once"),
    Limit("text", "characters", 0, 4000, "a text", "a note, or a reason"),
    Limit("word", "characters", 0, 200, "a name", "a name, a unit, a line of an instrument"),
    # a method
    Limit("piece", "", 1e-3, 1_000_000, "what one tap counts",
        "counts of one tap, in the unit of the method", 1),
    Limit("check_gap", "", 1e-3, 1_000_000, "a gap between checks", "counts from check to check"),
    Limit("gap_growth", "", 1.05, 10, "a growth of the gaps",
        "each gap between checks over the one before", 1.5),
    Limit("dose", "", 1e-3, 1_000_000, "a dose",
        "what is cut before the run ends, in the unit of the method"),
    Limit("rounds", "rounds", 2, 100, "a number of rounds", "rounds of one run"),
    Limit("contact_mm", "mm", 0.1, 5000, "a contact length", "edge that one cut uses"),
    Limit("zone_length_mm", "mm", 1, 2000, "a zone length", "edge that one run wears"),
    Limit("check_readings", "", 1, 20, "a number of readings", "readings or tries of one check", 1),
    Limit("method_parts", "", 0, 20, "a list",
        "checks, stages, ends, stations, media or cautions of a method"),
    Limit("named_counts", "", 0, 50, "a list", "counts that a method names for its checks"),
    # what a steel is made of
    Limit("percent", "%", 0, 100, "a content", "mass per cent of one element"),
    Limit("shots", "", 0, 200, "a list", "shots of one blade, blades of one batch"),
    Limit("shot_seconds", "s", 1, 600, "a time", "counting time of one shot"),
    Limit("elements", "", 0, 40, "a list", "elements of a shot or of a grade"),
    Limit("grades_at_once", "", 0, 5000, "a list", "grades of one file"),
    # what rusted
    Limit("rust_threshold", "", 0.1, 0.9, "a threshold",
        "share of a pixel that rust covers where it counts as rusted", 0.5),
    Limit("rust_percent", "%", 0, 100, "an area", "rusted or stained share of what counts"),
    Limit("pits", "", 0, 100_000, "a number of pits", "pits or spots counted at one inspection"),
    Limit("pit_mm", "mm", 0, 10, "a depth of pit", "the deepest pit"),
    Limit("care_days", "days", 1, 3650, "a time", "days until care is due again", 90),
    Limit("soak_hours", "h", 0.05, 20_000, "a time", "hours of one exposure", 24),
    Limit("soak_coupons", "", 1, 60, "a list", "blades, sides and arms of one soak"),
    Limit("soak_looks", "", 0, 200, "a list", "rounds or interventions of one method"),
    Limit("soak_dues", "", 0, 2000, "a number of dues",
        "rounds and interventions that one soak makes"),
    Limit("soak_phases", "", 0, 12, "a list", "phases of one soak, each in its own medium"),
    Limit("scratch_grade", "", 0, 5, "a grade", "scratches after wear: none to bare steel"),
    Limit("hrc", "HRC", 20, 70, "a hardness", "Rockwell hardness of a specimen"),
    Limit("joules", "J", 0, 1000, "an energy", "energy to break one specimen"),
    Limit("pendulum_kg", "kg", 0.01, 100, "a mass", "hammer of a pendulum"),
    Limit("pendulum_mm", "mm", 0, 5000, "a height", "centre of mass of a pendulum"),
    Limit("curve_points", "", 0, 200_000, "a list", "points of a force and deflection curve"),
    Limit("coupon_g", "g", 0.001, 10_000, "a mass", "one coupon on the balance"),
    Limit("coupon_cm2", "cm²", 0.01, 10_000, "an area", "of one coupon that is exposed"),
    Limit("density_g_cm3", "g/cm³", 1, 23, "a density", "steels 7.6 to 8.2", 7.8),
    Limit("blank_mg_cm2", "mg/cm²", 0, 50, "a blank", "what a cleaning takes off bare steel"),
    Limit("corners", "", 3, 400, "a list", "corners of an outline drawn on a picture"),
    Limit("brush_points", "", 0, 20_000, "a list", "points that a brush went through"),
    Limit("water_g", "g", 1, 1_000_000, "an amount", "water or brine, by weight", 1000),
    Limit("brine_c", "°C", 0, 60, "a temperature", "of a brine", 20),
    Limit("ph", "", 0, 14, "a pH", "acid below 7, alkaline above", 7),
    Limit("work_px", "px", 400, 4000, "a size", "pixels along a blade that are worked on", 1600),
    Limit("scale_mm", "mm", 0.5, 2000, "a length", "a known length in a picture"),
    Limit("least_spot_px", "px", 1, 50, "a smallest spot", "spots smaller across are dust", 3),
    # on the shelf and in plans
    Limit("edge_number", "", 1, 10_000, "an edge number",
        "sharpenings of one blade, counted since new"),
    Limit("run_number", "", 1, 10_000, "a run number", "runs of one edge"),
    Limit("abrasive_um", "µm", 0.01, 5000, "a grain size", "mean grain size of an abrasive"),
    Limit("strokes_per_side", "", 0, 100_000, "a number of strokes a side",
        "strokes of one sharpening step"),
    Limit("minutes", "min", 0, 1000, "a time of sharpening", "minutes that one sharpening took"),
    Limit("step_repeats", "", 1, 1000, "a number of repeats",
        "how often a sharpening step is done", 1),
    Limit("steps", "", 0, 60, "a list", "steps of a sharpening, stretches of an edge"),
    Limit("arms", "", 0, 12, "a list", "preparations under which a trial compares one blade"),
    Limit("places_listed", "", 0, 200, "a list", "damaged places of an edge, edges of a trial"),
    Limit("readings_listed", "", 0, 100, "a list", "stations or readings of one measurement"),
    Limit("tempers", "", 0, 10, "a list", "temper cycles of a blade"),
    Limit("details", "", 0, 40, "a list", "details of a lot, variables a trial lets go"),
    Limit("settled_edge_number", "", 1, 1000, "a settled edge",
        "sharpening from which edges count", 3),
    Limit("settled_steel_removed_mm", "mm", 1e-3, 50, "steel removed",
        "steel gone before edges count", 0.5),
    Limit("edges_per_blade", "edges", 1, 100, "a number of edges a blade",
        "edges planned of each blade", 2),
    Limit("expected_life", "", 1, 5000, "a life expected",
        "life that a plan reckons with, in the unit of the method"),
    Limit("wanted_percent", "%", 1, 900, "a difference wanted",
        "difference that a plan is to find", 20),
    Limit("edge_spread_percent", "%", 0, 50, "an edge-to-edge spread",
        "how lives of edges of one blade scatter, in played trials"),
    Limit("reading_scatter_percent", "%", 0.1, 50, "a reading scatter",
        "how readings of one edge scatter", 7),
    Limit("played_trials", "trials", 10, 400, "a number of trials",
        "virtual trials of a played plan", 100),
    Limit("gauge_parts", "parts", 1, 60, "a number of parts", "parts of a gauge study", 5),
    Limit("gauge_repeats", "readings", 2, 20, "a number of readings",
        "readings of one part by one operator", 3),
    Limit("gauge_operators", "operators", 1, 20, "a number of operators",
        "operators of a gauge study"),
    Limit("gauge_readings", "readings", 1, 5000, "a number of readings",
        "readings of a gauge study"),
    Limit("blades_compared", "blades", 1, 100, "a number of blades", "blades of a question", 2),
    Limit("hours_at_hand", "h", 0.25, 10_000, "a time", "hours there are for a question"),
    Limit("hours_a_day", "h", 0.25, 24, "working hours", "hours of work a day", 4),
    Limit("cut_s", "s", 0.5, 3600, "a cut", "time that one cut takes", 30),
    Limit("reading_s", "s", 0.5, 3600, "a reading", "time that one reading takes", 25),
    Limit("sharpening_min", "min", 0, 600, "a sharpening", "time that one sharpening takes", 20),
    Limit("advance_mm", "mm", 0.1, 5000, "an advance", "medium that one cut takes", 25),
    Limit("offcut_m", "m", 0, 50, "an offcut", "medium lost at each run", 0.5),
    Limit("line_mm", "mm", 1, 5000, "test line", "test line that one reading takes", 120),
    Limit("cuts_a_day", "cuts", 1, 5000, "a day's cutting", "cuts a day for one hand", 250),
    Limit("seed", "", 0, 2**31, "a seed", "start of a drawn order, or of practice", 1),
    Limit("stock", "", 0, 1_000_000, "an amount",
        "what is left or bought, in the unit of its lot; a price"),
    Limit("year", "", 1950, 2150, "a year", "the year of any day or time"),
    Limit("baud", "baud", 50, 4_000_000, "a line speed", "speed of a serial line", 9600),
    Limit("scale_reading", "", 0, 1_000_000, "a reading",
        "what an instrument shows, in its own unit"),
    Limit("reference_readings", "", 1, 50, "a number of readings",
        "readings on a reference weight or block"),
    Limit("strands", "", 1, 1000, "a number of strands", "strands cut at once"),
    Limit("reckoned", "", -1_000_000, 1_000_000, "a number", "a figure for the reckoner", None),
    Limit("log_position", "", 0, 2**53, "a position", "place of an event in its log"),
    Limit("instruments", "", 0, 12, "a number of instruments", "instruments plugged in at once"),
    # files, pictures and requests
    Limit("file_mb", "MB", 0, 20, "a file", "size of one table"),
    Limit("file_rows", "rows", 0, 50_000, "a file", "rows of one table"),
    Limit("file_columns", "columns", 1, 200, "a file", "columns of one table"),
    Limit("cell", "characters", 0, 4000, "a cell", "text in one cell of a table"),
    Limit("file_blades", "blades", 0, 500, "a file", "blades that come in one go"),
    Limit("file_runs", "runs", 0, 2000, "a file", "runs that come in one go"),
    Limit("paper_lines", "lines", 0, 500, "a page of results",
        "results on paper that are saved at once"),
    Limit("sheet_rows", "rows", 0, 20_000, "a sheet", "rows of a spreadsheet of results"),
    Limit("files", "files", 1, 20, "an import", "files that come in one go"),
    Limit("faults_listed", "", 1, 100, "a list", "faults listed one by one; the rest are counted",
        100),
    Limit("picture_mb", "MB", 0, 40, "a picture", "size of one picture"),
    Limit("picture_megapixels", "megapixels", 0, 80, "a picture", "extent of one picture"),
    Limit("unpacked_mb", "MB", 0, 60, "a workbook", "a workbook as it unpacks"),
    Limit("upload_mb", "MB", 0, 42, "an upload", "all files of one request together"),
    Limit("steel_to_lose_mm", "mm", 0.1, 100, "steel to lose",
        "height of steel until a blade is worn out", 6),
    Limit("package_upload_mb", "MB", 0, 600, "a package", "a package as it is sent"),
    Limit("package_mb", "MB", 0, 1000, "a package", "a package as it unpacks"),
    Limit("package_files", "", 1, 20_000, "a package", "files of a package"),
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
