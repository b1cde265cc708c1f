"""The shelf: blades, their edges, and what is known of them."""
