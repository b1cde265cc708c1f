"""Whether blades differ, by how much, how sure that is and what the answer may speak of."""
