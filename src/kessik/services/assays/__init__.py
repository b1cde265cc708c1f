"""What blades are made of: grades, batches, shots, and what they say."""
