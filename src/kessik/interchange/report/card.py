"""A card of one blade as a picture: what it is, and what it has shown."""

from dataclasses import dataclass

import typst

from kessik.interchange.report.marks import mark_of
from kessik.interchange.report.pdf import as_string, fonts

_INK_2 = "#4b5964"


@dataclass(frozen=True)
class BladeCard:
    """A blade's code and mark, one line under it, and what is known of it by label."""

    code: str
    mark: int
    under: str
    lines: tuple[tuple[str, str], ...]
    foot: str


def card_png(card: BladeCard, ppi: float = 180.0) -> bytes:
    """The card; the same blade gives the same bytes."""
    mark = mark_of(card.mark).at(12, 12, 8.0)
    drawn = f'<svg xmlns="http://www.w3.org/2000/svg" viewBox="0 0 24 24">{mark}</svg>'
    rows = ", ".join(
        f'text(fill: rgb("{_INK_2}"), {as_string(label)}), [#{as_string(says)}]'
        for label, says in card.lines
    )
    source = (
        '#set page(width: 120mm, height: auto, margin: 8mm, fill: rgb("#f2ecdf"))\n'
        '#set text(font: ("Archivo", "Libertinus Serif"), size: 9.5pt, fill: rgb("#16212b"))\n'
        f"#grid(columns: (12mm, 1fr), align: horizon, image(bytes({as_string(drawn)}),"
        f' format: "svg", width: 9mm), text(size: 20pt, weight: 700, {as_string(card.code)}))\n'
        f"#{as_string(card.under)}\n#v(2mm)\n"
        "#table(columns: (auto, 1fr), inset: (x: 0pt, y: 3pt), column-gutter: 4mm,"
        f' stroke: (x: none, y: 0.4pt + rgb("#cfc3ac")), {rows})\n'
        f'#v(1mm)\n#text(size: 7.5pt, fill: rgb("{_INK_2}"), {as_string(card.foot)})\n'
    )
    return typst.compile(source.encode(), font_paths=fonts(), format="png", ppi=ppi)
