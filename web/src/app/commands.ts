import { createContext, useContext, useEffect } from "react";

/** One record a command: button, shortcut and list agree. */
export interface Command {
  name: string;
  keys: string;
  allowed: boolean;
  /** A single letter that looks and changes nothing: the board need not have the focus. */
  anywhere?: boolean;
  run: () => void;
}

/** Takes a place's commands and gives back how to withdraw them. */
export type Register = (owner: string, commands: readonly Command[]) => () => void;

/** Holds only the stable `register`, so that offering commands never draws a place again. */
export const RegisterContext = createContext<Register>(() => () => undefined);

/** Offer a place's commands while it is open. */
export function useCommands(owner: string, commands: readonly Command[]): void {
  const register = useContext(RegisterContext);
  useEffect(() => register(owner, commands), [owner, commands, register]);
}

/** Whether a key event is the keys of a command, like "Ctrl+Z", "N" or "?". */
export function matches(event: KeyboardEvent, keys: string): boolean {
  const parts = keys.split("+");
  const key = parts.at(-1) ?? "";
  const ctrl = parts.includes("Ctrl");
  if ((event.ctrlKey || event.metaKey) !== ctrl) return false;
  if (event.altKey !== parts.includes("Alt")) return false;
  if (key !== "?" && event.shiftKey !== parts.includes("Shift")) return false;
  return event.key.toLowerCase() === key.toLowerCase();
}

export function isLetter(keys: string): boolean {
  return keys.length === 1 && keys !== "?";
}

/** Whether keys mean the command, not the text that is being typed: AltGr types, Ctrl+Alt does not. */
export function leavesText(event: KeyboardEvent, keys: string): boolean {
  if (/^Ctrl\+(Shift\+)?Enter$/.test(keys)) return !(event.target instanceof HTMLTextAreaElement);
  return keys.startsWith("Ctrl+Alt+") && !event.getModifierState("AltGraph");
}
