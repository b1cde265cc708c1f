"""Finished runs as a paper record has them, with the width that they deserve."""
