"""Commands for whoever works on Kessik."""
