"""Gauge studies: kept, held against the last one, and taken over by plans."""
