"""What to do next and what it will cost: adaptive checks."""
