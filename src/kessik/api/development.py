"""The application for `make dev`, over the data folder named in KESSIK_DATA."""

import os
from pathlib import Path

from fastapi import FastAPI

from kessik.api.app import create_app
from kessik.store.database import Database


def app() -> FastAPI:
    return create_app(Database(Path(os.environ.get("KESSIK_DATA", ".dev-data"))))
