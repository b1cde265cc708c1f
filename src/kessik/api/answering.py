"""The process that works answers out: `python -m kessik.api.answering FOLDER`.

It is started by a server and ends with it: each byte on its standard input says that something was
written, the end of it that the server is gone. What it computes is not in the way of any tap.
"""

import logging
import os
import select
import sys
from pathlib import Path

from kessik.api.views.answers import pages
from kessik.api.views.standings import board_page, board_version
from kessik.core.errors import KessikError
from kessik.services.standings.boards import Boards
from kessik.services.trials.answers import Answers
from kessik.store.database import LOG_NAME, Database

_LOG = logging.getLogger("kessik")
LOOKS_EVERY_S = 5.0
"""How often it looks by itself: another program may have written, too."""


def main(folder: Path) -> None:
    """Renew what is behind, now and whenever told, until the server is gone."""
    logging.basicConfig(filename=folder / LOG_NAME, level=logging.WARNING)
    os.nice(10)
    try:
        _renew(folder)
    except Exception:
        _LOG.exception("no answers are worked out any more")
        sys.exit(1)


def _renew(folder: Path) -> None:
    with Database(folder) as database:
        answers, server = Answers(database, pages()), os.getppid()
        boards = Boards(database, board_page, board_version())
        while True:
            try:
                answers.settle(is_over=lambda: os.getppid() != server)
                boards.settle(is_over=lambda: os.getppid() != server)
            except KessikError as failed:
                _LOG.error("answers were not renewed: %s", failed)
            if _told_to_end(LOOKS_EVERY_S):
                return


def _told_to_end(within_s: float) -> bool:
    """Wait for word from the server; whether it has none any more."""
    ready, _, _ = select.select([sys.stdin], [], [], within_s)
    return bool(ready) and not os.read(sys.stdin.fileno(), 65536)


if __name__ == "__main__":
    main(Path(sys.argv[1]))
