"""The boundary checks see the code and fail on a planted violation."""

import ast
import importlib
import re
import shutil
import subprocess
import sys
from collections import defaultdict
from functools import cache
from pathlib import Path

import pytest

ROOT = Path(__file__).parent.parent
BIN = Path(sys.executable).parent
WEB_BIN = ROOT / "web" / "node_modules" / ".bin"


@pytest.fixture(scope="module")
def tree(tmp_path_factory):
    """A copy of both sources with their settings, to plant in."""
    copy = tmp_path_factory.mktemp("tree")
    shutil.copytree(
        ROOT / "src", copy / "src", ignore=shutil.ignore_patterns("web_dist", "__pycache__")
    )
    shutil.copy(ROOT / "pyproject.toml", copy)
    (copy / "web").mkdir()
    shutil.copytree(ROOT / "web" / "src", copy / "web" / "src")
    for name in (".dependency-cruiser.cjs", "tsconfig.json", "package.json"):
        shutil.copy(ROOT / "web" / name, copy / "web")
    (copy / "web" / "node_modules").symlink_to(ROOT / "web" / "node_modules")
    return copy


def python_boundaries(tree):
    env = {"PYTHONPATH": str(tree / "src"), "PATH": "/usr/bin:/bin"}
    return subprocess.run(
        [BIN / "lint-imports", "--no-cache"],
        cwd=tree,
        env=env,
        capture_output=True,
        text=True,
        check=False,
    )


def web_boundaries(tree):
    command = [WEB_BIN / "depcruise", "src", "--config", ".dependency-cruiser.cjs"]
    return subprocess.run(command, cwd=tree / "web", capture_output=True, text=True, check=False)


PLANTED = {
    "The core never looks out of the window": ("core/planted.py", "import sqlalchemy"),
    "Inside the core": ("core/geometry.py", "from kessik.core.comparison import matching"),
    "One direction of flow": ("store/planted.py", "from kessik.services import bench"),
    "SQLAlchemy only in the store": ("services/planted.py", "import sqlalchemy"),
    "Service areas have an order": (
        "services/shelf/checks.py",
        "from kessik.services.trials import plans",
    ),
    "Presenting has a room: routers ask views, views fill schemas": (
        "api/schemas/common.py",
        "from kessik.api.views import stock",
    ),
    "Sentences are composed in views": (
        "api/routers/bench.py",
        "from kessik.core.words import lives",
    ),
    "Routers know nothing of each other": (
        "api/routers/bench.py",
        "from kessik.api.routers import trials",
    ),
}


def test_a_planted_import_breaks_its_contract(tree):
    kept = {}
    for file, line in PLANTED.values():
        path = tree / "src" / "kessik" / file
        kept.setdefault(path, path.read_text() if path.exists() else None)
        path.write_text(f"{path.read_text() if path.exists() else ''}\n{line}\n")
    try:
        found = python_boundaries(tree)
    finally:
        for path, before in kept.items():
            path.unlink() if before is None else path.write_text(before)
    assert found.returncode != 0
    for contract, (file, _) in PLANTED.items():
        assert f"{contract} BROKEN" in found.stdout, contract
        assert file.removesuffix(".py").replace("/", ".") in found.stdout, file


def test_the_core_may_not_look_at_the_machine(tree):
    planted = tree / "src" / "kessik" / "core" / "planted.py"
    planted.write_text(
        '"""Planted."""\n\nimport os\nfrom datetime import datetime\n\nPLACE, TIME = os.sep,'
        " datetime\n"
    )
    found = subprocess.run(
        [BIN / "ruff", "check", "src", "--no-cache"],
        cwd=tree,
        capture_output=True,
        text=True,
        check=False,
    )
    planted.unlink()
    assert found.stdout.count("TID251") == 2


def test_no_class_name_means_two_things():
    named = defaultdict(set)
    for path in (ROOT / "src" / "kessik").rglob("*.py"):
        for node in ast.walk(ast.parse(path.read_text())):
            if isinstance(node, ast.ClassDef):
                named[node.name].add(path.name)
    assert len(named) > 500
    assert {name: where for name, where in named.items() if len(where) > 1} == {}


def test_nothing_is_broken_in_the_tree_itself(tree):
    contracts = (ROOT / "pyproject.toml").read_text().count("[[tool.importlinter.contracts]]")
    assert f"{contracts} kept, 0 broken" in python_boundaries(tree).stdout
    clean = web_boundaries(tree)
    assert clean.returncode == 0, clean.stdout
    assert int(clean.stdout.split("(")[1].split(" modules")[0]) > 40, (
        "the checker really saw the modules"
    )


PLANTED_ON_THE_WEB = {
    "domain-pure": (
        "domain/planted.ts",
        'import { api } from "../api/client";\nexport const x = api;',
    ),
    "features-apart": (
        "features/cut/planted.ts",
        'import { Today } from "../today/Today";\nexport const x = Today;',
    ),
    "radix-in-ui": (
        "charts/planted.ts",
        'import { Dialog } from "radix-ui";\nexport const x = Dialog;',
    ),
    "parts-below-features": (
        "ui/planted.ts",
        'import { Today } from "../features/today/Today";\nexport const x = Today;',
    ),
}


def test_a_planted_web_import_breaks_its_rule(tree):
    planted = {tree / "web" / "src" / file: line for file, line in PLANTED_ON_THE_WEB.values()}
    for file, line in planted.items():
        file.write_text(line + "\n")
    found = web_boundaries(tree)
    for file in planted:
        file.unlink()
    assert found.returncode != 0
    for rule, (file, _) in PLANTED_ON_THE_WEB.items():
        assert f"{rule}: src/{file}" in found.stdout, rule


CORE = ROOT / "src" / "kessik" / "core"
PACKAGES = sorted({file.parent for file in CORE.rglob("__init__.py")} - {CORE})


@cache
def sources():
    """Every module by its file."""
    return {file: file.read_text(encoding="utf-8") for file in (ROOT / "src").rglob("*.py")}


def asked_for(package):
    """The modules of a package of the core that something outside of it imports."""
    dotted = ".".join(package.relative_to(ROOT / "src").parts).replace(".", r"\.")
    whole = re.compile(rf"{dotted}\.(\w+)")
    from_it = re.compile(rf"from {dotted} import ([\w, ]+)")
    modules = {path.stem for path in package.iterdir()}
    found = set()
    for file, text in sources().items():
        if package not in file.parents:
            found |= set(whole.findall(text))
            found |= {each.strip() for said in from_it.findall(text) for each in said.split(",")}
    return found & modules


@pytest.mark.parametrize("package", PACKAGES, ids=lambda package: package.name)
def test_a_package_of_the_core_is_met_by_its_face(package):
    dotted = ".".join(package.relative_to(ROOT / "src").parts)
    assert set(importlib.import_module(dotted).__all__) == asked_for(package)


def test_no_test_leans_on_another_test():
    leaning = re.compile(r"from tests\.[\w.]*test_\w+ import")
    for file in (ROOT / "tests").rglob("*.py"):
        assert not leaning.search(file.read_text(encoding="utf-8")), f"{file}: use tests/helpers"
