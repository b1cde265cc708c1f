"""Files to save."""

from urllib.parse import quote

from fastapi import Response


def attached(data: bytes, media_type: str, name: str) -> Response:
    """A file to save, under a name that may hold any letters."""
    headers = {"Content-Disposition": f"attachment; filename*=UTF-8''{quote(name)}"}
    return Response(data, media_type=media_type, headers=headers)
