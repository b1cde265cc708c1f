"""The one page that a device of the network sees before it is let in."""

from html import escape

_PAGE = """<!doctype html>
<html lang="en"><head><meta charset="utf-8">
<meta name="viewport" content="width=device-width, initial-scale=1">
<title>Pair with Kessik</title><style>
body{{margin:0;padding:2rem 1.25rem;background:#f2ecdf;color:#17212b;
font:1.1rem/1.4 system-ui,sans-serif}}
main{{max-width:26rem;margin:auto}} h1{{font-size:1.7rem;line-height:1.1}}
label{{display:block;margin-top:1.2rem}}
input{{box-sizing:border-box;width:100%;min-height:3.5rem;padding:0 .8rem;font:inherit;
border:2px solid #17212b;background:#fff}}
.code{{font-size:1.7rem;letter-spacing:.18em}}
button{{margin-top:1.6rem;width:100%;min-height:4rem;font:inherit;font-weight:700;border:0;background:#1d4e79;
color:#fff}} .wrong{{color:#8f2d12;font-weight:600}}
</style></head><body><main><h1>Pair this device with the bench</h1>
<p>The code is shown on the computer at the bench, under Devices. It works once.</p>
<form method="post" action="/pair">
<label>Code
<input class="code" name="code" value="{code}" autocomplete="off"
autocapitalize="characters" required></label>
<p class="wrong" role="alert">{wrong}</p>
<label>Name of this device<input name="name" value="{name}" maxlength="60"></label>
<button>Pair</button></form></main></body></html>"""


def pair_page(code: str = "", name: str = "phone by the rope", wrong: str = "") -> str:
    """The page as HTML; what was typed stays in it."""
    return _PAGE.format(code=escape(code), name=escape(name), wrong=escape(wrong))
