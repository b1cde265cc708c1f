"""Sharpening: abrasive scales, the steps of an edge, and which edges count."""

__all__ = ["abrasives", "regimes", "rounds", "settled", "strop_back"]
