import type { DialogProps } from "@mui/material";
import { lazy, Suspense, useState } from "react";
import { loadDialog } from "./loadDialog";

const Drawn = lazy(loadDialog);

/** A dialog that is loaded when it is first opened, or before that while nothing is to be done. */
export function LaterDialog(props: DialogProps) {
  const [opened, setOpened] = useState(props.open);
  if (props.open && !opened) setOpened(true);
  if (!opened) return null;
  return (
    <Suspense fallback={null}>
      <Drawn {...props} />
    </Suspense>
  );
}
