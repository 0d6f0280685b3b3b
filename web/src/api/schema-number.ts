import type { Schemas } from "./client";

/** The number of the documents' schema; a type error here says that the server has gone on. */
export const SCHEMA: Schemas["PlanDocument"]["tumbrel"] = 5;
