"""The route: tracks in and out, corrections on the picture, air, angles, presets, the phone."""

from __future__ import annotations

import re
from pathlib import Path
from typing import Any

from playwright.sync_api import Page, expect

from tests.e2e.conftest import board, keep, unfold
from tests.reference.tracks import day_out
from tools.driving import arrived

PLACES = {"board", "route", "kit", "trips"}
H1 = re.compile(r"^3 legs and 1 stop, ")


def row(page: Page, name: str) -> Any:
    """The row of a leg or stop."""
    return page.locator(".route-row").filter(has=page.get_by_text(name, exact=True)).first


def open_track(page: Page, trip: str, tmp_path: Path) -> Any:
    """A recorded day dropped on the route, in place of what was there; gives the panel."""
    track = tmp_path / "day.gpx"
    track.write_bytes(day_out().gpx())
    page.goto(f"{trip}/route")
    panel = page.get_by_role("region", name="Open a track")
    panel.get_by_label("Open a track file").set_input_files(track)
    panel.get_by_role("button", name="Put them in place of the others").click()
    expect(page.get_by_role("heading", level=1)).to_have_text(H1)
    return panel


def test_a_track_becomes_legs_and_stops(page: Page, trip: str, tmp_path: Path) -> None:
    panel = open_track(page, trip, tmp_path)
    hand = page.get_by_role("slider", name="Along the trip")
    hand.focus()
    page.keyboard.press("End")
    expect(hand).to_have_attribute(
        "aria-valuetext", re.compile(r"flight 1 · 1\d(\.\d)? km · 7\d\d m")
    )
    page.get_by_role("button", name="Undo").click()
    expect(page.get_by_role("heading", level=1)).not_to_have_text(H1)
    track = tmp_path / "day.gpx"
    track.write_bytes(day_out().gpx()[:-400])
    panel.get_by_label("Open a track file").set_input_files(track)
    expect(panel.get_by_role("alert")).to_contain_text("day.gpx: line ")
    expect(panel.get_by_role("button", name="Add them")).to_have_count(0)


def test_an_edge_is_moved_by_keys_and_by_the_pointer_one_step_each(
    page: Page, trip: str, tmp_path: Path
) -> None:
    open_track(page, trip, tmp_path)
    edge = page.get_by_role("slider", name="End of climb 1, start of flat 1")
    before = int(edge.get_attribute("aria-valuenow") or 0)
    edge.focus()
    page.keyboard.press("PageUp")
    expect(edge).to_have_attribute("aria-valuetext", re.compile(r"km: climb 1 .*, flat 1 "))
    page.keyboard.press("Enter")
    expect(edge).to_have_attribute("aria-valuenow", str(before - 500))
    page.keyboard.press("ArrowDown")
    page.keyboard.press("Escape")
    expect(edge).to_have_attribute("aria-valuenow", str(before - 500))
    edge.scroll_into_view_if_needed()
    box = edge.bounding_box()
    assert box is not None
    x, y = box["x"] + box["width"] - 20, box["y"] + box["height"] / 2
    page.mouse.move(x, y)
    page.mouse.down()
    page.mouse.move(x, y - 8, steps=4)
    page.mouse.up()
    expect(edge).not_to_have_attribute("aria-valuenow", str(before - 500))
    page.get_by_role("button", name="Undo").click()
    expect(edge).to_have_attribute("aria-valuenow", str(before - 500))
    page.get_by_role("button", name="Undo").click()
    expect(edge).to_have_attribute("aria-valuenow", str(before))


def test_corrections_survive_the_same_track_opened_again(
    page: Page, trip: str, tmp_path: Path
) -> None:
    panel = open_track(page, trip, tmp_path)
    row(page, "climb 1").get_by_role("button").first.click()
    fields = page.get_by_role("region", name="climb 1 on its way")
    fields.get_by_label("Halt’s name").fill("Tarn")
    fields.get_by_label("Halt’s name").press("Enter")
    fields.get_by_role("button", name="Halt here").click()
    expect(row(page, "Tarn")).to_contain_text("15 min")
    expect(row(page, "climb 1, on")).to_be_visible()
    row(page, "flight 1").get_by_role("button").first.click()
    row(page, "flight 1").get_by_label("Activity").select_option("descent")
    expect(row(page, "flight 1")).to_contain_text("descent")
    panel.get_by_label("Open a track file").set_input_files(tmp_path / "day.gpx")
    panel.get_by_role("button", name="Lay it out again, corrections kept").click()
    expect(row(page, "Tarn")).to_be_visible()
    expect(row(page, "flight 1")).to_contain_text("descent")
    expect(page.get_by_role("heading", level=1)).to_have_text(re.compile(r"^4 legs and 2 stops"))
    row(page, "climb 1").get_by_role("button").first.click()
    fields.get_by_role("button", name="Make one with climb 1, on").click()
    expect(page.get_by_role("heading", level=1)).to_have_text(H1)


def test_the_plan_and_the_rows_show_the_same_place(page: Page, trip: str) -> None:
    page.goto(f"{trip}/route")
    plan = page.get_by_role("img", name=re.compile("from above, north up"))
    words = page.locator(".route-here")
    picture = row(page, "gorge walk").locator(".route-picture")
    picture.locator(".route-clock").wait_for(state="attached")
    picture.hover()
    expect(words).to_contain_text("gorge walk")
    before = words.text_content()
    plan.hover(position={"x": 20, "y": 60})
    expect(words).not_to_have_text(before or "")


def test_the_way_is_saved_with_the_hands_work(page: Page, trip: str) -> None:
    page.goto(f"{trip}/route")
    with page.expect_download() as caught:
        page.get_by_role("link", name="GPX").click()
    text = caught.value.path().read_text("utf-8")
    assert caught.value.suggested_filename.endswith(".gpx")
    assert "<name>Hut Aster</name>" in text
    assert re.search(r"<desc>[^<]*Chin: [^<]+</desc>", text)


def test_air_comes_from_weather_and_is_overruled_by_what_is_typed(page: Page, trip: str) -> None:
    page.goto(f"{trip}/route")
    panel = page.get_by_role("region", name="Air from weather")
    panel.get_by_role("button", name="Ask the made-up weather").click()
    panel.get_by_role("button", name="Take this air").click()
    walk = row(page, "gorge walk")
    expect(walk).to_contain_text("air by made-up weather")
    walk.get_by_role("button").first.click()
    walk.get_by_label("Air from, °C").fill("4")
    walk.get_by_label("Air from, °C").press("Enter")
    expect(walk).to_contain_text("made-up weather, temperature typed")
    panel.get_by_text("From the days’ low and high").click()
    panel.get_by_role("button", name="Lay the curve of these days").click()
    panel.get_by_role("button", name="Take this air").click()
    expect(walk).to_contain_text("air by days of 5° to 18 °C, temperature typed")
    expect(walk).to_contain_text("4° to")
    expect(row(page, "scree climb")).to_contain_text("air by days of 5° to 18 °C")


def test_a_place_has_its_time_zone(page: Page, trip: str) -> None:
    page.goto(f"{trip}/route")
    zone = page.get_by_label("Time zone")
    longitude = page.get_by_label("Longitude, °")
    longitude.fill("-46")
    longitude.press("Enter")
    expect(zone).to_have_value("Etc/GMT+3")  # it was that of the place before
    zone.fill("Etc/GMT-5")
    zone.press("Enter")
    longitude.fill("-30")
    longitude.press("Enter")
    page.get_by_role("button", name="Take the place’s time zone, Etc/GMT+2").click()
    expect(zone).to_have_value("Etc/GMT+2")


def test_what_does_not_serve_is_said_and_the_choice_stays_with_its_reason(
    page: Page, trip: str
) -> None:
    board(page, trip)
    page.get_by_role("button", name="Sun 13").click()
    page.locator('[data-cell="d2-scree/boom"]').focus()
    page.keyboard.press("Enter")
    serves = page.get_by_role("region", name="Whether it serves here")
    expect(serves).to_contain_text("serves poorly here: the wing is packed")
    serves.get_by_label("Why all the same").fill("the boom stands on the brow")
    serves.get_by_label("Why all the same").press("Enter")
    keep(page)
    unfold(page, "notes")
    side = page.get_by_role("complementary", name="Not filmed, and to know")
    expect(side.get_by_text("Your reason: the boom stands on the brow.")).to_be_visible()
    page.get_by_text("Light and settings").click()
    expect(page.get_by_text("60 / 25 = 2.4")).to_be_visible()
    page.keyboard.press("Escape")
    page.locator("summary").filter(has_text="Angles").click()
    angles = page.get_by_role("region", name="Angles")
    expect(angles.get_by_role("row").filter(has_text="what I see")).to_be_visible()


def test_a_preset_brings_its_mode_and_a_cell_of_the_matrix_is_said_anew(
    page: Page, trip: str
) -> None:
    page.goto(f"{trip}/kit")
    page.get_by_role("button", name="Camera Chin: edit").click()
    page.get_by_role("button", name="Add a preset").click()
    preset = page.get_by_role("listitem", name="preset Preset 4")
    preset.get_by_role("textbox", name="Preset").fill("Night")
    preset.get_by_role("textbox", name="Preset").press("Enter")
    page.get_by_role("listitem", name="preset Night").get_by_label("Mode").select_option("1080 30")
    page.get_by_role("button", name="What serves where").click()
    page.get_by_role("button", name="helmet or head, climb: poorly").click()
    page.get_by_role("button", name="serves well", exact=True).click()
    expect(page.get_by_role("button", name="helmet or head, climb: well")).to_be_visible()
    page.get_by_role("link", name="Board").click()
    arrived(page, "Board")
    page.get_by_role("button", name="Sat 12").click()
    page.locator('[data-cell="d1-climb/chin"]').focus()
    page.keyboard.press("Enter")
    page.get_by_label("Preset").select_option("4 Night")
    expect(page.get_by_label("Mode")).to_have_value("1080p30")
    serves = page.get_by_role("region", name="Whether it serves here")
    expect(serves).to_contain_text("it serves well here")


def test_the_route_on_a_phone(page: Page, trip: str) -> None:
    page.set_viewport_size({"width": 390, "height": 844})
    page.goto(f"{trip}/route")
    expect(page.get_by_role("img", name=re.compile("from above"))).to_be_visible()
    walk = row(page, "gorge walk")
    walk.get_by_role("button").first.click()
    walk.get_by_role("button", name="Cut here").click()
    expect(row(page, "gorge walk, on")).to_be_visible()
    wide = page.evaluate("document.documentElement.scrollWidth")
    assert wide <= 390
