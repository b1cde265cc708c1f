"""Stand-ins for devices: they speak the same lines, over loopback or a pseudo-terminal, and
misbehave as devices do.
"""
