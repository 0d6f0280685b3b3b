// Least, most and default of every field, and what is assumed where nothing is typed, as the core
// has them: from its descriptions into src/domain, as the types that are made from the same.
import { readFileSync, writeFileSync } from "node:fs";
import { URL } from "node:url";

const read = (name) =>
  JSON.parse(readFileSync(new URL(`../../docs/formats/${name}`, import.meta.url), "utf-8"));
const { schemas } = read("openapi.json").components;

/** What a field allows; of "this or nothing", what the first allows. */
function limitsOf(field) {
  const [one] = (field.anyOf ?? [field]).filter((each) => each.type !== "null");
  const found = {};
  if (one?.minimum !== undefined) found.min = one.minimum;
  if (one?.exclusiveMinimum !== undefined) found.above = one.exclusiveMinimum;
  if (one?.maximum !== undefined) found.max = one.maximum;
  if (one?.maxLength !== undefined) found.longest = one.maxLength;
  const given = field.default ?? one?.default;
  if (["number", "string", "boolean"].includes(typeof given)) found.default = given;
  return found;
}

const lines = Object.entries(schemas)
  .filter(([, schema]) => schema.properties)
  .map(([name, schema]) => {
    const fields = Object.entries(schema.properties)
      .map(([field, described]) => [field, limitsOf(described)])
      .filter(([, found]) => Object.keys(found).length > 0);
    return [name, Object.fromEntries(fields)];
  })
  .filter(([, fields]) => Object.keys(fields).length > 0);
const parts = lines.map(
  ([name, fields]) => `export const ${name} = ${JSON.stringify(fields)} as const;\n`,
);
writeFileSync(
  new URL("../src/domain/limits.ts", import.meta.url),
  `// Made by scripts/limits.mjs from the API's description.\n${parts.join("")}`,
);

const assumed = Object.entries(read("parameters.json")).map(
  ([name, { value }]) => `export const ${name} = ${JSON.stringify(value)};\n`,
);
writeFileSync(
  new URL("../src/domain/assumed.ts", import.meta.url),
  `// Made by scripts/limits.mjs from the core's parameters.\n${assumed.join("")}`,
);
