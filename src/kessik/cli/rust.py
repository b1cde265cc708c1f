"""`kessik rust`: a photograph in, the rusted area out; no store is opened."""

import base64
import json
import sys
from collections.abc import Sequence
from pathlib import Path
from typing import Annotated, Any

import typer

from kessik.cli.options import Json
from kessik.cli.refusals import refusing
from kessik.core.corrosion.course import Bounds
from kessik.core.corrosion.measuring import Ends
from kessik.core.corrosion.photo.area import Choices
from kessik.core.corrosion.photo.outline import Unsure
from kessik.core.errors import Fault, OutOfRangeError, RefusedFileError
from kessik.core.limits import LIMITS
from kessik.core.words.rust import (
    UNSURE_WORDS,
    area_words,
    doubts_words,
    percent_words,
    rating_words,
)
from kessik.interchange.masks import mask_of_outlines, png_of, read_mask
from kessik.interchange.photos import decode_photo, read_photo
from kessik.services.soaks.rust import RustReading, overlay_of, proposed_outline, read_masked

app = typer.Typer()


@app.command()
def rust(
    photo: Annotated[Path, typer.Argument(help="A JPEG, PNG or WebP.", show_default=False)],
    mask: Annotated[
        Path | None,
        typer.Option(help="The blade, white on black, of the picture's size.", show_default=False),
    ] = None,
    white_point: Annotated[
        str | None,
        typer.Option(help="x,y of a pixel on the white card.", show_default=False),
    ] = None,
    ends: Annotated[
        str | None,
        typer.Option(
            help="x,y of the plunge line and x,y of the tip, as 210,400 930,380.",
            show_default=False,
        ),
    ] = None,
    threshold: Annotated[
        float, typer.Option(help="Share of a pixel from which it counts as rusted.")
    ] = 0.5,
    overlay: Annotated[
        Path | None,
        typer.Option(help="Write the overlay there, as PNG.", show_default=False),
    ] = None,
    as_json: Json = False,
) -> None:
    """How much of a blade has rusted, measured in a photograph."""
    with refusing():
        picture = decode_photo(read_photo(_bytes(photo)).data)
        unsure: tuple[Unsure, ...] = ()
        if mask is None:
            outline, unsure = proposed_outline(picture, _ends(ends) if ends else None)
            blade = mask_of_outlines([outline], picture.size_px)
        else:
            blade = read_mask(mask.name, _bytes(mask))
        white = _point(white_point) if white_point else None
        found = read_masked(picture.rgb, blade, white, choices=Choices(threshold))
        drawn = png_of(overlay_of(picture.rgb, found, threshold))
        if overlay is not None:
            overlay.write_bytes(drawn)
    if as_json:
        where = str(overlay) if overlay else _data_url(drawn)
        answer = {
            **_answer(found),
            "mask": "given" if mask else "proposed",
            "unsure": list(unsure),
            "overlay": where,
        }
        sys.stdout.write(json.dumps(answer, ensure_ascii=False, indent=2, allow_nan=False) + "\n")
        return
    sys.stdout.write("\n".join(_lines(found, unsure, proposed=mask is None)) + "\n")


def _answer(found: RustReading) -> dict[str, Any]:
    area = found.area
    return {
        "rust_percent": None if area.rust_percent is None else round(area.rust_percent, 4),
        "low": round(area.low, 4),
        "high": round(area.high, 4),
        "stain_percent": round(area.stain_percent, 4),
        "rating": {each.standard: each.grade for each in found.ratings},
        "rating_between": {each.standard: [each.worst, each.best] for each in found.ratings},
        "pixels": area.pixels,
        "doubts": list(area.doubts),
        "warnings": doubts_words(area.doubts),
    }


def _lines(found: RustReading, unsure: Sequence[Unsure], *, proposed: bool) -> list[str]:
    area = found.area
    bounds = Bounds(area.low, area.high, area.rust_percent)
    said = f"rust: {area_words(bounds)}"
    if area.rust_percent is None:
        said = f"rust: colour alone cannot say; between {area_words(bounds)}"
    lines = [said, f"stain: {percent_words(area.stain_percent)} %"]
    lines += [rating_words(each) for each in found.ratings]
    if proposed:
        lines.append("The outline of the blade was proposed, not drawn: look at the overlay.")
    if unsure:
        lines += [UNSURE_WORDS[each] for each in unsure]
        lines.append("Give both ends of the blade with --ends.")
    return lines + doubts_words(area.doubts)


def _bytes(path: Path) -> bytes:
    try:
        size = path.stat().st_size
        if size > LIMITS["picture_mb"].most * 1e6:
            said = LIMITS["picture_mb"].says(f"{size / 1e6:.0f}")
            raise RefusedFileError([Fault(path.name, 1, "", said)])
        return path.read_bytes()
    except OSError as error:
        sys.stderr.write(f"{path}: cannot be opened: {error.strerror}\n")
        raise typer.Exit(1) from error


def _ends(text: str) -> Ends:
    points = text.split()
    if len(points) != 2:
        raise OutOfRangeError(
            f"{text} is not two points; write the plunge line and the tip, as 210,400 930,380",
            field="ends",
        )
    return Ends(*map(_point, points))


def _point(text: str) -> tuple[float, float]:
    try:
        x, y = text.replace(";", ",").split(",")
        return float(x), float(y)
    except ValueError as wrong:
        raise OutOfRangeError(
            f"{text} is not a point; write x,y in pixels, as 640,80", field="white_point"
        ) from wrong


def _data_url(png: bytes) -> str:
    return "data:image/png;base64," + base64.b64encode(png).decode()
