import { readdirSync, readFileSync, statSync } from "node:fs";
import { join, relative, resolve } from "node:path";
import { describe, expect, it } from "vitest";

const SRC = "src";
const ALARM_LINES = 400;

function files(folder: string): string[] {
  return readdirSync(folder).flatMap((name) => {
    const path = join(folder, name);
    if (statSync(path).isDirectory()) return files(path);
    return /\.tsx?$/.test(name) && !/\.test\.tsx?$/.test(name) && name !== "schema.d.ts"
      ? [path]
      : [];
  });
}

/** What a module imports: packages by name, own modules as paths from src. */
function imports(path: string): string[] {
  const found = [...readFileSync(path, "utf-8").matchAll(/(?:from|import) "([^"]+)"/g)].map(
    (match) => match[1] ?? "",
  );
  return found.map((name) =>
    name.startsWith(".") ? relative(SRC, resolve(path, "..", name)) : name,
  );
}

const ALL = files(SRC).map((path) => ({ path: relative(SRC, path), names: imports(path) }));
const inside = (folder: string) => ALL.filter(({ path }) => path.startsWith(`${folder}/`));

describe("import rules", () => {
  it.each(["domain", "scale"])("%s knows no React, no controls and no server", (folder) => {
    for (const { path, names } of inside(folder))
      for (const name of names) {
        expect(name, path).not.toMatch(/^(react|@mui|@tanstack|openapi-fetch)/);
        expect(name, path).not.toMatch(/^(api\/(?!schema)|app|board|features|ui)/);
      }
  });
  it("the board draws from what it is given and never fetches", () => {
    for (const { path, names } of inside("board"))
      for (const name of names)
        expect(name, path).not.toMatch(/^(@tanstack|openapi-fetch|api|app|features|ui)/);
  });
  it("the controls know no feature and no server", () => {
    for (const { path, names } of inside("ui"))
      for (const name of names)
        expect(name, path).not.toMatch(/^(@tanstack|openapi-fetch|api|app|features)/);
  });
  it("a feature never reaches into another's files", () => {
    for (const { path, names } of inside("features")) {
      const own = path.split("/").slice(0, 2).join("/");
      for (const name of names)
        if (name.startsWith("features/"))
          expect(name.startsWith(`${own}/`), `${path}: ${name}`).toBe(true);
    }
  });
  it("only the app puts features together", () => {
    for (const { path, names } of ALL)
      if (!path.startsWith("features/") && path !== "app/App.tsx")
        for (const name of names) expect(name, path).not.toMatch(/^features\//);
  });
  it("only the api talks to the server", () => {
    for (const { path, names } of ALL) {
      if (path.startsWith("api/")) continue;
      expect(names, path).not.toContain("openapi-fetch");
      expect(readFileSync(join(SRC, path), "utf-8"), path).not.toMatch(/\bfetch\(/);
    }
  });
});

it("nothing is loaded from elsewhere", () => {
  for (const { path } of ALL)
    expect(readFileSync(join(SRC, path), "utf-8"), path).not.toMatch(/https?:\/\//);
});

it("no module grows past its alarm", () => {
  for (const { path } of ALL)
    expect(readFileSync(join(SRC, path), "utf-8").split("\n").length, path).toBeLessThanOrEqual(
      ALARM_LINES,
    );
});
