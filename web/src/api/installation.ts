/** Which Tumbrel this page belongs to, and which tab it is in. */

const TAB_KEY = "tumbrel.tab";

/** The installation's name, written into the page by the server. */
export function installation(): string {
  const meta = document.querySelector<HTMLMetaElement>("meta[name=tumbrel-installation]");
  return meta?.content ?? "";
}

const lockOf = (tab: string) => `tumbrel.tab.${tab}`;

/** How long the page that a reload replaces may go on holding its tab's name. */
const LEAVING_MS = 3_000;

let mine = "";
/** The name that this tab had before, when something else held it. */
let formerly: string | null = null;

/** The name of this tab, once it is claimed. */
export function thisTab(): string {
  if (mine === "") named(sessionStorage.getItem(TAB_KEY) ?? crypto.randomUUID());
  return mine;
}

function named(name: string): void {
  mine = name;
  try {
    sessionStorage.setItem(TAB_KEY, name);
  } catch {
    // no room: the name then lasts as long as this page
  }
}

function locks(): LockManager | null {
  return "locks" in navigator ? navigator.locks : null;
}

/**
 * Hold this tab's name as long as it lives; a duplicated tab takes another one, and so does a page
 * whose forerunner in the same tab has not let go yet.
 */
export async function claimTab(): Promise<void> {
  const manager = locks();
  if (manager === null) return;
  const claimed = await held(manager, lockOf(thisTab()));
  if (claimed) return;
  formerly = thisTab();
  named(crypto.randomUUID());
  await held(manager, lockOf(mine));
}

/** Take a lock for good, if it is free. */
function held(manager: LockManager, name: string): Promise<boolean> {
  return new Promise((tell) => {
    void manager.request(name, { ifAvailable: true }, (lock) => {
      tell(lock !== null);
      return lock === null ? undefined : new Promise(() => undefined);
    });
  });
}

/** Tabs that are open now. */
export async function liveTabs(): Promise<ReadonlySet<string>> {
  const manager = locks();
  if (manager === null) return new Set([thisTab()]);
  if (formerly !== null) await gone(manager, lockOf(formerly));
  const { held: taken = [] } = await manager.query();
  return new Set([thisTab(), ...taken.map(({ name = "" }) => name.replace("tumbrel.tab.", ""))]);
}

/** Resolves when nothing holds a lock any more, or after a while. */
async function gone(manager: LockManager, name: string): Promise<void> {
  const signal = AbortSignal.timeout(LEAVING_MS);
  await manager.request(name, { mode: "shared", signal }, () => undefined).catch(() => undefined);
}

/** Do something that no other tab does at the same time. */
export async function alone(what: string, work: () => void | Promise<void>): Promise<void> {
  const manager = locks();
  if (manager === null) await work();
  else await manager.request(`tumbrel.${installation()}.${what}`, () => work());
}
