"""Outlines and brush strokes drawn as masks, masks read from pictures, and maps written as PNG."""

import io
from collections.abc import Iterable, Sequence

import numpy as np
from numpy.typing import NDArray
from PIL import Image, ImageDraw

from kessik.core.errors import Fault, RefusedFileError
from kessik.core.limits import LIMITS
from kessik.interchange.photos import UNREADABLE

Corners = Sequence[tuple[float, float]]
Bools = NDArray[np.bool_]


def mask_of_outlines(outlines: Iterable[Corners], size_px: tuple[int, int]) -> Bools:
    """Everything inside any of the outlines, as an array of (height, width)."""
    sheet = Image.new("1", size_px, 0)
    pen = ImageDraw.Draw(sheet)
    for corners in outlines:
        pen.polygon([(x, y) for x, y in corners], fill=1)
    return np.asarray(sheet, bool)


def mask_of_strokes(strokes: Iterable[tuple[Corners, float]], size_px: tuple[int, int]) -> Bools:
    """Everything under round brushes: pairs of points and width in pixels."""
    sheet = Image.new("1", size_px, 0)
    pen = ImageDraw.Draw(sheet)
    for points, width_px in strokes:
        radius = max(width_px, 1) / 2
        if len(points) > 1:
            pen.line([(x, y) for x, y in points], fill=1, width=max(1, round(width_px)))
        for x, y in points:
            pen.ellipse((x - radius, y - radius, x + radius, y + radius), fill=1)
    return np.asarray(sheet, bool)


def read_mask(name: str, data: bytes) -> Bools:
    """A mask from a picture: what is lighter than middle grey is the blade; where it has an alpha
    channel that is not full everywhere, that decides. RefusedFileError where it is no picture.
    """
    try:
        with Image.open(io.BytesIO(data)) as image:
            width, height = image.size
            if width * height > LIMITS["picture_megapixels"].most * 1e6:
                raise _refused(name, f"the mask has {width} × {height} pixels; make it smaller")
            if image.has_transparency_data:
                alpha = np.asarray(image.convert("RGBA").getchannel("A"))
                if int(alpha.min()) < 128:
                    return np.asarray(alpha > 127)
            if image.mode.startswith("I") or image.mode == "F":
                values = np.asarray(image, float)
                return np.asarray(values > values.max() / 2)
            grey = np.asarray(image.convert("L"))
            if int(grey.max()) <= 1:
                return np.asarray(grey > 0)  # masks of 0 and 1
            return np.asarray(grey > 127)
    except UNREADABLE as wrong:
        raise _refused(name, "this mask cannot be read as a picture; a PNG, white on black, can") \
            from wrong  # fmt: skip


def png_of(planes: NDArray[np.uint8]) -> bytes:
    """A PNG of (h, w), (h, w, 3) or (h, w, 4) codes."""
    out = io.BytesIO()
    Image.fromarray(planes).save(out, "PNG", compress_level=4)
    return out.getvalue()


def jpeg_of(planes: NDArray[np.uint8], width_px: int) -> bytes:
    """A small JPEG of (h, w, 3) codes, `width_px` wide."""
    picture = Image.fromarray(planes)
    height = max(1, round(picture.height * width_px / picture.width))
    out = io.BytesIO()
    picture.resize((width_px, height), Image.Resampling.BOX).save(out, "JPEG", quality=82)
    return out.getvalue()


def _refused(name: str, message: str) -> RefusedFileError:
    return RefusedFileError([Fault(name, 1, "mask", message)])
