import { useMemo } from "react";
import type {
  Air,
  BenchRun,
  BenchTold,
  Camera,
  Clip,
  ClipsTold,
  Look,
  MeterRead,
  Notebook,
  NotebookState,
  OnBench,
  Plan,
  Reading,
  Trip,
} from "../domain/types";
import { client, type Schemas, unwrap } from "./client";
import { type Kept, type KeptSource, useKept } from "./kept";

export type KeptBench = Kept<NotebookState, Notebook>;

export function useKeptBench(kitId: number): KeptBench {
  return useKept(useMemo(() => benchSource(kitId), [kitId]));
}

function benchSource(kitId: number): KeptSource<NotebookState, Notebook> {
  const params = { path: { kit_id: kitId } };
  return {
    key: ["bench", kitId],
    load: () => unwrap(client.GET("/api/kits/{kit_id}/bench", { params })),
    save: (version, notebook) =>
      unwrap(client.PUT("/api/kits/{kit_id}/bench", { params, body: { version, notebook } })),
    step: (version, by) =>
      by < 0
        ? unwrap(client.POST("/api/kits/{kit_id}/bench/undo", { params, body: { version } }))
        : unwrap(client.POST("/api/kits/{kit_id}/bench/redo", { params, body: { version } })),
    docOf: ({ notebook }) => notebook,
    withDoc: (state, notebook) => ({ ...state, notebook }),
  };
}

export function tellBench(on: OnBench, trip: Trip | null, plan: Plan | null): Promise<BenchTold> {
  return unwrap(client.POST("/api/bench/learned", { body: { ...on, trip, plan } }));
}

export function lookAt(on: OnBench, air: Air): Promise<Look> {
  const { mode, set_up, features, ambient_c, air_mps, plugged } = air;
  const only = { mode, set_up, features, ambient_c, air_mps, plugged };
  return unwrap(client.POST("/api/bench/look", { body: { ...on, air: only } }));
}

/** Runs of a pasted table or CSV file; keeps nothing. */
export async function readRuns(kitId: number, text: string, camera: string): Promise<BenchRun[]> {
  const params = { path: { kit_id: kitId } };
  const body = { text, camera };
  return (await unwrap(client.POST("/api/kits/{kit_id}/bench/table", { params, body }))).runs;
}

export function readMeter(text: string): Promise<MeterRead> {
  return unwrap(client.POST("/api/bench/meter-log", { body: { text } }));
}

export function tellClips(
  camera: Camera,
  clips: Clip[],
  skipped: Schemas["SkippedFile"][],
): Promise<ClipsTold> {
  return unwrap(client.POST("/api/bench/clips", { body: { camera, clips, skipped } }));
}

export function effectsOf(kitId: number, camera: string): Promise<Schemas["Effects"]> {
  const params = { path: { kit_id: kitId } };
  return unwrap(client.POST("/api/kits/{kit_id}/bench/effects", { params, body: { camera } }));
}

export function takeFigures(
  kitId: number,
  asked: Schemas["TakeAsked"],
): Promise<Schemas["TakenState"]> {
  const params = { path: { kit_id: kitId } };
  return unwrap(client.POST("/api/kits/{kit_id}/bench/take", { params, body: asked }));
}

export function putBackFigures(
  kitId: number,
  asked: Schemas["TakeAsked"],
): Promise<Schemas["TakenState"]> {
  const params = { path: { kit_id: kitId } };
  return unwrap(client.POST("/api/kits/{kit_id}/bench/put-back", { params, body: asked }));
}

export function readDevice(kitId: number, testId: string): Promise<Reading> {
  const params = { path: { kit_id: kitId, test_id: testId } };
  return unwrap(client.GET("/api/kits/{kit_id}/bench/tests/{test_id}/reading", { params }));
}
