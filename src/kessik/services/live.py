"""What happens now: messages from one part of the server to whoever listens, in this process."""

import asyncio
from collections import defaultdict
from collections.abc import Iterator
from contextlib import contextmanager
from dataclasses import dataclass, field
from threading import Lock

INSTRUMENTS = "instruments"
DEVICES = "devices"
"""A device was shut out."""


def run_topic(run_id: str) -> str:
    """The topic of a run's bench log."""
    return f"run:{run_id}"


@dataclass
class Listener:
    """Messages in their order, as the loop of one listener takes them."""

    loop: asyncio.AbstractEventLoop
    messages: asyncio.Queue[object] = field(default_factory=asyncio.Queue)


class Live:
    """Listeners by topic; telling never waits for any of them."""

    def __init__(self) -> None:
        self._listeners: dict[str, list[Listener]] = defaultdict(list)
        self._lock = Lock()

    @contextmanager
    def listening(self, *topics: str) -> Iterator[Listener]:
        """A listener to some topics, until the block ends; to be called where a loop runs."""
        listener = Listener(asyncio.get_running_loop())
        with self._lock:
            for topic in topics:
                self._listeners[topic].append(listener)
        try:
            yield listener
        finally:
            with self._lock:
                for topic in topics:
                    self._listeners[topic].remove(listener)

    def tell(self, topic: str, message: object) -> None:
        """Hand a message to every listener of a topic, from any thread."""
        with self._lock:
            listeners = list(self._listeners.get(topic, ()))
        for listener in listeners:
            if not listener.loop.is_closed():
                listener.loop.call_soon_threadsafe(listener.messages.put_nowait, message)
