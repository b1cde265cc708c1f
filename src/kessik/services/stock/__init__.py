"""Lots and what is left of them."""
