"""The built pages and their files, as they are sent; whoever only reads them needs no API."""

from collections.abc import Mapping
from pathlib import Path

from starlette.responses import FileResponse

FOLDER = Path(__file__).parent.parent / "web_dist"
_LASTING = "public, max-age=31536000, immutable"


class BuiltPages:
    """The files by their address: what is not among them is never looked for on the disk."""

    def __init__(self, folder: Path = FOLDER) -> None:
        self._files: Mapping[str, Path] = {
            path.relative_to(folder).as_posix(): path
            for path in folder.rglob("*")
            if path.is_file()
        }

    @property
    def are_built(self) -> bool:
        return "index.html" in self._files

    def response(self, path: str) -> FileResponse | None:
        """A built file, or the page itself for any place inside it; None where there is neither."""
        wanted = self._files.get(path)
        if wanted is not None:
            lasting = _LASTING if path.startswith("assets/") else "no-cache"
            return FileResponse(wanted, headers={"Cache-Control": lasting})
        is_file = path.startswith("assets/") or ("." in path and "/" not in path)
        if not self.are_built or is_file:
            return None
        return FileResponse(self._files["index.html"], headers={"Cache-Control": "no-cache"})
