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
_WITHOUT_LENGTH = frozenset({0x01, *range(0xD0, 0xD9)})
_SCAN, _END = 0xDA, 0xD9
_JPEG_CODING = frozenset({*range(0xC0, 0xE0)} - {0xC8})
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
            return _PNG_HEAD + b"".join(_png_chunks(data))
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
    found.extend(_jpeg_segments(data))
    return b"".join(found)


def _jpeg_segments(data: bytes) -> Iterator[bytes]:
    """The segments that make the picture; what stands behind its end is left out."""
    at = 2
    while at < len(data):
        marker = data[at + 1]
        if marker == _END:
            yield b"\xff\xd9"
            return
        if marker in _WITHOUT_LENGTH:
            yield data[at : at + 2]
            at += 2
            continue
        (length,) = struct.unpack(">H", data[at + 2 : at + 4])
        end = at + 2 + length
        if marker == _SCAN:
            end = _scan_end(data, end)
        yield _of_the_picture(marker, data[at:end])
        at = end
    raise ValueError("the picture breaks off")


def _of_the_picture(marker: int, segment: bytes) -> bytes:
    """What of a segment belongs to the picture; nothing of notes, and no small picture."""
    content = segment[4:]
    jfif, name, head = _JFIF
    if marker == jfif and content.startswith(name):
        return segment[:2] + struct.pack(">H", head + 4) + content[:head] + b"\0\0"
    if marker in _JPEG_CODING or content.startswith(_JPEG_NAMED.get(marker, b"\0none")):
        return segment
    return b""


def _scan_end(data: bytes, at: int) -> int:
    """Where the next marker stands behind coded pixels."""
    while True:
        at = data.index(b"\xff", at)
        marker = data[at + 1]
        if marker != 0x00 and marker != 0xFF and not 0xD0 <= marker <= 0xD7:
            return at
        at += 1 if marker == 0xFF else 2


def _png_chunks(data: bytes) -> Iterator[bytes]:
    at = len(_PNG_HEAD)
    while at < len(data):
        (length,) = struct.unpack(">I", data[at : at + 4])
        name = data[at + 4 : at + 8]
        if name in _PNG_KEPT:
            yield data[at : at + length + 12]
        if name == b"IHDR":
            yield from _png_exif(data)
        if name == b"IEND":
            return
        at += length + 12
    raise ValueError("the picture breaks off")


def _png_exif(data: bytes) -> Iterator[bytes]:
    exif = _exif(data).removeprefix(b"Exif\x00\x00")
    if exif:
        body = b"eXIf" + exif
        yield struct.pack(">I", len(exif)) + body + struct.pack(">I", crc32(body))


def _webp(data: bytes) -> bytes:
    found = []
    at = 12
    while at + 8 <= len(data):
        name = data[at : at + 4]
        (length,) = struct.unpack("<I", data[at + 4 : at + 8])
        end = at + 8 + length + length % 2
        chunk = data[at:end]
        if name == b"VP8X":
            chunk = chunk[:8] + bytes([chunk[8] & ~_WEBP_FLAGS]) + chunk[9:]
        if name not in _WEBP_LEFT_OUT:
            found.append(chunk)
        at = end
    body = b"WEBP" + b"".join(found)
    return b"RIFF" + struct.pack("<I", len(body)) + body
