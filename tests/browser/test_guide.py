"""Every link of the guide, pressed in the browser, leads to a page that is shown, and back."""

from selenium.webdriver.common.by import By
from selenium.webdriver.common.keys import Keys
from tools.guide import guide_pages


def links(person):
    return person.driver.find_elements(By.CSS_SELECTOR, "article a[href^='/']")


def follow(person, page, number):
    links(person)[number].send_keys(Keys.ENTER)
    person.until(lambda: f"/guide/{page.slug}" not in person.driver.current_url)
    person.until(lambda: person.driver.find_element(By.TAG_NAME, "main").text)
    person.driver.back()
    person.see(page.title)
    person.until(lambda: links(person))


def test_every_link_is_followed_and_the_guide_found_again(person):
    for page in guide_pages():
        if 'href="/' in page.html:
            person.open(f"/guide/{page.slug}")
            for number in range(len(person.until(lambda: links(person)))):
                follow(person, page, number)
    assert person.errors() == []
