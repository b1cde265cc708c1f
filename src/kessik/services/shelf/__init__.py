"""Blades, edges and what is measured of them."""
