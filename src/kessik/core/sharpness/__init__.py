"""From readings to lives: decay shapes, the grid posterior, joint fits, statuses and the plain stop
rule.
"""
