"""Sharpening: abrasive scales, the steps of an edge, and which edges count."""
