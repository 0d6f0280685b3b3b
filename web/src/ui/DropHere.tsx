import type { ReactNode } from "react";
import { useDrop } from "./useDrop";

interface Props {
  onDrop: (dropped: DataTransfer) => void;
  children: ReactNode;
}

/** A field that takes what is dropped on it; what it holds offers the same by a button. */
export function DropHere({ onDrop, children }: Props) {
  const { over, handlers } = useDrop(onDrop);
  return (
    <div className={over ? "drop-here over" : "drop-here"} {...handlers}>
      {children}
    </div>
  );
}
