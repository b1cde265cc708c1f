"""Trials: what is asked of which blades, how it stands, and what it answers."""
