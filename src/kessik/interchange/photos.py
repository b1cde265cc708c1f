"""Photos: looked at before they are kept; what is no picture is refused."""

import hashlib
import io
from dataclasses import dataclass

from PIL import Image, UnidentifiedImageError

from kessik.core.errors import Fault, RefusedFileError

MOST_BYTES = 25_000_000
MOST_PIXELS = 80_000_000
_MEDIA_TYPES = {"JPEG": "image/jpeg", "PNG": "image/png", "WEBP": "image/webp"}


@dataclass(frozen=True)
class Picture:
    """A picture as read: hash of its content, media type, size in pixels."""

    hash: str
    media_type: str
    width_px: int
    height_px: int


def read_photo(data: bytes) -> Picture:
    """Recognise a JPEG, PNG or WebP picture; RefusedFileError says what is wrong with anything else."""
    if len(data) > MOST_BYTES:
        raise _refused(f"the picture has {len(data) / 1e6:.0f} MB; up to {MOST_BYTES / 1e6:.0f} MB can be kept")
    try:
        with Image.open(io.BytesIO(data)) as image:
            kind, (width, height) = image.format or "", image.size
            if width * height > MOST_PIXELS:
                raise _refused(f"the picture has {width} × {height} pixels; make it smaller")
            image.verify()
    except (UnidentifiedImageError, OSError, SyntaxError, ValueError, Image.DecompressionBombError) as wrong:
        raise _refused("this is not a picture that can be read; JPEG, PNG and WebP can") from wrong
    if kind not in _MEDIA_TYPES:
        raise _refused(f"{kind} pictures are not kept; JPEG, PNG and WebP are")
    return Picture(hashlib.sha256(data).hexdigest(), _MEDIA_TYPES[kind], width, height)


def _refused(message: str) -> RefusedFileError:
    return RefusedFileError([Fault("photo", 1, "", message)])
