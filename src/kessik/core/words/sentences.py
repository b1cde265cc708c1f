"""How sentences are put together."""

import re
from collections.abc import Sequence

_SENTENCE_ENDS = re.compile(r"(?<=[a-z%)\d])\.\s+(?=[A-Z])")


def as_sentence(text: str) -> str:
    """With a capital where it begins with a plain word, as arms are often called."""
    return text[:1].upper() + text[1:] if text.split(" ", 1)[0].strip(",").isalpha() else text


def counted(number: int, noun: str) -> str:
    """So many of a thing."""
    return f"{number} {noun}{'' if number == 1 else 's'}"


def listed(names: Sequence[str]) -> str:
    """Names in a row, the last after `and`."""
    return " and ".join([", ".join(names[:-1]), *names[-1:]] if len(names) > 1 else names)


def two_sentences(first: str, more: str) -> str:
    """A sentence with the first of what follows it; all that follows where there is no first."""
    if not first:
        return more
    ends = _SENTENCE_ENDS.search(more)
    return f"{first} {more[: ends.start() + 1] if ends else more}".strip()
