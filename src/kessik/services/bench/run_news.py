"""News of runs, made once for all who follow: whoever follows from the same position is handed the
same.
"""

import asyncio
from collections import OrderedDict
from collections.abc import Callable

_KEPT = 64


class RunNews:
    """What was made for a position is kept for the next who asks; `make(run_id, after)` runs in a
    thread.
    """

    def __init__(self, make: Callable[[str, int], tuple[bytes, int]]) -> None:
        self._make = make
        self._made: OrderedDict[tuple[str, int, int], asyncio.Task[tuple[bytes, int]]] = (
            OrderedDict()
        )

    async def since(self, run_id: str, after: int, told: int) -> tuple[bytes, int]:
        """The news behind `after`, as bytes, with the position it reaches; `told` is the last
        position heard of.
        """
        key = (run_id, after, told)
        task = self._made.get(key)
        if task is None or task.cancelled():
            task = asyncio.create_task(asyncio.to_thread(self._make, run_id, after))
            self._made[key] = task
            while len(self._made) > _KEPT:
                self._made.popitem(last=False)
        return await asyncio.shield(task)
