/** Which Tumbrel this page belongs to, and which tab it is in. */

const TAB_KEY = "tumbrel.tab";

/** The installation's name, written into the page by the server. */
export function installation(): string {
  const meta = document.querySelector<HTMLMetaElement>("meta[name=tumbrel-installation]");
  return meta?.content ?? "";
}

const lockOf = (tab: string) => `tumbrel.tab.${tab}`;

let mine = "";

/** The name of this tab, once it is claimed. */
export function thisTab(): string {
  if (mine === "") mine = sessionStorage.getItem(TAB_KEY) ?? crypto.randomUUID();
  sessionStorage.setItem(TAB_KEY, mine);
  return mine;
}

function locks(): LockManager | null {
  return "locks" in navigator ? navigator.locks : null;
}

/** Hold this tab's name as long as it lives; a duplicated tab takes another one. */
export async function claimTab(): Promise<void> {
  const manager = locks();
  if (manager === null) return;
  const claimed = await held(manager, lockOf(thisTab()));
  if (claimed) return;
  mine = crypto.randomUUID();
  sessionStorage.setItem(TAB_KEY, mine);
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
  const { held: taken = [] } = await manager.query();
  return new Set([thisTab(), ...taken.map(({ name = "" }) => name.replace("tumbrel.tab.", ""))]);
}

/** Do something that no other tab does at the same time. */
export async function alone(what: string, work: () => void | Promise<void>): Promise<void> {
  const manager = locks();
  if (manager === null) await work();
  else await manager.request(`tumbrel.${installation()}.${what}`, () => work());
}
