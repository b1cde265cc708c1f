"""Connections that keep a server waiting: a request whose head does not come whole is given up."""

import asyncio
from typing import Any

from uvicorn.protocols.http.h11_impl import H11Protocol

HEAD_WITHIN_S = 10.0
MOST_CONNECTIONS = 400


class PatientProtocol(H11Protocol):
    """HTTP/1.1 as uvicorn speaks it; a client has ten seconds to say what it wants."""

    _running_out: asyncio.TimerHandle | None = None

    def connection_made(self, transport: Any) -> None:  # noqa: ANN401 - as the class above has it
        super().connection_made(transport)
        self._wait_for_head()

    def data_received(self, data: bytes) -> None:
        super().data_received(data)
        if self.cycle is not None and not self.cycle.response_complete:
            self._got_head()
        elif self._running_out is None:
            self._wait_for_head()

    def on_response_complete(self) -> None:
        super().on_response_complete()
        self._got_head()

    def connection_lost(self, exc: Exception | None) -> None:
        self._got_head()
        super().connection_lost(exc)

    def _wait_for_head(self) -> None:
        self._running_out = self.loop.call_later(HEAD_WITHIN_S, self._give_up)

    def _got_head(self) -> None:
        if self._running_out is not None:
            self._running_out.cancel()
            self._running_out = None

    def _give_up(self) -> None:
        self._running_out = None
        if self.cycle is None or self.cycle.response_complete:
            self.transport.close()
