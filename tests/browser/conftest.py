"""A served Kessik and a browser for it."""

import httpx2
import pytest
from selenium.common.exceptions import StaleElementReferenceException
from selenium.webdriver.common.action_chains import ActionChains
from selenium.webdriver.common.by import By
from selenium.webdriver.common.keys import Keys
from selenium.webdriver.support.ui import WebDriverWait

from tests.browser.chromium import chromium
from tests.conftest import BenchHand
from tests.serving import free_port, start_server


class Served:
    """A server that can be stopped and started again over the same data."""

    def __init__(self, folder, command="serve", options=()):
        self.folder, self.command, self.options, self.port = folder, command, options, free_port()
        self.address = f"http://127.0.0.1:{self.port}"
        self.start()

    def start(self):
        self.process = start_server(self.folder, self.port, self.command, self.options)

    def hand(self):
        """A tester with a device of their own at this server."""
        return BenchHand(httpx2.Client(base_url=self.address, timeout=30))

    def kill(self):
        self.process.kill()
        self.process.wait()


class Person:
    """Someone at the keyboard: keys, and eyes that wait."""

    def __init__(self, driver, address):
        self.driver, self.address = driver, address

    def open(self, path="/"):
        self.driver.get(self.address + path)

    def press(self, *keys):
        for key in keys:
            ActionChains(self.driver).send_keys(key).perform()

    def see(self, words, seconds=15):
        def visible(driver):
            return words in driver.find_element(By.TAG_NAME, "body").text.replace("\u2011", "-").replace("\u00a0", " ")

        WebDriverWait(self.driver, seconds).until(visible, f"“{words}” is not to be seen at {self.driver.current_url}")

    def text(self, test_id):
        return self.driver.find_element(By.CSS_SELECTOR, f"[data-testid={test_id}]").text.replace("\u2011", "-")

    def until(self, condition, seconds=15):
        wait = WebDriverWait(self.driver, seconds, ignored_exceptions=[StaleElementReferenceException])
        return wait.until(lambda _: condition())

    def focused(self):
        return self.driver.switch_to.active_element

    def tab_to(self, words):
        """Press Tab until what has the focus says these words."""
        for _ in range(80):
            there = self.focused()
            if there.tag_name != "body" and words in (there.text or there.get_attribute("aria-label") or ""):
                return
            self.press(Keys.TAB)
        raise AssertionError(f"Tab does not reach “{words}”")

    def errors(self):
        return [entry["message"] for entry in self.driver.get_log("browser")]


@pytest.fixture
def served(tmp_path):
    server = Served(tmp_path / "data")
    yield server
    server.kill()


@pytest.fixture(scope="session")
def demo(tmp_path_factory):
    server = Served(tmp_path_factory.mktemp("demo"), "demo")
    yield server
    server.kill()


@pytest.fixture
def person(served):
    with chromium() as driver:
        yield Person(driver, served.address)
