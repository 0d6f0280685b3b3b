"""What stores, gives and takes power: batteries, pockets, chargers, sources and other loads."""

from __future__ import annotations

from typing import Annotated, Literal

from pydantic import Field, model_validator

from .base import Celsius, Key, Label, Money, Part, Share

PortWatts = Annotated[float, Field(gt=0.0, le=2000.0)]
Ports = Annotated[tuple[PortWatts, ...], Field(min_length=1, max_length=8)]
Grams = Annotated[float, Field(ge=0.0, le=50_000.0)]


class AvailableAt(Part):
    """Measured: the share of its charge that a cell gives at a temperature."""

    cell_c: Annotated[float, Field(ge=-60.0, le=70.0)]
    share: Share


class BatteryFamily(Part):
    """Batteries that fit the same cameras."""

    id: Key
    name: Label
    mah: Annotated[float, Field(gt=0.0, le=200_000.0)]
    nominal_v: Annotated[float, Field(gt=0.0, le=60.0)]
    mass_g: Annotated[float, Field(ge=0.0, le=5000.0)] = 30.0
    cost: Money = None
    rate_per_h: Annotated[float, Field(gt=0.0, le=6.0)] | None = Field(
        default=None, description="Charging power over energy, 1/h; none: typical."
    )
    taper_from: Annotated[float, Field(ge=0.5, le=0.95)] | None = Field(
        default=None, description="Charge from which it takes less and less; none: typical."
    )
    cold_k: Annotated[float, Field(ge=0.0, le=2.0)] = Field(
        default=0.0, description="Exponent by which a hard draw costs charge; 0 unless measured."
    )
    available: Annotated[tuple[AvailableAt, ...], Field(max_length=20)] = Field(
        default=(), description="Measured cold curve, warmest first or last; none: typical."
    )

    @model_validator(mode="after")
    def _each_temperature_once(self) -> BatteryFamily:
        if len({point.cell_c for point in self.available}) != len(self.available):
            raise ValueError(f"battery family '{self.id}': a temperature stands twice in available")
        return self


class Battery(Part):
    """One labelled battery and its state."""

    id: Key
    name: Label
    family: Key
    health: Annotated[float, Field(gt=0.0, le=1.2)] = 1.0
    charge: Share = 1.0
    pocket: Key | None = Field(default=None, description="Where it lies when unused; none: bag.")


class Pocket(Part):
    """A place on the person or in the bag, by how warm it keeps what lies in it."""

    id: Key
    name: Label
    warmth: Literal["inside", "outer", "bag"] = "bag"
    kept_c: Celsius | None = Field(
        default=None, description="A temperature of its own, as by a hand warmer; none: by warmth."
    )


class Charger(Part):
    """Bays in which batteries charge; it hangs on one port of a source."""

    id: Key
    name: Label
    families: Annotated[tuple[Key, ...], Field(min_length=1, max_length=20)]
    bays: Annotated[int, Field(ge=1, le=8)] = 1
    in_w: PortWatts = Field(default=10.0, description="The most it takes from its port.")
    bay_w: PortWatts | None = Field(default=None, description="The most one bay takes.")
    together: bool = Field(default=True, description="All bays at once, or in turn by itself.")
    mass_g: Grams = 60.0
    cost: Money = None


class Bank(Part):
    """A power bank."""

    kind: Literal["bank"] = "bank"
    id: Key
    name: Label
    mah: Annotated[float, Field(gt=0.0, le=500_000.0)]
    health: Annotated[float, Field(gt=0.0, le=1.2)] = 1.0
    charge: Share = 1.0
    ports: Ports = (10.0,)
    total_w: PortWatts | None = None
    in_w: PortWatts = 10.0
    reserve_wh: Annotated[float, Field(ge=0.0, le=5000.0)] = Field(
        default=0.0, description="Emergency reserve, never given to cameras."
    )
    stays_on: bool = Field(default=False, description="Does not switch off under low load.")
    pocket: Key | None = None
    mass_g: Grams = 200.0
    cost: Money = None


class Mains(Part):
    """A plug for sockets: works at stops that have one, by the stop's watts and hours."""

    kind: Literal["mains"] = "mains"
    id: Key
    name: Label
    ports: Ports = (20.0,)
    total_w: PortWatts | None = None
    mass_g: Grams = 80.0
    cost: Money = None


class Vehicle(Part):
    """A vehicle's socket, live while it runs."""

    kind: Literal["vehicle"] = "vehicle"
    id: Key
    name: Label
    ports: Ports = (12.0,)
    total_w: PortWatts | None = None
    mass_g: Grams = 0.0
    cost: Money = None


class Dynamo(Part):
    """A generator on a wheel, by speed over the ground."""

    kind: Literal["dynamo"] = "dynamo"
    id: Key
    name: Label
    rated_w: PortWatts = 3.0
    ports: Ports = (10.0,)
    mass_g: Grams = 400.0
    cost: Money = None


class Panel(Part):
    """A solar panel."""

    kind: Literal["panel"] = "panel"
    id: Key
    name: Label
    rated_w: PortWatts = 10.0
    ports: Ports = (10.0,)
    out_at: Literal["stops", "legs", "always"] = "always"
    on_legs: Literal["carried", "laid"] = Field(
        default="carried", description="On a pack, turned and shaded; or laid out to the sun."
    )
    tilt_deg: Annotated[float, Field(ge=0.0, le=90.0)] = 0.0
    azimuth_deg: Annotated[float, Field(ge=0.0, lt=360.0)] = Field(
        default=180.0, description="Where a tilted panel looks, from north over east."
    )
    mass_g: Grams = 300.0
    cost: Money = None


class Module(Part):
    """A store that rides on one camera and feeds it, swapped without stopping it.

    Known by what is printed on it, or by how long its camera lasts with it.
    """

    kind: Literal["module"] = "module"
    id: Key
    name: Label
    fits: Key = Field(description="The camera that it rides on.")
    mah: Annotated[float, Field(gt=0.0, le=200_000.0)] | None = None
    lasts_min: Annotated[float, Field(gt=0.0, le=10_000.0)] | None = Field(
        default=None, description="How long its camera lasts with it, both full, first mode."
    )
    health: Annotated[float, Field(gt=0.0, le=1.2)] = 1.0
    charge: Share = 1.0
    out_w: PortWatts = Field(default=10.0, description="The most it gives its camera.")
    in_w: PortWatts = 10.0
    mass_g: Grams = 60.0
    cost: Money = None

    @model_validator(mode="after")
    def _known_by_one(self) -> Module:
        if (self.mah is None) == (self.lasts_min is None):
            raise ValueError(f"module '{self.id}': say either mah or lasts_min")
        return self

    @property
    def ports(self) -> tuple[float, ...]:
        """Its one port, to its camera [W]."""
        return (self.out_w,)

    @property
    def total_w(self) -> float:
        """The same [W]."""
        return self.out_w

    @property
    def stays_on(self) -> bool:
        """It does not switch itself off."""
        return True

    @property
    def reserve_wh(self) -> float:
        """Nothing is kept back in it [W h]."""
        return 0.0


Source = Annotated[Bank | Mains | Vehicle | Dynamo | Panel | Module, Field(discriminator="kind")]

GearKind = Literal["microphone", "recorder", "stabiliser", "phone", "flying_camera", "other"]


class Gear(Part):
    """Something with a battery that is no camera, and what it serves.

    It is used while its camera is asked, and on the legs and stops that the plan names for it.
    """

    id: Key
    name: Label
    kind: GearKind = "microphone"
    wh: Annotated[float, Field(gt=0.0, le=2000.0)]
    use_w: Annotated[float, Field(gt=0.0, le=500.0)] = Field(description="What it draws in use.")
    in_w: PortWatts = Field(default=5.0, description="What it takes from a port.")
    charge: Share = 1.0
    serves: Key | None = Field(default=None, description="A camera; none: legs and stops alone.")
    pocket: Key | None = Field(default=None, description="Where it is; none: in the open air.")
    mass_g: Grams = 60.0
    cost: Money = None


class OtherLoad(Part):
    """What drinks from the same bank before any camera does."""

    id: Key
    name: Label
    wh_per_day: Annotated[float, Field(ge=0.0, le=2000.0)]
    bank: Key | None = Field(default=None, description="None: the first bank of the kit.")
