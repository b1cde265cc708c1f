"""Simulated photographs of the scenario's blades: drawn, not taken."""

import io

import numpy as np
from PIL import Image, ImageDraw, ImageFilter

_WIDTH, _HEIGHT = 960, 360


def blade_picture(seed: int, code: str) -> bytes:
    """A PNG of a forged blade on a bench, its surface grained by a seed."""
    rng = np.random.default_rng(seed)
    bench = rng.normal(0, 5, (_HEIGHT, 1)) + rng.normal(0, 3, (_HEIGHT, _WIDTH)) + 1.0
    wood = np.clip(np.stack([168 + bench, 132 + bench, 92 + bench], axis=-1), 0, 255).astype(
        np.uint8
    )
    picture = Image.fromarray(wood, "RGB").filter(ImageFilter.GaussianBlur(1.2))
    grain = rng.normal(0, 9, (1, _WIDTH)) + rng.normal(0, 4, (_HEIGHT, _WIDTH))
    shade = np.linspace(205, 140, _HEIGHT)[:, None] + grain
    steel = Image.fromarray(
        np.clip(np.stack([shade, shade + 3, shade + 8], axis=-1), 0, 255).astype(np.uint8), "RGB"
    )
    mask = Image.new("L", (_WIDTH, _HEIGHT), 0)
    outline = [(250, 120), (760, 120), (850, 150), (905, 215), (860, 232), (250, 232)]
    ImageDraw.Draw(mask).polygon(outline, fill=255)
    picture.paste(steel, mask=mask.filter(ImageFilter.GaussianBlur(1)))
    draw = ImageDraw.Draw(picture)
    draw.line([(250, 214), (845, 214), (900, 215)], fill=(226, 230, 236), width=3)
    draw.rounded_rectangle((40, 112, 262, 226), 26, fill=(86, 58, 38))
    for x in (95, 200):
        draw.ellipse((x - 9, 160, x + 9, 178), fill=(196, 178, 130))
    draw.text((300, 140), code, fill=(70, 74, 80), font_size=30)
    out = io.BytesIO()
    picture.save(out, "PNG", compress_level=4)
    return out.getvalue()
