"""The guide: every link, picture and term of it holds, and the pages are what its files say."""

import re

import pytest
from tools.guide import FOLDER, guide_pages

from kessik.core.glossary import TERMS

ROOT = FOLDER.parent.parent
PAGES = {page.slug: page for page in guide_pages()}
ROUTES = re.findall(r'path="(/[^"]*)"', (ROOT / "web/src/app/App.tsx").read_text())
ASKED = {"/": {"trial", "results", "practice"}, "/soak": {"soak"}}


@pytest.mark.parametrize("slug", PAGES)
def test_every_link_leads_somewhere(slug):
    for address in re.findall(r'href="([^"]+)"', PAGES[slug].html):
        path, _, query = address.partition("?")
        if path.startswith("/guide/"):
            assert path.removeprefix("/guide/") in PAGES
            continue
        assert path in ROUTES, address
        for name, value in re.findall(r"(\w+)=(\w+)", query):
            assert name == "new" and value in ASKED[path]  # noqa: PT018 - one address


@pytest.mark.parametrize("slug", PAGES)
def test_every_picture_is_there(slug):
    for name in re.findall(r'<img src="([^"]+)"', PAGES[slug].html):
        assert (ROOT / "docs" / "screenshots" / name).is_file()


def test_every_job_is_a_page_with_something_to_do_now():
    for page in PAGES.values():
        if page.slug not in ("terms", "how-kessik-computes"):
            assert "Do it now: " in page.html, page.slug


def test_every_term_on_screen_is_explained():
    assert set(PAGES["terms"].terms) == set(TERMS)
    on_jobs = {term for page in PAGES.values() if page.slug != "terms" for term in page.terms}
    assert on_jobs >= set(TERMS)


def test_every_bold_word_of_a_page_is_a_term():
    """What is bold can be asked about: one way to mark a term, and no term misspelt."""
    for page in PAGES.values():
        for bold in re.findall(r"<strong>([^<]+)</strong>", page.html):
            assert bold in TERMS or bold in HEADS, f"{page.slug}: {bold}"


HEADS = {
    "Line-up", "Plan", "Cut", "Verdict", "Hardness", "Thickness behind the edge", "Angle",
    "Edge finish", "Length of edge in use",
}  # fmt: skip  # what begins a point of a list
