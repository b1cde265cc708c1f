"""What is put right later: runs, trials, the archive and the bin."""
