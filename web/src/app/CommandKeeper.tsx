import { Button } from "@mui/material";
import { type ReactNode, useCallback, useEffect, useMemo, useState } from "react";
import { CheckIn, Field } from "../ui/fields";
import { LaterDialog } from "../ui/LaterDialog";
import { type Command, isLetter, leavesText, matches, RegisterContext } from "./commands";

const LETTERS_KEY = "tumbrel.letters";

/** Holds the commands of the open place, runs their keys and lists them on "?". */
export function CommandKeeper({ children }: { children: ReactNode }) {
  const [owned, setOwned] = useState<ReadonlyMap<string, readonly Command[]>>(new Map());
  const [open, setOpen] = useState(false);
  const [lettersOn, setLetters] = useState(localStorage.getItem(LETTERS_KEY) !== "off");
  const register = useCallback((owner: string, commands: readonly Command[]) => {
    setOwned((old) => new Map(old).set(owner, commands));
    return () =>
      setOwned((old) => {
        const next = new Map(old);
        next.delete(owner);
        return next;
      });
  }, []);
  const help = useMemo<Command>(
    () => ({
      name: "List every command",
      keys: "?",
      allowed: true,
      run: () => setOpen(true),
    }),
    [],
  );
  const commands = useMemo(() => [...[...owned.values()].flat(), help], [owned, help]);

  useEffect(() => {
    const onKey = (event: KeyboardEvent) => {
      const target = event.target instanceof HTMLElement ? event.target : null;
      const typing =
        target?.matches("input:not([type=range]), textarea, select, [contenteditable]") ?? false;
      const within = (selector: string) => (target?.closest(selector) ?? null) !== null;
      const found = commands.find((one) => one.allowed && matches(event, one.keys));
      if (found === undefined) return;
      const heard = within("[data-board]") || found.anywhere === true;
      if (isLetter(found.keys) && !(lettersOn && heard && !within("[aria-modal=true]"))) return;
      if (typing && (isLetter(found.keys) || found.keys === "?")) return;
      const isText = target?.matches("textarea, input[type=text], input:not([type])") === true;
      if (isText && !leavesText(event, found.keys)) return;
      event.preventDefault();
      if (typing) target?.blur(); // what is typed is kept before the command goes elsewhere
      found.run();
    };
    window.addEventListener("keydown", onKey);
    return () => window.removeEventListener("keydown", onKey);
  }, [commands, lettersOn]);

  const toggleLetters = (on: boolean) => {
    localStorage.setItem(LETTERS_KEY, on ? "on" : "off");
    setLetters(on);
  };
  return (
    <RegisterContext value={register}>
      {children}
      <CommandList
        open={open}
        commands={commands}
        lettersOn={lettersOn}
        onLetters={toggleLetters}
        onClose={() => setOpen(false)}
      />
    </RegisterContext>
  );
}

interface ListProps {
  open: boolean;
  commands: readonly Command[];
  lettersOn: boolean;
  onLetters: (on: boolean) => void;
  onClose: () => void;
}

function CommandList({ open, commands, lettersOn, onLetters, onClose }: ListProps) {
  const [wanted, setWanted] = useState("");
  const found = commands.filter((one) => one.name.toLowerCase().includes(wanted.toLowerCase()));
  return (
    <LaterDialog
      open={open}
      onClose={onClose}
      aria-labelledby="commands-title"
      fullWidth
      maxWidth="sm"
    >
      <div className="sheet">
        <h2 id="commands-title">Every command</h2>
        <Field label="Find by name" wide>
          <input
            aria-label="Find by name"
            value={wanted}
            onChange={(event) => setWanted(event.target.value)}
            autoFocus
          />
        </Field>
        <ul className="commands">
          {found.map((one) => (
            <li key={one.name}>
              <button
                type="button"
                className="plain"
                disabled={!one.allowed}
                onClick={() => {
                  onClose();
                  one.run();
                }}
              >
                {one.name}
              </button>
              <kbd className="label">{one.keys}</kbd>
            </li>
          ))}
        </ul>
        <p>
          <CheckIn
            label="Single letters work on the board"
            value={lettersOn}
            onCommit={onLetters}
          />
        </p>
        <Button onClick={onClose}>Close</Button>
      </div>
    </LaterDialog>
  );
}
