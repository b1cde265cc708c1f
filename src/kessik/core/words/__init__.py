"""Sentences, made last and from typed findings; nothing reads them but people."""
