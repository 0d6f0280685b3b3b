import { csrfToken, Refused, type Schemas, Unreachable } from "./client";

type Line = Schemas["CureLine"];

/** Cures of a gap or finding as they are found, one after the other; stops when aborted. */
export async function streamCures(
  asked: Schemas["CuresAsked"],
  onLine: (line: Line) => void,
  signal: AbortSignal,
): Promise<void> {
  const response = await fetch("/api/cures", {
    method: "POST",
    headers: { "Content-Type": "application/json", "X-CSRFToken": csrfToken() },
    body: JSON.stringify(asked),
    signal,
  }).catch((problem: unknown) => {
    if (signal.aborted) throw problem;
    throw new Unreachable();
  });
  if (!response.ok) throw new Refused((await response.json()) as Schemas["ProblemOut"]);
  const reader = response.body?.pipeThrough(new TextDecoderStream()).getReader();
  let rest = "";
  for (;;) {
    const part = await reader?.read();
    if (part === undefined || part.done) break;
    const lines = (rest + part.value).split("\n");
    rest = lines.pop() ?? "";
    for (const line of lines) if (line !== "") onLine(JSON.parse(line) as Line);
  }
}
