"""Pictures, by the hash of their content."""

from fastapi import APIRouter
from fastapi.responses import FileResponse

from kessik.api.dependencies import Store
from kessik.api.schemas.common import PictureHash
from kessik.interchange.photos import media_type_of
from kessik.services.pictures.storing import picture_file

router = APIRouter(tags=["pictures"])


@router.get(
    "/pictures/{content_hash}",
    responses={200: {"content": {"image/*": {}}}},
    response_class=FileResponse,
)
def get_picture(content_hash: PictureHash, store: Store) -> FileResponse:
    """A picture as it is kept."""
    picture, path = picture_file(store, content_hash)
    if not picture.media_type:
        with path.open("rb") as file:
            media_type = media_type_of(file.read(16))
    headers = {
        "Cache-Control": "private, max-age=31536000, immutable",
        "X-Content-Type-Options": "nosniff",
    }
    return FileResponse(path, media_type=picture.media_type or media_type, headers=headers)
