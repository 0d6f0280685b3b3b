import { type DragEvent, useState } from "react";

interface Drop {
  /** Something is held over it. */
  over: boolean;
  handlers: {
    onDragOver: (event: DragEvent) => void;
    onDragLeave: () => void;
    onDrop: (event: DragEvent) => void;
  };
}

/** An element on which files and the like may be dropped. */
export function useDrop(onDrop: (dropped: DataTransfer) => void): Drop {
  const [over, setOver] = useState(false);
  return {
    over,
    handlers: {
      onDragOver: (event) => {
        event.preventDefault();
        setOver(true);
      },
      onDragLeave: () => setOver(false),
      onDrop: (event) => {
        event.preventDefault();
        setOver(false);
        onDrop(event.dataTransfer);
      },
    },
  };
}
