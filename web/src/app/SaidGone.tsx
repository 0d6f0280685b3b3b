import { Button } from "@mui/material";
import { rowsText } from "../domain/gone";
import { Said } from "../ui/Said";
import type { Gone } from "./gone";

interface Props {
  gone: Gone | null;
  undo: () => void;
  onClose: () => void;
}

/** What was deleted, what went with it and out of which trips, and the way back. */
export function SaidGone({ gone, undo, onClose }: Props) {
  if (gone === null) return null;
  const isBack = gone.back.length > 0;
  return (
    <Said
      kind="note"
      onClose={onClose}
      doing={isBack ? undefined : <Button onClick={undo}>Bring it back</Button>}
    >
      {goneText(gone)}
    </Said>
  );
}

function goneText({ what, more, went, back }: Gone): string {
  const words = what === null ? [] : [`${what} is deleted.`];
  if (went.length > 0) words.push(`With it went ${rowsText(went)}.`);
  if (back.length > 0) words.push(`With it came back ${rowsText(back)}.`);
  if (more !== undefined) words.push(more);
  return words.join(" ");
}
