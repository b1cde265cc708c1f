"""The gauge study: how good an instrument, a line or a hand is."""

__all__ = ["kept", "order", "study"]
