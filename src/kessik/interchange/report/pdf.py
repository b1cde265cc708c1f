"""A report as a PDF that a reader's software can read aloud (PDF/UA-1), and charts as pictures.

Typst sets it, inside this process: its wheel brings the compiler, and fonts lie beside this file.
"""

import re
from collections.abc import Mapping
from functools import cache

import typst

from kessik.interchange.report.document import (
    Block,
    Drawing,
    Grid,
    Heading,
    Paragraph,
    Points,
    Report,
)
from kessik.interchange.report.html import FONTS

_NOT_SHOWN = re.compile(r'the text `"(.+?)"` could not be displayed')
_STAND_IN = "?"
_MOST_TRIES = 400
_QUOTED = str.maketrans({"\\": "\\\\", '"': '\\"', "\n": "\\n", "\r": "", "\t": " "})
_SET = """
#set page(paper: "a4", margin: (x: 18mm, y: 18mm), footer: context [
  #set text(size: 8pt, fill: rgb("#4b5964"))
  #made-from #h(1fr) #counter(page).display("1 / 1", both: true)
])
#set text(font: ("Archivo", "Libertinus Serif"), size: 9.5pt, fill: rgb("#16212b"), lang: "en")
#set par(leading: 0.6em)
#set table(stroke: (x, y) => if y == 0 { (bottom: 1pt) } else { (bottom: 0.4pt + rgb("#cfc3ac")) },
  inset: (x: 3pt, y: 3pt))
#set table.cell(breakable: false)
#show table.cell.where(y: 0): set text(weight: 600)
#show heading.where(level: 1): set text(size: 20pt)
#show heading.where(level: 2): it => block(above: 14pt, below: 6pt, text(size: 12pt, it.body))
#show figure: set align(left)
"""


class _Page:
    """A report as typst sets it."""

    def __init__(self, report: Report, replaced: Mapping[str, str]) -> None:
        self.report, self.replaced = report, replaced

    def text(self) -> str:
        """The whole source."""
        year, month, day = (int(part) for part in self.report.day.split("-"))
        head = (
            f"#set document(title: {self.said(self.report.title)}, author: (),"
            f" keywords: ({self.said(self.report.made_from)},),"
            f" date: datetime(year: {year}, month: {month}, day: {day}))\n"
            f"#let made-from = {self.said(self.report.made_from)}\n"
        )
        title = (
            f"#heading(level: 1, {self.said(self.report.title)})\n"
            f'#text(fill: rgb("#4b5964"), {self.said(self.report.under)})\n'
        )
        return head + _SET + title + "\n".join(self.block(b) for b in self.report.blocks)

    def said(self, words: str) -> str:
        """Words as a string of typst's; letters that no font has are replaced."""
        for letters, instead in self.replaced.items():
            words = words.replace(letters, instead)
        return as_string(words)

    def block(self, block: Block) -> str:
        match block:
            case Heading(text, level):
                return f"#heading(level: {level}, {self.said(text)})"
            case Paragraph(text, "lead"):
                return f"#text(size: 13pt, weight: 700, {self.said(text)})\n"
            case Paragraph(text, "note"):
                return f'#text(size: 8.5pt, fill: rgb("#4b5964"), {self.said(text)})\n'
            case Paragraph(text):
                return f"#par[#{self.said(text)}]"
            case Points(items):
                return "\n".join(f"- #{self.said(item)}" for item in items) + "\n"
            case Grid():
                return self.table(block)
            case Drawing(_, svg, caption, told):
                return (
                    f"#figure({_image(self.said(svg), self.said(told))},"
                    f" caption: {self.said(caption)}, numbering: none, outlined: false)"
                )

    def table(self, grid: Grid) -> str:
        count = len(grid.heads)
        align = ", ".join("right" if at in grid.numeric else "left" for at in range(count))
        heads = ", ".join(f"[#{self.said(head)}]" for head in grid.heads)
        cells = ",\n".join(", ".join(f"[#{self.said(cell)}]" for cell in row) for row in grid.rows)
        columns = ", ".join(["auto"] * (count - 1) + ["1fr"])
        told = (
            f"#table(columns: ({columns},), align: ({align},), table.header({heads}),\n{cells})\n"
        )
        if grid.small:
            told = f"#[#set text(size: 7.5pt)\n{told}]\n"
        return f"{self.block(Paragraph(grid.caption, 'note'))}{told}" if grid.caption else told


def as_string(words: str) -> str:
    """Words as a string of typst's."""
    return f'"{words.translate(_QUOTED)}"'


def pdf(report: Report) -> bytes:
    """The PDF; the same report gives the same bytes.

    Letters that no font here has are shown as `?`, and the last page says so.
    """
    replaced: dict[str, str] = {}
    for _ in range(_MOST_TRIES):
        page = _Page(report, replaced)
        source = page.text()
        if replaced:
            said = "Some letters of names are not in the fonts of this PDF and stand as ?."
            source += page.block(Paragraph(f"{said} The HTML report shows them.", "note"))
        try:
            return typst.compile(
                source.encode(),
                font_paths=fonts(),
                format="pdf",
                pdf_standards=["ua-1"],
            )
        except typst.TypstError as error:
            lost = _NOT_SHOWN.search(str(error))
            if lost is None:
                raise
            replaced[lost[1]] = _STAND_IN * len(lost[1])
    raise ValueError("no font shows the letters of this report")


def png(figure: Drawing, ppi: float = 160.0) -> bytes:
    """A chart as a picture with its caption."""
    said = _Page(Report("", "", (), "", "2000-01-01"), {}).said
    source = (
        '#set page(width: 190mm, height: auto, margin: 6mm, fill: rgb("#fbf8f1"))\n'
        '#set text(font: ("Archivo", "Libertinus Serif"), size: 9pt, fill: rgb("#16212b"))\n'
        f"#{_image(said(figure.svg), said(figure.told))}\n#{said(figure.caption)}\n"
    )
    return typst.compile(source.encode(), font_paths=fonts(), format="png", ppi=ppi)


@cache
def fonts() -> typst.Fonts:
    """The fonts beside this file, and those of the compiler: the same on every machine."""
    return typst.Fonts(include_system_fonts=False, font_paths=[FONTS])


def _image(svg: str, told: str) -> str:
    return f'image(bytes({svg}), format: "svg", width: 100%, alt: {told})'
