"""Colour: from what a camera codes to light, and from light to what an eye tells apart.

References
----------
[1] IEC 61966-2-1, sRGB.
[2] CIE 15, colorimetry: L*a*b*; CIE 142 and ISO/CIE 11664-6: CIEDE2000.
"""

import numpy as np
from numpy.typing import NDArray

Array = NDArray[np.float32]
Doubles = NDArray[np.float64]
Codes = NDArray[np.uint8]
"""sRGB codes of a picture, (h, w, 3)."""

LUMINANCE = np.array([0.2126, 0.7152, 0.0722], np.float32)
_TO_XYZ = np.array(
    [[0.4124, 0.3576, 0.1805], [0.2126, 0.7152, 0.0722], [0.0193, 0.1192, 0.9505]]
)  # [1]
_WHITE = np.array([0.95047, 1.0, 1.08883])  # [1], D65


def _decoded(coded: Doubles) -> Doubles:
    low = coded / 12.92
    high = ((coded + 0.055) / 1.055) ** 2.4
    return np.where(coded <= 0.04045, low, high)


LIGHT_OF_CODE = _decoded(np.arange(256) / 255).astype(np.float32)
"""Linear light, 0 to 1, of each of the 256 codes of a channel [1]."""


def lab(linear_rgb: Doubles) -> Doubles:
    """L*a*b* of linear sRGB light of shape (…, 3), white at 1, for D65 [2]."""
    xyz = np.asarray(linear_rgb) @ _TO_XYZ.T / _WHITE
    small = 6 / 29
    root = np.where(xyz > small**3, np.cbrt(xyz), xyz / (3 * small**2) + 4 / 29)
    x, y, z = np.moveaxis(root, -1, 0)
    return np.stack([116 * y - 16, 500 * (x - y), 200 * (y - z)], axis=-1)


def colour_difference(one: Doubles, other: Doubles) -> Doubles:
    """CIEDE2000 between L*a*b* colours of shape (…, 3) [2]; about 1 is just seen, side by side."""
    l1, a1, b1 = np.moveaxis(np.asarray(one, float), -1, 0)
    l2, a2, b2 = np.moveaxis(np.asarray(other, float), -1, 0)
    mean_chroma7 = ((np.hypot(a1, b1) + np.hypot(a2, b2)) / 2) ** 7
    greyer = 1.5 - 0.5 * np.sqrt(mean_chroma7 / (mean_chroma7 + 25.0**7))
    c1, c2 = np.hypot(a1 * greyer, b1), np.hypot(a2 * greyer, b2)
    h1 = np.degrees(np.arctan2(b1, a1 * greyer)) % 360
    h2 = np.degrees(np.arctan2(b2, a2 * greyer)) % 360
    coloured = c1 * c2 > 0
    turn = np.where(coloured, (h2 - h1 + 180) % 360 - 180, 0.0)
    hue = np.where(coloured, (h1 + turn / 2) % 360, h1 + h2)
    dl, dc = l2 - l1, c2 - c1
    dh = 2 * np.sqrt(c1 * c2) * np.sin(np.radians(turn / 2))
    light, chroma = (l1 + l2) / 2, (c1 + c2) / 2
    t = (
        1
        - 0.17 * np.cos(np.radians(hue - 30))
        + 0.24 * np.cos(np.radians(2 * hue))
        + 0.32 * np.cos(np.radians(3 * hue + 6))
        - 0.20 * np.cos(np.radians(4 * hue - 63))
    )
    s_l = 1 + 0.015 * (light - 50) ** 2 / np.sqrt(20 + (light - 50) ** 2)
    s_c, s_h = 1 + 0.045 * chroma, 1 + 0.015 * chroma * t
    around_blue = 30 * np.exp(-(((hue - 275) / 25) ** 2))
    r_c = 2 * np.sqrt(chroma**7 / (chroma**7 + 25.0**7))
    r_t = -r_c * np.sin(np.radians(2 * around_blue))
    parts = (dl / s_l) ** 2 + (dc / s_c) ** 2 + (dh / s_h) ** 2
    return np.asarray(np.sqrt(parts + r_t * (dc / s_c) * (dh / s_h)))
