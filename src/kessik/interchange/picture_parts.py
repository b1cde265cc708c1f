"""The parts that a picture's file is made of, walked and counted before anything is decoded: files
of millions of empty parts, or of hundreds of scans over the same pixels, are no pictures.

Formats: JPEG (ITU-T T.81, markers), PNG (ISO/IEC 15948, chunks), WebP (RIFF container); from
memory.
"""

import struct
from collections.abc import Iterator

import numpy as np

_PNG_HEAD = b"\x89PNG\r\n\x1a\n"
_MOST_PARTS, _MOST_SCANS = 20_000, 60
"""A picture of 40 MB has 10,000 chunks of 4 kB; an encoder makes a dozen progressive scans."""
SCAN, END = 0xDA, 0xD9
_WITHOUT_LENGTH = frozenset({0x01, *range(0xD0, 0xD9)})


def parts_of(data: bytes) -> Iterator[tuple[bytes, bytes]]:
    """Each part of a picture with its name: a JPEG marker, or the name of a chunk; what stands
    behind the end is left out.

    ValueError where the picture breaks off, or has more parts than any picture.
    """
    parts = _parts(data)
    scans = 0
    for count, part in enumerate(parts):
        scans += part[0] == bytes([SCAN])
        if count >= _MOST_PARTS or scans > _MOST_SCANS:
            raise ValueError("the picture has more parts than any picture")
        yield part


def check_parts(data: bytes) -> None:
    """ValueError where something has more parts than any picture, or breaks off."""
    for _ in parts_of(data):
        pass


def _parts(data: bytes) -> Iterator[tuple[bytes, bytes]]:
    if data.startswith(b"\xff\xd8"):
        return _jpeg_parts(data)
    if data.startswith(_PNG_HEAD):
        return _png_parts(data)
    if data.startswith(b"RIFF") and data[8:12] == b"WEBP":
        return _webp_parts(data)
    return iter(())


def _jpeg_parts(data: bytes) -> Iterator[tuple[bytes, bytes]]:
    markers = _markers(data)
    at = 2
    while at + 2 <= len(data):
        marker = data[at + 1]
        end = at + 2
        if marker != END and marker not in _WITHOUT_LENGTH:
            (length,) = struct.unpack(">H", data[at + 2 : at + 4])
            end = at + 2 + length
        if marker == SCAN:
            end = _next(markers, end)
        yield bytes([marker]), data[at:end]
        if marker == END:
            return
        at = end
    raise ValueError("the picture breaks off")


def _markers(data: bytes) -> np.ndarray:
    """Where markers may stand: all but those inside of coded pixels."""
    found = np.frombuffer(data, np.uint8)
    first, second = found[:-1], found[1:]
    is_coded = (second == 0x00) | (second == 0xFF) | ((second >= 0xD0) & (second <= 0xD7))
    return np.flatnonzero((first == 0xFF) & ~is_coded)


def _next(markers: np.ndarray, at: int) -> int:
    place = int(np.searchsorted(markers, at))
    if place == len(markers):
        raise ValueError("the picture breaks off")
    return int(markers[place])


def _png_parts(data: bytes) -> Iterator[tuple[bytes, bytes]]:
    at = len(_PNG_HEAD)
    while at < len(data):
        (length,) = struct.unpack(">I", data[at : at + 4])
        name = data[at + 4 : at + 8]
        yield name, data[at : at + length + 12]
        if name == b"IEND":
            return
        at += length + 12
    raise ValueError("the picture breaks off")


def _webp_parts(data: bytes) -> Iterator[tuple[bytes, bytes]]:
    at = 12
    while at + 8 <= len(data):
        (length,) = struct.unpack("<I", data[at + 4 : at + 8])
        end = at + 8 + length + length % 2
        yield data[at : at + 4], data[at:end]
        at = end
