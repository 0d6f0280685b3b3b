"""Metric or imperial by choice, in fields, pictures and sentences; what is kept stays in SI."""

from __future__ import annotations

import re
from typing import Any

from playwright.sync_api import Page, expect

from tests.e2e.conftest import rested

PLACES = {"bench", "board", "kit", "route", "sums", "trips", "variants"}
CELSIUS = re.compile(r"°C\b")
TEXT = "() => document.querySelector('main').innerText"


def test_imperial_is_chosen_once_and_told_everywhere(page: Page, trip: str) -> None:
    page.goto(f"{trip}/route")
    page.get_by_role("button", name=re.compile("tell in imperial")).click()
    page.get_by_role("button", name=re.compile("tell in metric")).wait_for()
    page.locator(".route-page").wait_for()
    walk = page.locator(".route-row").filter(has=page.get_by_text("gorge walk", exact=True)).first
    walk.get_by_role("button").first.click()
    warm = page.get_by_label("Air from, °F")
    warm.fill("50")
    warm.press("Enter")
    expect(warm).to_have_value("50")
    warm.fill("500")
    expect(page.get_by_text(re.compile(r"^From −\d+ to \d+ °F\.$"))).to_be_visible()
    warm.press("Escape")
    number = trip.rsplit("/", 1)[-1]
    page.wait_for_function(
        """async (number) => {
  const { trip } = await (await fetch(`/api/trips/${number}`)).json();
  return trip.items.find((one) => one.name === 'gorge walk').temp_start_c === 10;
}""",
        arg=number,
    )
    for place in ("board", "route", "kit", "bench", "variants"):
        page.goto(f"{trip}/{place}")
        page.get_by_role("heading", level=1).wait_for()
        rested(page)
        assert not CELSIUS.search(page.evaluate(TEXT)), place
    page.goto(f"{trip.split('/trip/', maxsplit=1)[0]}/sums?sum=lasts&temp_c=-40&air_mps=0&watts=3")
    expect(page.get_by_label("Air, °F")).to_have_value("−40")
    expect(page.locator(".sum-lines")).to_contain_text("°F/W")
    page.get_by_role("button", name=re.compile("tell in metric")).click()
    expect(page.get_by_label("Air, °C")).to_have_value("-40")
    expect(page.locator(".sum-lines")).to_contain_text("K/W")


def test_findings_on_a_cold_trip_are_told_in_fahrenheit(page: Page, server: Any) -> None:
    page.goto(f"{server.address}/trips")
    page.get_by_role("link", name=re.compile("^Skarre fell run")).first.click()
    page.get_by_test_id("headline").wait_for()
    page.get_by_role("button", name=re.compile("tell in imperial")).click()
    page.get_by_role("button", name=re.compile("tell in metric")).wait_for()
    page.get_by_test_id("headline").wait_for()
    told = page.evaluate(
        """async () => {
  const trips = await (await fetch('/api/trips')).json();
  const row = trips.find(one => one.name.startsWith('Skarre'));
  const trip = await (await fetch(`/api/trips/${row.id}`)).json();
  return trip.trip.items[0].temp_start_c;
}"""
    )
    assert told < 0
    page.locator("summary").filter(has_text="to mind").click()
    expect(page.locator("main")).to_contain_text("°F")
    assert not CELSIUS.search(page.evaluate(TEXT))
