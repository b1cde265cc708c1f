"""Kessik, the bench companion of a steel tester."""

__version__ = "0.1.0"
