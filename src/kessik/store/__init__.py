"""What is kept: tables, the queries that turn rows into plain objects, and migrations."""
