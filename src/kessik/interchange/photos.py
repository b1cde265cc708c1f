"""Photos: looked at before they are kept; what is no picture is refused, and where it was taken is
left out.
"""

import hashlib
import io
import struct
from dataclasses import dataclass
from datetime import datetime

import numpy as np
from numpy.typing import NDArray
from PIL import Image, ImageOps, UnidentifiedImageError

from kessik.core.errors import Fault, RefusedFileError
from kessik.core.limits import LIMITS
from kessik.interchange.picture_parts import check_parts
from kessik.interchange.picture_privacy import without_place

_MEDIA_TYPES = {"JPEG": "image/jpeg", "PNG": "image/png", "WEBP": "image/webp"}
_KINDS = {"MPO": "JPEG"}
"""A phone's JPEG with further pictures behind its end is kept without these."""
_ORIENTATION, _CHANGED, _TIMES_IFD, _TAKEN = 0x0112, 0x0132, 0x8769, 0x9003
_TURNS = {3: 180, 4: 180, 5: 90, 6: 90, 7: 270, 8: 270}
UNREADABLE = (
    UnidentifiedImageError, OSError, SyntaxError, ValueError, IndexError,
    Image.DecompressionBombError, EOFError, struct.error,
)  # fmt: skip  # what Pillow raises over spoiled pictures


@dataclass(frozen=True)
class ReadPicture:
    """A picture as it is kept: its bytes without the place of taking, their hash, media type, size
    in pixels as it is looked at, and its camera's own time (empty where it told none).
    """

    data: bytes
    hash: str
    media_type: str
    width_px: int
    height_px: int
    taken_at: str = ""


@dataclass(frozen=True)
class DecodedPicture:
    """A picture as numbers: `rgb` of shape (height, width, 3), 0 to 255 in sRGB, the right way up.

    `turned_deg` says how far it was turned for that, clockwise; `taken_at` is its camera's own
    time.
    """

    rgb: NDArray[np.uint8]
    turned_deg: int
    taken_at: str

    @property
    def size_px(self) -> tuple[int, int]:
        """Width and height."""
        height, width, _ = self.rgb.shape
        return width, height


def decode_photo(data: bytes) -> DecodedPicture:
    """A kept picture as an array, turned as its camera says (Exif 2.3, orientation [1]).

    RefusedFileError where it cannot be read.

    References
    ----------
    [1] JEITA CP-3451C, Exif 2.3, tag 0x0112; from memory.
    """
    try:
        with Image.open(io.BytesIO(data)) as image:
            turned_deg = _TURNS.get(image.getexif().get(_ORIENTATION, 1), 0)
            upright = ImageOps.exif_transpose(image).convert("RGB")
            return DecodedPicture(np.asarray(upright, dtype=np.uint8), turned_deg, _taken_at(image))
    except UNREADABLE as wrong:
        raise _refused("this picture cannot be read any more") from wrong


def _taken_at(image: Image.Image) -> str:
    """When the camera says it was taken, as ISO 8601 without a zone; empty where it does not."""
    exif = image.getexif()
    told = exif.get_ifd(_TIMES_IFD).get(_TAKEN) or exif.get(_CHANGED)
    try:
        taken = datetime.strptime(f"{told}+0000", "%Y:%m:%d %H:%M:%S%z")
        return taken.replace(tzinfo=None).isoformat()  # cameras tell no zone
    except ValueError:
        return ""


def read_photo(data: bytes) -> ReadPicture:
    """Recognise a whole JPEG, PNG or WebP picture; RefusedFileError says what is wrong with
    anything else.
    """
    limit, extent = LIMITS["picture_mb"], LIMITS["picture_megapixels"]
    if len(data) > limit.most * 1e6:
        raise _refused(
            f"the picture has {len(data) / 1e6:.0f} MB; up to {limit.most:.0f} MB can be stored"
        )
    try:
        check_parts(data)
        with Image.open(io.BytesIO(data)) as image:
            kind, (width, height) = image.format or "", image.size
            kind = _KINDS.get(kind, kind)
            if width * height > extent.most * 1e6:
                raise _refused(f"the picture has {width} × {height} pixels; make it smaller")
            if kind in _MEDIA_TYPES:
                image.load()  # all of it: a picture that breaks off is none
            taken_at = _taken_at(image)
            if _TURNS.get(image.getexif().get(_ORIENTATION, 1), 0) in (90, 270):
                width, height = height, width
        kept = without_place(data, kind)
    except UNREADABLE as wrong:
        message = "this is not a whole picture that can be read; JPEG, PNG and WebP can"
        raise _refused(message) from wrong
    if kind not in _MEDIA_TYPES:
        raise _refused(f"{kind} pictures are not stored; JPEG, PNG and WebP are")
    kept_hash = hashlib.sha256(kept).hexdigest()
    return ReadPicture(kept, kept_hash, _MEDIA_TYPES[kind], width, height, taken_at)


def media_type_of(data: bytes) -> str:
    """The media type of a picture that is kept."""
    if data.startswith(b"\x89PNG"):
        return "image/png"
    return "image/webp" if data[8:12] == b"WEBP" else "image/jpeg"


def _refused(message: str) -> RefusedFileError:
    return RefusedFileError([Fault("photo", 1, "", message)])
