"""Rust from a photograph: arrays in, areas with their intervals out."""
