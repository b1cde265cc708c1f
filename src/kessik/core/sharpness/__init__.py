"""From readings to lives: decay shapes, the grid posterior, joint fits, statuses and the plain stop
rule.
"""

__all__ = ["after_keen", "curves", "joint", "life", "outcomes", "posterior", "work"]
