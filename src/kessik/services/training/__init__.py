"""Trainers: rounds made from a seed, answers judged, sessions kept."""
