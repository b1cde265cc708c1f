"""Pictures belong to whatever shows them, and shots wait until they are used."""

import io
import struct
import time
from datetime import UTC, datetime, timedelta

import numpy as np
import pytest
from PIL import Image

from kessik.core.errors import UnknownError
from kessik.core.moments import Moment
from kessik.instruments.stand_ins.others import write_shot
from kessik.interchange.photos import decode_photo
from kessik.interchange.picture_privacy import without_place
from kessik.interchange.shots_csv import read_shots
from kessik.services.devices.shots import keep_shots
from kessik.services.pictures.storing import delete_unused, keep_picture, picture_file
from kessik.services.soaks.soaks import picture_clock_h
from tests.helpers.pictures import picture

NOW = datetime(2026, 5, 4, 10, tzinfo=UTC)


@pytest.fixture
def look(hand):
    """A look under the lamp; called with a picture's hash, it is logged with it."""
    (blade, edge), *_ = hand.make_trial("A", "B", school="push_cut_board")
    run = hand.start(edge)
    hand.blade = blade
    return lambda content: hand.judge(run, "clean", 0, "inspect", picture=content)


def test_a_picture_stays_as_long_as_anything_shows_it(hand, database, look):
    camera = keep_picture(database, picture(), NOW.isoformat())
    look(camera.hash)
    sent = {"photo": ("a.png", picture())}
    assert hand.client.post(f"/api/blades/{hand.blade}/photos", files=sent).status_code == 200
    hand.client.delete(f"/api/blades/{hand.blade}/photos/{camera.hash}")
    delete_unused(database, NOW + timedelta(days=9))
    assert hand.client.get(f"/api/pictures/{camera.hash}").content == picture()


def test_a_picture_that_no_look_took_up_goes_after_a_day(database):
    unused = keep_picture(database, picture(90), NOW.isoformat())
    delete_unused(database, NOW + timedelta(hours=23))
    _, path = picture_file(database, unused.hash)
    delete_unused(database, NOW + timedelta(hours=25))
    assert not path.exists()
    with pytest.raises(UnknownError):
        picture_file(database, unused.hash)


def test_a_picture_that_goes_with_its_blade_leaves_one_that_waits(client, database):
    in_two_days = datetime.now(UTC) + timedelta(days=2)
    waits = keep_picture(database, picture(60), in_two_days.isoformat())
    client.put("/api/blades/blade-gone", json={"id": "blade-gone", "code": "A"})
    sent = {"photo": ("a.png", picture(70))}
    shown = client.post("/api/blades/blade-gone/photos", files=sent).json()["hash"]
    assert client.delete("/api/blades/blade-gone").status_code == 204
    delete_unused(database, in_two_days)
    assert client.get(f"/api/pictures/{shown}").status_code == 200, "it can be brought back"
    (gone,) = client.get("/api/bin").json()
    assert client.delete(f"/api/bin/{gone['id']}").status_code == 204
    delete_unused(database, in_two_days)
    assert client.get(f"/api/pictures/{shown}").status_code == 404
    assert client.get(f"/api/pictures/{waits.hash}").status_code == 200


def test_a_picture_is_decoded_the_right_way_up_with_its_time():
    # Orientation 6: the camera lay on its side, a quarter turn clockwise puts it upright (Exif 2.3,
    # from memory).
    exif = Image.Exif()
    exif[0x0112], exif[0x0132] = 6, "2026:05:04 10:00:00"
    pixels = np.zeros((20, 30, 3), np.uint8)
    pixels[:10] = 200
    out = io.BytesIO()
    Image.fromarray(pixels).save(out, "PNG", exif=exif)
    found = decode_photo(out.getvalue())
    assert (found.size_px, found.turned_deg) == ((20, 30), 90)
    assert found.taken_at == "2026-05-04T10:00:00"
    assert found.rgb[:, 10:].min() == 200, "what was above is now on the right"
    assert found.rgb[:, :10].max() == 0


def test_shots_wait_once_and_are_said_today_until_they_are_put_aside(client, database, tmp_path):
    file = write_shot(tmp_path, "AV-01", "1", {"Cr": 14.1, "Mo": 0.5})
    for _ in range(2):
        table = read_shots(file.name, file.read_bytes())
        keep_shots(database, "xrf-0001", file.name, table, NOW.isoformat())
    (waiting,) = client.get("/api/shots").json()
    assert waiting["shots"] == {"AV-01": 1}
    says = [due["says"] for due in client.get("/api/today").json()["due"]]
    assert says == ["1 unused shot of AV-01"]
    assert client.delete(f"/api/shots/{waiting['id']}").status_code == 204
    assert client.delete(f"/api/shots/{waiting['id']}").status_code == 404
    assert client.get("/api/shots").json() == []


def test_nothing_written_into_a_jpeg_beside_the_picture_is_kept(database):
    plain = io.BytesIO()
    Image.fromarray(np.full((20, 30, 3), 90, np.uint8)).save(plain, "JPEG", quality=95)
    data = plain.getvalue()
    hidden = b"".join(
        b"\xff" + bytes([marker]) + struct.pack(">H", len(note) + 2) + note
        for marker, note in (
            (0xE0, b"JFXX\0secret"), (0xE2, b"FPXR\0secret"), (0xEE, b"secret"), (0xF3, b"secret"),
            (0xFE, b"secret"), (0xC8, b"secret"), (0xE0, b"JFIF\0" + b"\1\2\0\0\1\0\1\2\1secret"),
        )
    )  # fmt: skip
    kept = without_place(data[:2] + hidden + data[2:], "JPEG")
    assert b"secret" not in kept
    with Image.open(io.BytesIO(kept)) as one, Image.open(plain) as other:
        assert np.array_equal(np.asarray(one), np.asarray(other))


def test_a_camera_that_goes_on_past_summer_time_keeps_its_hours(monkeypatch):
    """By hand: 22:00 UTC to noon in Berlin on the next day, 11:00 UTC, is 13 hours."""
    monkeypatch.setenv("TZ", "Europe/Berlin")
    time.tzset()
    try:
        begun = Moment("2026-10-24T22:00:00+00:00", 120)
        assert picture_clock_h(begun, "2026-10-25T12:00:00") == pytest.approx(13.0)
        elsewhere = Moment("2026-10-24T22:00:00+00:00", -300)
        assert picture_clock_h(elsewhere, "2026-10-24T18:00:00") == pytest.approx(1.0)
    finally:
        monkeypatch.undo()
        time.tzset()
