"""Photos: looked at before they are kept; what is no picture is refused, and where it was taken is
left out.
"""

import hashlib
import io
from dataclasses import dataclass

from PIL import Image, UnidentifiedImageError

from kessik.core.errors import Fault, RefusedFileError
from kessik.core.limits import LIMITS
from kessik.interchange.picture_privacy import without_place

_MEDIA_TYPES = {"JPEG": "image/jpeg", "PNG": "image/png", "WEBP": "image/webp"}
_UNREADABLE = (
    UnidentifiedImageError, OSError, SyntaxError, ValueError, IndexError,
    Image.DecompressionBombError, EOFError,
)  # fmt: skip  # what Pillow raises over spoiled pictures


@dataclass(frozen=True)
class Picture:
    """A picture as it is kept: its bytes without the place of taking, their hash, media type, size
    in pixels.
    """

    data: bytes
    hash: str
    media_type: str
    width_px: int
    height_px: int


def read_photo(data: bytes) -> Picture:
    """Recognise a whole JPEG, PNG or WebP picture; RefusedFileError says what is wrong with
    anything else.
    """
    limit, extent = LIMITS["picture_mb"], LIMITS["picture_megapixels"]
    if len(data) > limit.most * 1e6:
        raise _refused(
            f"the picture has {len(data) / 1e6:.0f} MB; up to {limit.most:.0f} MB can be kept"
        )
    try:
        with Image.open(io.BytesIO(data)) as image:
            kind, (width, height) = image.format or "", image.size
            if width * height > extent.most * 1e6:
                raise _refused(f"the picture has {width} × {height} pixels; make it smaller")
            if kind in _MEDIA_TYPES:
                image.load()  # all of it: a picture that breaks off is none
        kept = without_place(data, kind)
    except _UNREADABLE as wrong:
        message = "this is not a whole picture that can be read; JPEG, PNG and WebP can"
        raise _refused(message) from wrong
    if kind not in _MEDIA_TYPES:
        raise _refused(f"{kind} pictures are not kept; JPEG, PNG and WebP are")
    return Picture(kept, hashlib.sha256(kept).hexdigest(), _MEDIA_TYPES[kind], width, height)


def media_type_of(data: bytes) -> str:
    """The media type of a picture that is kept."""
    if data.startswith(b"\x89PNG"):
        return "image/png"
    return "image/webp" if data[8:12] == b"WEBP" else "image/jpeg"


def _refused(message: str) -> RefusedFileError:
    return RefusedFileError([Fault("photo", 1, "", message)])
