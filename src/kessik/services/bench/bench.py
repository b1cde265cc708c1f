"""What one server has at hand of the benches of its data folder."""

from kessik.services.live import Live
from kessik.services.reading.run_logs import RunLogs
from kessik.store.database import Database


class Bench:
    """A data folder with the run logs read lately, and whoever listens to what happens."""

    def __init__(self, db: Database) -> None:
        self.db = db
        self.logs = RunLogs()
        self.live = Live()
