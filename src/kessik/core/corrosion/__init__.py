"""Corrosion: brine, soaks and their looks, rust from photographs, ratings and ranking."""
