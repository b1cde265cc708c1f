"""The shelf: blades, their edges, and what is known of them."""

__all__ = [
    "blades",
    "care",
    "edges",
    "facts",
    "field_exposures",
    "identity",
    "loans",
    "toughness",
]
