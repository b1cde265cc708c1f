"""The door for the command line: the same core without the screen."""
