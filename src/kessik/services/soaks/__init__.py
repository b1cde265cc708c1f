"""Soaks: kept, tended, looked at, measured from pictures, and answered."""
