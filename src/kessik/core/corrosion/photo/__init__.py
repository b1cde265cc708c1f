"""Rust from a photograph: arrays in, areas with their intervals out."""

__all__ = ["area", "axes", "colour", "outline", "registration", "spots", "view"]
