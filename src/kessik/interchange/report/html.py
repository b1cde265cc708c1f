"""A report as one page of HTML that needs nothing beside it."""

from base64 import b64encode
from functools import cache
from html import escape
from pathlib import Path

from kessik.interchange.report.document import (
    Block,
    Drawing,
    Grid,
    Heading,
    Paragraph,
    Points,
    Report,
)

FONTS = Path(__file__).parent / "fonts"
_STYLE = """
:root { color: #16212b; background: #fbf8f1; font: 15px/1.45 Archivo, "Segoe UI", sans-serif; }
body { max-width: 46rem; margin: 2rem auto; padding: 0 1rem; }
h1 { font-size: 1.9rem; line-height: 1.15; margin: 2rem 0 0.2rem; }
h2 { font-size: 1.15rem; border-top: 1.5px solid; padding-top: 0.6rem; margin-top: 1.6rem; }
p.lead { font-size: 1.3rem; line-height: 1.3; font-weight: 700; }
p.note, figcaption, footer, .under { color: #4b5964; font-size: 0.85rem; }
table { border-collapse: collapse; width: 100%; margin: 0.6rem 0; }
table { font-variant-numeric: tabular-nums; }
table.small { font-size: 0.8rem; }
caption { text-align: left; color: #4b5964; font-size: 0.85rem; }
th { text-align: left; border-bottom: 1.5px solid; font-weight: 600; vertical-align: bottom; }
td { border-bottom: 1px solid #cfc3ac; vertical-align: top; overflow-wrap: anywhere; }
th, td { padding: 0.2rem 0.6rem 0.2rem 0; }
.n { text-align: right; }
figure { margin: 1rem 0; } figure svg { width: 100%; height: auto; }
@media print { body { margin: 0; } h2, figure, tr { break-inside: avoid; } }
"""


def html(report: Report) -> str:
    """The page; the same report gives the same text."""
    blocks = "\n".join(_block(block) for block in report.blocks)
    return (
        '<!doctype html>\n<html lang="en">\n<head>\n<meta charset="utf-8">\n'
        '<meta name="viewport" content="width=device-width">\n'
        f'<meta name="kessik" content="{escape(report.made_from)}">\n'
        f"<title>{escape(report.title)}</title>\n<style>{_faces()}{_STYLE}</style>\n</head>\n<body>\n"
        f'<header><h1>{escape(report.title)}</h1><p class="under">{escape(report.under)}</p>'
        f"</header>\n<main>\n{blocks}\n</main>\n<footer><p>{escape(report.made_from)}</p></footer>\n"
        "</body>\n</html>\n"
    )


@cache
def _faces() -> str:
    """The typeface of the screens, inside the page."""
    told = []
    for weight in (400, 700):
        data = b64encode((FONTS / f"archivo-{weight}.ttf").read_bytes()).decode()
        source = f'src: url("data:font/ttf;base64,{data}")'
        told.append(f"@font-face {{ font-family: Archivo; font-weight: {weight}; {source}; }}\n")
    return "".join(told)


def _block(block: Block) -> str:
    match block:
        case Heading(text, level):
            return f"<h{level}>{escape(text)}</h{level}>"
        case Paragraph(text, look):
            return f"<p{_class(look)}>{escape(text)}</p>"
        case Points(items):
            return f"<ul>{''.join(f'<li>{escape(item)}</li>' for item in items)}</ul>"
        case Grid():
            return _table(block)
        case Drawing(_, svg, caption, told):
            return (
                f'<figure role="img" aria-label="{escape(told)}">{svg}'
                f"<figcaption>{escape(caption)}</figcaption></figure>"
            )


def _class(name: str) -> str:
    return f' class="{name}"' if name else ""


def _table(grid: Grid) -> str:
    def cells(tag: str, row: tuple[str, ...], scope: str = "") -> str:
        return "".join(
            f"<{tag}{scope}{_class('n' if at in grid.numeric else '')}>{escape(cell)}</{tag}>"
            for at, cell in enumerate(row)
        )

    rows = "".join(f"<tr>{cells('td', row)}</tr>" for row in grid.rows)
    caption = f"<caption>{escape(grid.caption)}</caption>" if grid.caption else ""
    small = _class("small" if grid.small else "")
    head = cells("th", grid.heads, ' scope="col"')
    return f"<table{small}>{caption}<thead><tr>{head}</tr></thead><tbody>{rows}</tbody></table>"
