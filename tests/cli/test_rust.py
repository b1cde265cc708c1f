"""`kessik rust`: a photograph in, the rusted area out."""

import json

import numpy as np
import pytest
from PIL import Image
from typer.testing import CliRunner

from kessik.cli.main import app
from kessik.instruments.virtual_bench.soaked_blade import OUTLINE, SoakedSide, photograph
from kessik.interchange.masks import mask_of_outlines

RUNNER = CliRunner()


@pytest.fixture
def photo(tmp_path):
    path = tmp_path / "av-01.jpg"
    path.write_bytes(photograph(SoakedSide(5, 3.0)))
    mask = mask_of_outlines([OUTLINE], (1120, 340))
    Image.fromarray(mask.astype(np.uint8) * 255).save(tmp_path / "mask.png")
    return path


def run(*words):
    return RUNNER.invoke(app, ["rust", *map(str, words)])


def test_the_answer_is_as_the_format_page_says(photo, tmp_path):
    overlay = tmp_path / "overlay.png"
    asked = (photo, "--mask", tmp_path / "mask.png", "--white-point", "560,30")
    found = json.loads(run(*asked, "--overlay", overlay, "--json").stdout)
    assert found["low"] <= found["rust_percent"] <= found["high"]
    assert found["rust_percent"] == pytest.approx(3.1, abs=0.4)
    assert found["rating"] == {"iso_10289": 4, "astm_d610": 4, "iso_4628_3": 4}
    assert found["overlay"] == str(overlay)
    assert Image.open(overlay).size[0] > 800
    assert found["pixels"] > 100_000
    assert "rust: 3." in run(*asked).stdout


def test_without_a_mask_the_outline_is_proposed_and_said(photo):
    found = json.loads(run(photo, "--json").stdout)
    assert found["mask"] == "proposed"
    assert "no_card" in found["doubts"]
    assert found["overlay"].startswith("data:image/png;base64,")


def test_what_cannot_be_is_refused_in_a_line(photo, tmp_path):
    small = tmp_path / "small.png"
    Image.new("L", (20, 20), 255).save(small)
    blank = tmp_path / "blank.png"
    Image.new("L", (1120, 340)).save(blank)
    notes = tmp_path / "notes.txt"
    notes.write_text("no picture")
    for asked, said in (
        ((photo, "--mask", small), "the mask has 20 × 20 pixels, the picture 1120 × 340"),
        ((photo, "--mask", blank), "hardly any of the blade lies in the mask"),
        ((photo, "--mask", notes), "this mask cannot be read as a picture"),
        ((notes,), "this is not a whole picture"),
        ((photo, "--white-point", "9000,1"), "lies outside of a picture"),
        ((photo, "--white-point", "here"), "write x,y in pixels"),
        ((tmp_path / "none.jpg",), "cannot be opened"),
    ):
        answer = run(*asked)
        assert answer.exit_code == 1
        assert said in answer.stderr
        assert "Traceback" not in answer.stderr
