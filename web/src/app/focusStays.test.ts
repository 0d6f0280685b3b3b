// @vitest-environment jsdom
import { afterEach, beforeEach, expect, it } from "vitest";
import { keepFocus } from "./focusStays";

let end: () => void;
beforeEach(() => {
  document.body.innerHTML = `
    <main>
      <section aria-label="cures"><div><button id="keep">Keep</button></div></section>
      <button id="other">Other</button>
    </main>`;
  end = keepFocus();
});
afterEach(() => end());

const at = (id: string) => document.getElementById(id) as HTMLElement;
const settled = () => new Promise((done) => setTimeout(done, 60));

it("goes to the nearest part around what went, and Tab goes on from there", async () => {
  at("keep").focus();
  at("keep").parentElement?.remove();
  await settled();
  expect(document.activeElement?.getAttribute("aria-label")).toBe("cures");
  expect((document.activeElement as HTMLElement).tabIndex).toBe(-1);
});

it("goes to the place where all around it went, as soon as there is one", async () => {
  at("keep").focus();
  document.body.innerHTML = "<p>Opening…</p>";
  await settled();
  expect(document.activeElement).toBe(document.body);
  document.body.innerHTML = "<main>the board</main>";
  await settled();
  expect(document.activeElement?.textContent).toBe("the board");
});

it("stays where somebody put it meanwhile, and where nothing had it", async () => {
  at("keep").focus();
  at("keep").remove();
  at("other").focus();
  await settled();
  expect(document.activeElement).toBe(at("other"));
  at("other").blur();
  await settled();
  at("other").remove();
  document.querySelector("section")?.remove();
  await settled();
  expect(document.activeElement).toBe(document.body);
});

it("goes on from a button that was out of use while it worked", async () => {
  const keep = at("keep") as HTMLButtonElement;
  keep.focus();
  keep.disabled = true;
  keep.blur(); // as browsers do by themselves
  await settled();
  keep.remove();
  await settled();
  expect(document.activeElement?.getAttribute("aria-label")).toBe("cures");
});
