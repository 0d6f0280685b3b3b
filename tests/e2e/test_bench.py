"""The bench in the page: tests by the clock, runs brought in, figures into the kit, any air."""

from __future__ import annotations

import re
from pathlib import Path

import pytest
from playwright.sync_api import Browser, BrowserContext, Locator, Page, expect

from tests.conftest import DEMO
from tests.e2e.conftest import LAPTOP, Window, loss, saved
from tests.e2e.test_manners import tab_to
from tests.reference.clips import make_clip, spoiled_card
from tools.driving import Server, arrived

PLACES = {"bench", "board", "kit"}
RUNS = DEMO.with_suffix(".runs.csv")
BY_THE_OLD = re.compile("17 min.*Boom, too hot, 68°")
LOG = "Time (s),Voltage (V),Current (A)\n" + "".join(
    f"{t},4.0,{0.0 if t < 60 or t > 3660 else 1.25}\n" for t in range(0, 4200, 30)
)


def bench(page: Page, address: str) -> None:
    """Open the bench and wait until it has told."""
    page.goto(f"{address}/bench")
    expect(page.get_by_test_id("bench-headline")).not_to_have_text(re.compile("Looking"))


def way(page: Page, name: str) -> Locator:
    """Open a way to bring in a run."""
    page.get_by_role("group", name="Ways to bring in a run").get_by_role(
        "button", name=name
    ).click()
    return page.get_by_role("region", name="Bring in a run")


def lane(page: Page, words: str) -> Locator:
    return page.get_by_role("list", name="Runs").get_by_role("button", name=re.compile(words))


@pytest.fixture
def full(page: Page, trip: str) -> str:
    """A trip whose bench has the demo's runs, opened as a file."""
    bench(page, trip)
    panel = way(page, "Paste or open a table")
    panel.get_by_label("Open a CSV file").set_input_files(RUNS)
    panel.get_by_role("button", name="Keep these 15 runs").click()
    expect(lane(page, "4K60, 21° still: hot after 28 min")).to_be_visible()
    return trip


def test_an_empty_bench_says_so_and_offers_the_run_that_teaches_most(page: Page, trip: str) -> None:
    bench(page, trip)
    expect(page.get_by_test_id("bench-headline")).to_contain_text("Nothing is measured yet")
    start = lane(page, "^Start this run")
    expect(start).to_be_visible()
    start.click()
    expect(page.get_by_role("button", name="Start the clock")).to_be_visible()


def test_runs_go_out_and_in_as_csv(page: Page, full: str) -> None:
    expect(page.get_by_test_id("bench-headline")).to_have_text(
        "Chin filmed 4K60 for 28 min, not 1 h 35: heat ends it."
    )
    with page.expect_download() as caught:
        page.get_by_role("link", name="Save all runs as CSV").click()
    text = Path(caught.value.path()).read_text("utf-8")
    assert len(text.splitlines()) == 16
    panel = way(page, "Paste or open a table")
    panel.get_by_label("Paste runs here").fill(text.replace("hot", "molten", 1))
    panel.get_by_role("button", name="Read the table").click()
    expect(panel.get_by_role("alert")).to_contain_text("line 2, end: ")
    expect(panel.get_by_role("button", name=re.compile("^Keep"))).to_have_count(0)


def test_a_test_goes_on_over_sleep_and_reload_and_ends_as_a_run(
    browser: Browser, server: Server, trip: str
) -> None:
    window = Window(browser, **LAPTOP)  # its clock stays changed
    server.enter(window.context)
    page = window.context.new_page()
    page.clock.install()
    bench(page, trip)
    panel = way(page, "Start a test")
    panel.get_by_label("Mode").select_option("4k30")
    panel.get_by_label("Room, °C").fill("18")
    panel.get_by_role("button", name="Start the clock").click()
    clock = page.get_by_role("timer", name="Recorded")
    expect(clock).to_contain_text("0:00:0")
    page.clock.fast_forward("20:00")
    expect(clock).to_contain_text("0:20:")
    page.get_by_role("button", name="It warns of heat").click()
    expect(page.get_by_text("Warned of heat at 0:20:")).to_be_visible()
    saved(page, "The bench")
    page.evaluate("localStorage.clear()")
    page.reload()
    expect(clock).to_contain_text("0:20:")
    page.clock.fast_forward("11:00")
    expect(clock).to_contain_text("0:31:")
    page.get_by_role("group", name="It ended").get_by_role("button", name="too hot").click()
    expect(clock).to_have_count(0)
    expect(lane(page, "4K30, 18° still: hot after 31 min")).to_be_visible()
    page.get_by_role("button", name="Undo").click()
    expect(clock).to_contain_text("0:31:")
    window.context.close()


def test_the_simulated_camera_is_tested_like_a_real_one(page: Page, trip: str) -> None:
    bench(page, trip)
    panel = way(page, "Start a test")
    panel.get_by_role("button", name="simulated a minute each second").click()
    panel.get_by_role("button", name="Start the clock").click()
    expect(page.get_by_text(re.compile(r"It shows \d+ %.* GB free"))).to_be_visible()
    expect(page.get_by_role("timer", name="Recorded")).not_to_contain_text("0:00:")
    page.get_by_role("group", name="It ended").get_by_role("button", name="I stopped it").click()
    made = lane(page, "not hot by|hot after")
    expect(made).to_be_visible()
    run = page.get_by_role("region", name="The chosen run")
    if run.count() == 0:
        made.click()
    expect(run.get_by_label("Written, GB")).not_to_have_value("")


def test_figures_show_what_they_change_go_into_the_kit_and_back(page: Page, full: str) -> None:
    page.get_by_role("group", name="Camera").get_by_role("button", name="Boom").click()
    figures = page.get_by_role("region", name="Figures")
    figures.get_by_role("button", name="See what they change").click()
    changed = re.compile("minutes? (are|is) filmed|min (more|fewer|less)")
    expect(figures.get_by_text(changed)).to_be_visible()
    figures.get_by_role("button", name="Take them into the kit").click()
    expect(figures.get_by_text("In the kit since")).to_be_visible()
    page.get_by_role("link", name="Board", exact=True).click()
    arrived(page, "Board")
    expect(loss(page, BY_THE_OLD)).to_have_count(0)
    page.get_by_role("link", name="Bench", exact=True).click()
    arrived(page, "Bench")
    page.get_by_role("group", name="Camera").get_by_role("button", name="Boom").click()
    figures.get_by_role("button", name="Put the old ones back").click()
    expect(figures.get_by_text("In the kit since")).to_have_count(0)
    page.get_by_role("link", name="Board", exact=True).click()
    arrived(page, "Board")
    expect(loss(page, BY_THE_OLD)).to_have_count(1)


def test_sliders_move_every_figure_by_keyboard(page: Page, full: str) -> None:
    modes = page.get_by_role("img", name=re.compile("^4K60: empty after"))
    expect(modes).to_have_accessible_name(re.compile("hot after 2[5-9] min"))
    air = page.get_by_role("slider", name="air")
    air.focus()
    for _ in range(6):
        page.keyboard.press("ArrowRight")
    expect(modes).to_have_accessible_name(re.compile("never hot"))
    page.get_by_role("slider", name="temperature").focus()
    page.keyboard.press("End")
    expect(modes).to_have_accessible_name(re.compile("4K60: .* hot after"))


def test_by_keyboard_alone_a_run_is_told_not_to_count(page: Page, full: str) -> None:
    tab_to(page, ".lanes button")
    page.keyboard.press("End")
    page.keyboard.press("ArrowLeft")
    page.keyboard.press("Enter")
    run = page.get_by_role("region", name="The chosen run")
    expect(run.get_by_role("heading")).to_have_text("4K60, 2026-05-24 15:10")
    reason = run.get_by_label("Does not count because")
    reason.focus()
    page.keyboard.type("the room was draughty")
    page.keyboard.press("Enter")
    expect(lane(page, "Does not count: the room was draughty")).to_be_visible()
    expect(page.get_by_text("5 runs of 7 count.")).to_be_visible()
    page.keyboard.press("Tab")
    page.keyboard.press("Control+z")
    expect(page.get_by_text("6 runs of 7 count.")).to_be_visible()


def test_a_meter_log_is_seen_before_it_is_used(page: Page, trip: str, tmp_path: Path) -> None:
    log = tmp_path / "night.csv"
    log.write_text(LOG, "utf-8")
    bench(page, trip)
    panel = way(page, "Meter log")
    panel.get_by_label("Open a meter log").set_input_files(log)
    expect(panel.get_by_text("“Time (s)” is time in s")).to_be_visible()
    expect(
        panel.get_by_text("It recorded for 1 h 00, at 5.00 W on average: 5.0 W h.")
    ).to_be_visible()
    panel.get_by_role("button", name="Use it in a run").click()
    expect(panel.get_by_label("Recorded, min")).to_have_value("60")
    panel.get_by_role("button", name="Keep this run").click()
    expect(lane(page, "4K60, 20° still: empty after 1 h 00")).to_be_visible()
    log.write_text("volts,amps\n1,2\n1,2\n", "utf-8")
    panel = way(page, "Meter log")
    panel.get_by_label("Open a meter log").set_input_files(log)
    expect(panel.get_by_role("alert")).to_contain_text("night.csv: line 1: no column is time")


def test_clips_are_read_here_and_their_rate_goes_into_the_kit(
    page: Page, trip: str, tmp_path: Path
) -> None:
    spoiled_card(tmp_path)
    make_clip(tmp_path / "mode.mp4", 1.0, size=(1920, 1080))
    sent: list[int] = []
    page.on("request", lambda request: sent.append(len(request.post_data_buffer or b"")))
    bench(page, trip)
    panel = way(page, "Clips of a card")
    panel.get_by_label("Folder of clips").set_input_files(tmp_path)
    expect(panel.get_by_text("4 recordings, 6 chapters joined where they go on.")).to_be_visible()
    expect(panel.get_by_text("5 files skipped")).to_be_visible()
    for why in ("nothing.mp4 has no bytes", "early.mp4 is cut off", "notes.txt is no video"):
        expect(panel.get_by_text(why)).to_be_visible()
    assert max(sent) < 400_000  # facts were sent, not pictures
    panel.get_by_role("button", name="Take the rate into the kit").click()
    panel.get_by_role("button", name=re.compile("^Use .*CH0002_1.mp4 as a run")).click()
    expect(panel.get_by_label("Recorded, min")).to_have_value("0.1")
    page.get_by_role("link", name="Kit", exact=True).click()
    arrived(page, "Kit")
    expect(page.get_by_role("button", name="Camera Chin: edit")).to_be_visible()
    expect(page.get_by_role("button", name="Undo")).to_be_enabled()


def test_two_tabs_on_the_bench_know_of_each_other(
    context: BrowserContext, page: Page, full: str
) -> None:
    other = context.new_page()
    bench(other, full)
    lane(page, "hot after 15 min").click()
    page.get_by_role("button", name="Delete this run").click()
    expect(lane(page, "hot after 15 min")).to_have_count(0)
    expect(lane(other, "hot after 15 min")).to_have_count(0)
    lane(other, "hot after 22 min").click()
    other.get_by_role("button", name="Delete this run").click()
    expect(lane(page, "hot after 22 min")).to_have_count(0)
    expect(lane(page, "hot after 15 min")).to_have_count(0)


def test_a_charging_run_is_typed_and_its_rate_goes_into_the_kit(page: Page, trip: str) -> None:
    """20 to 80 % in 18 min 45 is 25 min from empty; the battery family takes it along."""
    bench(page, trip)
    panel = way(page, "Type a run")
    panel.get_by_label("Charge at start").fill("20")
    panel.get_by_label("Recorded").fill("18.75")
    panel.get_by_label("Charge at end").fill("80")
    panel.get_by_text("On a module or bank, charging, or in the cold").click()
    panel.get_by_label("it was off and only charged").check()
    panel.get_by_label("It ended").select_option(label="I stopped it")
    read = panel.get_by_label("Per cent at minutes")
    read.fill("9.4:50 soon")
    read.press("Enter")
    expect(panel.get_by_text("Minutes and per cent, like 20:80 40:55.")).to_be_visible()
    read.fill("9.4:50")
    read.press("Enter")
    panel.get_by_role("button", name="Keep this run").click()
    figures = page.get_by_role("region", name="Figures")
    expect(figures).to_contain_text(re.compile("empty to 80 %, by itself2[5-7] min"))
    figures.get_by_role("button", name="See what they change").click()
    expect(figures.get_by_role("status")).to_contain_text("1 figure of the kit changes")
    figures.get_by_role("button", name="Take them into the kit").click()
    expect(figures.get_by_text("In the kit since")).to_be_visible()


def test_a_run_on_a_module_and_one_in_the_cold_are_typed(page: Page, trip: str) -> None:
    """Both empty after so long with 5 W h more; dead in the cold with 45 % shown."""
    bench(page, trip)
    panel = way(page, "Type a run")
    panel.get_by_label("Recorded").fill("150")
    panel.get_by_text("On a module or bank, charging, or in the cold").click()
    panel.get_by_label("It ran on one that holds").fill("5")
    panel.get_by_label("It ran on one that holds").press("Enter")
    panel.get_by_label("Its per cent at minutes").fill("20:60")
    panel.get_by_label("It ended").select_option(label="module and battery empty")
    panel.get_by_role("button", name="Keep this run").click()
    figures = page.get_by_role("region", name="Figures")
    expect(lane(page, "both empty after")).to_be_visible()
    expect(figures).to_contain_text("of the module's label reach it")
    bench(page, trip)  # where no run is chosen
    panel = way(page, "Type a run")
    panel.get_by_label("Room").fill("-15")
    panel.get_by_label("Recorded").fill("50")
    panel.get_by_label("Charge at end").fill("45")
    panel.get_by_role("button", name="Keep this run").click()
    expect(figures).to_contain_text("held back by the cold, of typical")
