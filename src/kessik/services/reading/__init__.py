"""What several use cases read: trials as they stand, run logs, lives, grades.

Nothing is changed here.
"""
