"""What lives as long as the server, in one place: built over a data folder, opened, and closed."""

import asyncio
from collections.abc import AsyncIterator
from contextlib import asynccontextmanager
from functools import cached_property
from typing import TYPE_CHECKING

from starlette.concurrency import run_in_threadpool

from kessik.api.practice_place import PracticePlace
from kessik.api.views.answers import pages
from kessik.services.bench.bench import Bench
from kessik.services.bench.run_news import RunNews
from kessik.services.changes import RecentChanges
from kessik.services.devices.instrument_desk import Desk
from kessik.services.devices.pairing import Pairing
from kessik.services.files.imports import Imports
from kessik.services.trials.answers import Answers
from kessik.services.trials.renewing import Renewing
from kessik.services.upkeep.upkeep import look_after
from kessik.store.database import Database

if TYPE_CHECKING:
    from kessik.services.choice.gathering import ChoiceDesk
    from kessik.services.practice.played import PlayedPlans
    from kessik.services.standings.boards import Boards

_UPKEEP_EVERY_S = 3600


class ServerContext:
    """One data folder being served: its benches, instruments, guests, imports and answers.

    The database belongs to whoever opened it, and outlives the server. Answers are renewed beside
    the server only where the server renews.
    """

    def __init__(
        self,
        database: Database,
        lan_address: str | None,
        renews: bool,
        in_practice: bool,
        practice: PracticePlace,
    ) -> None:
        self.database = database
        self.in_practice = in_practice
        self.practice = practice
        self.bench = Bench(database)
        self.desk = Desk(database, self.bench.live)
        self.pairing = Pairing(database, self.bench.live, lan_address)
        self.imports = Imports()
        self.changes = RecentChanges()
        self.answers = Answers(database, pages())
        self.renewing = Renewing(database, "kessik.api.answering")
        self._renews = renews

    @cached_property
    def boards(self) -> "Boards":
        """The kept standings; loaded when they are asked for first."""
        from kessik.api.views.standings import board_page, board_version
        from kessik.services.standings.boards import Boards

        return Boards(self.database, board_page, board_version())

    @cached_property
    def choices(self) -> "ChoiceDesk":
        """What is known of every blade for a choice; loaded when it is asked for first."""
        from kessik.services.choice.gathering import ChoiceDesk

        return ChoiceDesk(self.database)

    @cached_property
    def played(self) -> "PlayedPlans":
        """The plans that were played lately; loaded with the first of them."""
        from kessik.services.practice.played import PlayedPlans

        return PlayedPlans()

    @cached_property
    def run_news(self) -> RunNews:
        """The one maker of news for all who follow; loaded with the first of them."""
        from kessik.api.following import make_run_news

        return make_run_news(self.bench)

    @asynccontextmanager
    async def opened(self) -> AsyncIterator[None]:
        """Instruments are plugged in, answers renewed and the data looked after inside."""
        await run_in_threadpool(self.desk.plug_in_all)
        if self._renews:
            self.renewing.start()
        upkeep = asyncio.create_task(self._look_after())
        try:
            yield
        finally:  # a server that is hurried does not wait here for anything
            upkeep.cancel()
            await self.practice.close()
            self.close()

    def close(self) -> None:
        """Let go of the instruments and of the process that works answers out."""
        self.renewing.close()
        self.desk.close()

    async def _look_after(self) -> None:
        """What is done by itself, once an hour; nothing that fails ends it."""
        while True:
            await run_in_threadpool(look_after, self.database)
            await asyncio.sleep(_UPKEEP_EVERY_S)
