"""Lines of instruments, and what was heard of them."""

import time


def until(condition, seconds=5.0):
    end = time.monotonic() + seconds
    while not condition():
        assert time.monotonic() < end, "it did not come about"
        time.sleep(0.005)


class Told:
    """What the desk tells, as it tells it."""

    def __init__(self, desk, live):
        self.news, self.desk = [], desk
        live.tell = lambda topic, message: self.news.append(message)

    def whats(self, what):
        return [n for n in self.news if n.what == what]
