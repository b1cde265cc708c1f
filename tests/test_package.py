"""The wheel carries the built pages, and the README names only commands that exist."""

import re
import subprocess
import sys
import zipfile
from pathlib import Path

from kessik.cli.commands import COMMANDS, JOBS, loaded
from kessik.cli.manual import manual

ROOT = Path(__file__).parent.parent


def test_the_wheel_serves_without_node(tmp_path):
    build = [sys.executable, "-m", "hatchling", "build", "-t", "wheel", "-d", str(tmp_path)]
    subprocess.run(build, cwd=ROOT, check=True, capture_output=True)
    (wheel,) = tmp_path.glob("*.whl")
    names = zipfile.ZipFile(wheel).namelist()
    assert "kessik/web_dist/index.html" in names
    assert any(
        name.startswith("kessik/web_dist/assets/") and name.endswith(".js") for name in names
    )
    assert any(name.endswith(".woff2") for name in names)
    assert any(name.endswith("share/man/man1/kessik.1") for name in names)
    assert "kessik/store/migrations/versions/0001_the_first_tables.py" in names


def test_pages_and_deep_links_are_served(client):
    page = client.get("/")
    assert page.status_code == 200
    assert client.get("/trials/anything/line-up").text == page.text
    (script,) = re.findall(r'src="(/assets/[^"]+\.js)"', page.text)
    assert "immutable" in client.get(script).headers["cache-control"]
    assert client.get("/assets/none.js").status_code == 404
    assert client.get("/../pyproject.toml").status_code in (400, 404)


def test_no_page_asks_another_host():
    for path in (ROOT / "src" / "kessik" / "web_dist").rglob("*.css"):
        assert not re.search(r"url\((?!\"?/|\"?data:)", path.read_text())


def test_the_readme_names_real_commands():
    readme = (ROOT / "README.md").read_text()
    targets = set(re.findall(r"^([a-z]+):.*##", (ROOT / "Makefile").read_text(), re.M))
    assert set(re.findall(r"`make ([a-z]+)`", readme)) <= targets
    assert set(re.findall(r"`kessik ([a-z][a-z-]*)", readme)) == set(COMMANDS)


def test_what_is_listed_of_a_command_is_what_it_says_itself():
    for name, listed in COMMANDS.items():
        assert " ".join(loaded(name).help.split()) == listed.does


def test_the_manual_page_is_current_and_whole():
    """`make manual` writes it anew."""
    page = (ROOT / "docs" / "kessik.1").read_text(encoding="utf-8")
    assert page == manual()
    for name in COMMANDS:
        assert f'.SS "kessik {name}'.replace("-", "\\-") in page


def test_commands_are_listed_by_their_job():
    help_ = subprocess.run(
        [sys.executable, "-m", "kessik.cli.main", "--help"],
        check=True, capture_output=True, text=True,
    ).stdout  # fmt: skip
    places = [help_.index(job) for job in JOBS]
    assert places == sorted(places)
    assert "--install-completion" in help_


def test_listing_the_commands_loads_none_of_what_they_need():
    listed = "import sys; from kessik.cli.main import app; app(['--help'], standalone_mode=False)"
    heavy = f"{listed}; print({{'numpy', 'sqlalchemy', 'fastapi'}} & set(sys.modules))"
    said = subprocess.run([sys.executable, "-c", heavy], check=True, capture_output=True, text=True)
    assert said.stdout.endswith("set()\n")
