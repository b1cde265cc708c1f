"""What is pushed to whoever follows: server-sent events, made once for all who follow."""

from kessik.api.schemas.bench import NewsOut
from kessik.api.schemas.common import Wire
from kessik.api.schemas.instruments import InstrumentNewsOut
from kessik.api.views.bench import news_out
from kessik.services.bench.bench import Bench
from kessik.services.bench.beside import news
from kessik.services.bench.run_news import RunNews
from kessik.services.clock import now


class FollowOut(Wire):
    """What just happened: news of the followed run, or of an instrument."""

    run: NewsOut | None = None
    instrument: InstrumentNewsOut | None = None


def as_event(content: FollowOut) -> bytes:
    """One server-sent event."""
    return f"data: {content.model_dump_json()}\n\n".encode()


def make_run_news(bench: Bench) -> RunNews:
    """The one maker of news for all followers of a server."""

    def make(run_id: str, after: int) -> tuple[bytes, int]:
        found = news(bench, run_id, after)
        reached = max([after, *(event.position for event in found.events)])
        return as_event(FollowOut(run=news_out(found, now().utc))), reached

    return RunNews(make)
