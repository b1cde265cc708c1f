"""A data folder of every schema there was, packed."""

from pathlib import Path

FOLDERS = sorted((Path(__file__).parents[1] / "store" / "older_folders").glob("*.db.xz"))
