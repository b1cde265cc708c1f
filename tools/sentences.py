"""Prints every sentence, label and error that a tester can read, with where it stands: to be read
through in one sitting. `make words` runs it for both sides.
"""

import ast
import subprocess
import sys
from collections.abc import Iterator
from pathlib import Path

ROOT = Path(__file__).parents[1]
PYTHON = ROOT / "src/kessik"
ROOMS = ("core", "services", "instruments", "interchange", "api", "cli", "demo")
_CODE = ("SELECT ", "INSERT ", "http", "%(", "ALTER ")


def main() -> None:
    for room in ROOMS:
        for file in sorted((PYTHON / room).rglob("*.py")):
            for line, text in sentences(file.read_text(encoding="utf-8")):
                sys.stdout.write(f"{file.relative_to(ROOT)}:{line}: {text}\n")
    sys.stdout.flush()
    subprocess.run(["node", "tools/sentences.mjs"], cwd=ROOT / "web", check=True)


def sentences(source: str) -> Iterator[tuple[int, str]]:
    """Texts with a blank in them that are no docstring, by line; what is put in stands as {…}."""
    tree = ast.parse(source)
    inside = {
        id(part)
        for node in ast.walk(tree)
        if isinstance(node, ast.JoinedStr)
        for part in node.values
    }
    docstrings = {
        id(node.value)
        for node in ast.walk(tree)
        if isinstance(node, ast.Expr) and isinstance(node.value, ast.Constant)
    }
    for node in ast.walk(tree):
        text = _text(node)
        if id(node) in inside | docstrings or " " not in text.strip():
            continue
        if not text.startswith(_CODE) and any(c.isalpha() for c in text):
            yield node.lineno, text.replace("\n", " ")


def _text(node: ast.AST) -> str:
    if isinstance(node, ast.JoinedStr):
        parts = (v.value if isinstance(v, ast.Constant) else "{…}" for v in node.values)
        return "".join(str(part) for part in parts)
    return node.value if isinstance(node, ast.Constant) and isinstance(node.value, str) else ""


if __name__ == "__main__":
    main()
