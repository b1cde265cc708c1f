"""What a steel is made of: grades, shots of an analyser, and what they say of a claim."""
