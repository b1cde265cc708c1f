"""A simulated bench: blades whose true sharpness follows the cuts made, and a tester that reads it
badly.

Nothing here looks at the estimator in the core, so that a check of one against the other can fail.
"""
