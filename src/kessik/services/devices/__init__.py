"""Instruments and the devices let in."""
