"""A bound on what a process that reads for others may take."""


def limit_memory(most_bytes: int) -> None:
    """No more memory than so much for this process, where the system knows such a limit."""
    try:
        import resource
    except ImportError:
        return
    resource.setrlimit(resource.RLIMIT_AS, (most_bytes, most_bytes))
