import { type ReactNode, useState } from "react";

interface Props {
  onDrop: (dropped: DataTransfer) => void;
  children: ReactNode;
}

/** A field that takes what is dropped on it; what it holds offers the same by a button. */
export function DropHere({ onDrop, children }: Props) {
  const [over, setOver] = useState(false);
  return (
    <div
      className={over ? "drop-here over" : "drop-here"}
      onDragOver={(event) => {
        event.preventDefault();
        setOver(true);
      }}
      onDragLeave={() => setOver(false)}
      onDrop={(event) => {
        event.preventDefault();
        setOver(false);
        onDrop(event.dataTransfer);
      }}
    >
      {children}
    </div>
  );
}
