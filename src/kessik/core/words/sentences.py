"""How sentences are put together."""


def as_sentence(text: str) -> str:
    """With a capital where it begins with a plain word, as arms are often called."""
    return text[:1].upper() + text[1:] if text.split(" ", 1)[0].strip(",").isalpha() else text


def counted(number: int, noun: str) -> str:
    """So many of a thing."""
    return f"{number} {noun}{'' if number == 1 else 's'}"
