"""The door for the browser: HTTP in, use cases called, JSON out."""
