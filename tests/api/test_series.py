"""A time-lapse: what was outlined in one picture, several coupons of it, is measured in all."""

import io
from datetime import timedelta

import numpy as np
import pytest
from PIL import Image

from kessik.instruments.virtual_bench.soaked_blade import (
    OUTLINE,
    WHITE_POINT,
    SoakedSide,
    photograph,
)
from kessik.interchange.photos import decode_photo
from kessik.services.clock import now
from kessik.services.soaks.series import read_series
from kessik.services.work import ImportWork
from tests.helpers.soaking import BEGUN, Soaking, new_id

HIGH_PX = 340
TAKEN, TIMES = 0x9003, 0x8769


def frame(hours, *rusted, moved_px=0):
    """A picture of coupons one below the other, taken so many hours after the start."""
    sides = [decode_photo(photograph(SoakedSide(5 + n, r))).rgb for n, r in enumerate(rusted)]
    codes = np.roll(np.concatenate(sides), (moved_px, -moved_px), (0, 1))
    when = (BEGUN + timedelta(hours=hours, minutes=60)).strftime("%Y:%m:%d %H:%M:%S")
    exif = Image.Exif()
    exif.get_ifd(TIMES)[TAKEN] = when
    out = io.BytesIO()
    Image.fromarray(codes).save(out, "JPEG", quality=92, exif=exif)
    return out.getvalue()


def outlined(place):
    down = place * HIGH_PX
    return {
        "outline": [[x, y + down] for x, y in OUTLINE],
        "white_point": [WHITE_POINT[0], WHITE_POINT[1] + down],
    }


@pytest.fixture
def lapse(client):
    """A soak with four pictures of A above B, both measured in the first."""
    soaking = Soaking(client)
    frames = [(2, 0.5, 1.0), (4, 1.5, 2.0), (4.2, 2.0, 3.0), (8, 3.0, 6.0)]
    hashes = []
    for n, (hours, *rusted) in enumerate(frames):
        (kept,) = soaking.ok(soaking.picture(frame(hours, *rusted, moved_px=3 * n)))
        hashes.append(kept["hash"])
    for place, name in enumerate("AB"):
        soaking.ok(soaking.look(name, "left", "as_found", 2, picture=hashes[0], how="photo",
                                measuring=outlined(place)))  # fmt: skip
    return soaking, hashes


def read(soaking, picture):
    body = {"picture": picture, "import_id": new_id()}
    return soaking.client.post(f"/api/soaks/{soaking.id}/series", json=body)


def test_every_picture_of_the_series_is_measured_at_its_own_hour(lapse):
    soaking, hashes = lapse
    told = soaking.ok(read(soaking, hashes[0]))
    assert told == {"pictures": 3, "looks": 6, "not_read": [], "is_cancelled": False}
    sheet = soaking.sheet()
    assert sheet["pictures"] == []
    for place, name in enumerate("AB"):
        own = [look for look in sheet["looks"] if look["coupon_id"] == soaking.coupons[name]]
        own.sort(key=lambda look: look["clock_h"])
        assert [look["clock_h"] for look in own] == pytest.approx([2, 4, 4.2, 8], abs=0.01)
        by_hand = [
            soaking.ok(soaking.client.post(f"/api/pictures/{kept}/rust", json=outlined(place)))
            for kept in hashes
        ]
        for look, hand in zip(own, by_hand, strict=True):
            assert look["rust_percent"] == pytest.approx(hand["rust_percent"], rel=0.15, abs=0.1)
    assert read(soaking, hashes[0]).status_code == 409, "nothing waits any more"
    assert len(soaking.sheet()["looks"]) == 8


def test_a_picture_of_something_else_is_left_and_said(lapse):
    soaking, hashes = lapse
    noise = np.random.default_rng(1).integers(0, 255, (2 * HIGH_PX, 1120, 3), np.uint8)
    exif = Image.Exif()
    exif.get_ifd(TIMES)[TAKEN] = (BEGUN + timedelta(hours=6)).strftime("%Y:%m:%d %H:%M:%S")
    out = io.BytesIO()
    Image.fromarray(noise).save(out, "JPEG", exif=exif)
    (other,) = soaking.ok(soaking.picture(out.getvalue()))
    told = soaking.ok(read(soaking, hashes[0]))
    assert told["pictures"] == 3
    assert [left["picture"] for left in told["not_read"]] == [other["hash"]]
    assert "cannot be laid over" in told["not_read"][0]["why"]
    assert [p["hash"] for p in soaking.sheet()["pictures"]] == [other["hash"]]


def test_stopped_it_keeps_what_was_measured_and_goes_on_from_there(lapse, database):
    soaking, hashes = lapse
    stopped = read_series(database, soaking.id, hashes[0], now(), _stops_after_one())
    assert (stopped.is_cancelled, stopped.pictures) == (True, 2)
    rest = soaking.ok(read(soaking, hashes[0]))
    assert (rest["pictures"], rest["is_cancelled"]) == (1, False)
    assert len(soaking.sheet()["looks"]) == 8


def _stops_after_one():
    """Work that is cancelled while its first pictures are measured."""

    class Stopping(ImportWork):
        def step(self, by=1):
            if by:
                self.cancel()
            super().step(by)

    return Stopping()


def test_without_an_outline_there_is_nothing_to_carry(client):
    soaking = Soaking(client)
    (kept,) = soaking.ok(soaking.picture(frame(2, 1.0)))
    refused = read(soaking, kept["hash"])
    assert (refused.status_code, refused.json()["field"]) == (409, "picture")
    assert "outline each coupon in it first" in refused.json()["detail"]
