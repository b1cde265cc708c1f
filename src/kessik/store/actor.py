"""Who acts: a device of the network by its name, empty for the computer that serves."""

from contextvars import ContextVar

ACTOR: ContextVar[str] = ContextVar("ACTOR", default="")
