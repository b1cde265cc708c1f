"""One vocabulary: the lists of the core are whole, and nobody has a list of their own."""

import re
from pathlib import Path
from typing import get_args

import pytest

from kessik.api.contract import words_module
from kessik.core.vocabulary import TABLES

ROOT = Path(__file__).parents[1]
OPTION = re.compile(r'<Option value="[^"]')


@pytest.mark.parametrize("name", TABLES)
def test_a_list_has_a_label_for_every_word_of_its_type(name):
    kind, labels = TABLES[name]
    if kind is not None:
        assert set(labels) <= set(get_args(kind))
        # a word that is never offered anew may lack a label, and none does by mistake
        assert set(get_args(kind)) - set(labels) == set()
    assert all(label.strip() and label[0] != " " for label in labels.values())
    assert len(set(labels.values())) == len(labels), "two words that look alike"


def test_the_screens_are_given_the_same_lists():
    written = words_module()
    for name, (_, labels) in TABLES.items():
        assert f'"{name}": [' in written
        assert all(f'"{label}"' in written for label in labels.values())


def test_no_schema_and_no_router_has_words_of_its_own():
    for file in [*(ROOT / "src/kessik/api").rglob("*.py")]:
        assert "Literal" not in file.read_text(encoding="utf-8"), file


def test_no_screen_has_an_option_list_of_its_own():
    for file in (ROOT / "web/src").rglob("*.tsx"):
        if file.name.endswith(".test.tsx"):
            continue
        text = file.read_text(encoding="utf-8")
        assert not OPTION.search(text), f"{file}: take the list from the vocabulary"
