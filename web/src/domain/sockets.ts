import type { Kit } from "./types";

/** What a socket at a stop charges of what is carried, and what is missing, in a sentence or two. */
export function socketText(kit: Kit): string {
  const plugs = kit.sources.filter((one) => one.kind === "mains").map((one) => one.name);
  if (plugs.length === 0)
    return "Nothing charges here: no plug for sockets is carried. Add one on the kit shelf.";
  const charges = [
    ...kit.families.flatMap((family) =>
      waysIn(kit, family.id).map((way) => `${family.name} ${way}`),
    ),
    ...kit.sources.flatMap((one) => (one.kind === "bank" ? [one.name] : [])),
    ...kit.gear.map((one) => one.name),
  ];
  const without = kit.families
    .filter((family) => isCarried(kit, family.id) && waysIn(kit, family.id).length === 0)
    .map((family) => `No charger fits ${family.name}, and no camera charges it.`);
  const what = charges.length === 0 ? "nothing that is carried" : charges.join(", ");
  return [`By ${plugs.join(" or ")} it charges ${what}.`, ...without].join(" ");
}

/** Where batteries of a family charge: in chargers that take it, and inside cameras with a port. */
function waysIn(kit: Kit, family: string): string[] {
  if (!isCarried(kit, family)) return [];
  const chargers = kit.chargers.filter((one) => one.families.includes(family));
  const cameras = kit.cameras.filter(
    (one) => one.battery_family === family && one.charges_in_w != null,
  );
  return [...chargers, ...cameras].map((one) => `in ${one.name}`);
}

function isCarried(kit: Kit, family: string): boolean {
  return kit.batteries.some((one) => one.family === family);
}
