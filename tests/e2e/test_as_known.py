"""Figures entered as a person knows them, and the answer read where they look for it."""

from __future__ import annotations

import re
from typing import Any

from playwright.sync_api import Page, expect

from tests.e2e.conftest import board, keep, token_of, unfold
from tools.driving import Server, arrived

PLACES = {"bench", "board", "card", "kit", "sums"}


def camera(page: Page, trip: str, name: str) -> Any:
    """The sheet of a camera in the kit."""
    page.goto(f"{trip}/kit")
    arrived(page, "Kit")
    page.get_by_role("button", name=f"Camera {name}: edit").click()
    return page.get_by_role("region", name=f"Camera {name}")


def fill(within: Any, label: str, text: str) -> None:
    """Type into a field, and leave it."""
    field = within.get_by_label(label, exact=True)
    field.fill(text)
    field.press("Tab")


def stretch(page: Page, trip: str, day: str, cell: str) -> Any:
    """The editor of a stretch."""
    board(page, trip)
    page.get_by_role("button", name=day).click()
    page.locator(f'[data-cell="{cell}"]').click()
    dialog = page.get_by_role("dialog")
    expect(dialog.get_by_role("group", name="How it records")).to_be_visible()
    return dialog


def kept(page: Page) -> None:
    """Keep a change on the board."""
    keep(page)
    page.keyboard.press("Escape")
    expect(page.get_by_label("The trip: keeping")).to_have_text("Kept")


def test_moving_from_chest_to_stick_takes_its_seconds_at_a_stop_that_has_them(
    page: Page, trip: str
) -> None:
    """Ninety seconds onto the stick are on board and card; 30 min are more than a stop of 25."""
    sheet = camera(page, trip, "Chin")
    stick = sheet.get_by_label("mount hand-held stick")
    expect(stick.get_by_label("Onto it, s", exact=True)).to_have_value("90")
    dialog = stretch(page, trip, "Sun 13", "d2-gorge/chin")
    dialog.get_by_label("Mount", exact=True).select_option("hand_held")
    kept(page)
    expect(page.get_by_role("gridcell", name=re.compile("helmet → stick"))).to_have_count(1)
    page.goto(f"{trip}/card")
    page.locator(".pocket-place").wait_for()
    expect(page.locator("body")).to_contain_text("helmet → stick")
    sheet = camera(page, trip, "Chin")
    fill(sheet.get_by_label("mount hand-held stick"), "Onto it, s", "1800")
    dialog = stretch(page, trip, "Sat 12", "d1-ridge/chin")
    dialog.get_by_label("Mount", exact=True).select_option("hand_held")
    kept(page)
    expect(
        page.get_by_text(re.compile("moving it to stick takes 1800 s, and 300 s are wanting")).first
    ).to_be_visible()


def test_what_comes_unasked_is_for_the_camera_that_is_soonest(page: Page, trip: str) -> None:
    """Foot is in a pocket, seven seconds away, Chin at the helmet in three; Foot is made faster."""
    dialog = stretch(page, trip, "Mon 14", "d3-byre/camp")
    expect(dialog.get_by_text(re.compile(r"reach for Chin: it films 18 s after"))).to_be_visible()
    sheet = camera(page, trip, "Foot")
    fill(sheet.get_by_label("mount other"), "Films after, s", "1")
    dialog = stretch(page, trip, "Mon 14", "d3-byre/camp")
    expect(dialog.get_by_text(re.compile(r"reach for Foot: it films 16 s after"))).to_be_visible()


def test_a_loop_is_chosen_among_those_that_the_camera_has(page: Page, trip: str) -> None:
    dialog = stretch(page, trip, "Sat 12", "d1-ridge/chin")
    loop = dialog.get_by_label("Loop", exact=True)
    expect(loop.get_by_role("option")).to_have_count(3)
    loop.select_option("300/5")
    kept(page)
    sheet = camera(page, trip, "Chin")
    sheet.get_by_text(re.compile("^Loops it offers")).click()
    sheet.get_by_role("button", name="Delete loop 3").click()
    board(page, trip)
    unfold(page)
    expect(
        page.get_by_text(re.compile("no loop of 300 s in 5 segments; it has 60 s in 5, 90 s in 5"))
    ).to_be_visible()


def test_frames_are_asked_by_the_film_that_is_wanted_and_told_as_film(
    page: Page, trip: str
) -> None:
    """Sixteen hours: for 20 s of film at 25 a second a frame every 115.2 s, 500 of them."""
    dialog = stretch(page, trip, "Sun 13", "d2-shelf/camp")
    expect(dialog.get_by_text(re.compile(r"\d+ frames: 3\d s of film"))).to_be_visible()
    hours = 57_600
    fill(dialog, "Or film of, s", "20")
    every = dialog.get_by_label("A frame every, s", exact=True)
    expect(every).to_have_value(f"{hours / 20 / 25:g}")
    kept(page)
    dialog = stretch(page, trip, "Sun 13", "d2-shelf/camp")
    expect(dialog.get_by_text(re.compile(r"500 frames: 20 s of film"))).to_be_visible()
    fill(dialog, "Or times as fast, times", "1500")
    expect(every).to_have_value("60")


def test_the_minutes_that_a_camera_shows_give_its_room_or_its_bitrate(
    page: Page, empty_server: Server
) -> None:
    """41:30 at 60.192 Mbit/s and a hundredth more: 60.192 / 8 x 1.01 x 2490 s = 18.9 GB."""
    page.goto(f"{empty_server.address}/sums?sum=shown")
    page.get_by_label("Shown, min:s").fill("41:30")
    page.get_by_label("Bitrate, Mbit/s").fill("60")
    expect(page.locator(".sum-answer")).to_contain_text("18.9 GB of room are left.")
    page.get_by_label("Shown, min:s").fill("41:75")
    expect(page.get_by_text("Like 41:30, or 1:05:00.")).to_be_visible()
    page.get_by_label("Shown, min:s").fill("1:05:00")
    page.get_by_role("button", name="what bitrate that is").click()
    page.get_by_label("Room, GB").fill("28")
    expect(page.locator(".sum-answer")).to_contain_text("It writes about 56.7 Mbit/s of video.")


def test_batteries_and_cards_tell_their_minutes_in_the_mode_that_runs(
    page: Page, trip: str
) -> None:
    board(page, trip)
    carried = page.locator(".carried")
    spare = carried.locator(".battery-unit .unit-where", has_text="vest pocket").first
    expect(spare).to_have_text(re.compile(r"^(\d+ h( \d\d)?|\d+ min), vest pocket$"))
    expect(carried.locator(".card-unit", has_text="bag").first).to_contain_text(
        re.compile(r"(\d+ h( \d\d)?|\d+ min), bag")
    )


def test_one_two_hundredth_or_shorter_asks_no_filter(page: Page, trip: str) -> None:
    sheet = camera(page, trip, "Chin")
    preset = sheet.get_by_label("preset In the air")
    preset.get_by_label("That time", exact=True).select_option("exact")
    dialog = stretch(page, trip, "Sun 13", "d2-gorge/chin")
    dialog.get_by_label("Preset", exact=True).select_option("air")
    dialog.get_by_text("Light and settings").click()
    expect(dialog.get_by_text(re.compile(r"stops? of neutral density"))).to_be_visible()
    kept(page)
    sheet = camera(page, trip, "Chin")
    preset = sheet.get_by_label("preset In the air")
    preset.get_by_label("That time", exact=True).select_option("or_shorter")
    fill(preset, "What else is set", "flat colour")
    dialog = stretch(page, trip, "Sun 13", "d2-gorge/chin")
    dialog.get_by_text("Light and settings").click()
    expect(dialog.get_by_text("1/120 s or shorter by the preset")).to_be_visible()
    expect(dialog.get_by_text(re.compile(r"none: there is no light to spare"))).to_be_visible()


def test_my_own_work_at_home_is_told(page: Page, trip: str) -> None:
    board(page, trip)
    lost = page.get_by_role("region", name="If one card were lost")
    before = lost.get_by_text(re.compile("the work at home is about"))
    expect(before).to_contain_text(
        re.compile(r"of looking through, .* for \d+ clips, 1 h 20 for 4 cameras")
    )
    page.get_by_role("button", name="For the whole trip").click()
    strip = page.get_by_role("dialog")
    fill(strip, "A camera, min", "30")
    expect(before).to_contain_text("2 h 00 for 4 cameras")


def test_a_copy_by_radio_ends_later_than_by_cable(page: Page, trip: str) -> None:
    """Foot's memory over 28 MB/s, then over 5: it ends so much later, and has no cable."""
    dialog = stretch(page, trip, "Sun 13", "d2-shelf/foot")
    by_cable = cable_off(page)
    dialog.get_by_label("Over", exact=True).select_option("radio")
    kept(page)
    page.wait_for_function(
        "(before) => [...document.querySelectorAll('.board-field svg title')].some((one) =>"
        " /has it all/.test(one.textContent)"
        " && one.parentElement.previousElementSibling.textContent > before)",
        arg=by_cable,
    )


def cable_off(page: Page) -> str:
    """When the cable of a copying comes off, by the board."""
    told: str = page.evaluate(
        """() => [...document.querySelectorAll('.board-field svg title')]
          .filter((one) => /cable off/.test(one.textContent))
          .map((one) => one.parentElement.previousElementSibling.textContent)[0]"""
    )
    return told


def test_a_mount_that_holds_too_short_is_said_and_a_reason_silences_it(
    page: Page, trip: str
) -> None:
    sheet = camera(page, trip, "Boom")
    wing = sheet.get_by_label("mount wing or boom")
    wing.get_by_text("How it holds, what it sees and blocks").click()
    fill(wing, "Holds without a look, min", "60")
    board(page, trip)
    unfold(page)
    told = page.get_by_text(re.compile("wing holds 1 h 00 without a look at it; long flight"))
    expect(told).to_have_count(1)
    page.get_by_role("button", name="Sun 13").click()
    page.locator('[data-cell="d2-flight/boom"]').click()
    reason = page.get_by_role("dialog").get_by_label("Why all the same")
    reason.fill("a second line holds it")
    reason.press("Tab")
    kept(page)
    expect(told).to_have_count(0)


def test_a_card_and_a_cable_are_said_with_their_stop_bay_and_hour(page: Page, trip: str) -> None:
    dialog = stretch(page, trip, "Mon 14", "d3-mill/chin")
    dialog.get_by_label("Card here", exact=True).select_option(label="put in K3")
    kept(page)
    expect(
        page.get_by_role("gridcell", name=re.compile("Chin, Old mill.*card K1 → K3"))
    ).to_have_count(1)
    dialog = stretch(page, trip, "Sat 12", "d1-hut/chin")
    into = dialog.get_by_label(re.compile(r"^A\d: into$")).first
    into.select_option(label="Twin dock, bay 2")
    later = dialog.get_by_label(re.compile(r"^A\d: not before$")).first
    later.fill("2027-06-12 20:15")
    later.press("Tab")
    kept(page)
    page.reload()
    dialog = stretch(page, trip, "Sat 12", "d1-hut/chin")
    expect(dialog.get_by_label(re.compile(r"^A\d: not before$")).first).to_have_value(
        "2027-06-12 20:15"
    )


def test_a_battery_that_is_at_80_per_cent_in_25_minutes_takes_so_many_watts(
    page: Page, trip: str
) -> None:
    """0.8 x 60 / 25 = 1.92 an hour, of 5.7 W h 10.9 W; and back from watts to minutes."""
    page.goto(f"{trip}/kit")
    arrived(page, "Kit")
    page.get_by_role("button", name=re.compile("^Family A")).click()
    fill(page, "Empty to 80 % in, min", "25")
    expect(page.get_by_label("Or takes, W", exact=True)).to_have_value("10.9")
    fill(page, "Or takes, W", "5.7")
    expect(page.get_by_label("Empty to 80 % in, min", exact=True)).to_have_value("48")


def test_a_new_modes_drain_is_not_known_until_somebody_says_it(page: Page, trip: str) -> None:
    """One press adds it; one line says how long it lasts."""
    sheet = camera(page, trip, "Chin")
    sheet.get_by_role("button", name="Add a mode").click()
    mode = page.get_by_role("group", name="mode 4K 30")
    known_by = mode.get_by_label("Its drain is known by", exact=True)
    expect(known_by).to_have_value("not_known")
    cord = page.get_by_role("list", name="Modes").get_by_role("button", name=re.compile("4K 30"))
    expect(cord).to_have_accessible_name(re.compile("What it draws is not known: a guess"))
    fill(mode, "Lasts, min", "70")
    expect(known_by).to_have_value("lasts")
    expect(cord).not_to_have_accessible_name(re.compile("not known"))


def test_what_was_measured_and_not_taken_stands_beside_on_shelf_and_board(
    page: Page, server: Server, trip: str
) -> None:
    """Boom's 4K60 was hot after 28 min on the bench; the kit says 54, and so does the board."""
    api = f"{server.address}/api"
    kit = page.request.get(f"{api}/trips/{trip.rpartition('/')[2]}").json()["kit_id"]
    state = page.request.get(f"{api}/kits/{kit}/bench").json()
    run = {"camera": "boom", "set_up": "bare", "mode": "4k60", "ambient_c": 21, "end": "hot"}
    runs = [{"id": f"r{n}", "minutes": 28.3, **run} for n in range(3)]
    body = {"version": state["version"], "notebook": state["notebook"] | {"runs": runs}}
    page.request.put(f"{api}/kits/{kit}/bench", data=body, headers=token_of(page, server))
    page.goto(f"{trip}/kit")
    arrived(page, "Kit")
    told = page.get_by_text("Measured, and not taken:")
    expect(told).to_contain_text(re.compile(r"Boom 4K60 (29|3\d) min, hot \(the kit says 54 min"))
    cord = page.get_by_role("button", name=re.compile("^Boom 4K60: hot after 54 min"))
    expect(cord).to_have_accessible_name(re.compile("Measured (29|3.) min, hot, and not taken"))
    stretch(page, trip, "Sun 13", "d2-scree/boom")
    expect(page.get_by_text("In this air your runs say")).to_be_visible()
    page.get_by_role("link", name="Take them on the bench").click()
    arrived(page, "Bench")
    page.get_by_role("group", name="Camera").get_by_role("button", name="Boom").click()
    air = page.get_by_role("region", name="In any air")
    beside = air.get_by_text("Measured, and not taken:")
    expect(beside).to_contain_text(re.compile(r"Boom 4K60 2\d min, hot \(the kit says 4\d"))
    page.get_by_role("button", name="Take them into the kit").click()
    expect(beside).to_have_count(0)
