"""What a package brought, in sentences."""

from collections.abc import Mapping, Sequence

from kessik.core.packages import Came, PackageBrought
from kessik.core.words.sentences import counted, listed

_MOST_NAMED = 3
_CAME: Mapping[Came, str] = {
    "new": "new here",
    "newer": "brought up to date",
    "same": "here already, and the same",
    "older": "here in a newer state; left as it is",
    "changed_here": "here already and different; left as it is here",
}


def brought_sentences(brought: PackageBrought) -> list[str]:
    """Whose trials came and how each stood beside what is here; what has another name here."""
    told = [
        f"{counted(count, 'trial')} {said}"
        for came, said in _CAME.items()
        if (count := brought.count(came))
    ]
    lines = [f"From {brought.tester}: {'; '.join(told) or 'no trial'}."]
    kept = [f"“{t.name}”" for t in brought.trials if t.came == "changed_here"]
    if kept:
        lines.append(f"Left as they are here: {', '.join(kept)}.")
    if brought.renamed:
        lines.append(_renamed(list(brought.renamed.values())))
    lines += [
        f"Their edge {edge.number_there} of {edge.blade} is edge {edge.number_here} here: the"
        f" number {edge.number_there} is taken."
        for edge in brought.renumbered
    ]
    return lines


def _renamed(codes: Sequence[str]) -> str:
    more = len(codes) - _MOST_NAMED
    named = [*codes[:_MOST_NAMED], *([f"{more} more"] if more > 0 else [])]
    is_one = len(codes) == 1
    return (
        f"{'A code' if is_one else f'{len(codes)} codes'} of theirs"
        f" {'is' if is_one else 'are'} taken here; the {'blade is' if is_one else 'blades are'}"
        f" called {listed(named)}."
    )
