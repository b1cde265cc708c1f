"""Pictures that were made to hurt whoever reads them."""

import io
import struct
from zlib import crc32

from PIL import Image


def _coded(kind, size=(64, 48), **options):
    made = io.BytesIO()
    Image.new("RGB", size, (120, 130, 140)).save(made, kind, **options)
    return made.getvalue()


def same_scan_again(times=300):
    """A progressive JPEG with its last scan again and again: each goes over all pixels."""
    whole = _coded("JPEG", progressive=True)
    last = whole.rindex(b"\xff\xda")
    return whole[:-2] + whole[last:-2] * times + b"\xff\xd9"


def empty_segments(count=3_000_000):
    """A JPEG of empty notes, which a reader lists one by one."""
    return _coded("JPEG")[:2] + b"\xff\xe1\x00\x02" * count + _coded("JPEG")[2:]


def empty_chunks(count=1_000_000):
    """A PNG of empty chunks."""
    whole = _coded("PNG")
    head = 8 + 25
    empty = b"\0\0\0\0teSt" + struct.pack(">I", crc32(b"teSt"))
    return whole[:head] + empty * count + whole[head:]


def larger_than_it_says():
    """A PNG head that tells of 60,000 by 60,000 pixels."""
    whole = bytearray(_coded("PNG"))
    whole[16:24] = struct.pack(">II", 60_000, 60_000)
    whole[29:33] = struct.pack(">I", crc32(bytes(whole[12:29])))
    return bytes(whole)


def breaks_off():
    """A JPEG without its end."""
    return _coded("JPEG", (400, 300))[:-200]


def with_a_page_of_script():
    """A drawing, which a browser would run."""
    return b'<svg xmlns="http://www.w3.org/2000/svg"><script>alert(1)</script></svg>'


HOSTILE = (
    same_scan_again, empty_segments, empty_chunks, larger_than_it_says, breaks_off,
    with_a_page_of_script,
)  # fmt: skip  # names, several a line


def of_a_phone():
    """A JPEG with a second picture behind its end, as phones write them; and its first part."""
    made = io.BytesIO()
    first, second = (Image.new("RGB", (300, 200), c) for c in ((90, 90, 90), (200, 9, 9)))
    first.save(made, "MPO", save_all=True, append_images=[second])
    return made.getvalue()
