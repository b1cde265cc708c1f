"""Trials: what is asked, planned, cut and answered."""
