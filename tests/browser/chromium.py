"""Headless Chromium as the browser tests and the screenshots use it."""

import os
from collections.abc import Iterator
from contextlib import contextmanager
from pathlib import Path
from tempfile import TemporaryDirectory

from selenium import webdriver
from selenium.webdriver.chrome.service import Service

FLAGS = (
    "--headless=new", "--no-sandbox", "--disable-gpu", "--disable-quic", "--no-first-run",
    "--disable-background-networking", "--disable-component-update", "--disable-sync",
    "--hide-scrollbars",
)  # fmt: skip  # a table is read by its rows


@contextmanager
def chromium(
    width: int = 1280, height: int = 800, *, dark: bool = False
) -> Iterator[webdriver.Chrome]:
    """A browser with its own profile; the viewport is exactly as asked."""
    os.environ.update(SE_OFFLINE="true", SE_AVOID_STATS="true")
    with TemporaryDirectory(ignore_cleanup_errors=True) as profile:
        options = webdriver.ChromeOptions()
        options.binary_location = "/usr/bin/chromium"
        for flag in (*FLAGS, f"--user-data-dir={profile}"):
            options.add_argument(flag)
        options.set_capability("goog:loggingPrefs", {"browser": "SEVERE"})
        driver = webdriver.Chrome(options=options, service=Service("/usr/bin/chromedriver"))
        try:
            resize(driver, width, height)
            if dark:
                features = [{"name": "prefers-color-scheme", "value": "dark"}]
                driver.execute_cdp_cmd("Emulation.setEmulatedMedia", {"features": features})
            yield driver
        finally:
            driver.quit()


def resize(driver: webdriver.Chrome, width: int, height: int) -> None:
    metrics = {"width": width, "height": height, "deviceScaleFactor": 1, "mobile": False}
    driver.execute_cdp_cmd("Emulation.setDeviceMetricsOverride", metrics)


def picture(driver: webdriver.Chrome, path: Path) -> None:
    path.parent.mkdir(parents=True, exist_ok=True)
    driver.save_screenshot(str(path))
