"""What is done for the data folder by itself."""
