"""What several test modules do alike: cut, enter, send, wait."""
