"""Rust from a photograph: arrays in, areas with their intervals out."""

__all__ = ["area", "colour", "outline", "registration", "view"]
