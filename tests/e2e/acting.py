"""Everything in a page on which one can act: found in the page itself, worked as hands do it.

What acts is known by its role and its name, by the part of the page that it stands
in, and by how its name begins, with what is a trip's own (cameras, legs, numbers) left out: `button
(parts) Copy` stands for every such button.
"""

from __future__ import annotations

import re
from collections.abc import Iterable
from contextlib import suppress
from typing import Any

from playwright.sync_api import Error, Page

FIND = """(within) => {
  const what = 'a[href], button, input, select, textarea, summary, [role=button], [role=slider],'
    + ' [role=gridcell], [role=option], [draggable=true]';
  const role = (one) => one.getAttribute('role') ?? (
    { A: 'link', BUTTON: 'button', SELECT: 'choice', TEXTAREA: 'text', SUMMARY: 'fold' }
  )[one.tagName]
    ?? ({ checkbox: 'check', radio: 'check', range: 'slider', file: 'file', date: 'text',
          'datetime-local': 'text' })[one.type] ?? 'text';
  const part = (one) => {
    for (let at = one; at !== null && at !== document.body; at = at.parentElement) {
      const passed = /^(Mui|css-|plain|link|row|wide)/;
      const [first] = [...at.classList].filter((name) => !passed.test(name));
      if (first) return `(${first})`;
    }
    return '';
  };
  const own = (one) => [...one.childNodes].map((node) => node.textContent).join(' ');
  const label = (one) => {
    const by = one.getAttribute('aria-labelledby');
    if (by) return by.split(' ').map((id) => document.getElementById(id)?.textContent).join(' ');
    return one.getAttribute('aria-label') ?? one.labels?.[0]?.textContent
      ?? (own(one).trim() || one.getAttribute('title') || one.getAttribute('placeholder') || '');
  };
  const scope = document.querySelector(within);
  const seen = [...(scope?.querySelectorAll(what) ?? [])].filter((one) => {
    const style = getComputedStyle(one);
    const box = one.getBoundingClientRect();
    const hit = one.type === 'file' || one.type === 'checkbox' ? one.closest('label') ?? one : one;
    const whole = hit.getBoundingClientRect();
    const chosen = ':disabled, [aria-current=page], .pick [aria-pressed=true]';
    return !one.matches(chosen) && !one.closest('[inert], [aria-hidden=true], .skip')
      && hit.checkVisibility({ visibilityProperty: true }) && style.pointerEvents !== 'none'
      && whole.width > 0 && whole.height > 0 && (box.width > 1 || hit !== one);
  });
  for (const old of document.querySelectorAll('[data-acts]')) delete old.dataset.acts;
  return seen.map((one, number) => {
    one.dataset.acts = String(number);
    return [number, role(one), part(one), label(one).replace(/\\s+/g, ' ').trim()];
  });
}"""
OPTIONS = "(one) => [...one.options].filter((at) => !at.disabled).map((at) => at.value)"
STATE = """() => {
  const fields = [...document.querySelectorAll('input, select, textarea')];
  const marks = [...document.querySelectorAll(
    '[aria-pressed], [aria-expanded], [aria-selected], [aria-current], details, dialog')];
  const said = ['aria-pressed', 'aria-expanded', 'aria-selected', 'aria-current', 'open'];
  return JSON.stringify([
    location.pathname + location.search + location.hash,
    document.body.innerText,
    fields.map((one) =>
      one.type === 'checkbox' ? one.checked : one.type === 'file' ? '' : one.value),
    marks.map((one) => said.map((name) => one.getAttribute(name))),
    document.documentElement.className + document.documentElement.getAttribute('data-theme'),
    document.body.dataset.printed,
    document.activeElement?.matches('input, textarea') ? document.activeElement.dataset.acts : '',
    [...document.querySelectorAll('svg')].map((one) => one.innerHTML.length),
  ]);
}"""
POINT = """(one) => {
  const target = one.type === 'file' || one.type === 'checkbox' ? one.closest('label') ?? one : one;
  target.scrollIntoView({ block: 'center', inline: 'center' });
  const box = target.getClientRects()[0] ?? target.getBoundingClientRect();
  const at = [box.x + box.width / 2, box.y + Math.min(box.height / 2, 20)];
  const top = document.elementFromPoint(...at);
  const hit = top !== null && (target.contains(top) || top.contains(target)
    || top.closest('label')?.contains(one) || top.closest('label')?.control === one);
  return [...at, hit ? '' : `${top?.tagName} ${top?.className?.baseVal ?? top?.className}`];
}"""


def kind_of(role: str, part: str, name: str, own: Iterable[str]) -> str:
    """What acts, by role, part of the page and the beginning of its name."""
    for word in sorted(own, key=len, reverse=True):
        name = re.sub(rf"(?<!\w){re.escape(word)}(?!\w)", "~", name)
    name = re.sub(r"\b(Mon|Tue|Wed|Thu|Fri|Sat|Sun)\b|[-−+]?[0-9][0-9.,:]*", "#", name)
    begins = re.match(r"[^~#:,.]*(?:(?<![a-z])[~#])?", re.sub(r" ?now$", "", name))
    return f"{role} {part} {begins[0].strip() if begins else ''}"[:70].strip()


def acting(page: Page, within: str, own: Iterable[str]) -> dict[str, int]:
    """Each kind of what acts in a part of the page as it stands, with the number of its first."""
    found: dict[str, int] = {}
    for number, *told in page.evaluate(FIND, within):
        found.setdefault(kind_of(*told, own), number)
    return found


def works(page: Page, kind: str, number: int, *, touch: bool) -> str:
    """Act on something by hand; what came of it, "" for nothing.

    Raises AssertionError where something lies over it.
    """
    element = page.locator(f'[data-acts="{number}"]')
    try:
        element.evaluate("(one) => one.scrollIntoView({ block: 'center' })", timeout=3_000)
        before = _at_rest(page)
        x, y, over = element.evaluate(POINT, timeout=3_000)
        if element.evaluate("(one) => one.type === 'range'", timeout=3_000):
            x -= element.evaluate("(one) => one.clientWidth", timeout=3_000) / 4  # not where it is
    except Error:  # it has gone meanwhile
        return ""
    assert over == "", f"{kind} is covered by {over}"
    heard: list[str] = []
    page.once("filechooser", lambda _: heard.append("a file is asked for"))
    page.once("download", lambda _: heard.append("a file is saved"))
    role = kind.partition(" ")[0]
    if role in ("text", "choice"):
        _hand(page, x, y, touch=touch)
        try:
            if _fill(element, role):
                return "stands"
        except Error as error:
            raise AssertionError(f"{kind} could not be filled: {error}") from None
    elif role == "slider":
        _drag(page, x, y, touch=touch)
    else:
        _hand(page, x, y, touch=touch)
    for _ in range(12):
        page.wait_for_timeout(50)
        if heard:
            return heard[0]
        with suppress(Error):  # it went elsewhere meanwhile
            if page.evaluate(STATE) != before:
                return "shown"
    return ""


def _hand(page: Page, x: float, y: float, *, touch: bool) -> None:
    if touch:
        page.touchscreen.tap(x, y)
        return
    page.mouse.move(x, y)
    page.mouse.down()
    page.wait_for_timeout(30)
    page.mouse.up()


def _at_rest(page: Page) -> Any:
    """What the page shows, once what was done before has shown all that comes of it."""
    state = page.evaluate(STATE)
    for _ in range(10):
        page.wait_for_timeout(60)
        earlier, state = state, page.evaluate(STATE)
        if state == earlier:
            break
    return state


def _drag(page: Page, x: float, y: float, *, touch: bool) -> None:
    """Take a handle 45 px down and to the right."""
    way = [(x + 15 * step, y + 15 * step) for step in range(4)]
    if not touch:
        page.mouse.move(*way[0])
        page.mouse.down()
        for at in way[1:]:
            page.mouse.move(*at)
        page.mouse.up()
        return
    session = page.context.new_cdp_session(page)
    for number, (left, top) in enumerate(way):
        kind = "touchMove" if number else "touchStart"
        finger = {"type": kind, "touchPoints": [{"x": left, "y": top}]}
        session.send("Input.dispatchTouchEvent", finger)
    session.send("Input.dispatchTouchEvent", {"type": "touchEnd", "touchPoints": []})
    session.detach()


def _fill(element: Any, role: str) -> bool:
    """Give a field another value and leave it; whether that one stands then."""
    value = element.input_value()
    if role == "choice":
        other = next((one for one in element.evaluate(OPTIONS) if one != value), None)
        if other is None:
            return True  # a choice of one
        element.select_option(other, timeout=3_000)
    else:
        other = f"{float(value) + 1:g}" if _is_number(value) else f"{value}1"
        element.fill(other, timeout=3_000)
        element.press("Enter")
        if element.is_visible():
            element.blur(timeout=3_000)
    return element.is_visible() and element.input_value(timeout=3_000) != value


def _is_number(text: str) -> bool:
    with suppress(ValueError):
        float(text)
        return True
    return False
