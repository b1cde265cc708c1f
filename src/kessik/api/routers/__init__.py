"""HTTP only."""
