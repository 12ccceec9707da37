"""Words nobody uses in a shop, or that mean two things here: looked for in all a page shows, reads out or hints at."""

import re

from playwright.sync_api import Page

SHOWN = """() => {
  const said = [document.body.innerText, document.title]
  for (const el of document.querySelectorAll('[aria-label], [placeholder], [title], svg text'))
    said.push(el.getAttribute('aria-label') || el.getAttribute('placeholder') || el.getAttribute('title') || el.textContent)
  return said.join('\\n')
}"""
ODD = re.compile(
    r"""\b(
    wants? | wanted | worked\ out | work\ out | papers? | schools? | swing | total\ reading | provisional | soft\ feet
    | stands?(?![ -]out) | stood | stands\ clear | slips\ on | home | stuck\ half\ way | movable | stationary | stacks?
    | over\ its\ (limit|target) | over\ what | write\ something | is\ missing | it\ is: | as\ it\ stands | as\ found\ is
    | put\ it\ on\ the\ card | clear\ what\ was\ typed | enter\ as | a\ foot\ may\ rise | half\ tight | ledger\ lines?
    | (un)?safe(ly)? | undefined | null | NaN | \w+_(mm|nm|c|rpm|in)
    )\b""",
    re.IGNORECASE | re.VERBOSE,
)


NO_NAMES_YET = re.compile(r"\b(movable|stationary)\b", re.IGNORECASE)  # a bench with no line beside it


def odd_words(page: Page) -> list[str]:
    """Every line of the page that has one of them, once."""
    lines = {line.strip() for line in page.evaluate(SHOWN).splitlines()}
    if "/benches/" in page.url:
        lines = {NO_NAMES_YET.sub("", line) for line in lines}
    return sorted(line for line in lines if ODD.search(line))
