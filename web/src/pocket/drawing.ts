export type Child = Node | string | null;

/** An element with its attributes and children; text stays text. */
export function h(
  tag: string,
  attributes: Record<string, string>,
  ...children: Child[]
): HTMLElement {
  const made = document.createElement(tag);
  for (const [name, value] of Object.entries(attributes)) made.setAttribute(name, value);
  made.append(...children.filter((one): one is Node | string => one !== null));
  return made;
}

export function button(
  text: string,
  run: () => void,
  attributes: Record<string, string> = {},
): HTMLElement {
  const made = h("button", { type: "button", ...attributes }, text);
  made.addEventListener("click", run);
  return made;
}

/** "2027-06-01 18:30 UTC" */
export function minuteText(moment: string): string {
  return `${moment.slice(0, 16).replace("T", " ")} UTC`;
}
