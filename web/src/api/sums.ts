import { client, type Schemas, unwrap } from "./client";

export type Question = Schemas["SumAsked"]["question"];
export type SumTold = Schemas["SumTold"];

/** One question answered by the core's own functions; keeps nothing. */
export function tellSum(question: Question): Promise<SumTold> {
  return unwrap(client.POST("/api/sums", { body: { question } }));
}
