"""Open files, one module a format, read and written."""
