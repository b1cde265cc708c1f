"""Pydantic only: what goes over the wire."""
