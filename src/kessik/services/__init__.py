"""Use cases and their transactions, shared by the API and the command line."""
