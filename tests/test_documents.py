"""What the documents list is what the code has."""

import re
from importlib import import_module
from pathlib import Path

from kessik.core.glossary import TERMS
from kessik.interchange import grades_csv, lives_csv, looks_csv, record_csv, series_csv, shots_csv
from kessik.interchange.log_csv import HEADER as LOG_COLUMNS

ROOT = Path(__file__).parents[1]
FORMATS = {
    "*.series.csv": [column.name for column in series_csv.COLUMNS],
    "*.runs.csv": [column.name for column in record_csv.RUN_COLUMNS],
    "*.blades.csv": [column.name for column in record_csv.BLADE_COLUMNS],
    "*.edges.csv": [column.name for column in record_csv.EDGE_COLUMNS],
    "*.shots.csv": [column.name for column in shots_csv.COLUMNS],
    "*.grades.csv": [column.name for column in grades_csv.COLUMNS],
    "*.looks.csv": [column.name for column in looks_csv.COLUMNS],
    "*.lives.csv": [column.name for column in lives_csv.COLUMNS],
    "*.log.csv": list(LOG_COLUMNS),
}


def test_every_column_of_every_file_is_described():
    said = (ROOT / "docs/file-formats.md").read_text(encoding="utf-8")
    chapters = {
        part.splitlines()[0].strip("` "): re.findall(r"^\| `(\w+)` \|", part, re.M)
        for part in said.split("\n## ")[1:]
    }
    for name, columns in FORMATS.items():
        assert chapters[name] == columns, name


def test_every_decision_stands_in_the_index():
    index = (ROOT / "docs/decisions/README.md").read_text(encoding="utf-8")
    for path in (ROOT / "docs/decisions").glob("0*.md"):
        title = path.read_text(encoding="utf-8").splitlines()[0].removeprefix("# ")
        assert f"- [{path.name[:4]}]({path.name}) {title}" in index


def test_every_name_that_the_glossary_points_at_is_there():
    said = (ROOT / "docs/glossary.md").read_text(encoding="utf-8")
    for name in re.findall(r"`((?:core|services)\.[\w.]+)`", said):
        assert found(f"kessik.{name}"), name


def test_every_term_of_the_screens_is_explained():
    said = (ROOT / "docs/glossary.md").read_text(encoding="utf-8")
    for term, meaning in TERMS.items():
        assert f"| {term} | {meaning} |" in said, term


def test_the_eight_tasks_name_files_that_are_there():
    said = (ROOT / "CONTRIBUTING.md").read_text(encoding="utf-8")
    chapter = said.split("## How to add")[1].split("\n## ")[0]
    tasks = re.findall(r"^\*\*(An? [^*]+)\*\*", chapter, re.M)
    assert len(tasks) == 8, tasks
    paths = re.findall(r"`((?:src|web|tests|docs)/[\w./-]+)`", chapter)
    assert len(paths) > 20
    for path in paths:
        assert (ROOT / path).exists(), path


def found(dotted):
    """Whether a module, or something in one, has this name."""
    parts = dotted.split(".")
    for split in range(len(parts), 0, -1):
        try:
            thing = import_module(".".join(parts[:split]))
        except ModuleNotFoundError:
            continue
        return all(hasattr(thing, name) for name in parts[split:])
    return False
