"""Our own scenario, built by the virtual bench with a fixed seed."""
