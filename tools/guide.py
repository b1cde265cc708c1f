"""Turns `docs/guide` into what the pages show: `python -m tools.guide`, or `--index` for titles and
terms alone, which are small enough to be loaded with every page.
"""

import json
import re
import sys
from dataclasses import asdict, dataclass
from pathlib import Path

from markdown_it import MarkdownIt

from kessik.core.glossary import TERMS

FOLDER = Path(__file__).parent.parent / "docs" / "guide"
_TITLE = re.compile(r"^# (.+)$", re.M)
_BOLD = re.compile(r"\*\*([^*]+)\*\*")


@dataclass(frozen=True)
class GuidePage:
    """A page of the guide: its address, its title, the terms it explains, and its HTML."""

    slug: str
    title: str
    terms: tuple[str, ...]
    html: str


def guide_pages() -> list[GuidePage]:
    """The pages in the order of their files, and last the terms."""
    return [*(_page(path) for path in sorted(FOLDER.glob("[0-9]*.md"))), _terms()]


def _page(path: Path) -> GuidePage:
    text = path.read_text(encoding="utf-8")
    title = _TITLE.search(text)
    assert title, f"{path.name} has no title"
    body = text.replace(title[0], "", 1)
    terms = tuple(term for term in _BOLD.findall(body) if term in TERMS)
    return GuidePage(path.stem.partition("-")[2], title[1], terms, _html(body))


def _terms() -> GuidePage:
    told = "\n\n".join(f"**{term}**: {meaning}" for term, meaning in TERMS.items())
    return GuidePage("terms", "The words", tuple(TERMS), _html(told))


def _html(text: str) -> str:
    return MarkdownIt("commonmark").enable("table").render(text)


def main() -> None:
    pages = [asdict(page) for page in guide_pages()]
    if "--index" in sys.argv:
        index = [{key: page[key] for key in ("slug", "title", "terms")} for page in pages]
        sys.stdout.write(_module("GUIDE_INDEX", index))
    else:
        sys.stdout.write(_module("GUIDE", {page["slug"]: page["html"] for page in pages}))


def _module(name: str, value: object) -> str:
    return f"export const {name} = {json.dumps(value, indent=2, ensure_ascii=False)} as const;\n"


if __name__ == "__main__":
    main()
