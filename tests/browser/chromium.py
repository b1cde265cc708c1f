"""Headless Chromium as the browser tests and the screenshots use it."""

import atexit
import os
from collections.abc import Iterator
from contextlib import ExitStack, contextmanager, suppress
from pathlib import Path
from tempfile import TemporaryDirectory

from selenium import webdriver
from selenium.common.exceptions import WebDriverException
from selenium.webdriver.chrome.service import Service

FLAGS = (
    "--headless=new", "--no-sandbox", "--disable-gpu", "--disable-quic", "--no-first-run",
    "--disable-background-networking", "--disable-component-update", "--disable-sync",
    "--hide-scrollbars",
)  # fmt: skip  # a table is read by its rows
_FREE: list[webdriver.Chrome] = []
_AT_EXIT = ExitStack()
atexit.register(_AT_EXIT.close)


@contextmanager
def chromium(
    width: int = 1280, height: int = 800, *, dark: bool = False
) -> Iterator[webdriver.Chrome]:
    """A browser that knows nothing of earlier tests; the viewport is exactly as asked.

    A started browser is used again: a start takes longer than many a test. Servers of tests have
    ports of their own, and with them storage of their own; cookies are forgotten.
    """
    driver = _FREE.pop() if _FREE else _started()
    resize(driver, width, height)
    in_the_dark(driver, dark)
    try:
        yield driver
    finally:
        with suppress(WebDriverException):
            _forget(driver)
            _FREE.append(driver)


def _started() -> webdriver.Chrome:
    os.environ.update(SE_OFFLINE="true", SE_AVOID_STATS="true")
    profile = _AT_EXIT.enter_context(TemporaryDirectory(ignore_cleanup_errors=True))
    options = webdriver.ChromeOptions()
    options.binary_location = "/usr/bin/chromium"
    for flag in (*FLAGS, f"--user-data-dir={profile}"):
        options.add_argument(flag)
    options.set_capability("goog:loggingPrefs", {"browser": "SEVERE"})
    driver = webdriver.Chrome(options=options, service=Service("/usr/bin/chromedriver"))
    _AT_EXIT.callback(driver.quit)
    return driver


def _forget(driver: webdriver.Chrome) -> None:
    first, *others = driver.window_handles
    for window in others:
        driver.switch_to.window(window)
        driver.close()
    driver.switch_to.window(first)
    driver.get("about:blank")
    driver.execute_cdp_cmd("Network.clearBrowserCookies", {})
    driver.get_log("browser")


def in_the_dark(driver: webdriver.Chrome, dark: bool) -> None:
    """Ask for the colours of the night, or of the day."""
    features = [{"name": "prefers-color-scheme", "value": "dark" if dark else "light"}]
    driver.execute_cdp_cmd("Emulation.setEmulatedMedia", {"features": features})


def resize(driver: webdriver.Chrome, width: int, height: int) -> None:
    metrics = {"width": width, "height": height, "deviceScaleFactor": 1, "mobile": False}
    driver.execute_cdp_cmd("Emulation.setDeviceMetricsOverride", metrics)


def picture(driver: webdriver.Chrome, path: Path) -> None:
    path.parent.mkdir(parents=True, exist_ok=True)
    driver.save_screenshot(str(path))
