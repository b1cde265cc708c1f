"""Packages: trials with all that belongs to them, written for others and brought in from them."""
