"""What the wire says of what the core found: findings in, bodies out, in words."""
