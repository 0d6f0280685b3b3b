/** What can be told as the place where something was: named parts, lists and their lines. */
const PARTS =
  "[role], [aria-label], section, main, form, fieldset, li, details, aside, nav, dialog";

/**
 * Keep the focus where the act was: when what had it goes from the page (a button that did its
 * work), the nearest part around it that stays takes it, and Tab goes on from there. Without this
 * it falls to the page's start. Gives back how to end it.
 */
export function keepFocus(): () => void {
  let path: Element[] = [];
  const onFocus = ({ target }: FocusEvent) => {
    path = [];
    for (let at = target instanceof Element ? target : null; at !== null; at = at.parentElement)
      path.push(at);
  };
  // whoever left it, by a click beside everything, has it nowhere: what goes later is not theirs;
  // a button that is out of use while it works has not been left
  const onLeft = () =>
    setTimeout(() => {
      const [last] = path;
      const isThere = last?.isConnected === true && !last.matches(":disabled");
      if (isThere && document.activeElement === document.body) path = [];
    });
  const isLost = () => path[0]?.isConnected === false && document.activeElement === document.body;
  const mend = () => {
    if (!isLost()) return;
    // a dialog that closes, or whoever acted, may put it somewhere better by then
    requestAnimationFrame(() => {
      if (isLost()) focusOn(path.find((one) => one.isConnected && one.matches(PARTS)));
    });
  };
  const watcher = new MutationObserver(mend);
  watcher.observe(document.body, { childList: true, subtree: true });
  addEventListener("focusin", onFocus);
  addEventListener("focusout", onLeft);
  return () => {
    watcher.disconnect();
    removeEventListener("focusin", onFocus);
    removeEventListener("focusout", onLeft);
  };
}

/** Focus on a part of the page, or on the open place itself: Tab goes on from its start. */
export function focusOn(around?: Element): void {
  const part = around ?? document.querySelector("main");
  if (!(part instanceof HTMLElement)) return;
  if (part.tabIndex < 0 && !part.hasAttribute("tabindex")) part.tabIndex = -1;
  part.focus({ preventScroll: true });
}
