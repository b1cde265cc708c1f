"""What a camera writes into a picture besides the picture: kept are how it is turned and when it
was taken.

Everything else goes, the place of taking (GPS) first of all. The picture itself is not encoded
anew: rust is measured in it. Formats: JPEG (ITU-T T.81, markers), PNG (ISO/IEC 15948, chunks), WebP
(RIFF container); from memory.
"""

import io
import struct
from collections.abc import Iterator
from zlib import crc32

from PIL import Image

from kessik.interchange.picture_parts import parts_of

_KEPT_EXIF = (0x0112, 0x0132)
_KEPT_TIMES = (0x9003, 0x9004, 0x9010, 0x9011)
_TIMES_IFD = 0x8769
_PNG_HEAD = b"\x89PNG\r\n\x1a\n"
_PNG_KEPT = frozenset(
    {
        b"IHDR",
        b"PLTE",
        b"IDAT",
        b"IEND",
        b"tRNS",
        b"gAMA",
        b"cHRM",
        b"sRGB",
        b"iCCP",
        b"sBIT",
        b"pHYs",
        b"bKGD",
    }
)
_WEBP_LEFT_OUT = frozenset({b"EXIF", b"XMP "})
_WEBP_FLAGS = 0x08 | 0x04
"""The bits of a WebP head that say that Exif and XMP follow."""
_JPEG_CODING = frozenset({0x01, *range(0xC0, 0xE0)} - {0xC8})
"""Frames, tables and scans: what the picture itself is made of."""
_JPEG_NAMED = {0xE2: b"ICC_PROFILE\0", 0xEE: b"Adobe"}
"""Of the application segments: colour profile, and how colours are coded."""
_JFIF = 0xE0, b"JFIF\0", 12
"""Its marker, its name, and how much of it comes before a small picture inside it."""


def without_place(data: bytes, kind: str) -> bytes:
    """The picture without what tells where it was taken; ValueError where it breaks off."""
    match kind:
        case "JPEG":
            return _jpeg(data)
        case "PNG":
            return _PNG_HEAD + b"".join(_png(data))
        case "WEBP":
            return _webp(data)
    return data


def _exif(data: bytes) -> bytes:
    """Turn and time of a picture as Exif of its own; empty where neither is told."""
    with Image.open(io.BytesIO(data)) as image:
        told = image.getexif()
        times = told.get_ifd(_TIMES_IFD)
    kept = Image.Exif()
    for tag in _KEPT_EXIF:
        if tag in told:
            kept[tag] = told[tag]
    own_times = {tag: times[tag] for tag in _KEPT_TIMES if tag in times}
    if own_times:
        kept.get_ifd(_TIMES_IFD).update(own_times)
        kept[_TIMES_IFD] = own_times
    return kept.tobytes() if len(kept) else b""


def _jpeg(data: bytes) -> bytes:
    exif = _exif(data)
    found = [b"\xff\xd8"]
    if exif:
        found.append(b"\xff\xe1" + struct.pack(">H", len(exif) + 2) + exif)
    found.extend(_of_the_picture(name[0], part) for name, part in parts_of(data))
    return b"".join(found)


def _of_the_picture(marker: int, segment: bytes) -> bytes:
    """What of a segment belongs to the picture; nothing of notes, and no small picture."""
    content = segment[4:]
    jfif, name, head = _JFIF
    if marker == jfif and content.startswith(name):
        return segment[:2] + struct.pack(">H", head + 4) + content[:head] + b"\0\0"
    if marker in _JPEG_CODING or content.startswith(_JPEG_NAMED.get(marker, b"\0none")):
        return segment
    return b""


def _png(data: bytes) -> Iterator[bytes]:
    for name, chunk in parts_of(data):
        if name in _PNG_KEPT:
            yield chunk
        if name == b"IHDR":
            yield from _png_exif(data)


def _png_exif(data: bytes) -> Iterator[bytes]:
    exif = _exif(data).removeprefix(b"Exif\x00\x00")
    if exif:
        body = b"eXIf" + exif
        yield struct.pack(">I", len(exif)) + body + struct.pack(">I", crc32(body))


def _webp(data: bytes) -> bytes:
    found = []
    for name, part in parts_of(data):
        if name == b"VP8X":
            part = part[:8] + bytes([part[8] & ~_WEBP_FLAGS]) + part[9:]
        if name not in _WEBP_LEFT_OUT:
            found.append(part)
    body = b"WEBP" + b"".join(found)
    return b"RIFF" + struct.pack("<I", len(body)) + body
