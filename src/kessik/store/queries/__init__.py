"""Queries: rows in, plain objects out."""
