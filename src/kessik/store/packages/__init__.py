"""Trials taken out of a data folder with all that belongs to them, and brought into another."""
