"""Devices of the bench and their simulated stand-ins."""
