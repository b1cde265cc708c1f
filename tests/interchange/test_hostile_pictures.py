"""Pictures that were made to hurt are refused before anything of them is decoded."""

import io

import pytest
from PIL import Image

from kessik.core.errors import RefusedFileError
from kessik.interchange.photos import read_photo
from tests.helpers.hostile_pictures import HOSTILE, of_a_phone


@pytest.mark.parametrize("make", HOSTILE, ids=lambda make: make.__name__)
def test_a_hostile_picture_costs_a_sentence(make):
    with pytest.raises(RefusedFileError) as refused:
        read_photo(make())
    assert "picture" in refused.value.message


def test_a_phones_picture_is_kept_without_the_one_behind_its_end():
    sent = of_a_phone()
    kept = read_photo(sent)
    assert (kept.media_type, kept.width_px, kept.height_px) == ("image/jpeg", 300, 200)
    assert len(kept.data) < len(sent) / 2 + 500
    with Image.open(io.BytesIO(kept.data)) as image:
        assert (image.format, image.getpixel((5, 5))) == ("JPEG", (90, 90, 90))
