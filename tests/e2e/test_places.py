"""Kit shelf, route, and the board's own ways: strips, days, folds, findings that lead."""

from __future__ import annotations

import re

from playwright.sync_api import Page, expect

from tests.e2e.conftest import board, keep, kept, loss, press, saved, unfold
from tools.driving import arrived

PLACES = {"board", "kit", "route"}


def test_the_shelf_answers_air_temperature_and_set_up(page: Page, trip: str) -> None:
    page.goto(f"{trip}/kit")
    headline = page.get_by_test_id("shelf-headline")
    expect(headline).to_have_text("2 of 15 modes last your longest leg.")
    cord = page.get_by_role("button", name=re.compile("^Chin 4K60: hot"))
    expect(cord).to_be_visible()
    page.get_by_role("group", name="Air").get_by_role("button", name="9 m/s").click()
    expect(page.get_by_role("button", name=re.compile("^Chin 4K60: empty"))).to_be_visible()
    page.get_by_role("slider", name="temperature").focus()
    page.keyboard.press("End")
    page.get_by_role("group", name="Air").get_by_role("button", name="still").click()
    expect(page.get_by_role("button", name=re.compile("^Foot 2.7K60: hot"))).to_be_visible()


def test_a_figure_out_of_range_is_said_beside_its_field_and_not_kept(page: Page, trip: str) -> None:
    page.goto(f"{trip}/kit")
    page.get_by_role("button", name="Camera Chin: edit").click()
    mass = page.get_by_role("dialog", name="Chin").get_by_label("Mass, g")
    mass.fill("2")
    expect(page.get_by_text("From 5 to 5000 g.")).to_be_visible()
    mass.fill("heavy")
    expect(page.get_by_text("That is no number.")).to_be_visible()
    mass.press("Escape")
    expect(mass).to_have_value("118")
    expect(page.get_by_role("button", name="Undo")).to_be_disabled()


def test_a_kit_change_is_rehearsed_on_the_board_and_can_be_undone(page: Page, trip: str) -> None:
    page.goto(f"{trip}/kit")
    family = page.get_by_role("button", name=re.compile("^Family A"))
    family.click()
    capacity = page.get_by_role("group", name="Battery family A").get_by_label("Capacity, mAh")
    capacity.fill("2200")
    capacity.press("Enter")
    page.get_by_role("link", name="Board").click()
    arrived(page, "Board")
    expect(loss(page, "Boom")).to_have_count(2)
    expect(loss(page, "Chin")).to_have_count(0)
    page.get_by_role("link", name="Kit").click()
    arrived(page, "Kit")
    page.get_by_role("button", name="Undo").click()
    family.click()
    expect(capacity).to_have_value("1500")


def test_a_camera_that_is_deleted_says_what_went_with_it_and_undo_brings_all_back(
    page: Page, trip: str
) -> None:
    page.goto(f"{trip}/kit")
    page.get_by_role("button", name="Camera Chin: edit").click()
    page.get_by_role("button", name="Copy Chin").click()
    copy = page.get_by_role("button", name="Camera Chin 2: edit")
    expect(copy).to_be_visible()
    page.get_by_role("button", name="Delete Chin 2").click()
    expect(copy).to_have_count(0)
    camp = page.get_by_role("button", name="Camera Camp: edit")
    camp.click()
    press(page, page.get_by_role("button", name="Delete Camp"))
    said = page.get_by_role("status").filter(has_text="is deleted")
    expect(said).to_contain_text("Camera Camp is deleted. With it went what a camera starts with")
    expect(said).to_contain_text(re.compile("stretches of filming.* of Crossing"))
    page.get_by_role("link", name="Board").click()
    arrived(page, "Board")
    grid = page.get_by_role("grid")
    expect(grid).to_have_attribute("aria-colcount", "4")
    page.get_by_role("button", name="Undo", exact=True).first.click()
    expect(grid).to_have_attribute("aria-colcount", "5")
    saved(page)
    assert any(one["camera"] == "camp" for one in kept(page, trip)["plan"]["assignments"])


def test_deleting_a_mode_says_who_asks_for_it_and_the_board_says_it_is_missing(
    page: Page, trip: str
) -> None:
    page.goto(f"{trip}/kit")
    page.get_by_role("button", name=re.compile("^Chin 4K60:")).click()
    page.get_by_role("button", name="Delete mode 4K60").click()
    said = page.get_by_role("status").filter(has_text="is deleted")
    expect(said).to_contain_text("Mode 4K60 of Chin is deleted.")
    press(page, said.get_by_role("button", name="Bring it back"))
    expect(said).to_have_count(0)
    page.get_by_role("button", name=re.compile("^Chin 4K60:")).wait_for()
    page.get_by_role("button", name=re.compile("^Boom 4K60:")).click()
    page.get_by_role("button", name="Delete mode 4K60").click()
    expect(said).to_contain_text("asks for it. Those stretches stay")
    page.get_by_role("link", name="Board").click()
    arrived(page, "Board")
    expect(page.get_by_text("Boom has no mode '4k60' any more.").first).to_be_attached()
    expect(loss(page, "mode missing")).to_contain_text("1 h 00")


def test_legs_are_changed_moved_and_deleted_on_the_route(page: Page, trip: str) -> None:
    page.goto(f"{trip}/route")
    page.get_by_role("button", name="ridge", exact=False).first.click()
    lasts = page.get_by_label("Lasts, h:min")
    lasts.fill("later")
    expect(page.get_by_text("Like 1:35, 95 or 1 h 35.")).to_be_visible()
    lasts.fill("1:50")
    lasts.press("Enter")
    expect(page.get_by_role("heading", level=1)).to_contain_text("77 h 45")
    page.get_by_role("button", name="Delete ridge").click()
    expect(page.get_by_text("Leg ridge is deleted. With it went")).to_be_visible()
    expect(page.get_by_role("heading", level=1)).to_contain_text("14 legs and 15 stops")
    page.get_by_role("button", name="Bring it back").click()
    expect(page.get_by_role("heading", level=1)).to_contain_text("15 legs and 15 stops")


def test_a_pasted_line_at_fault_is_named_and_nothing_is_added(page: Page, trip: str) -> None:
    page.goto(f"{trip}/route")
    expect(page.get_by_role("heading", level=1)).to_contain_text("15 legs")
    box = page.get_by_label("Type or paste")
    box.fill("down; descent; 1:00; 10\nover; hop; 1:00")
    page.get_by_role("button", name="Add 2 lines").click()
    alert = page.get_by_role("alert")
    expect(alert).to_contain_text("Nothing was added.")
    expect(alert).to_contain_text("line 2: activity 'hop' is none of")
    expect(box).to_have_value("down; descent; 1:00; 10\nover; hop; 1:00")
    box.fill("down; descent; 1:00; 10")
    box.press("Control+Enter")
    expect(page.get_by_role("heading", level=1)).to_contain_text("16 legs")


def test_a_finding_leads_to_its_field(page: Page, trip: str) -> None:
    board(page, trip)
    unfold(page)
    page.get_by_role("button", name=re.compile("^Mind .*no hand is free")).click()
    expect(page).to_have_url(re.compile(r"/route\?at=trip\.items"))
    expect(page.get_by_label("Hands", exact=True)).to_be_focused()
    page.go_back()
    unfold(page, "notes")
    page.get_by_role("button", name=re.compile("^Note .* are charged and nobody uses")).click()
    expect(page.locator('[data-path="kit.batteries[2]"]')).to_be_focused()


def test_days_and_folds(page: Page, trip: str) -> None:
    board(page, trip)
    days = page.get_by_role("group", name="Day")
    expect(days.get_by_role("button", pressed=True)).to_contain_text("Sun 13")
    expect(page.get_by_role("grid").get_by_role("row")).to_have_count(7)
    days.get_by_role("button", name="Tue 15").click()
    expect(page.get_by_role("grid").get_by_role("row")).to_have_count(5)
    days.get_by_role("button", name="All stops").click()
    expect(page.get_by_role("grid").get_by_role("row")).to_have_count(30)


def test_the_hand_follows_the_pointer_is_pinned_and_read_out(page: Page, trip: str) -> None:
    board(page, trip)
    field = page.locator(".board-field")
    box = field.bounding_box()
    assert box is not None
    slider = page.get_by_role("slider", name="The hand", exact=False)
    page.mouse.move(box["x"] + 200, box["y"] + 100)
    first = slider.inner_text()
    page.mouse.move(box["x"] + 200, box["y"] + 220)
    expect(slider).not_to_have_text(first)
    page.mouse.click(box["x"] + 20, box["y"] + 220)
    expect(slider).to_contain_text("pinned")
    pinned = slider.inner_text()
    page.mouse.move(box["x"] + 200, box["y"] + 60)
    expect(slider).to_have_text(pinned)
    page.mouse.click(box["x"] + 20, box["y"] + 60)
    expect(slider).not_to_contain_text("pinned")


def test_a_manual_swap_and_what_a_camera_carries(page: Page, trip: str) -> None:
    board(page, trip)
    page.get_by_role("gridcell", name="Chin, Spring bend").click()
    page.get_by_label("Battery here").select_option("a9")
    page.get_by_label("When", exact=True).select_option("leaving")
    keep(page)
    expect(page.get_by_role("gridcell", name="Chin, Spring bend")).to_have_accessible_name(
        re.compile("A4 → A9")
    )
    page.keyboard.press("Escape")
    page.get_by_role("button", name="Camp", exact=True).click()
    strip = page.get_by_role("dialog", name="How Camp is carried")
    radio = strip.get_by_label("Radio left on when it is off")
    expect(radio).to_be_checked()
    radio.uncheck()
    strip.get_by_label("Between stretches and takes").select_option("standby")
    page.reload()
    page.get_by_role("button", name="Camp", exact=True).click()
    expect(page.get_by_label("Radio left on when it is off")).not_to_be_checked()


def test_takes_are_typed_and_refused_beside_the_field(page: Page, trip: str) -> None:
    board(page, trip)
    page.get_by_role("gridcell", name="Boom, long flight").click()
    each = page.get_by_label("Each, s")
    each.fill("0")
    expect(page.get_by_text("From 1 to 86400 s.")).to_be_visible()
    each.fill("90")
    each.press("Enter")
    page.get_by_role("button", name="count in all instead").click()
    expect(page.get_by_label("Takes, in all")).to_have_value("10")
    keep(page)
    page.keyboard.press("Escape")
    expect(page.get_by_role("gridcell", name="Boom, long flight")).to_have_accessible_name(
        re.compile("Filmed 1[45] min of 15 min")
    )


def test_a_loop_is_chosen_typed_and_drawn_and_kept_over_reload(page: Page, trip: str) -> None:
    board(page, trip)
    page.get_by_role("gridcell", name="Foot, long flight").click()
    strip = page.get_by_role("dialog", name="Foot, long flight")
    strip.get_by_role("group", name="How it records").get_by_role("button", name="loop").click()
    strip.get_by_label("Length, s").fill("9")
    expect(strip.get_by_text("From 10 to 86400 s.")).to_be_visible()
    strip.get_by_label("Length, s").fill("200")
    strip.get_by_label("Length, s").press("Enter")
    keep(page)
    expect(page.get_by_label("Verdict").get_by_text("watched by a loop").first).to_be_visible()
    page.reload()
    expect(page.get_by_role("gridcell", name="Foot, long flight")).to_have_accessible_name(
        re.compile("Loop 2.7K60")
    )


def test_windows_are_typed_by_the_sun_and_the_clock(page: Page, trip: str) -> None:
    board(page, trip)
    page.get_by_role("gridcell", name="Foot, Shelf camp").click()
    strip = page.get_by_role("dialog", name="Foot, Shelf camp")
    strip.get_by_role("group", name="How it records").get_by_role(
        "button", name="by the clock"
    ).click()
    strip.get_by_label("opens", exact=True).select_option("sunset")
    strip.get_by_label("opens after, min").fill("-30")
    strip.get_by_label("opens after, min").press("Enter")
    strip.get_by_label("closes", exact=True).select_option("dusk")
    keep(page)
    expect(page.get_by_role("gridcell", name="Foot, Shelf camp")).to_have_accessible_name(
        re.compile("By the clock 1080 30 .*Filmed 1 h 0")
    )
    strip.get_by_label("Copy its footage here").select_option("cobble")
    keep(page)
    expect(page.get_by_role("gridcell", name="Foot, Shelf camp")).to_have_accessible_name(
        re.compile("copy Foot memory to Cobble drive")
    )


def test_a_bank_and_a_pocket_are_added_to_the_kit(page: Page, trip: str) -> None:
    board(page, trip)
    page.get_by_role("link", name="Kit").click()
    arrived(page, "Kit")
    page.get_by_role("button", name="Add a power bank").click()
    bank = page.get_by_role("dialog", name="Source power bank")
    bank.get_by_label("Ports, W").fill("0")
    expect(bank.get_by_text("Like 18, 10")).to_be_visible()
    bank.get_by_label("Ports, W").fill("18, 5")
    bank.get_by_label("Ports, W").press("Enter")
    page.keyboard.press("Escape")
    page.get_by_role("button", name="Add a pocket").click()
    expect(page.get_by_role("dialog", name="Pocket inside pocket")).to_be_visible()
    page.get_by_role("link", name="Board").click()
    arrived(page, "Board")
    expect(page.get_by_label("What you carry").get_by_text("power bank").first).to_be_visible()


def test_moments_and_a_socket_are_typed_on_the_route(page: Page, trip: str) -> None:
    board(page, trip)
    page.get_by_role("link", name="Route").click()
    arrived(page, "Route")
    page.get_by_role("button", name=re.compile("gorge walk")).first.click()
    page.get_by_text("Moments, power and water").click()
    page.get_by_role("button", name="Add a moment").click()
    page.get_by_label("Lasts, s").fill("45")
    page.get_by_label("Lasts, s").press("Enter")
    page.get_by_role("link", name="Board").click()
    arrived(page, "Board")
    caught = page.get_by_label("If one card were lost").get_by_text(
        "something worth having, gorge walk"
    )
    expect(caught.first).to_be_visible()
