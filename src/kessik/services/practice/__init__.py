"""The guided practice: a trial of two virtual blades, in a folder of its own."""
