"""Rules and computation of the trade: plain Python and NumPy, no web, database, files, clock or
chance of its own.
"""
