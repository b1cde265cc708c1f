"""Standings: all trials as one network, kept and renewed."""
