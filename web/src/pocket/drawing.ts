import morphdom from "morphdom";

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
  made.onclick = run;
  return made;
}

/**
 * Makes an element hold these children and changes only what differs: a finger that is down on a
 * button, the focus and what is being typed stay. What has another `data-key` is another thing and
 * is never made out of what stood there, so that a press cannot end on something else.
 */
export function drawInto(root: HTMLElement, children: readonly Node[]): void {
  const wanted = root.cloneNode(false) as HTMLElement;
  wanted.append(...children);
  morphdom(root, wanted, {
    childrenOnly: true,
    getNodeKey: (node) => (node instanceof HTMLElement ? node.dataset["key"] : undefined),
    onBeforeElUpdated: (from, to) => {
      from.onclick = to.onclick;
      from.onkeydown = to.onkeydown;
      from.oninput = to.oninput;
      return !(from instanceof HTMLInputElement);
    },
  });
}

/** "2027-06-01 18:30 UTC" */
export function minuteText(moment: string): string {
  return `${moment.slice(0, 16).replace("T", " ")} UTC`;
}
