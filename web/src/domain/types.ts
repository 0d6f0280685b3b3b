import type { components } from "../api/schema";

type Schemas = components["schemas"];

export type Kit = Schemas["Kit"];
export type Camera = Schemas["Camera"];
export type Mode = Schemas["Mode"];
export type SetUp = Schemas["SetUp"];
export type Battery = Schemas["Battery"];
export type BatteryFamily = Schemas["BatteryFamily"];
export type Card = Schemas["Card"];
export type Trip = Schemas["Trip"];
export type Leg = Schemas["Leg"];
export type Stop = Schemas["Stop"];
export type Item = Leg | Stop;
export type Plan = Schemas["Plan"];
export type Assignment = Schemas["Assignment"];
export type CameraPlan = Schemas["CameraPlan"];
export type Pattern = Assignment["pattern"];
export type Importance = Assignment["importance"];
export type FeatureName = Assignment["features"][number];
export type PlanDocument = Schemas["PlanDocument"];
export type TripState = Schemas["TripState"];
export type KitState = Schemas["KitState"];
export type Rehearsal = Schemas["Rehearsal"];
export type CameraResult = Schemas["CameraResult"];
export type Course = Schemas["Course"];
export type LaidItem = Schemas["LaidItem"];
export type Move = Schemas["Move"];
export type Loss = Schemas["Loss"];
export type GearTold = Schemas["GearTold"];
export type GearGap = Schemas["GearGap"];
export type Finding = Schemas["Finding"];
export type Pooled = Schemas["Pooled"];
export type Pocket = Schemas["Pocket"];
export type Charger = Schemas["Charger"];
export type Bank = Schemas["Bank"];
export type Source = Kit["sources"][number];
export type Gear = Schemas["Gear"];
export type Module = Schemas["Module"];
export type OtherLoad = Schemas["OtherLoad"];
export type Drive = Schemas["Drive"];
export type TripMoment = Schemas["Moment"];
export type Copy = Schemas["Copy"];
export type SourceTold = Schemas["SourceTold"];
export type FamilyTold = Schemas["FamilyTold"];
export type Shelf = Schemas["Shelf"];
export type MeasuredBeside = Schemas["MeasuredBeside"];
export type Cord = Schemas["Cord"];

export type BenchRun = Schemas["BenchRun"];
export type RunEnd = BenchRun["end"];
export type RunningTest = Schemas["RunningTest"];
export type Notebook = Schemas["Notebook"];
export type NotebookState = Schemas["NotebookState"];
export type BenchTold = Schemas["BenchTold"];
export type RunTold = Schemas["RunTold"];
export type NextRun = Schemas["NextRun"];
export type Look = Schemas["Look"];
export type ModeLook = Schemas["ModeLook"];
export type BodyCurve = Schemas["Curve"];
export type Air = Schemas["Air"];
export type MeterRead = Schemas["MeterRead"];
export type Clip = Schemas["Clip"];
export type ClipsTold = Schemas["ClipsTold"];
export type Reading = Schemas["Reading"];

export type AirTold = Schemas["AirTold"];
export type TrackLaid = Schemas["TrackLaid"];
export type TrackRead = Schemas["TrackRead"];
export type Way = Schemas["Way"];
export type RouteTold = Schemas["RouteTold"];
export type ItemTold = Schemas["ItemTold"];
export type Correction = Schemas["CorrectionAsked"]["correction"];
export type DailyRange = Schemas["DailyRange"];
export type LegServed = Schemas["LegServed"];
export type Served = Schemas["Served"];
export type ServingTold = Schemas["ServingTold"];
export type ServingLine = Schemas["ServingLine"];
export type PictureTold = Schemas["PictureTold"];
export type Serving = Kit["serving"][number];
export type Cure = Schemas["Cure"];
export type CureTarget = Schemas["CureTarget"];
export type CureOutcome = Schemas["Outcome"];
export type VariantLine = Schemas["VariantLine"];
export type VariantCompared = Schemas["VariantCompared"];
export type Ledger = Schemas["Ledger"];
export type StretchTold = Schemas["StretchTold"];
export type Preset = Schemas["Preset"];
export type EditingComputer = Schemas["EditingComputer"];
export type Mount = CameraPlan["mount"];
export type Mounted = Camera["mounts"][number];

/** A camera with everything that its runs say of it. */
export interface OnBench {
  camera: Camera;
  family: BatteryFamily;
  runs: BenchRun[];
  taken: Notebook["taken"][number] | null;
}

export const IMPORTANCES: readonly Importance[] = ["must", "want", "nice"];
export const FEATURES: readonly FeatureName[] = [
  "screen",
  "radio",
  "positioning",
  "microphone",
  "light",
];

export const ANGLES: Record<CameraPlan["angle"], string> = {
  sight: "what I see",
  hands: "my hands",
  face: "my face",
  shoulder: "over my shoulder",
  behind: "behind me",
  ground: "ground as I pass",
  under_water: "under water",
  camp: "camp",
};

export const MOUNTS: Record<Mount, string> = {
  helmet: "helmet or head",
  chest: "chest",
  hand_held: "hand-held stick",
  vehicle: "vehicle, sled or boat",
  tripod: "foot or tripod",
  wing: "wing or boom",
  other: "other",
};

export const CODECS = ["avc", "hevc", "av1", "mjpeg", "raw"] as const;
