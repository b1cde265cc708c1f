"""A served Kessik and a browser for it."""

import shutil

import pytest
from selenium.common.exceptions import StaleElementReferenceException, TimeoutException
from selenium.webdriver.common.action_chains import ActionChains
from selenium.webdriver.common.by import By
from selenium.webdriver.common.keys import Keys
from selenium.webdriver.support.ui import WebDriverWait

from tests.browser.chromium import chromium
from tests.serving import Served, ServedHere

PATIENCE_S = 40  # of a busy machine; what comes sooner is not waited for


class Person:
    """Someone at the keyboard: keys, and eyes that wait."""

    def __init__(self, driver, address):
        self.driver, self.address = driver, address

    def open(self, path="/"):
        self.driver.get(self.address + path)

    def press(self, *keys):
        for key in keys:
            ActionChains(self.driver).send_keys(key).perform()

    def see(self, words, seconds=PATIENCE_S):
        def visible(driver):
            shown = driver.execute_script("return document.body.innerText")
            return words in shown.replace("\u2011", "-").replace("\u00a0", " ")

        self._until(visible, seconds, f"“{words}” is not to be seen")

    def text(self, test_id):
        return self.driver.find_element(By.CSS_SELECTOR, f"[data-testid={test_id}]").text.replace(
            "\u2011", "-"
        )

    def until(self, condition, seconds=PATIENCE_S):
        return self._until(lambda _: condition(), seconds, "it never came to that")

    def _until(self, condition, seconds, otherwise):
        # a page that is just being left is gone between finding and reading it
        gone = [StaleElementReferenceException]
        try:
            return WebDriverWait(self.driver, seconds, 0.1, ignored_exceptions=gone).until(
                condition
            )
        except TimeoutException as late:
            shown = self.driver.execute_script("return document.body.innerText")
            raise AssertionError(f"{otherwise} at {self.driver.current_url}:\n{shown}") from late

    def focused(self):
        return self.driver.switch_to.active_element

    def tab_to(self, words):
        """Press Tab until what has the focus says these words."""
        for _ in range(80):
            there = self.focused()
            if there.tag_name != "body" and words in (
                there.text or there.get_attribute("aria-label") or ""
            ):
                return
            self.press(Keys.TAB)
        raise AssertionError(f"Tab does not reach “{words}”")

    def pick(self, label, words, section=""):
        """Open a choice, of a section where several are called so, and take an option of it, by
        keyboard.
        """
        inside = f"//section[@aria-label='{section}']" if section else ""
        named = f"{inside}//label[starts-with(., '{label}')]"
        choice = f"{named}/following::button[@role='combobox'][1]"
        self.driver.find_element(By.XPATH, choice).send_keys(Keys.SPACE)
        options = self.until(lambda: self.driver.find_elements(By.CSS_SELECTOR, "[role=option]"))
        # a busy browser moves the focus later than it was told to
        self.until(lambda: self.focused() in options)
        self.press(Keys.HOME)
        self.until(lambda: self.focused() == options[0])
        for at, option in enumerate(options):
            self.until(lambda at=at: self.focused() == options[at])
            if option.text == words:
                break
            self.press(Keys.ARROW_DOWN)
        self.press(Keys.ENTER)
        self.until(lambda: self.driver.find_element(By.XPATH, choice).text.startswith(words))

    def errors(self):
        return [entry["message"] for entry in self.driver.get_log("browser")]


@pytest.fixture
def served(tmp_path, request):
    """A server over an empty folder; in a process of its own where the test is marked `apart`."""
    kind = Served if request.node.get_closest_marker("apart") else ServedHere
    server = kind(tmp_path / "data")
    yield server
    server.kill()


@pytest.fixture(scope="session")
def demo(built_demo, tmp_path_factory):
    """The demo served, in a copy: what is done there is nobody else's."""
    server = ServedHere(shutil.copytree(built_demo, tmp_path_factory.mktemp("served") / "data"))
    yield server
    server.kill()


@pytest.fixture
def person(served):
    with chromium() as driver:
        yield Person(driver, served.address)
