"""Sharpening: abrasive scales, the steps of an edge, and which edges count."""

__all__ = ["abrasives", "reangling", "regimes", "rounds", "settled", "strop_back"]
