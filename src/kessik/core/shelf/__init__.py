"""The shelf: blades, their edges, and what is known of them."""

__all__ = [
    "blades",
    "edges",
    "facts",
    "field_exposures",
    "identity",
    "toughness",
]
