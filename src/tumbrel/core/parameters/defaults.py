"""Typical values used where the person has measured nothing (the wide priors)."""

from __future__ import annotations

from collections.abc import Mapping
from dataclasses import dataclass, field, replace
from types import MappingProxyType
from typing import Any, Final


@dataclass(frozen=True)
class Parameter:
    """A number that a model uses: its value, the range it may plausibly lie in, and its source."""

    value: float
    low: float
    high: float
    unit: str
    source: str


HEAT_TEXT: Final = "laminar forced convection on a 4 cm body; any heat-transfer text"
PRIOR: Final = "wide prior for small cameras, unmeasured"
LIMIT: Final = "usual limit for charging lithium-ion; makers' instructions go first"
BACK: Final = "two kelvins back, so that it does not chatter"
BANK: Final = "banks that switch themselves off, typical"
DYNAMO: Final = "hub dynamos of 3 W, as bench tests show them"
GOING: Final = "the usual speed of going, as an airflow on the kit; a wind is not in it"
HABIT: Final = "typical of small cameras; replace by what you time yourself"

FEATURE_W: Mapping[str, Parameter] = MappingProxyType(
    {
        "screen": Parameter(0.55, 0.3, 0.9, "W", HABIT),
        "radio": Parameter(0.35, 0.15, 0.7, "W", HABIT),
        "positioning": Parameter(0.10, 0.05, 0.2, "W", HABIT),
        "microphone": Parameter(0.15, 0.05, 0.4, "W", HABIT),
        "light": Parameter(1.20, 0.5, 3.0, "W", HABIT),
    }
)
COLD_TEXT: Final = "share of energy at 0.5 to 1 C, voltage sag counted; published discharge curves"
AVAILABLE: tuple[tuple[float, float], ...] = (
    (-30.0, 0.28),
    (-20.0, 0.52),
    (-10.0, 0.72),
    (0.0, 0.87),
    (10.0, 0.96),
    (25.0, 1.00),
)
BANK_AVAILABLE: tuple[tuple[float, float], ...] = (  # drained slowly, at 0.1 to 0.2 C
    (-20.0, 0.75),
    (-10.0, 0.88),
    (0.0, 0.95),
    (25.0, 1.00),
)
TAPER_HEAT_AT: Final[tuple[float, ...]] = (0.0, 0.25, 0.50, 0.75, 0.95)  # of the way to full
CLASS_MB_S: Mapping[str, float] = MappingProxyType(
    {"C10": 10, "U1": 10, "U3": 30, "V6": 6, "V10": 10, "V30": 30, "V60": 60, "V90": 90}
)


@dataclass(frozen=True)
class Defaults:
    """All parameters of the core."""

    # Energy
    boot_s: Parameter = Parameter(4.0, 1.0, 10.0, "s", HABIT)
    standby_w: Parameter = Parameter(0.5, 0.1, 1.0, "W", HABIT)
    radio_left_on_w: Parameter = Parameter(
        0.010, 0.002, 0.05, "W", "a sleeping radio chip with its regulator, typical"
    )
    self_discharge_per_month: Parameter = Parameter(
        0.025,
        0.01,
        0.05,
        "1/month",
        "lithium-ion cells with a protection circuit; makers' data sheets",
    )
    available: tuple[tuple[float, float], ...] = AVAILABLE  # degC and share, coldest first
    bank_available: tuple[tuple[float, float], ...] = BANK_AVAILABLE
    cold_reference_c_rate: Parameter = Parameter(0.7, 0.5, 1.0, "1/h", COLD_TEXT)
    revival: Parameter = Parameter(
        0.03, 0.01, 0.08, "", "so that what is revived runs on for some minutes; by trial"
    )
    tau_cell_s: Parameter = Parameter(
        720.0, 400.0, 1200.0, "s", "a 25 g cell, 1 J/(g K), 35 mW/K to what is around it"
    )
    tau_bank_s: Parameter = Parameter(2400.0, 1200.0, 4000.0, "s", "a cell of ten times the mass")
    inside_pocket_c: Parameter = Parameter(
        25.0, 18.0, 32.0, "degC", "half way from skin at 33 degC to cool air, under a jacket"
    )
    outer_mild_c: Parameter = Parameter(
        25.0, 20.0, 30.0, "degC", "the warm side of an outer pocket above 5 degC; by trial"
    )
    outer_cold_c: Parameter = Parameter(
        15.0, 8.0, 22.0, "degC", "the same below -5 degC, under more clothes; by trial"
    )
    typical_draw_w: Parameter = Parameter(
        3.5, 1.8, 7.0, "W", "small cameras at 30 frames a second, of which nothing is known"
    )
    draw_spread: Parameter = Parameter(1.0, 0.88, 1.12, "", "run-to-run spread of a mode's draw")
    # Heat
    reference_mass_g: Parameter = Parameter(
        70.0, 70.0, 70.0, "g", "the body that the other priors are told for"
    )
    tau_s: Parameter = Parameter(900.0, 500.0, 1500.0, "s", PRIOR)
    resistance_k_per_w: Parameter = Parameter(14.0, 10.0, 18.0, "K/W", PRIOR)
    airflow_a: Parameter = Parameter(0.8, 0.5, 1.2, "1/sqrt(m/s)", HEAT_TEXT)
    air_scale_m: Parameter = Parameter(
        8400.0, 8000.0, 8800.0, "m", "scale height of the air near the ground; barometric formula"
    )
    thin_still: Parameter = Parameter(
        -0.3, -0.5, -0.2, "", "still-air rise over density: free convection beside radiation"
    )
    thin_moving: Parameter = Parameter(
        0.2, 0.1, 0.3, "", "so that forced convection goes with the root of density in all"
    )
    least_g: Parameter = Parameter(
        0.25, 0.15, 0.35, "", "what is inside has to come out through the body, however it blows"
    )
    albedo: Parameter = Parameter(0.2, 0.1, 0.35, "", "grass, rock and sand; tables of albedo")
    albedo_snow: Parameter = Parameter(0.8, 0.6, 0.9, "", "clean snow; tables of albedo")
    stop_c: Parameter = Parameter(70.0, 60.0, 80.0, "degC", PRIOR)
    restart_c: Parameter = Parameter(55.0, 45.0, 65.0, "degC", PRIOR)
    # Airflow where none is typed: the speed of going, in still air
    air_climb_mps: Parameter = Parameter(0.6, 0.2, 1.5, "m/s", GOING)
    air_walk_mps: Parameter = Parameter(1.2, 0.6, 2.5, "m/s", GOING)
    air_descent_mps: Parameter = Parameter(1.0, 0.4, 2.5, "m/s", GOING)
    air_flight_mps: Parameter = Parameter(9.0, 6.0, 14.0, "m/s", GOING)
    air_sled_mps: Parameter = Parameter(4.0, 2.0, 8.0, "m/s", GOING)
    air_sail_mps: Parameter = Parameter(8.0, 3.0, 15.0, "m/s", GOING)
    air_ride_mps: Parameter = Parameter(4.0, 2.0, 8.0, "m/s", GOING)
    air_paddle_mps: Parameter = Parameter(1.5, 0.5, 4.0, "m/s", GOING)
    air_drive_mps: Parameter = Parameter(1.0, 0.0, 5.0, "m/s", GOING)
    absorptance: Parameter = Parameter(
        0.9, 0.7, 0.95, "", "dark plastic; tables of solar absorptance"
    )
    sunlit_area_cm2: Parameter = Parameter(12.0, 8.0, 18.0, "cm2", PRIOR)
    # Charging
    charge_rate_per_h: Parameter = Parameter(
        0.6, 0.4, 2.7, "1/h", "small batteries on their own chargers; the quick ones far above"
    )
    cool_share: Parameter = Parameter(
        0.5, 0.2, 1.0, "", "of the rate in a cool cell; usual charging profile by temperature"
    )
    cool_below_c: Parameter = Parameter(10.0, 5.0, 15.0, "degC", LIMIT)
    warm_above_c: Parameter = Parameter(12.0, 7.0, 17.0, "degC", BACK)
    charge_efficiency: Parameter = Parameter(
        0.90, 0.85, 0.95, "", "small switching chargers, typical"
    )
    feed_efficiency: Parameter = Parameter(
        0.95, 0.88, 0.98, "", "regulator feeding through, typical"
    )
    store_efficiency: Parameter = Parameter(
        0.92, 0.85, 0.96, "", "through a store that rides on a camera, in place of feeding"
    )
    kink: Parameter = Parameter(
        0.80, 0.7, 0.9, "", "where constant current gives way to constant voltage, typical"
    )
    full: Parameter = Parameter(
        0.99, 0.97, 1.0, "", "where chargers end, at a twentieth of the rate"
    )
    chargeable_below: Parameter = Parameter(
        0.95, 0.9, 0.98, "", "what is fuller is not worth a hand; habit"
    )
    refuse_cold_c: Parameter = Parameter(0.0, 0.0, 5.0, "degC", LIMIT)
    resume_cold_c: Parameter = Parameter(2.0, 1.0, 7.0, "degC", BACK)
    refuse_hot_c: Parameter = Parameter(45.0, 40.0, 50.0, "degC", LIMIT)
    resume_hot_c: Parameter = Parameter(43.0, 38.0, 48.0, "degC", BACK)
    pause_body_c: Parameter = Parameter(45.0, 40.0, 55.0, "degC", PRIOR)
    resume_body_c: Parameter = Parameter(40.0, 35.0, 50.0, "degC", PRIOR)
    bank_v: Parameter = Parameter(
        3.7, 3.6, 3.85, "V", "voltage of the cells inside, for which mA h are printed"
    )
    bank_efficiency: Parameter = Parameter(
        0.85, 0.7, 0.93, "", "boost converter and cable, typical"
    )
    bank_off_below_w: Parameter = Parameter(0.25, 0.1, 0.6, "W", BANK)
    bank_off_after_s: Parameter = Parameter(30.0, 10.0, 60.0, "s", BANK)
    bank_idle_w: Parameter = Parameter(
        0.06, 0.02, 0.15, "W", "converter and display of a bank that is switched on, typical"
    )
    dynamo_from_mps: Parameter = Parameter(2.8, 2.0, 3.5, "m/s", DYNAMO)
    dynamo_rated_mps: Parameter = Parameter(4.2, 3.5, 6.0, "m/s", DYNAMO)
    dynamo_share: Parameter = Parameter(
        0.70, 0.55, 0.85, "", "rectifier, regulator and cable, typical"
    )
    panel_share: Parameter = Parameter(
        0.60, 0.45, 0.8, "", "laid out to the sun: dust, warmth, angle and regulator, typical"
    )
    panel_carried_share: Parameter = Parameter(
        0.35, 0.15, 0.5, "", "carried on a pack: the same, turned and shaded by who carries it"
    )
    # Memory
    container_overhead: Parameter = Parameter(0.01, 0.0, 0.03, "", "file container and index")
    peak_over_mean: Parameter = Parameter(1.3, 1.0, 2.0, "", "variable bitrate coding, typical")
    usable_share: Parameter = Parameter(0.985, 0.97, 0.99, "", "file system and index, typical")
    sustained_share: Parameter = Parameter(
        0.9, 0.7, 1.0, "", "margin below what the class promises"
    )
    radio_mb_s: Parameter = Parameter(5.0, 1.0, 40.0, "MB/s", "a camera's radio to a phone")
    inside_mb_s: Parameter = Parameter(
        20.0, 8.0, 60.0, "MB/s", "from a camera's own memory to its card, checked, typical"
    )
    read_mb_s: Parameter = Parameter(60.0, 20.0, 150.0, "MB/s", "reading over a cable")
    # Patterns
    shortest_shutter_s: Parameter = Parameter(
        1.25e-4, 3e-5, 5e-4, "s", "typical of rolling electronic shutters"
    )
    frame_s: Parameter = Parameter(1.0, 0.3, 3.0, "s", "one frame, from awake to written")
    off_above_boot_s: Parameter = Parameter(
        2.0, 1.0, 5.0, "s", "going off for less gains nothing; habit"
    )
    mean_power_below_s: Parameter = Parameter(
        45.0, 45.0, 45.0, "s", "bursts far shorter than the lags of body and cell"
    )
    save_s: Parameter = Parameter(3.0, 1.0, 10.0, "s", HABIT)
    # The picture
    f_number: Parameter = Parameter(2.8, 1.8, 4.0, "", "fixed lenses of small cameras")
    base_iso: Parameter = Parameter(100.0, 50.0, 200.0, "ISO", HABIT)
    most_iso: Parameter = Parameter(1600.0, 800.0, 6400.0, "ISO", "grain begins to show; by taste")
    # The person
    plug_s: Parameter = Parameter(15.0, 5.0, 60.0, "s", HABIT)
    worth_unloading_s: Parameter = Parameter(1800.0, 900.0, 3600.0, "s", HABIT)
    restart_hand_s: Parameter = Parameter(5.0, 2.0, 15.0, "s", HABIT)
    card_swap_s: Parameter = Parameter(25.0, 10.0, 90.0, "s", HABIT)
    swap_margin: Parameter = Parameter(
        1.15, 1.0, 1.5, "", "one in seven, the spread of a mode's draw"
    )
    note_gap_s: Parameter = Parameter(
        30.0, 15.0, 60.0, "s", "what an eye forgives, and no cure is judged by; by taste"
    )
    looking_through: Parameter = Parameter(1.25, 0.5, 3.0, "h per h", "hours at the desk per hour")
    feature_w: Mapping[str, Parameter] = field(default_factory=lambda: FEATURE_W)
    class_mb_s: Mapping[str, float] = field(default_factory=lambda: CLASS_MB_S)

    def with_value(self, name: str, value: float) -> Defaults:
        """The same parameters with one replaced, as by what the user measured."""
        changes: dict[str, Any] = {name: replace(getattr(self, name), value=value)}
        return replace(self, **changes)

    def usual_air_mps(self, activity: str) -> float:
        """Airflow on the kit where none is typed: the usual speed of an activity [m/s]."""
        going = {
            "climb": self.air_climb_mps,
            "walk": self.air_walk_mps,
            "descent": self.air_descent_mps,
            "flight": self.air_flight_mps,
            "sled": self.air_sled_mps,
            "sail": self.air_sail_mps,
            "ride": self.air_ride_mps,
            "paddle": self.air_paddle_mps,
            "drive": self.air_drive_mps,
        }
        return going[activity].value if activity in going else 0.0


DEFAULTS: Final = Defaults()
